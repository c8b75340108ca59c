"""The two evaluations of a recheck: over our own inputs, and with every submitted value carried on."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from typing import Any

import numpy as np

from plumb_core.checks.check import AddedUp
from plumb_core.checks.claims import ClaimSet, ClaimsOfKey, theirs
from plumb_core.digits import half_unit
from plumb_core.documents.brief import Brief, Site
from plumb_core.documents.submission import Claim
from plumb_core.editions import EDITIONS
from plumb_core.errors import MissingInput
from plumb_core.inputs import edition_rules, rests_on_lacking
from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Evaluation, Key, Rule, Step

NEVER_ADOPTED = (
    "V_static",
    "V_dynamic",
    "V_scaled",
    "factor_required",
    "theta",
    "theta_greatest",
    "A_x",
    "torsion_stated",
)
"""Results of the stages: a submission's own never replace ours."""


def independent_evaluation(ours: Evaluation, claims: ClaimSet) -> Evaluation:
    """The rules over our own inputs; submitted inputs are in where the brief has none.

    Our curve is read at the periods of their table, which makes none of it theirs.
    """
    adopted = _adopted(ours, claims)
    evaluation = ours.adopting(adopted) if adopted else ours
    inputs: dict[Key, Any] = {}
    points = claims.by_key.get(Key("T_points"))
    if points:
        inputs[Key("T_points")] = np.array([float(points.indexed[i].value) for i in sorted(points.indexed)])
    return evaluation.assuming(inputs=inputs)


def _adopted(ours: Evaluation, claims: ClaimSet) -> dict[Key, Any]:
    adopted: dict[Key, Any] = {}
    given = {*ours.inputs, *claims.by_key}
    for key, of_key in claims.by_key.items():
        kind = QUANTITIES[key.name].kind
        if key in ours.inputs or kind is Kind.POINTS or key.name in NEVER_ADOPTED:
            continue
        if key.name in ours.rules and not rests_on_lacking(key, ours.rules, given):
            continue
        if kind is not Kind.STORIES:
            adopted[key] = theirs(of_key.single[0])
        elif len(of_key.indexed) == len(claims.stories):
            values = [theirs(of_key.indexed[i]) for i in range(len(claims.stories))]
            adopted[key] = np.array(values, dtype=float)
    return adopted


def carried_evaluation(brief: Brief, independent: Evaluation, claims: ClaimSet) -> Evaluation:
    """The same rules with each submitted value pinned instead of its input or rule.

    A text is carried like a number; one that chooses rules of the edition, such as a zone, chooses theirs.

    A value that is ours rounded is carried on in full: the submission went on from its full value, not the printed one.
    """

    def pinned(key: Key, unpinned: Callable[[], Step | None]) -> Any:
        return _carried_on(claims.by_key[key], key, unpinned(), len(claims.stories), options)

    options = EDITIONS[brief.edition].options
    rules = _their_rules(brief, claims, options) or independent.rules
    return Evaluation(
        rules,
        independent.inputs,
        independent.adopted,
        claims.by_key,
        pinned,
        independent.cases,
        independent.facts,
    )


def _their_rules(brief: Brief, claims: ClaimSet, options: Mapping[str, tuple[Any, ...]]) -> Mapping[str, Rule] | None:
    """The rules of the edition under the texts that the submission describes the site.

    None where they are those of the brief.
    """
    stated = {}
    for key, of_key in claims.by_key.items():
        if key.direction is None and key.name in Site.model_fields and of_key.single:
            value = as_option(theirs(of_key.single[0]), options.get(key.name, ()))
            if isinstance(value, str) and value != getattr(brief.site, key.name):
                stated[key.name] = value
    if not stated:
        return None
    return edition_rules(brief.edition, brief.site.model_copy(update=stated), brief.system)


def as_option(value: float | str, options: Iterable[Any]) -> float | str:
    """A text as the edition writes it: its option that differs only in capitals, blanks or the words around it."""
    if not isinstance(value, str):
        return value
    plain = value.strip().casefold()
    last = plain.split()[-1] if plain else ""
    for expected in (plain, last):
        for option in options:
            if str(option).casefold() == expected:
                return str(option)
    return value


def _carried_on(
    of_key: ClaimsOfKey, key: Key, step: Step | None, stories: int, options: Mapping[str, tuple[Any, ...]]
) -> Any:
    """The value of a key that the submission goes on from."""
    if of_key.single:
        claim = of_key.single[0]
        value = as_option(theirs(claim), options.get(key.name, ()))
        if step is None or isinstance(value, str) or isinstance(step.value, str):
            return value
        return _unrounded(value, _printed(claim, float(step.value)), float(step.value))
    if step is not None:
        values = np.array(step.value, dtype=float)
    elif len(of_key.indexed) < stories:
        # without a rule for the stories that are not stated there is nothing to carry on
        raise MissingInput(*key)
    else:
        values = np.empty(len(of_key.indexed))
    for i, claim in of_key.indexed.items():
        value = float(theirs(claim))
        values[i] = (
            value if step is None else _unrounded(value, _printed(claim, float(step.value[i])), float(step.value[i]))
        )
    return values


def _printed(claim: Claim, exact: float) -> float:
    """Half a unit of the last digit that was written, within the tolerance of the quantity.

    What a print leaves open.
    """
    if isinstance(claim, AddedUp):
        return claim.half
    return min(half_unit(claim.text) * claim.scale, QUANTITIES[claim.quantity].tolerance * abs(exact))


def _unrounded(given: float, floor: float, exact: float) -> float:
    """`exact` where `given` is it rounded."""
    return exact if abs(given - exact) <= floor * (1 + 1e-9) else given
