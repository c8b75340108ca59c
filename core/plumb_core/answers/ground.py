"""Ground motion and design spectra by an edition."""

from __future__ import annotations

import numpy as np

from plumb_core.answers.common import Answer, _if_known
from plumb_core.constants import GRAVITY
from plumb_core.derivation import plain
from plumb_core.documents.requests import (
    GroundRequest,
    SpectrumRequest,
)
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused, Problem
from plumb_core.facts import with_declared_facts
from plumb_core.inputs import edition_rules, evaluated, inputs_of
from plumb_core.rules import Evaluation, Key


def _ground(request: GroundRequest) -> Answer:
    evaluation = Evaluation(edition_rules(request.edition, request.site), inputs_of(request.site, request.occupancy))
    edition = EDITIONS[request.edition]
    names = edition.ground_keys
    steps = evaluated(evaluation, [Key(n) for n in (*names, "ground_notes")])
    result = {edition.own_symbols.get(name, name): plain(steps[Key(name)].value) for name in names}
    return result | {"notes": steps[Key("ground_notes")].value}, evaluation


def _spectrum(request: SpectrumRequest) -> Answer:
    inputs = inputs_of(request.site, request.occupancy, request.system)
    inputs[Key("T_points")] = np.array(request.T)
    rules = edition_rules(request.edition, request.site, request.system)
    if request.damping is not None:
        if "S_a_damped" not in rules and request.damping != 0.05:
            raise InputRefused(
                [
                    Problem(
                        "/damping",
                        f"{request.edition} has no rule for damping other than 5 %",
                        "Leave the damping out, or give 0.05.",
                    )
                ]
            )
        inputs[Key("damping")] = request.damping
    evaluation = with_declared_facts(Evaluation(rules, inputs))
    direction = request.direction
    # without a system there is nothing to reduce by; with one, its missing inputs are required
    reduced: list[Key] = [Key("S_a_reduced", direction)] if "system" in request.model_fields_set else []
    expected = [Key("S_a_damped")] if request.damping is not None and "S_a_damped" in rules else []
    steps = evaluated(evaluation, [Key("S_a"), Key("ground_notes"), *reduced, *expected])
    T = np.array(request.T)
    result = {
        "T": request.T,
        "elastic": plain(steps[Key("S_a")].value),
        "reduced": plain(steps[reduced[0]].value) if reduced else None,
        "displacement": plain(steps[Key("S_a")].value * GRAVITY * (T / (2.0 * np.pi)) ** 2),
        "vertical": _if_known(evaluation, "S_a_vertical") if "S_a_vertical" in rules else None,
        "vertical_reduced": _if_known(evaluation, "S_a_vertical_reduced", direction)
        if reduced and "S_a_vertical_reduced" in rules
        else None,
    }
    if expected:
        result["damped"] = plain(steps[Key("S_a_damped")].value)
    return result | {"notes": steps[Key("ground_notes")].value}, evaluation
