"""Problems that only show across the fields of a document, read off the raw document beside those of single fields."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from itertools import pairwise
from typing import Any

from plumb_core.documents.brief import Site
from plumb_core.documents.frame_problems import problems_of_frame
from plumb_core.editions import EDITIONS, Edition
from plumb_core.errors import Problem
from plumb_core.quantities import GEOMETRY


def _one_of(allowed: Iterable[Any]) -> str:
    return f"Use one of: {', '.join(str(a) for a in allowed)}."


_CURVE = ("T", "S_a", "S_d", "read")
"""Keys of a site that make up the input `curve`."""

_SITE_DEFAULTS = {name: field.get_default(call_default_factory=True) for name, field in Site.model_fields.items()} | {
    # a brief may declare what is assumed anyway
    name: [*choice.standing]
    for edition in EDITIONS.values()
    for name, choice in edition.choices.items()
    if choice.sets
}


def _foreign(site: Mapping[str, Any], edition: Edition, prefix: str, in_brief: bool) -> list[Problem]:
    """Site values that the edition does not know: most likely meant for another one.

    Measurements of the ground are entered once in a brief, for all editions.
    """
    known = {*edition.inputs, *edition.declared} | ({*_CURVE} if "curve" in edition.inputs else set())
    if in_brief:
        known |= {*GEOMETRY}
    problems = []
    for name, value in site.items():
        if name in _SITE_DEFAULTS and name not in known and value is not None and value != _SITE_DEFAULTS[name]:
            problems.append(
                Problem(
                    f"{prefix}/site/{name}",
                    f"{name} is not a site value of {edition.id}",
                    f"Exclude it; {edition.id} takes: {', '.join(n for n in Site.model_fields if n in known)}.",
                )
            )
    return problems


def _not_allowed(part: Mapping[str, Any], edition: Edition, prefix: str) -> list[Problem]:
    """Values that the edition's tables do not hold."""
    allowed: dict[str, tuple[Any, ...]] = dict(edition.options)
    if edition.period_types:
        allowed["period_type"] = edition.period_types
    allowed["T_a_formula"] = edition.formulas
    problems = []
    for name, path, value in _leaves(part):
        if name == "lateral_system" and isinstance(value, str) and value not in edition.systems:
            problems.append(
                Problem(f"{prefix}{path}", f"{edition.id} has no lateral system {value!r}", _one_of(edition.systems))
            )
        elif (
            name in allowed
            and isinstance(value, str | int)
            and not isinstance(value, bool)
            and value not in allowed[name]
        ):
            label = "period type" if name == "period_type" else name
            problems.append(
                Problem(f"{prefix}{path}", f"{label} {value!r} is not in {edition.id}", _one_of(allowed[name]))
            )
    return problems


def _corrections(site: Mapping[str, Any], edition: Edition, prefix: str) -> list[Problem]:
    """Sets of corrections to the code of which one builds on another that is not declared."""
    problems = []
    for name, choice in edition.choices.items():
        declared = site.get(name)
        if not choice.sets or not isinstance(declared, list) or not all(isinstance(n, int) for n in declared):
            continue
        if tuple(sorted(set(declared))) not in choice.sets:
            sets = " or ".join(str([*numbers]) for numbers in choice.sets)
            message = f"{declared} is not a set of {name} of {edition.id}: one builds on another"
            problems.append(Problem(f"{prefix}/site/{name}", message, f"Give {sets}."))
    return problems


def _leaves(part: Mapping[str, Any]) -> Iterator[tuple[str, str, Any]]:
    """(name, path, value) of what is in site, occupancy and system."""
    for place in ("site", "occupancy", "system"):
        inner = part.get(place)
        for name, value in inner.items() if isinstance(inner, dict) else ():
            if place == "system" and name in ("X", "Y") and isinstance(value, dict):
                for entry, given in value.items():
                    yield entry, f"/system/{name}/{entry}", given
                    for i, stacked in enumerate(
                        given if entry == "stacked_systems" and isinstance(given, list) else ()
                    ):
                        if isinstance(stacked, dict):
                            yield (
                                "lateral_system",
                                f"/system/{name}/{entry}/{i}/lateral_system",
                                stacked.get("lateral_system"),
                            )
            else:
                yield name, f"/{place}/{name}", value


def _curves(site: Mapping[str, Any], prefix: str) -> list[Problem]:
    """Curves whose periods do not rise or whose columns differ in length."""
    problems = []
    mce = site.get("mce")
    curves = [(f"{prefix}/site/mce", mce.get("T"), mce.get("S_a"))] if isinstance(mce, dict) else []
    if site.get("T") is not None:
        ordinates = [site.get(n) for n in ("S_a", "S_d") if site.get(n) is not None]
        if len(ordinates) != 1:
            problems.append(
                Problem(f"{prefix}/site", "a curve needs either S_a (g) or S_d (m) beside T", "Give one of the two.")
            )
        else:
            curves.append((f"{prefix}/site", site["T"], ordinates[0]))
    study = site.get("site_specific")
    if isinstance(study, dict):
        if (study.get("T") is None) != (study.get("S_a") is None):
            problems.append(
                Problem(f"{prefix}/site/site_specific", "a spectrum needs T and S_a", "Give both, or neither.")
            )
        elif not any(study.get(n) is not None for n in ("T", "S_DS", "S_D1")):
            problems.append(
                Problem(
                    f"{prefix}/site/site_specific", "nothing of the study is given", "Give T and S_a, or S_DS and S_D1."
                )
            )
        curves.append((f"{prefix}/site/site_specific", study.get("T"), study.get("S_a")))
    for path, T, values in curves:
        if not isinstance(T, list) or not isinstance(values, list):
            continue
        if len(T) != len(values):
            problems.append(
                Problem(f"{path}/T", f"{len(T)} periods for {len(values)} ordinates", "Give one ordinate a period.")
            )
        if all(isinstance(t, int | float) for t in T) and any(b <= a for a, b in pairwise(T)):
            problems.append(
                Problem(f"{path}/T", "the periods do not increase", "Sort the points by period, each period once.")
            )
    return problems


def _story_names(stories: Any, prefix: str) -> list[Problem]:
    problems: list[Problem] = []
    if not isinstance(stories, list):
        return problems
    names = [story.get("name") for story in stories if isinstance(story, dict)]
    # most lists hold each name once, which is quickly seen
    if all(isinstance(n, str) for n in names) and len({*names}) == len(names):
        return problems
    seen = set()
    for index, story in enumerate(stories):
        name = story.get("name") if isinstance(story, dict) else None
        if isinstance(name, str) and name in seen:
            problems.append(
                Problem(
                    f"{prefix}/stories/{index}/name",
                    f"two stories have the name {name!r}",
                    "Give each story a different name.",
                )
            )
        seen.add(name if isinstance(name, str) else None)
    return problems


def _torsion_rows(part: Mapping[str, Any]) -> list[Problem]:
    problems = []
    rows = part.get("rows") if part.get("kind") == "torsion" else None
    for i, row in enumerate(rows if isinstance(rows, list) else ()):
        if not isinstance(row, dict):
            continue
        pair = row.get("max") is not None and row.get("avg") is not None
        alone = (row.get("max") is None) != (row.get("avg") is None)
        ends = row.get("ends") is not None
        if alone or (pair and ends) or not (pair or ends or row.get("displacement_ends") is not None):
            problems.append(
                Problem(
                    f"/rows/{i}",
                    "a row needs max and avg, ends, or displacement_ends",
                    "Give one of the three; displacement_ends may be given as well.",
                )
            )
        for name in ("ends", "displacement_ends"):
            values = row.get(name)
            if isinstance(values, list) and len(values) == 2 and all(v == 0 for v in values):
                problems.append(
                    Problem(f"/rows/{i}/{name}", "neither end moves", "Give a case in which the story moves.")
                )
        if (
            pair
            and isinstance(row["max"], int | float)
            and isinstance(row["avg"], int | float)
            and row["max"] < row["avg"]
        ):
            problems.append(
                Problem(f"/rows/{i}/max", "the greatest is less than the average", "Give the greater of the two ends.")
            )
    return problems


def _drift_lists(part: Mapping[str, Any]) -> list[Problem]:
    if part.get("kind") != "drift":
        return []
    problems = []
    stories = part.get("stories")
    count = len(stories) if isinstance(stories, list) else 0
    if (part.get("elastic_drift") is None) == (part.get("elastic_displacement") is None):
        problems.append(
            Problem(
                "/elastic_drift",
                "give either elastic_drift or elastic_displacement",
                "Give one of the two, one value a story.",
            )
        )
    if (part.get("P") is None) != (part.get("V") is None):
        problems.append(Problem("/P", "the stability coefficient needs P and V", "Give both, or neither."))
    for name in ("elastic_drift", "elastic_displacement", "P", "V"):
        values = part.get(name)
        if isinstance(values, list) and len(values) != count:
            problems.append(
                Problem(
                    f"/{name}", f"{len(values)} values for {count} stories", "Give one value a story, bottom to top."
                )
            )
    return problems


def problems_across(part: Any, prefix: str) -> list[Problem]:
    """Problems that only show across fields; read off the raw document, so that they are next to all others."""
    if not isinstance(part, dict):
        return []
    problems = []
    edition = EDITIONS.get(part["edition"]) if isinstance(part.get("edition"), str) else None
    site = part.get("site")
    if edition is not None:
        problems += _not_allowed(part, edition, prefix)
        if isinstance(site, dict):
            problems += _foreign(site, edition, prefix, in_brief="kind" not in part)
            problems += _corrections(site, edition, prefix)
    if isinstance(site, dict):
        problems += _curves(site, prefix)
    comparisons = part.get("comparisons")
    for name, entry in comparisons.items() if isinstance(comparisons, dict) else ():
        if isinstance(entry, dict):
            problems += problems_across({**entry, "edition": name}, f"{prefix}/comparisons/{name}")
    return [
        *problems,
        *_story_names(part.get("stories"), prefix),
        *_torsion_rows(part),
        *_drift_lists(part),
        *problems_of_frame(part.get("frame"), f"{prefix}/frame"),
    ]
