"""Slips of what is given: another class, category, hazard or system than that of the brief, in all that follows.

Unlike the slips at a place these change an input wherever it is used: the submission was computed with it throughout.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

from plumb_core import DIRECTIONS
from plumb_core.editions import Edition
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Evaluation, Key

CLASS_CODES = {
    "site_class": "S14",
    "soil": "S14",
    "ground_type": "S14",
    "subsoil": "S14",
    "zone": "S13",
    "source_type": "S13",
    "spectrum_type": "S11",
    "structure_type": "S85",
    "ductility_class": "S22",
}
"""Codes by what is otherwise; of another importance the factor is not that of the building (S02)."""
IMPORTANCE = ("risk_category", "importance_class", "importance_level", "occupancy_category", "use")
FACTORS = ("R", "q", "mu", "S_p", "C_d", "Omega_0")
HAZARD = ("S_S", "S_1", "S_MS", "S_M1", "a_gR", "Z")
IMPORTANCE_FACTORS = {"I_e": (1.0, 1.25, 1.5), "I": (1.0, 1.2, 1.25, 1.5), "gamma_I": (0.8, 1.0, 1.2, 1.4)}
"""Factors of the tables of importance, by symbol."""
LEVELS = ((1.5, "times 1.5", "S16"), (2.0 / 3.0, "times 2/3", "S16"), (100.0, "in per cent of g", "S05"))
FLAGS = {"class_by_default": "S14", "regular": "S12"}


@dataclass(frozen=True, slots=True)
class Given:
    """Inputs that were otherwise.

    Attributes
    ----------
    name : of the slip with its variant
    inputs : by key
    words, code, cost, parameters : as of an attempt
    """

    name: str
    inputs: Mapping[Key, Any]
    words: str
    code: str
    cost: float
    parameters: Mapping[str, Any]

    def under(self, evaluation: Evaluation) -> Evaluation:
        """The evaluation with these inputs, stated or not."""
        stated = evaluation.pins.keys() & self.inputs.keys()
        if not stated:
            return evaluation.assuming(inputs=self.inputs)
        pins = {k: v for k, v in evaluation.pins.items() if k not in stated}
        return replace(evaluation, pins=pins, inputs={**evaluation.inputs, **self.inputs})


def given_otherwise(evaluation: Evaluation, edition: Edition) -> Iterator[Given]:
    """What may have been given otherwise."""
    yield from _classes(evaluation, edition)
    yield from _factors(evaluation, edition)
    yield from _importance(evaluation)
    yield from _hazard(evaluation)
    for name, code in FLAGS.items():
        for keys in _places(evaluation, name):
            values = {k: not evaluation.inputs[k] for k in keys}
            words = f"{QUANTITIES[name].meaning.lower()}: taken the other way"
            yield Given(_named(keys, "otherwise"), values, words, code, 5.0, {})


def code_of_class(name: str, *, in_drift: bool = False) -> str:
    """The code of another class or category; of another importance that of its factor, in drift of its limit."""
    if name in IMPORTANCE:
        return "S85" if in_drift else "S02"
    return CLASS_CODES.get(name, "S14")


def _places(evaluation: Evaluation, name: str) -> Iterator[list[Key]]:
    """The keys under which an input is given: of the building, or of both directions and of each."""
    keys = [k for k in (Key(name), *(Key(name, d) for d in DIRECTIONS)) if k in evaluation.inputs]
    if keys:
        yield keys
    if len(keys) > 1:
        yield from ([k] for k in keys)


def _classes(evaluation: Evaluation, edition: Edition) -> Iterator[Given]:
    for name in (*CLASS_CODES, *IMPORTANCE):
        options = list(edition.options.get(name, ()))
        for keys in _places(evaluation, name):
            given = evaluation.inputs[keys[0]]
            for other in options:
                if other == given:
                    continue
                adjacent = given in options and abs(options.index(other) - options.index(given)) == 1
                words = f"{QUANTITIES[name].meaning.lower()} {other} in place of {given}"
                code = code_of_class(name)
                values = dict.fromkeys(keys, other)
                cost = 3.0 if adjacent else 5.0
                yield Given(_named(keys, str(other)), values, words, code, cost, {name: other})


def _named(keys: list[Key], value: str) -> str:
    """A name for inputs and their value, one for each set of places."""
    return f"{keys[0].name} {''.join(k.direction or '' for k in keys)} {value}"


def _importance(evaluation: Evaluation) -> Iterator[Given]:
    for name, values in IMPORTANCE_FACTORS.items():
        for keys in _places(evaluation, name):
            for value in values:
                if evaluation.inputs[keys[0]] != value:
                    words = f"{QUANTITIES[name].symbol} = {value:g} in place of {evaluation.inputs[keys[0]]:g}"
                    yield Given(
                        _named(keys, f"= {value:g}"), dict.fromkeys(keys, value), words, "S02", 4.0, {name: value}
                    )


def _factors(evaluation: Evaluation, edition: Edition) -> Iterator[Given]:
    for name in FACTORS:
        rows = sorted({s.factors[name] for s in edition.systems.values() if name in s.factors})
        for keys in _places(evaluation, name):
            for value in (1.0, *rows):
                if all(evaluation.inputs[k] == value for k in keys):
                    continue
                symbol = QUANTITIES[name].symbol
                words = f"{symbol} = 1" if value == 1.0 else f"{symbol} = {value:g}, of another system"
                code = "S02" if value == 1.0 else "S22"
                yield Given(_named(keys, f"= {value:g}"), dict.fromkeys(keys, value), words, code, 6.5, {name: value})


def _hazard(evaluation: Evaluation) -> Iterator[Given]:
    given = {k: v for n in HAZARD for k in (Key(n),) if isinstance(v := evaluation.inputs.get(k), float)}
    for factor, words, code in LEVELS:
        # the maximum considered motion belongs to editions whose design motion is two thirds of it
        if given and (code != "S16" or "S_MS" in evaluation.rules):
            values = {k: v * factor for k, v in given.items()}
            yield Given(f"hazard {words}", values, f"the hazard {words}", code, 5.0, {"factor": factor})
    if {Key("S_S"), Key("S_1")} <= given.keys():
        values = {Key("S_S"): given[Key("S_1")], Key("S_1"): given[Key("S_S")]}
        yield Given("S_S and S_1", values, "S_S and S_1 exchanged", "S15", 5.0, {})
