"""A distorted input: the rule is right, and one of its values was not the one that belongs there."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

import numpy as np

from plumb_core.causes.given import code_of_class
from plumb_core.causes.slip import Attempt, Place, number, slip
from plumb_core.constants import GRAVITY as G
from plumb_core.quantities import QUANTITIES

IMPORTANCE = ("I_e", "I", "gamma_I", "k_p")
REDUCTION = ("R", "q", "mu", "S_p")
FOOT = 0.3048


def _symbol(name: str) -> str:
    return QUANTITIES[name].symbol


def _numbers(place: Place, *names: str) -> Iterator[tuple[str, float]]:
    """The arguments of these names that are numbers."""
    for name in names:
        value = number(place.arguments.get(name))
        if value is not None:
            yield name, value


def _in_drift(place: Place, code: str) -> str:
    """In the stage of drift a factor on the action is one on its displacements."""
    return "S80" if place.stage == "drift" else code


@slip("a factor missing")
def missing(place: Place) -> Iterator[Attempt]:
    """A factor of the action or of the system is taken as one."""
    own = number(place.value)
    if place.key.name in (*IMPORTANCE, *REDUCTION, "C_d") and own != 1.0:
        name = place.key.name
        yield Attempt(f"missing {name}", 1.0, f"{_symbol(name)} = 1", "S02", 4.0, {name: 1.0})
    for name, value in _numbers(place, *IMPORTANCE, *REDUCTION, "C_d", "eta", "nu", "lambda_", "rho"):
        if value != 1.0:
            words = f"{_symbol(name)} = 1 in place of {value:.4g}"
            code = {"nu": "S85", "lambda_": "S56", "eta": "S31", "rho": "S25"}.get(name, _in_drift(place, "S02"))
            yield Attempt(f"missing {name}", place.under(**{name: 1.0}), words, code, 4.0, {name: 1.0})


@slip("both reduction and importance missing")
def elastic(place: Place) -> Iterator[Attempt]:
    """The elastic value: neither reduced nor multiplied by the importance."""
    names = [n for n, v in _numbers(place, *IMPORTANCE, *REDUCTION) if v != 1.0]
    if len(names) > 1:
        words = f"without {' and '.join(map(_symbol, names))}"
        yield Attempt(
            "elastic", place.under(**dict.fromkeys(names, 1.0)), words, _in_drift(place, "S02"), 5.0, {"without": names}
        )


@slip("a factor twice or inverted")
def twice(place: Place) -> Iterator[Attempt]:
    """A factor is applied twice, or the wrong way round."""
    for name, value in _numbers(place, *IMPORTANCE, *REDUCTION, "C_d"):
        if value == 1.0:
            continue
        code = _in_drift(place, "S02")
        yield Attempt(
            f"twice {name}",
            place.under(**{name: value**2}),
            f"{_symbol(name)} applied twice",
            code,
            6.0,
            {name: value**2},
        )
        yield Attempt(
            f"inverted {name}",
            place.under(**{name: 1 / value}),
            f"{_symbol(name)} inverted",
            code,
            7.0,
            {name: 1 / value},
        )


class Exchange(NamedTuple):
    """A quantity that stands where another one belongs."""

    of: str
    by: str
    code: str
    cost: float = 5.0


EXCHANGES = (
    Exchange("R", "Omega_0", "S24"),
    Exchange("R", "C_d", "S24"),
    Exchange("C_d", "R", "S24"),
    Exchange("C_d", "Omega_0", "S24", 6.0),
    Exchange("mu", "S_p", "S24", 6.0),
    Exchange("S_DS", "S_MS", "S16"),
    Exchange("S_D1", "S_M1", "S16"),
    Exchange("S_DS_static", "S_MS", "S16"),
    Exchange("S_DS", "S_D1", "S15", 7.0),
    Exchange("F_a", "F_v", "S15"),
    Exchange("F_v", "F_a", "S15"),
    Exchange("C_a", "C_v", "S15"),
    Exchange("C_v", "C_a", "S15"),
    Exchange("S_S", "S_1", "S15", 6.0),
    Exchange("S_1", "S_S", "S15", 6.0),
    Exchange("T", "T_analysis", "S54", 3.0),
    Exchange("T", "T_a", "S54", 5.0),
    Exchange("T", "T_limit", "S54", 6.0),
    Exchange("h", "h_x", "S84"),
    Exchange("h_x", "h", "S59", 6.0),
    Exchange("displacement_max", "drift_max", "S73"),
    Exchange("V_static", "V_dynamic", "S68", 7.0),
    Exchange("V_drift", "V_dynamic", "S68", 7.0),
)


@slip("another quantity in its place")
def exchanged(place: Place) -> Iterator[Attempt]:
    """The value of a neighbouring quantity is used."""
    for of, by, code, cost in EXCHANGES:
        if of == place.key.name and (value := place.ours(by)) is not None and not isinstance(value, str):
            yield Attempt(
                f"{by} for {of}", value, f"{_symbol(by)} in place of {_symbol(of)}", code, cost, _literal(of, value)
            )
        if of not in place.arguments:
            continue
        value = place.get(by)
        if value is None or isinstance(value, str):
            continue
        words = f"{_symbol(by)} in place of {_symbol(of)}"
        yield Attempt(f"{by} for {of}", place.under(**{of: value}), words, code, cost, _literal(of, value))


@slip("the other direction")
def other_direction(place: Place) -> Iterator[Attempt]:
    """A value of Y stands where the one of X belongs, or the reverse."""
    codes = {"R": "S22", "q": "S22", "mu": "S22", "V_static": "S63", "factor_used": "S63", "mass_share": "S09"}
    for other in place.others:
        for name, given in place.arguments.items():
            if name not in QUANTITIES:
                continue
            value = place.evaluation.get(name, other)
            mine = number(given)
            if mine is None or number(value) is None or number(value) == mine:
                continue
            words = f"{_symbol(name)} of {other}"
            yield Attempt(
                f"{name} of the other direction",
                place.under(**{name: value}),
                words,
                codes.get(name, "S55"),
                5.0,
                _literal(name, value),
            )


class Factor(NamedTuple):
    """A ratio of units or of motions that a value may be off by."""

    names: tuple[str, ...]
    ratio: float
    words: str
    code: str
    cost: float = 6.0


MOTION = ("S_DS", "S_D1", "S_DS_static", "S_a", "S_a_modes", "S_a_T", "a_g", "kpZ", "Z")
TWO_THIRDS = (1.5, 2.0 / 3.0)


def has_two_thirds(place: Place) -> bool:
    """Whether the design motion is two thirds of a maximum considered one in this edition."""
    return "S_MS" in place.evaluation.rules


FACTORS = (
    Factor(MOTION, 1.5, "the maximum considered motion", "S16", 4.0),
    Factor(MOTION, 2.0 / 3.0, "2/3 applied twice", "S16", 4.0),
    Factor(("Z",), 0.5, "half of the motion", "S16", 5.0),
    Factor(("Z",), 2.0, "twice the motion", "S16", 5.0),
    Factor(("S_a_modes", "curve_off"), G, "g counted twice", "S01", 4.0),
    Factor(("S_a_modes", "curve_off"), 1.0 / G, "g omitted", "S01", 4.0),
    Factor(("S_a_modes",), 1000.0, "g in millimetres", "S03"),
    Factor(("S_a_modes",), 0.001, "g in metres where the model has millimetres", "S03"),
    Factor(("S_a_modes",), 1.0 / FOOT, "g in feet", "S03"),
    Factor(("S_a_modes",), FOOT, "g in metres where the model has feet", "S03"),
    Factor(("W", "w"), G, "mass taken times g twice", "S06", 5.0),
    Factor(("W", "w"), 1.0 / G, "mass in place of weight", "S06", 5.0),
    Factor(("h_n", "h_x"), 1.0 / FOOT, "heights in feet", "S04", 4.0),
    Factor(("h_n", "h_x"), FOOT, "the constant for feet with heights in metres", "S04", 4.0),
    Factor(("C_t",), FOOT**-0.75, "the constant for feet", "S04", 4.0),
    Factor(("C_t",), FOOT**0.75, "the constant for metres with heights in feet", "S04", 4.0),
    Factor(("damping", "damping_modes", "eccentricity"), 100.0, "per cent read as a fraction", "S05", 5.0),
    Factor(("damping", "damping_modes", "eccentricity"), 0.01, "a fraction read as per cent", "S05", 5.0),
)


@slip("a factor of units or of motions")
def scaled(place: Place) -> Iterator[Attempt]:
    """A value in another unit, or of another level of motion."""
    two_thirds = has_two_thirds(place)
    for names, ratio, words, code, cost in FACTORS:
        if ratio in TWO_THIRDS and not two_thirds:
            continue
        # where a force or an ordinate is of half a zone factor, the whole one is taken; a ground value is of all of it
        if names == ("Z",) and place.stage == "ground":
            continue
        for name in names:
            given = place.arguments.get(name)
            if isinstance(given, np.ndarray) and given.dtype.kind == "f":
                value, parameters = place.under(**{name: given * ratio}), {"ratio": ratio}
            elif (single := number(given)) is not None:
                value, parameters = place.under(**{name: single * ratio}), {name: single * ratio}
            else:
                continue
            yield Attempt(f"{name} x {ratio:.6g}", value, words, code, cost, parameters)


@slip("a bound left")
def unbounded(place: Place) -> Iterator[Attempt]:
    """An upper limit or a minimum is not applied."""
    for name in place.arguments:
        if name.endswith(("_upper", "T_limit")):
            if (value := place.under(**{name: math.inf})) is not None:
                code = "S54" if name == "T_limit" else "S56"
                yield Attempt(f"without {name}", value, f"without the limit {_symbol(name)}", code, 3.0, {name: None})
        elif (name.endswith("_lower") or name == "beta") and (value := place.under(**{name: 0.0})) is not None:
            yield Attempt(f"without {name}", value, f"without the minimum {_symbol(name)}", "S56", 3.0, {name: None})


CONSTANTS = {
    "k": ((1.0, 2.0, 0.0), "S58"),
    "scaling_share": ((0.85, 0.8, 0.9, 1.0), "S12"),
    "eccentricity": ((0.0, 0.05, 0.1), "S79"),
    "mass_target": ((0.9, 0.95), "S12"),
    "lambda_": ((0.85, 1.0), "S56"),
    "amplifier": ((1.0,), "S80"),
    "A_x": ((1.0,), "S74"),
    "rho": ((1.0, 1.3), "S25"),
}
ZERO = {"F_t": "S58"}


@slip("a usual constant")
def constant(place: Place) -> Iterator[Attempt]:
    """A constant that holds elsewhere is used."""
    for name, (values, code) in CONSTANTS.items():
        own = name == place.key.name
        mine = number(place.value if own else place.arguments.get(name))
        for value in values:
            if own and value != mine:
                words = f"{_symbol(name)} = {value:g}"
                yield Attempt(f"{name} = {value:g}", value, words, code, 3.0, {name: value})
                continue
            if mine is not None and value != mine:
                words = f"{_symbol(name)} = {value:g} in place of {mine:.4g}"
                yield Attempt(f"{name} = {value:g}", place.under(**{name: value}), words, code, 4.0, {name: value})


@slip("nothing")
def nothing(place: Place) -> Iterator[Attempt]:
    """A part that the code adds is left at zero."""
    code = ZERO.get(place.key.name)
    if code is not None and place.value is not None:
        yield Attempt("zero", 0.0, f"{_symbol(place.key.name)} = 0", code, 3.0, {place.key.name: 0.0})


SYSTEM_FACTORS = ("R", "q", "mu", "S_p", "C_d", "Omega_0")


@slip("another row of the table of systems")
def another_system(place: Place) -> Iterator[Attempt]:
    """The factor of another lateral system."""
    name = place.key.name
    if name not in SYSTEM_FACTORS:
        return
    for value in sorted({s.factors[name] for s in place.edition.systems.values() if name in s.factors}):
        if value != place.value:
            words = f"{_symbol(name)} = {value:g}, of another system"
            yield Attempt(f"{name} = {value:g}", value, words, "S22", 5.0, {name: value})


@slip("another text")
def another_text(place: Place) -> Iterator[Attempt]:
    """Another class, category or equation is stated."""
    theirs = place.theirs.get(None)
    if isinstance(theirs, str) and isinstance(place.value, str):
        words = f"{QUANTITIES[place.key.name].meaning.lower()} {theirs} in place of {place.value}"
        yield Attempt("another text", theirs, words, "", 2.0)


@slip("another class or category")
def option(place: Place) -> Iterator[Attempt]:
    """Another class of soil, zone, category or kind of structure."""
    for name, given in place.arguments.items():
        options = place.edition.options.get("site_class" if name == "site_class_used" else name) or (
            next((place.edition.options[n] for n in ("soil",) if n in place.edition.options), ())
            if name == "site_class_used"
            else ()
        )
        for other in options:
            if other == given or other is None:
                continue
            words = f"{_symbol(name)} {other} in place of {given}"
            code = code_of_class(name, in_drift=place.stage == "drift")
            adjacent = given in options and abs(options.index(other) - options.index(given)) == 1
            cost = 3.0 if adjacent else 2.5 + math.log2(len(options))
            yield Attempt(f"{name} {other}", place.under(**{name: other}), words, code, cost, {name: other})


FLAGS = {
    "class_by_default": "S14",
    "regular_known": "S12",
    "torsion_irregular": "S71",
    "p_delta_included": "S89",
    "velocity_measured": "S14",
}


@slip("a condition the other way")
def condition(place: Place) -> Iterator[Attempt]:
    """What holds is taken not to hold, or the reverse."""
    taken = {p.name for p in place.rule.parameters} if place.rule is not None else set()
    for name, code in FLAGS.items():
        if name not in taken:
            continue
        value = not place.arguments.get(name, False)
        words = f"{QUANTITIES[name].meaning.lower()}: taken as {'yes' if value else 'no'}"
        yield Attempt(f"{name} {value}", place.under(**{name: value}), words, code, 4.0, {name: value})


@slip("another combination of modes")
def combination(place: Place) -> Iterator[Attempt]:
    """SRSS, CQC and absolute sum exchanged."""
    if place.key.name != "V_dynamic":
        return
    mine = place.arguments.get("combined_by", "CQC")
    for by in ("SRSS", "CQC", "ABS"):
        if by != mine:
            yield Attempt(
                f"combined by {by}",
                place.under(combined_by=by),
                f"modes combined by {by}",
                "S52",
                4.0,
                {"combined_by": by},
            )


@slip("height from another level")
def another_base(place: Place) -> Iterator[Attempt]:
    """The height begins one story higher or lower, or ends below the roof."""
    h, height = place.get("h"), number(place.arguments.get("h_n"))
    if height is None or not isinstance(h, np.ndarray) or len(h) < 2:
        return
    for words, value in (
        ("without the lowest story", height - h[0]),
        ("without the highest story", height - h[-1]),
        ("with a further story below", height + h[0]),
    ):
        yield Attempt(
            f"h_n {words}", place.under(h_n=float(value)), f"height {words}", "S59", 5.0, {"h_n": float(value)}
        )


@slip("a story missing from the weight")
def story_missing(place: Place) -> Iterator[Attempt]:
    """The weight of one floor is missing."""
    w = place.arguments.get("w")
    if place.key.name != "W" or not isinstance(w, np.ndarray) or len(w) < 2:
        return
    for i in range(len(w)):
        value = place.under(w=np.delete(w, i))
        yield Attempt(
            f"W without {i}",
            value,
            f"the weight of floor {i + 1} is missing",
            "S38",
            4.0 + math.log2(len(w)),
            {"floor": i + 1},
        )


def _literal(name: str, value: object) -> dict[str, float | str]:
    """The argument that was used, where it is a number; of values by story that they are."""
    single = number(value)
    return {"by story": name} if single is None else {name: single}
