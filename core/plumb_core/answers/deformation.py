"""Torsion, drift, and separation of buildings by an edition."""

from __future__ import annotations

from typing import Any

import numpy as np

from plumb_core.answers.common import Answer, _first, _if_known
from plumb_core.derivation import plain
from plumb_core.documents.requests import (
    DriftRequest,
    SeparationRequest,
    TorsionRequest,
    TorsionRow,
)
from plumb_core.errors import InputRefused, MissingInput, Problem, RuleRefused
from plumb_core.facts import declared_torsion, with_declared_facts, with_levels
from plumb_core.inputs import edition_rules, evaluated, inputs_of
from plumb_core.limits import reaches, within
from plumb_core.rules import Evaluation, Key, resolved


def _ends(ends: list[float] | None) -> tuple[float, float] | None:
    return None if ends is None else (max(abs(e) for e in ends), abs(sum(ends)) / 2.0)


def _drifts(row: TorsionRow) -> tuple[float, float] | None:
    """Greatest and average drift of a row, None where it states displacements only."""
    if row.ends is not None:
        return _ends(row.ends)
    return None if row.max is None or row.avg is None else (row.max, row.avg)


def _cases(rows: list[TorsionRow]) -> dict[str, list[int]]:
    """Rows of each case: those of one load case and direction that state the same, in their order."""
    cases: dict[str, list[int]] = {}
    for i, row in enumerate(rows):
        stated = ("drifts" if _drifts(row) else "", "displacements" if row.displacement_ends else "")
        name = " ".join(part for part in (row.case, row.direction, *stated) if part)
        cases.setdefault(name, []).append(i)
    return cases


def _torsion(request: TorsionRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system)
    rules = edition_rules(request.edition, request.site, request.system)
    cases = _cases(request.rows)
    directions = {name: request.rows[entry[0]].direction for name, entry in cases.items()}
    for name, entry in cases.items():
        pairs = {
            "drift": [_drifts(request.rows[i]) for i in entry],
            "displacement": [_ends(request.rows[i].displacement_ends) for i in entry],
        }
        for quantity, ends in pairs.items():
            for k, which in enumerate(("max", "avg")):
                values = [pair[k] for pair in ends if pair is not None]
                if values:
                    inputs[Key(f"{quantity}_{which}", directions[name], name)] = np.array(values)
    evaluation = with_declared_facts(Evaluation(rules, inputs, cases=directions))
    rows: list[dict[str, Any]] = [{} for _ in request.rows]
    classes = {name: _if_known(evaluation, "torsion_class", case=name) for name in cases}
    known = any(c is not None for c in classes.values())
    key, found = Key("torsion_irregular"), None
    if key.name in rules:
        found = bool(evaluation.value(key.name))
    fact = resolved(key, found=found, declared=declared_torsion(request.system.irregularities))
    irregular = fact is not None and bool(fact.value)
    if fact is not None and fact.value != found:
        evaluation = evaluation.with_(facts={key: fact})
    for name, entry in cases.items():
        ratio = _if_known(evaluation, "torsion_ratio", case=name)
        consequences = _if_known(evaluation, "torsion_consequences", case=name)
        amplification = _amplification(evaluation, name, len(entry), irregular, entry[0])
        for k, i in enumerate(entry):
            row = request.rows[i]
            rows[i] = {
                "story": row.story,
                "case": row.case,
                "direction": row.direction,
                "ratio": None if ratio is None else ratio[k],
                "class": None if classes[name] is None else classes[name][k],
                "amplification": amplification[k],
                "consequences": consequences[k] if consequences else [],
            }
    notes = []
    if "A_x_case" in rules and any(r["amplification"] is None for r in rows):
        notes.append(
            "A_x requires displacements of the level, not drifts: give displacement_ends at every story of a "
            "building that is "
            "irregular"
        )
    return {"rows": rows, "irregular": irregular if known else None, "notes": notes}, evaluation


def _amplification(evaluation: Evaluation, case: str, count: int, irregular: bool, row: int) -> list[float | None]:
    """A_x of the rows of a case; 1 in a regular building, None where the displacements that it takes are not stated."""
    if "A_x_case" not in evaluation.rules:
        return [None] * count
    try:
        values: list[float | None] = evaluation.value("A_x_case", case=case).tolist()
    except MissingInput:
        return [None if irregular else 1.0] * count
    except RuleRefused as refused:
        raise InputRefused([Problem(f"/rows/{row}", refused.message, refused.remedy)]) from None
    return values


def _drift(request: DriftRequest) -> Answer:
    d = request.direction
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories, request.period)
    if request.elastic_drift is not None:
        elastic = np.abs(np.array(request.elastic_drift, dtype=float))
    else:
        elastic = np.abs(np.diff(np.array(request.elastic_displacement, dtype=float), prepend=0.0))
    inputs[Key("delta_e", d)] = elastic
    given = {"structure_type": request.structure_type, "T_drift": request.T, "shear_ratio": request.shear_ratio}
    inputs |= {Key(n, None if n == "structure_type" else d): v for n, v in given.items() if v is not None}
    second_order = request.P is not None and request.V is not None
    if second_order:
        inputs |= {Key("P", d): np.array(request.P, dtype=float), Key("V_drift", d): np.array(request.V, dtype=float)}
    if request.second_order is not None:
        inputs[Key("p_delta_included")] = request.second_order == "included"
    if request.drift_at is not None:
        inputs[Key("drift_at")] = request.drift_at
    rules = edition_rules(request.edition, request.site, request.system)
    evaluation = with_levels(with_declared_facts(Evaluation(rules, inputs)), request.levels)
    theta_keys = _first(evaluation.rules, ("theta", "theta_limit"), d) if second_order else []
    targets: list[Key] = [Key("Delta", d), Key("drift_ratio", d), Key("drift_limit", d), *theta_keys]
    steps = evaluated(evaluation, targets, request.stories)
    limit_step = steps[Key("drift_limit", d)]
    limits = _if_known(evaluation, "drift_limits", d) or [float(limit_step.value)] * len(request.stories)
    theta = steps[Key("theta", d)].value if theta_keys else None
    theta_limit = float(steps[Key("theta_limit", d)].value) if theta_keys else None

    def beside(name: str) -> list[Any] | None:
        """Values by story that belong to theta, None where the edition has no such rule."""
        return _if_known(evaluation, name, d) if theta_keys and name in evaluation.rules else None

    amplification, amplified, words = (
        beside("theta_amplification"),
        beside("drift_second_order"),
        beside("second_order"),
    )
    within_limit, stable = _if_known(evaluation, "drift_verdict", d), beside("theta_verdict")
    rows = []
    for i, story in enumerate(request.stories):
        ratio = float(steps[Key("drift_ratio", d)].value[i])
        row = {
            "name": story.name,
            "design_drift": float(steps[Key("Delta", d)].value[i]),
            "ratio": ratio,
            "limit": plain(limits[i]),
            "ok": within(ratio, limits[i]) if within_limit is None else within_limit[i],
            "theta": None,
            "theta_limit": theta_limit,
            "theta_ok": None,
        }
        if theta is not None and theta_limit is not None:
            row["theta"] = float(theta[i])
            row["theta_ok"] = within(float(theta[i]), theta_limit) if stable is None else stable[i]
            row["amplification"] = None if amplification is None else amplification[i]
            row["ratio_second_order"] = ratio if amplified is None else amplified[i]
            row["second_order"] = None if words is None else words[i]
        rows.append(row)
    notes = [*(_if_known(evaluation, "drift_notes", d) or [])]
    if limit_step.governed is not None:
        notes.insert(0, f"limit by {limit_step.governed.governed_by}")
    result: dict[str, Any] = {"stories": rows, "notes": notes}
    if "level_drifts" in evaluation.rules:
        result["levels"] = evaluated(evaluation, [Key("level_drifts", d)])[Key("level_drifts", d)].value
    roof = _if_known(evaluation, "roof_drift_limit", d) if "roof_drift_limit" in evaluation.rules else None
    if roof is not None:
        result["roof"] = {
            "ratio": evaluation.value("roof_drift_ratio", d),
            "limit": roof,
            "ok": evaluation.value("roof_drift_verdict", d),
        }
    return result, evaluation


def _separation(request: SeparationRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories)
    d = request.direction
    inputs[Key("delta_own", d)] = request.displacement
    given = {
        "delta_other": request.other_displacement,
        "same_property": request.same_property,
        "floors_level": request.floors_level,
        "walls_to_base": request.walls_to_base,
    }
    inputs |= {Key(n, d if n == "delta_other" else None): v for n, v in given.items() if v is not None}
    rules = edition_rules(request.edition, request.site, request.system)
    evaluation = with_declared_facts(Evaluation(rules, inputs))
    if "separation" not in evaluation.rules:
        raise InputRefused(
            [
                Problem(
                    "/edition",
                    f"{request.edition} has no rule for the separation of buildings",
                    "Choose another edition.",
                )
            ]
        )
    step = evaluated(evaluation, [Key("separation", d)], request.stories)[Key("separation", d)]
    return {
        "required": step.value,
        "governed_by": step.governed.governed_by if step.governed else None,
        "gap": request.gap,
        "ok": None if request.gap is None else reaches(request.gap, float(step.value)),
    }, evaluation
