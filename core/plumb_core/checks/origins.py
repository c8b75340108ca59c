"""Which deviations start where: a pure function over the finished checks."""

from __future__ import annotations

from collections.abc import Sequence

from plumb_core.checks.check import Check, Role
from plumb_core.checks.context import Context
from plumb_core.rules import Key

OF_MODES = ("mode", "reciprocal", "running_sum", "target", "axes", "missing_mode")
"""Kinds that no rule of an edition links with others."""


def with_origins(checks: Sequence[Check], context: Context) -> list[Check]:
    """The checks, each deviating one with the ids of the origins that it rests on.

    A deviation is inherited from the origins above it in the rules; a sum that doesn't close, from its wrong parts or its
    wrong total.
    """
    origins: dict[Key, list[str]] = {}
    for check in checks:
        if check.role is Role.ORIGIN and check.level != 1:
            origins.setdefault(check.key, []).append(check.id)
    above: dict[Key, tuple[str, ...]] = {}
    return [_linked(check, origins, above, context) for check in checks]


def _linked(check: Check, origins: dict[Key, list[str]], above: dict[Key, tuple[str, ...]], context: Context) -> Check:
    if (check.role is None and check.follows) or check.kind in OF_MODES:
        return check
    if check.kind == "mass":
        weights = tuple(origins.get(Key("w"), ())) if check.role is Role.INHERITED else ()
        return _resting_on(check, weights, check.role, context)
    if check.kind == "sum":
        return _sum(check, origins, context) if check.role is Role.ORIGIN else check
    if check.role is Role.INHERITED or not check.follows:
        if check.key not in above:
            ancestors = context.carried.ancestors(check.key)
            starts = [i for key, ids in origins.items() if key in ancestors and key != check.key for i in ids]
            above[check.key] = tuple(starts)
        return _resting_on(check, above[check.key], check.role, context)
    return check


def _sum(check: Check, origins: dict[Key, list[str]], context: Context) -> Check:
    total = Key(context.edition.sums[check.key.name], check.key.direction)
    rests_on = (*origins.get(check.key, ()), *origins.get(total, ()))
    return _resting_on(check, rests_on, Role.INHERITED if rests_on else Role.ORIGIN, context)


def _resting_on(check: Check, origins: tuple[str, ...], role: Role | None, context: Context) -> Check:
    """The check with the origins that it rests on; the same check with the same origins is the same one again."""
    if origins == check.rests_on and role is check.role:
        return check
    known = context.linked.get(id(check))
    if known is not None and known[0] is check and known[1].rests_on == origins and known[1].role is role:
        return known[1]
    linked = check.resting_on(origins, role)
    context.linked[id(check)] = (check, linked)
    return linked
