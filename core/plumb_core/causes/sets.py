"""Sets of slips over the places of a recheck: for the values that no slip alone gives."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import partial
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from plumb_core.causes.agreement import Agreement, value_at
from plumb_core.causes.beam import Move, as_attempt, sets_at, under_all
from plumb_core.causes.slip import Attempt
from plumb_core.rules import Key

if TYPE_CHECKING:
    from plumb_core.causes.search import Search

MOST_MOVES = 200
"""Slips of a value that are tried in sets."""
MOST_COMPARED = 60
"""Values of a quantity that sets are sought by; all of them judge what is found."""
MOST_UNEXPLAINED = 20
"""Values that sets are sought for."""


def sets_below(
    search: Search, keys: Sequence[Key], explained: frozenset[str]
) -> Iterator[list[tuple[Attempt, Key, frozenset[str], Agreement]]]:
    """Slips at different places that give together what none gives alone."""
    unexplained = {c.key for c in search.origins if c.id not in explained}
    left = [k for k in keys if k in unexplained and any(m.node != k for m, _ in search.effects.get(k, ()))]
    seen: set[tuple[tuple[str, str], ...]] = set()
    for key in left[:MOST_UNEXPLAINED]:
        effects = _effects(search, key)
        for moves in _sets_of(search, key, effects):
            names = tuple(sorted(m.name for m in moves))
            if names in seen:
                continue
            seen.add(names)
            attempt = as_attempt(moves, len(effects))
            values = [(key, _under_all(search, key, moves))]
            for other in left:
                # the same mistakes in the other direction
                again = [m for m, _ in search.effects[other] if m.name in names] if other != key else []
                if len(again) == len(names):
                    values.append((other, _under_all(search, other, again)))
            reproduced = [(k, v) for k, v in values if search.judged(k, v, attempt)[0]]
            if reproduced:
                yield [(attempt, reproduced[0][0], *search.judged_together(reproduced, attempt))]


def _under_all(search: Search, key: Key, moves: Sequence[Move]) -> Any:
    search.evaluations += 1
    return under_all(search.context.carried, key, search.place_under, moves)


def _effects(search: Search, key: Key) -> list[tuple[Move, Any]]:
    """The slips that change a key, the commonest of those that change it alike, the commonest first."""
    commonest: dict[Any, tuple[Move, Any]] = {}
    for move, value in sorted(search.effects.get(key, ()), key=lambda e: e[0].attempt.cost):
        if value is not None and not isinstance(value, str | bool):
            alike = (move.node, tuple(float(f"{v:.5g}") for v in np.atleast_1d(value)))
            commonest.setdefault(alike, (move, value))
    return list(commonest.values())[:MOST_MOVES]


def _sets_of(search: Search, key: Key, effects: Sequence[tuple[Move, Any]]) -> list[tuple[Move, ...]]:
    checks, stated = search.stated(key)
    compared = [
        (c, s.theirs, s.ours)
        for c, s in zip(checks, stated, strict=True)
        if isinstance(s.theirs, float) and isinstance(s.ours, float) and s.theirs > 0 and s.ours > 0
    ]
    if not compared:
        return []
    # hundreds of cases may state one place: some of the values tell the sets that are worth an evaluation
    compared = compared[:: max(1, len(compared) // MOST_COMPARED)]

    def at(value: Any) -> NDArray[np.float64]:
        return np.array([x if isinstance(x := value_at(value, c.index), float) else np.nan for c, _, _ in compared])

    submitted, ours = (np.array([c[i] for c in compared], dtype=float) for i in (1, 2))
    return sets_at(submitted, ours, [(m, at(v)) for m, v in effects], at, partial(_under_all, search, key))
