"""From the parts of a request or brief to the inputs of an evaluation.

It also maps missing inputs back to places in the document.
"""

from __future__ import annotations

from collections.abc import Container, Iterable, Mapping
from typing import Any

import numpy as np
from pydantic import BaseModel

from plumb_core import DIRECTIONS
from plumb_core.documents.brief import Occupancy, Period, Site, Stories, System
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused, MissingInput, Problem, RuleRefused
from plumb_core.quantities import QUANTITIES, Scope
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
    "drift_at": "/drift_at",
    "levels": "/levels",
    "gravity": "/stories",
    "shared_columns": "/system/shared_columns",
    "symmetric_in_plan": "/system/symmetric_in_plan",
    "infills": "/system/infills",
    "diaphragm_spans": "/system/diaphragm_spans",
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
"""Places in a request of the quantities whose place does not follow from `Quantity.part` and name."""


STAND_INS = ("lateral_system", "ductility_class", "mce", "loads")
"""Inputs that may be omitted if the values derived from them are given; the message names the missing one."""


OF_BUILDING = (
    "A_B",
    "light_frame",
    "ductility_class",
    "regular_in_plan",
    "regular_in_elevation",
    "torsionally_flexible",
    "static_method",
    "irregularities",
    "shared_columns",
    "symmetric_in_plan",
    "infills",
    "diaphragm_spans",
)
"""Inputs of the system that hold for both directions."""


_SITE = {n: Key(n) for n in Site.model_fields if n in QUANTITIES and QUANTITIES[n].part == "site"}
_OCCUPANCY = {n: Key(n) for n in Occupancy.model_fields if n in QUANTITIES}
_BUILDING_PARTS = ("infills", "diaphragm_spans")
_BUILDING = {n: Key(n) for n in OF_BUILDING if n not in _BUILDING_PARTS}
_LISTS = {"walls", "stacked_systems", "beside_systems", "element_shears"}
_PARTS = {"podium", "redundancy"}


def _with_levels(value: Any, levels: Mapping[str, int]) -> Any:
    """Names of stories with their places beside them (`level`, from the bottom, 0 first).

    For rules that count stories.
    """
    if isinstance(value, list):
        return [_with_levels(item, levels) for item in value]
    if isinstance(value, dict):
        levelled = {k: _with_levels(v, levels) for k, v in value.items()}
        name = value.get("from_story", value.get("story"))
        return levelled if name is None else {**levelled, "level": levels.get(name)}
    return value


def _with_open_story(part: dict[str, Any], levels: Mapping[str, int]) -> dict[str, Any]:
    """Infills with the place of their open story beside its name."""
    return {**part, "open_level": levels.get(part.get("open_story") or "")}


def _of_plans(stories: Stories, given: dict[Key, Any]) -> None:
    """Outlines of the floors, and stiffness in plan where it is given for all of them."""
    # the first story says quickly that there is none of a kind
    first = stories[0]
    if first.corners is not None and all(s.corners is not None for s in stories):
        given[Key("corners")] = [s.corners for s in stories]
    if all(s.plan is not None or s.corners is not None for s in stories):
        given[Key("setbacks")] = _extents(stories)
    if first.gravity is not None and all(s.gravity is not None for s in stories):
        given[Key("gravity")] = np.array([s.gravity for s in stories], dtype=float)
    if any(s.offset for s in stories):
        given[Key("offset_stories")] = [s.offset for s in stories]
    if first.plan_stiffness is not None and all(s.plan_stiffness is not None for s in stories):
        given[Key("floors_known")] = [
            {"story": s.name, "plan": s.plan, **(s.plan_stiffness.model_dump() if s.plan_stiffness else {})}
            for s in stories
        ]


def _extents(stories: Stories) -> list[dict[str, Any]]:
    """Positions of the faces of the floors along X and Y, m: from the outline, else from the plan about its centre."""
    extents = []
    for story in stories:
        if story.corners is not None:
            xs, ys = zip(*story.corners, strict=True)
            extents.append({"story": story.name, "X": [min(xs), max(xs)], "Y": [min(ys), max(ys)]})
            continue
        (x, y), (dx, dy) = story.centre or (0.0, 0.0), story.plan or (0.0, 0.0)
        extents.append({"story": story.name, "X": [x - dx / 2, x + dx / 2], "Y": [y - dy / 2, y + dy / 2]})
    return extents


def _of_stories(stories: Stories, given: dict[Key, Any]) -> None:
    given[Key("h")] = np.array([s.height for s in stories])
    weights = [s.weight for s in stories]
    if stories[0].loads and all(s.loads for s in stories):
        given[Key("loads")] = [[load.model_dump() for load in s.loads or ()] for s in stories]
    if None not in weights:
        given[Key("w")] = np.array(weights, dtype=float)
    elif all(s.weight is not None or s.loads for s in stories):
        given[Key("loads")] = [
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
            given[Key("b", direction)] = across[:, 1 - along].copy()
        if stories[0].plan is not None:
            given.setdefault(Key("d", direction), None)
            given[Key("d", direction)] = given[Key("d", direction)] or stories[0].plan[along]
        for name, part in (
            ("story_stiffness", "stiffness"),
            ("story_strength", "strength"),
            ("lateral_width", "width"),
        ):
            if getattr(stories[0], part) is not None:
                values = [getattr(getattr(s, part), direction, None) for s in stories]
                if all(v is not None for v in values):
                    given[Key(name, direction)] = np.array(values)


def inputs_of(
    site: Site,
    occupancy: Occupancy,
    system: System | None = None,
    stories: Stories | None = None,
    period: Period | None = None,
) -> dict[Key, Any]:
    """The values given in the parts of a request or brief, by key."""
    given: dict[Key, Any] = {}
    for part, keys in ((site, _SITE), (occupancy, _OCCUPANCY)):
        stated = part.__dict__
        for name, key in keys.items():
            if stated[name] is not None:
                given[key] = stated[name]
    # read by rules as plain mappings
    plain_parts: dict[str, BaseModel | None] = {"mce": site.mce, "own": site.own, "site_specific": site.site_specific}
    for name, inner in plain_parts.items():
        if inner is not None:
            given[Key(name)] = inner.model_dump()
    levels = {s.name: i for i, s in enumerate(stories or ())}
    if site.T is not None:
        ordinates = {"S_a": site.S_a} if site.S_a is not None else {"S_d": site.S_d}
        given[Key("curve")] = {"T": site.T, **ordinates, "read": site.read}
    if system is not None:
        for name, key in _BUILDING.items():
            given[key] = getattr(system, name)
        for name in _BUILDING_PARTS:
            part = getattr(system, name)
            stored = None if part is None else part.model_dump()
            given[Key(name)] = stored if stored is None or name != "infills" else _with_open_story(stored, levels)
        for direction in DIRECTIONS:
            entry = getattr(system, direction)
            for name in entry.model_fields_set:
                given[Key(name, direction)] = getattr(entry, name)
            for name in _LISTS & entry.model_fields_set:
                items = [item.model_dump() for item in getattr(entry, name) or ()]
                given[Key(name, direction)] = _with_levels(items, levels) or None
            for name in _PARTS & entry.model_fields_set:
                part = getattr(entry, name)
                given[Key(name, direction)] = _with_levels(part.model_dump(), levels) if part is not None else None
    for direction in DIRECTIONS if period is not None else ():
        given[Key("T_analysis", direction)] = getattr(period, direction).analysis
    if stories:
        _of_stories(stories, given)
    return {key: value for key, value in given.items() if value is not None}


def edition_rules(edition: str, site: Site, system: System | None = None) -> dict[str, Rule]:
    """The rule set of an edition under the choices that the site declares.

    The static method that the system does.
    """
    choices = {
        **site.__dict__,
        "static_method": system.static_method if system else None,
        "diaphragm_spans": system.diaphragm_spans if system else None,
    }
    return EDITIONS[edition].rules(choices)


def path_of(key: Key) -> str:
    """Place of a quantity in a request, as a JSON pointer."""
    name, direction, _ = key
    if name in PATHS:
        return PATHS[name].format(d=direction)
    part = QUANTITIES[name].part
    return "/" + "/".join(p for p in (part, direction, name) if p)


def _stand_ins(name: str, rules: Mapping[str, Rule]) -> set[str]:
    """Stand-ins that the rule of a quantity needs, through rules of quantities that nobody gives."""
    needed_stand_ins: set[str] = set()
    for parameter in rules[name].parameters:
        needed = "loads" if parameter.name == "w_shares" else parameter.name
        if needed in STAND_INS:
            needed_stand_ins.add(needed)
        elif not parameter.optional and needed in rules and not QUANTITIES[needed].part:
            needed_stand_ins |= _stand_ins(needed, rules)
    return needed_stand_ins


def rests_on_lacking(key: Key, rules: Mapping[str, Rule], given: Container[Key]) -> bool:
    """Whether the rule of an input uses a default that nobody has entered, so that the input itself is required."""
    if not QUANTITIES[key.name].part:
        return False
    needs = _stand_ins(key.name, rules)
    return any(Key(p, None if QUANTITIES[p].scope is Scope.BUILDING else key.direction) not in given for p in needs)


def lacking(evaluation: Evaluation, targets: Iterable[Key]) -> list[Key]:
    """What nobody has given of all that the targets need; a default is replaced by what follows from it."""
    needed: dict[Key, None] = {}
    for target in targets:
        for key in (target, *sorted(evaluation.required(target), key=str)):
            if key in evaluation.inputs:
                continue
            if key.name not in evaluation.rules:
                if key.name not in STAND_INS:
                    needed[key] = None
                continue
            if rests_on_lacking(key, evaluation.rules, evaluation.inputs):
                needed[key] = None
    # where the base value of a factor is lacking, naming the factor is enough
    named = {key.name for key in needed}
    return [key for key in needed if not (key.name in ("q_0", "alpha_u_1") and "q" in named)]


def missing_problems(evaluation: Evaluation, targets: Iterable[Key], stories: Stories | None) -> list[Problem]:
    """Every input that the targets need and nobody has given, as problems with their places."""
    problems = []
    for key in lacking(evaluation, targets):
        if key.name == "w" and stories:
            problems += [
                Problem(
                    f"/stories/{i}/weight",
                    "the seismic weight of the story is not given",
                    "Give the weight at the floor in kN, or the loads it comes from.",
                )
                for i, s in enumerate(stories)
                if s.weight is None and not s.loads
            ]
        elif key.name == "b" and stories:
            problems += [
                Problem(
                    f"/stories/{i}/plan", "the plan of the story is not given", "Give its dimensions in X and Y in m."
                )
                for i, s in enumerate(stories)
                if s.plan is None
            ]
        else:
            problems.append(_missing_input(key))
    return list(dict.fromkeys(problems))


def missing_in_a_case(evaluation: Evaluation, targets: Iterable[Key]) -> list[Key]:
    """Inputs that rules request, if only in the case at hand, and that nobody has given."""
    # The input that a default replaces is named by `lacking`
    return [key for key in missing_keys(evaluation, targets) if key.name not in STAND_INS]


def missing_keys(evaluation: Evaluation, targets: Iterable[Key]) -> list[Key]:
    """The first input that each of the targets fails for."""
    missed: dict[Key, None] = {}
    for target in targets:
        try:
            evaluation.at(target)
        except MissingInput as missing:
            missed[Key(missing.name, missing.direction, missing.case)] = None
        except RuleRefused:
            continue
    return list(missed)


def _missing_input(key: Key) -> Problem:
    quantity = QUANTITIES[key.name]
    unit = f" in {quantity.unit}" if quantity.unit else ""
    return Problem(
        path_of(key), f"{quantity.symbol} ({quantity.meaning}) is not given", f"Give {quantity.symbol}{unit}."
    )


def why_not(evaluation: Evaluation, name: str, direction: str | None) -> str:
    """Why a quantity has no value: the missing input or what a rule refuses; empty where it has one."""
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
        return {key: evaluation.at(key) for key in targets}
    except MissingInput:
        problems = missing_problems(evaluation, targets, stories)
        places = {p.path for p in problems}
        problems += [
            p
            for p in map(_missing_input, missing_in_a_case(evaluation, targets))
            if p.path not in places and not any(q.startswith(f"{p.path}/") for q in places)
        ]
        raise InputRefused(problems or [_missing_input(key) for key in missing_keys(evaluation, targets)]) from None
    except RuleRefused as refused:
        direction = None if QUANTITIES[refused.name].scope is Scope.BUILDING else refused.direction or "X"
        raise InputRefused([Problem(path_of(Key(refused.name, direction)), refused.message, refused.remedy)]) from None
