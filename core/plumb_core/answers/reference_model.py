"""From a brief and the reference model to the requests that ask it."""

from __future__ import annotations

from typing import Any

from plumb_core.briefs import brief_evaluation
from plumb_core.documents.brief import Brief
from plumb_core.documents.model import ReferenceModel
from plumb_core.errors import InputRefused, Problem


def history_of(case: str) -> str:
    """The kind of the request that runs a case of theirs under its ground record."""
    return f"history {case}"


def story_weights(brief: Brief) -> list[float | None]:
    """Seismic weight of each story, kN, given or from its loads; None where it is not known."""
    weights = brief_evaluation(brief).get("w")
    return [s.weight for s in brief.stories] if weights is None else [float(w) for w in weights]


def _stories(brief: Brief, model: ReferenceModel) -> list[dict[str, Any]]:
    """Stories of the brief with what the model adds to them."""
    entry = {f.name: f.model_dump(exclude_none=True) for f in model.floors}
    rows = []
    for story, weight in zip(brief.stories, story_weights(brief), strict=True):
        row = story.model_dump(mode="json", exclude_none=True, include={"name", "height", "plan", "corners"})
        if weight is not None and weight > 0:
            row["weight"] = weight
        rows.append(row | entry.get(story.name, {}))
    return rows


def model_part(brief: Brief, model: ReferenceModel) -> dict[str, Any]:
    """The model as the requests take it; raises InputRefused where the chosen depth is not there yet."""
    if model.use == "frame":
        if model.frame is None:
            raise InputRefused(
                [Problem("/frame", "there is no frame yet", "Build one by the grid, or paste its tables.")]
            )
        return {
            "stories": _stories(brief, model),
            "frame": model.frame.model_dump(mode="json", exclude_none=True, exclude_defaults=True),
            "p_delta": model.p_delta,
        }
    if not model.lateral_lines:
        raise InputRefused(
            [Problem("/lateral_lines", "there are no lateral lines yet", "Add the walls and frames of each story.")]
        )
    return {
        "stories": _stories(brief, model),
        "lateral_lines": [line.model_dump(mode="json") for line in model.lateral_lines],
        "p_delta": model.p_delta,
    }


def request_to(kind: str, brief: Brief, model: ReferenceModel, part: dict[str, Any] | None = None) -> dict[str, Any]:
    """Return the request of a kind to the model under the brief.

    Kinds are model, modal, response_X, response_Y, static_response, irregularity (the stiffness of the floors in plan),
    and history with the name of a case that the model has a record of.

    part : what `model_part` gives, where it is there already
    """
    part = model_part(brief, model) if part is None else part
    a = model.analysis
    eccentricity = a.eccentricity
    if eccentricity is None:
        stated = brief_evaluation(brief).get("eccentricity")
        eccentricity = 0.05 if stated is None else float(stated)
    how: dict[str, Any] = {"method": a.method}
    if a.modes is not None:
        how["modes"] = a.modes
    elif a.target is not None:
        how["target"] = a.target
    edition = {
        "edition": brief.edition,
        **{
            n: getattr(brief, n).model_dump(mode="json", exclude_none=True, exclude_unset=True)
            for n in ("site", "occupancy", "system")
        },
    }
    if kind == "model":
        return {"kind": "model", **part}
    if kind == "modal":
        nodes = {"shapes": "nodes"} if model.use == "frame" else {}
        return {"kind": "modal", **part, **how, **nodes}
    if kind in ("response_X", "response_Y"):
        return {
            "kind": "response",
            **part,
            **how,
            "spectrum": edition,
            "direction": kind[-1],
            "combine": a.combine,
            "damping": a.damping,
            "residual_mass": a.residual_mass,
            "eccentricity": eccentricity,
            "eccentricity_as": a.eccentricity_as,
        }
    if kind == "static_response":
        return {
            "kind": "static_response",
            **part,
            **edition,
            "eccentricity": eccentricity,
            "period": brief.period.model_dump(mode="json", exclude_none=True),
        }
    record = next((r for r in model.records if kind == history_of(r.case)), None)
    if record is not None:
        ground = record.model_dump(mode="json", exclude_none=True, include={"unit", "dt", "t"})
        return {
            "kind": "time_history",
            **part,
            **how,
            "direction": record.direction,
            "damping": a.damping,
            "record": ground | {"a": [record.factor * value for value in record.a]},
        }
    if kind == "irregularity":
        return {"kind": "irregularity", **part, **edition}
    raise InputRefused(
        [
            Problem(
                "/kind",
                f"the model has no answer of kind {kind!r}",
                "Use model, modal, response_X, response_Y, static_response or irregularity.",
            )
        ]
    )
