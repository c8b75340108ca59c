"""Requests of the headless contract: `ground`, `spectrum`, `static`."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

import numpy as np

from plumb_core import DIRECTIONS, ENGINE
from plumb_core.documents import (
    Brief,
    GroundRequest,
    Occupancy,
    Period,
    Request,
    Site,
    SpectrumRequest,
    StaticRequest,
    Stories,
    System,
    read_request,
)
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused, MissingInput, Problem, RuleRefused
from plumb_core.quantities import QUANTITIES, Kind, Scope
from plumb_core.rules import Evaluation, Key, Rule, Step

PATHS = {
    "T_points": "/T",
    "T_analysis": "/period/{d}/analysis",
    "A_B": "/system/A_B",
    "light_frame": "/system/light_frame",
    "h": "/stories",
    "w": "/stories",
}
"""Places in a request of the quantities whose place doesn't follow from `Quantity.part` and name."""


def inputs_of(
    site: Site,
    occupancy: Occupancy,
    system: System | None = None,
    stories: Stories | None = None,
    period: Period | None = None,
) -> dict[Key, Any]:
    """The values given in the parts of a request or brief, by key."""
    given: dict[Key, Any] = {}
    for part in (site, occupancy):
        for name, value in part:
            if name in QUANTITIES:
                given[name, None] = value
    if system is not None:
        given["A_B", None] = system.A_B
        given["light_frame", None] = system.light_frame
        for direction in DIRECTIONS:
            for name, value in getattr(system, direction).model_dump().items():
                given[name, direction] = value
    for direction in DIRECTIONS if period is not None else ():
        given["T_analysis", direction] = getattr(period, direction).analysis
    if stories:
        given["h", None] = np.array([s.height for s in stories])
        if all(s.weight is not None for s in stories):
            given["w", None] = np.array([s.weight for s in stories], dtype=float)
    return {key: value for key, value in given.items() if value is not None}


def edition_rules(edition: str, site: Site) -> dict[str, Rule]:
    """The rule set of an edition under the choices that the site declares."""
    rules: dict[str, Rule] = EDITIONS[edition].rules(site.model_dump())
    return rules


def path_of(key: Key) -> str:
    """Place of a quantity in a request, as a JSON pointer."""
    name, direction = key
    if name in PATHS:
        return PATHS[name].format(d=direction)
    part = QUANTITIES[name].part
    return "/" + "/".join(p for p in (part, direction, name) if p)


def _missing(evaluation: Evaluation, targets: Iterable[Key], stories: Stories | None) -> list[Problem]:
    """Every input that the targets need and nobody has given."""
    needed: dict[Key, None] = {}
    for target in targets:
        for key in (target, *sorted(evaluation.ancestors(target, optional=False), key=str)):
            if key not in evaluation.inputs and key[0] not in evaluation.rules:
                needed[key] = None
    problems = []
    for key in needed:
        quantity = QUANTITIES[key[0]]
        if key[0] == "w" and stories:
            problems += [
                Problem(
                    f"/stories/{i}/weight",
                    "the seismic weight of the story is not given",
                    "Give the weight at the floor in kN.",
                )
                for i, s in enumerate(stories)
                if s.weight is None
            ]
        else:
            unit = f" in {quantity.unit}" if quantity.unit else ""
            problems.append(
                Problem(
                    path_of(key),
                    f"{quantity.symbol} ({quantity.meaning}) is not given",
                    f"Give {quantity.symbol}{unit}.",
                )
            )
    return problems


def _evaluated(evaluation: Evaluation, targets: list[Key], stories: Stories | None = None) -> dict[Key, Step]:
    """Steps of the targets; raises InputRefused with every missing input, or with what a rule refused."""
    try:
        return {key: evaluation.step(*key) for key in targets}
    except MissingInput:
        raise InputRefused(_missing(evaluation, targets, stories)) from None
    except RuleRefused as refused:
        direction = None if QUANTITIES[refused.name].scope is Scope.BUILDING else refused.direction or "X"
        key = (refused.name, direction)
        raise InputRefused([Problem(path_of(key), refused.message, refused.remedy)]) from None


def plain(value: Any) -> Any:
    """A value of the core as JSON has it."""
    if isinstance(value, np.ndarray):
        return value.tolist()
    if isinstance(value, np.generic):
        return value.item()
    return value


def step_json(step: Step) -> dict[str, Any]:
    """A step of a derivation as JSON."""
    quantity = QUANTITIES[step.key[0]]
    governed = step.governed
    return {
        "id": key_id(step.key),
        "quantity": step.key[0],
        "direction": step.key[1],
        "symbol": quantity.symbol,
        "symbol_tex": quantity.tex,
        "meaning": quantity.meaning,
        "unit": quantity.unit,
        "value": plain(step.value),
        "source": step.source,
        "clause": step.clause,
        "tex": step.tex,
        "inputs": [key_id(k) for k in step.inputs],
        "governed_by": governed.governed_by if governed else None,
        "candidates": [{"label": c.label, "value": c.value, "role": c.role} for c in governed.candidates]
        if governed
        else [],
        "margin": governed.margin if governed else None,
    }


def key_id(key: Key) -> str:
    """A key as text: `S_DS`, or `V.X` for a direction's quantity."""
    return key[0] if key[1] is None else f"{key[0]}.{key[1]}"


def steps_json(evaluation: Evaluation) -> list[dict[str, Any]]:
    """All steps of an evaluation that a person may want to read, inputs first."""
    return [step_json(s) for s in evaluation.steps() if QUANTITIES[s.key[0]].kind is not Kind.DATA]


STATIC_KEYS = (
    "design_category",
    "T_a",
    "T_limit",
    "T",
    "coefficient",
    "W",
    "V",
    "k",
    "F",
    "V_story",
    "M_story",
    "static_notes",
)


def _ground(request: GroundRequest) -> tuple[dict[str, Any], Evaluation]:
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs_of(request.site, request.occupancy))
    names = EDITIONS[request.edition].GROUND_KEYS
    steps = _evaluated(evaluation, [(n, None) for n in (*names, "ground_notes")])
    result = {name: plain(steps[name, None].value) for name in names}
    return result | {"notes": steps["ground_notes", None].value}, evaluation


def _spectrum(request: SpectrumRequest) -> tuple[dict[str, Any], Evaluation]:
    inputs = inputs_of(request.site, request.occupancy, request.system)
    inputs["T_points", None] = np.array(request.T)
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs)
    direction = request.direction
    # without a system there is nothing to reduce by; with one, what it lacks is asked for
    reduced: list[Key] = [("S_a_reduced", direction)] if "system" in request.model_fields_set else []
    steps = _evaluated(evaluation, [("S_a", None), ("ground_notes", None), *reduced])
    return {
        "T": request.T,
        "elastic": plain(steps["S_a", None].value),
        "reduced": plain(steps[reduced[0]].value) if reduced else None,
        "notes": steps["ground_notes", None].value,
    }, evaluation


def _static(request: StaticRequest) -> tuple[dict[str, Any], Evaluation]:
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories, request.period)
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs)
    # a direction whose system is left empty is not asked for, unless both are
    asked = [d for d in DIRECTIONS if getattr(request.system, d).model_fields_set] or list(DIRECTIONS)
    targets = [evaluation.key(n, d) for d in asked for n in STATIC_KEYS]
    steps = _evaluated(evaluation, [*targets, ("ground_notes", None)], request.stories)
    result: dict[str, Any] = {}
    notes: list[str] = list(steps["ground_notes", None].value)
    for d in asked:
        at = {n: steps[evaluation.key(n, d)] for n in STATIC_KEYS}
        governed = at["coefficient"].governed
        result[d] = {
            **{n: plain(at[n].value) for n in ("T_a", "T_limit", "T", "coefficient")},
            "governed_by": governed.governed_by if governed else None,
            "W": at["W"].value,
            "V": at["V"].value,
            # category A: forces follow the weights alone, there is no exponent
            "exponent": None if at["design_category"].value == "A" else at["k"].value,
            **{n: plain(at[n].value) for n in ("F", "V_story", "M_story")},
        }
        notes += [f"{d}: {note}" for note in at["static_notes"].value]
    return result | {"notes": notes}, evaluation


def solve(document: Any) -> dict[str, Any]:
    """Answer one request document; raises InputRefused naming every problem."""
    request: Request = read_request(document)
    if isinstance(request, GroundRequest):
        result, evaluation = _ground(request)
    elif isinstance(request, SpectrumRequest):
        result, evaluation = _spectrum(request)
    else:
        result, evaluation = _static(request)
    answer = {"engine": ENGINE, "kind": request.kind, "edition": request.edition, **result}
    if request.steps:
        answer["steps"] = steps_json(evaluation)
    return answer


def brief_evaluation(brief: Brief, adopted: dict[Key, Any]) -> Evaluation:
    """Evaluation of a brief over its own inputs, and over `adopted` ones where it has none."""
    own = inputs_of(brief.site, brief.occupancy, brief.system, brief.stories, brief.period)
    taken = {key: value for key, value in adopted.items() if key not in own}
    return Evaluation(edition_rules(brief.edition, brief.site), taken | own, frozenset(taken))
