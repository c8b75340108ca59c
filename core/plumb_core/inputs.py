"""From the parts of a request or brief to an evaluation, and from what it lacks back to places in the document."""

from __future__ import annotations

from collections.abc import Container, Iterable, Mapping
from typing import Any

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.documents import Brief, Comparison, Occupancy, Period, Site, Stories, System
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused, MissingInput, Problem, RuleRefused
from plumb_core.quantities import GEOMETRY, QUANTITIES, Scope
from plumb_core.rules import Evaluation, Key, Rule, Step

PATHS = {
    "T_points": "/T",
    "damping": "/damping",
    "curve": "/site/T",
    "T_analysis": "/period/{d}/analysis",
    "A_B": "/system/A_B",
    "light_frame": "/system/light_frame",
    "h": "/stories",
    "w": "/stories",
    "b": "/stories",
    "loads": "/stories",
    "ductility_class": "/system/ductility_class",
    "regular_in_plan": "/system/regular_in_plan",
    "regular_in_elevation": "/system/regular_in_elevation",
    "torsionally_flexible": "/system/torsionally_flexible",
    "irregularities": "/system/irregularities",
    "static_method": "/system/static_method",
    "V_static": "/{d}/static",
    "V_dynamic": "/{d}/dynamic",
    "factor_used": "/{d}/factor_used",
    "site_spectrum": "/site_spectrum",
    "structure_type": "/structure_type",
    "T_drift": "/T",
    "T_modes": "/T",
    "mass_share": "/mass_share/{d}",
    "mass_share_RZ": "/mass_share/RZ",
    "torsion_irregular": "/rows",
    "p_delta_included": "/second_order",
    "corners": "/stories",
    "floors_known": "/stories",
    "setbacks": "/stories",
    "offset_stories": "/stories",
    "delta_own": "/displacement",
    "delta_other": "/other_displacement",
    "same_property": "/same_property",
    "floors_level": "/floors_level",
    "walls_to_base": "/walls_to_base",
}
"""Places in a request of the quantities whose place doesn't follow from `Quantity.part` and name."""

STAND_INS = ("lateral_system", "ductility_class", "mce", "loads")
"""Inputs that one can do without where what follows from them is given; the message names what is lacking then."""

OF_BUILDING = ("A_B", "light_frame", "ductility_class", "regular_in_plan", "regular_in_elevation", "torsionally_flexible",
               "static_method", "irregularities")  # fmt: skip
"""Inputs of the system that hold for both directions."""


_SITE = {n for n in Site.model_fields if n in QUANTITIES and QUANTITIES[n].part == "site"}
_OCCUPANCY = {n for n in Occupancy.model_fields if n in QUANTITIES}
_LISTS = {"walls", "stacked_systems", "beside_systems", "element_shears"}
_PARTS = {"podium", "redundancy"}


def _with_levels(value: Any, levels: Mapping[str, int]) -> Any:
    """Names of stories with their places beside them (`level`, from the bottom, 0 first), for rules that count stories."""
    if isinstance(value, list):
        return [_with_levels(item, levels) for item in value]
    if isinstance(value, dict):
        found = {k: _with_levels(v, levels) for k, v in value.items()}
        name = value.get("from_story", value.get("story"))
        return found if name is None else {**found, "level": levels.get(name)}
    return value


def _of_plans(stories: Stories, given: dict[Key, Any]) -> None:
    """Outlines of the floors, and stiffness in plan where it is given for all of them."""
    # the first story says quickly that there is none of a kind
    first = stories[0]
    if first.corners is not None and all(s.corners is not None for s in stories):
        given["corners", None] = [s.corners for s in stories]
    if all(s.plan is not None or s.corners is not None for s in stories):
        given["setbacks", None] = _extents(stories)
    if any(s.offset for s in stories):
        given["offset_stories", None] = [s.offset for s in stories]
    if first.plan_stiffness is not None and all(s.plan_stiffness is not None for s in stories):
        given["floors_known", None] = [
            {"story": s.name, "plan": s.plan, **(s.plan_stiffness.model_dump() if s.plan_stiffness else {})}
            for s in stories
        ]


def _extents(stories: Stories) -> list[dict[str, Any]]:
    """Where the faces of the floors stand along X and Y, m: from the outline, else from the plan about its centre."""
    found = []
    for story in stories:
        if story.corners is not None:
            xs, ys = zip(*story.corners, strict=True)
            found.append({"story": story.name, "X": [min(xs), max(xs)], "Y": [min(ys), max(ys)]})
            continue
        (x, y), (dx, dy) = story.centre or (0.0, 0.0), story.plan or (0.0, 0.0)
        found.append({"story": story.name, "X": [x - dx / 2, x + dx / 2], "Y": [y - dy / 2, y + dy / 2]})
    return found


def _of_stories(stories: Stories, given: dict[Key, Any]) -> None:
    given["h", None] = np.array([s.height for s in stories])
    weights = [s.weight for s in stories]
    if None not in weights:
        given["w", None] = np.array(weights, dtype=float)
    elif all(s.weight is not None or s.loads for s in stories):
        given["loads", None] = [
            [load.model_dump() for load in s.loads or ()]
            if s.weight is None
            else [{"name": "seismic weight", "kind": "given", "amount": s.weight}]
            for s in stories
        ]
    _of_plans(stories, given)
    plans = [s.plan for s in stories]
    across = None if None in plans else np.array(plans, dtype=float)
    for along, direction in enumerate(DIRECTIONS):
        if across is not None:
            given["b", direction] = across[:, 1 - along].copy()
        if stories[0].plan is not None:
            given.setdefault(("d", direction), None)
            given["d", direction] = given["d", direction] or stories[0].plan[along]
        for name, part in (
            ("story_stiffness", "stiffness"),
            ("story_strength", "strength"),
            ("lateral_width", "width"),
        ):
            if getattr(stories[0], part) is not None:
                values = [getattr(getattr(s, part), direction, None) for s in stories]
                if all(v is not None for v in values):
                    given[name, direction] = np.array(values)


def inputs_of(
    site: Site,
    occupancy: Occupancy,
    system: System | None = None,
    stories: Stories | None = None,
    period: Period | None = None,
) -> dict[Key, Any]:
    """The values given in the parts of a request or brief, by key."""
    given: dict[Key, Any] = {}
    for part, names in ((site, _SITE), (occupancy, _OCCUPANCY)):
        for name, value in part.__dict__.items():
            if value is not None and name in names:
                given[name, None] = value
    # read by rules as plain mappings
    given["mce", None] = site.mce.model_dump() if site.mce else None
    given["own", None] = site.own.model_dump() if site.own else None
    given["site_specific", None] = site.site_specific.model_dump() if site.site_specific else None
    levels = {s.name: i for i, s in enumerate(stories or ())}
    if site.T is not None:
        ordinates = {"S_a": site.S_a} if site.S_a is not None else {"S_d": site.S_d}
        given["curve", None] = {"T": site.T, **ordinates, "read": site.read}
    if system is not None:
        for name in OF_BUILDING:
            given[name, None] = getattr(system, name)
        for direction in DIRECTIONS:
            own = getattr(system, direction)
            for name in own.model_fields_set:
                given[name, direction] = getattr(own, name)
            for name in _LISTS & own.model_fields_set:
                items = [item.model_dump() for item in getattr(own, name) or ()]
                given[name, direction] = _with_levels(items, levels) or None
            for name in _PARTS & own.model_fields_set:
                part = getattr(own, name)
                given[name, direction] = _with_levels(part.model_dump(), levels) if part is not None else None
    for direction in DIRECTIONS if period is not None else ():
        given["T_analysis", direction] = getattr(period, direction).analysis
    if stories:
        _of_stories(stories, given)
    return {key: value for key, value in given.items() if value is not None}


def edition_rules(edition: str, site: Site, system: System | None = None) -> dict[str, Rule]:
    """The rule set of an edition under the choices that the site declares, and the static method that the system does."""
    return EDITIONS[edition].rules({**site.__dict__, "static_method": system.static_method if system else None})


def path_of(key: Key) -> str:
    """Place of a quantity in a request, as a JSON pointer."""
    name, direction = key
    if name in PATHS:
        return PATHS[name].format(d=direction)
    part = QUANTITIES[name].part
    return "/" + "/".join(p for p in (part, direction, name) if p)


def _stand_ins(name: str, rules: Mapping[str, Rule]) -> set[str]:
    """Stand-ins that the rule of a quantity needs, through rules of quantities that nobody gives."""
    found: set[str] = set()
    for parameter in rules[name].parameters:
        needed = "loads" if parameter.name == "w_shares" else parameter.name
        if needed in STAND_INS:
            found.add(needed)
        elif not parameter.optional and needed in rules and not QUANTITIES[needed].part:
            found |= _stand_ins(needed, rules)
    return found


def rests_on_lacking(key: Key, rules: Mapping[str, Rule], given: Container[Key]) -> bool:
    """Whether the rule of an input rests on a stand-in that nobody has given, so that the input itself is asked for."""
    if not QUANTITIES[key[0]].part:
        return False
    needs = _stand_ins(key[0], rules)
    return any((p, None if QUANTITIES[p].scope is Scope.BUILDING else key[1]) not in given for p in needs)


def lacking(evaluation: Evaluation, targets: Iterable[Key]) -> list[Key]:
    """What nobody has given of all that the targets need; a stand-in gives way to what follows from it."""
    needed: dict[Key, None] = {}
    for target in targets:
        for key in (target, *sorted(evaluation.ancestors(target, optional=False), key=str)):
            if key in evaluation.inputs:
                continue
            if key[0] not in evaluation.rules:
                if key[0] not in STAND_INS:
                    needed[key] = None
                continue
            if rests_on_lacking(key, evaluation.rules, evaluation.inputs):
                needed[key] = None
    # where the base value of a factor is lacking, naming the factor is enough
    named = {key[0] for key in needed}
    return [key for key in needed if not (key[0] in ("q_0", "alpha_u_1") and "q" in named)]


def missing_problems(evaluation: Evaluation, targets: Iterable[Key], stories: Stories | None) -> list[Problem]:
    """Every input that the targets need and nobody has given, as problems with their places."""
    problems = []
    for key in lacking(evaluation, targets):
        if key[0] == "w" and stories:
            problems += [
                Problem(
                    f"/stories/{i}/weight",
                    "the seismic weight of the story is not given",
                    "Give the weight at the floor in kN, or the loads it comes from.",
                )
                for i, s in enumerate(stories)
                if s.weight is None and not s.loads
            ]
        elif key[0] == "b" and stories:
            problems += [
                Problem(
                    f"/stories/{i}/plan", "the plan of the story is not given", "Give its dimensions in X and Y in m."
                )
                for i, s in enumerate(stories)
                if s.plan is None
            ]
        else:
            problems.append(_asked(key))
    return list(dict.fromkeys(problems))


def missing_in_a_case(evaluation: Evaluation, targets: Iterable[Key]) -> list[Key]:
    """Inputs that rules ask for, if only in the case at hand, and that nobody has given."""
    # what a stand-in stands for is named by `lacking`
    return [key for key in missing_keys(evaluation, targets) if key[0] not in STAND_INS]


def missing_keys(evaluation: Evaluation, targets: Iterable[Key]) -> list[Key]:
    """The first input that each of the targets fails for."""
    found: dict[Key, None] = {}
    for target in targets:
        try:
            evaluation.step(*target)
        except MissingInput as missing:
            found[missing.name, missing.direction] = None
        except RuleRefused:
            continue
    return list(found)


def _asked(key: Key) -> Problem:
    quantity = QUANTITIES[key[0]]
    unit = f" in {quantity.unit}" if quantity.unit else ""
    return Problem(
        path_of(key), f"{quantity.symbol} ({quantity.meaning}) is not given", f"Give {quantity.symbol}{unit}."
    )


def why_not(evaluation: Evaluation, name: str, direction: str | None) -> str:
    """Why a quantity has no value: what is lacking or what a rule refuses; empty where it has one."""
    try:
        evaluation.step(name, direction)
    except MissingInput as missing:
        return f"{QUANTITIES[missing.name].symbol} ({QUANTITIES[missing.name].meaning}) is not given"
    except RuleRefused as refused:
        return f"{refused.message}. {refused.remedy}"
    return ""


def evaluated(evaluation: Evaluation, targets: list[Key], stories: Stories | None = None) -> dict[Key, Step]:
    """Steps of the targets; raises InputRefused with every missing input, or with what a rule refused."""
    try:
        return {key: evaluation.step(*key) for key in targets}
    except MissingInput:
        found = missing_problems(evaluation, targets, stories)
        places = {p.path for p in found}
        found += [p for p in map(_asked, missing_in_a_case(evaluation, targets))
                  if p.path not in places and not any(q.startswith(f"{p.path}/") for q in places)]  # fmt: skip
        raise InputRefused(found or [_asked(key) for key in missing_keys(evaluation, targets)]) from None
    except RuleRefused as refused:
        direction = None if QUANTITIES[refused.name].scope is Scope.BUILDING else refused.direction or "X"
        raise InputRefused([Problem(path_of((refused.name, direction)), refused.message, refused.remedy)]) from None


def _carried_over(brief: Brief, edition: str, of: str) -> dict[str, Any]:
    """Names that mean the same under the governing edition and another, so that their values carry over."""
    ours, theirs = EDITIONS[of].definitions, EDITIONS[edition].definitions
    return {name: True for name, meaning in theirs.items() if ours.get(name) == meaning}


def brief_parts(brief: Brief, edition: str) -> tuple[Site, Occupancy, System]:
    """Site, occupancy and system of the brief under an edition.

    For a comparison edition: its own part of the brief, geometry and measurements from the governing part, and values
    that both editions define the same way.  Nothing else is carried over.
    """
    if edition == brief.edition:
        return brief.site, brief.occupancy, brief.system
    own = brief.comparisons.get(edition) or Comparison()
    same = {*GEOMETRY, *_carried_over(brief, edition, brief.edition)}

    def merged(mine: Any, governing: Any) -> Any:
        given = {n: v for n, v in mine if n in mine.model_fields_set and v is not None}
        shared = {n: v for n, v in governing if n in same and v is not None}
        # what is the same under every edition stands in the governing part, whatever an earlier one left here
        geometry = {n: v for n, v in shared.items() if n in GEOMETRY}
        return type(mine).model_construct(**{**dict(type(mine)()), **shared, **given, **geometry})

    system = merged(own.system, brief.system)
    for direction in DIRECTIONS:
        setattr(system, direction, merged(getattr(own.system, direction), getattr(brief.system, direction)))
    return merged(own.site, brief.site), merged(own.occupancy, brief.occupancy), system


def governed_by(brief: Brief, edition: str) -> Brief:
    """The brief with another edition governing; raises InputRefused for one that this engine doesn't hold.

    What the two define the same way is taken over, what was given under the edition before is kept as a comparison.
    """
    if edition not in EDITIONS:
        raise InputRefused(
            [Problem("/edition", f"edition {edition!r} is not in this engine", f"Use one of: {', '.join(EDITIONS)}.")]
        )
    if edition == brief.edition:
        return brief
    site, occupancy, system = brief_parts(brief, edition)
    mine = brief.comparisons.get(edition)
    before = Comparison(
        site=brief.site, occupancy=brief.occupancy, system=brief.system, structure_type=brief.structure_type
    )
    return brief.model_copy(
        update={
            "edition": edition,
            "site": site,
            "occupancy": occupancy,
            "system": system,
            "structure_type": mine.structure_type if mine else None,
            "comparison_editions": [
                brief.edition,
                *(e for e in brief.comparison_editions if e not in (edition, brief.edition)),
            ],
            "comparisons": {**{k: v for k, v in brief.comparisons.items() if k != edition}, brief.edition: before},
        }
    )


def brief_evaluation(brief: Brief, adopted: dict[Key, Any], edition: str = "") -> Evaluation:
    """Evaluation of a brief over its own inputs, and over `adopted` ones where it has none.

    edition : a comparison edition, by default the governing one
    """
    site, occupancy, system = brief_parts(brief, edition or brief.edition)
    own = inputs_of(site, occupancy, system, brief.stories, brief.period)
    part = brief if edition in ("", brief.edition) else brief.comparisons.get(edition)
    if part is not None and part.structure_type is not None:
        own["structure_type", None] = part.structure_type
    taken = {key: value for key, value in adopted.items() if key not in own}
    return Evaluation(edition_rules(edition or brief.edition, site, system), taken | own, frozenset(taken))
