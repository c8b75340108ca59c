"""Another rule: what another equation of the clause gives, or another edition's rule of the same quantity."""

from __future__ import annotations

from collections.abc import Iterator

from plumb_core.causes.slip import Attempt, Place, plain, slip
from plumb_core.editions import EDITIONS
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Rule

OTHER_RULE_CODES = {
    "scaling_share": "S12",
    "mass_target": "S12",
    "eccentricity": "S79",
    "drift_limit": "S85",
    "drift_ratio": "S85",
    "k": "S58",
    "F": "S58",
    "amplifier": "S80",
    "Delta": "S80",
    "w": "S35",
}
"""Codes of the rule of another edition where the catalogue has a nearer one than that editions are mixed."""


OWN = 99
"""Rank of what is no code."""


@slip("an equation that does not govern")
def not_governing(place: Place) -> Iterator[Attempt]:
    """The value of another equation of the clause: an upper limit or a minimum is left, or taken too early."""
    if place.rule is None:
        return
    step = place.evaluation.unpinned(place.key)
    if step.governed is None:
        return
    symbol = QUANTITIES[place.key.name].symbol
    for i, candidate in enumerate(step.governed.candidates):
        if candidate.value != step.governed.value:
            words = f"{symbol} {ROLES[candidate.role]}"
            cost = COSTS[candidate.role] + 0.01 * i
            yield Attempt(f"governs {candidate.role} {i}", float(candidate.value), words, "S56", cost)


COSTS = {"base": 4.0, "upper": 5.0, "lower": 7.0}
"""A limit that is left is usual; a minimum that is used where it does not govern is rare."""
ROLES = {
    "base": "without its upper limit and its minimum",
    "upper": "by its upper limit, which does not govern",
    "lower": "by its minimum, which does not govern",
}


@slip("the rule of another edition")
def of_another_edition(place: Place) -> Iterator[Attempt]:
    """The value of the same quantity by the rule of another edition, with the same inputs."""
    mine = place.rule
    if mine is None:
        return
    for edition in EDITIONS.values():
        # a spectrum of the reviewer's own is no edition that a table could be taken from
        if edition.id == place.edition.id or edition.rank >= OWN:
            continue
        rule = edition.rules({}).get(place.key.name)
        if rule is None or rule.function is mine.function:
            continue
        value = _by(rule, place)
        if value is not None:
            family = edition.rank // 50 == place.edition.rank // 50
            words = f"{QUANTITIES[place.key.name].symbol} by the rule of {edition.title}"
            code = OTHER_RULE_CODES.get(place.key.name, "S11")
            yield Attempt(f"edition {edition.id}", value, words, code, 5.0 if family else 6.0, {"edition": edition.id})


def _by(rule: Rule, place: Place) -> object:
    """What a rule of another edition gives with what is known here; None where it lacks something."""
    arguments = {}
    for parameter in rule.parameters:
        value = place.get(parameter.name)
        if value is None:
            if parameter.optional:
                continue
            return None
        if parameter.wants_governed:
            return None
        arguments[parameter.name] = value
    try:
        return plain(rule.function(**arguments))
    except (ValueError, ArithmeticError, LookupError, TypeError, AttributeError):
        return None
