"""What is read off a rule set once: which rules need a quantity, and what a key depends on."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from threading import RLock

from cachetools import LRUCache

from plumb_core.rules.rule import Rule
from plumb_core.rules.values import Key


@dataclass(frozen=True, slots=True)
class Graph:
    """What is read off a rule set once.

    Who requires a quantity, what a key reaches, what keys rest on under given inputs.
    """

    dependents: dict[str, list[str]]
    reached: dict[Key, frozenset[Key]] = field(default_factory=dict)
    ancestors: dict[frozenset[Key], dict[Key, frozenset[Key]]] = field(default_factory=dict)


CACHED_GRAPHS = 128
"""Graphs that a process keeps; an edition has a handful of rule sets, by what is declared."""
_LOCK = RLock()
_GRAPHS: LRUCache[int, tuple[Mapping[str, Rule], Graph]] = LRUCache(CACHED_GRAPHS)
"""Graphs by the id of their rule set, which is stored with them, so that the id stays valid."""
_OF_RULES: LRUCache[tuple[int, ...], tuple[tuple[Rule, ...], Graph]] = LRUCache(CACHED_GRAPHS)
"""Graphs by the rules themselves: an edition makes its rule set anew for each brief, out of the same rules."""


def graph_of_rules(rules: Mapping[str, Rule]) -> Graph:
    """Return the graph of a rule set, computed once for the same rules."""
    with _LOCK:
        known = _GRAPHS.get(id(rules))
        if known is None:
            known = _GRAPHS[id(rules)] = (rules, _built(tuple(rules.values())))
        return known[1]


def _built(rules: tuple[Rule, ...]) -> Graph:
    identity = tuple(map(id, rules))
    known = _OF_RULES.get(identity)
    if known is None:
        dependents: dict[str, list[str]] = {}
        for applied in rules:
            for parameter in applied.parameters:
                dependents.setdefault(parameter.name, []).append(applied.name)
        known = _OF_RULES[identity] = (rules, Graph(dependents))
    return known[1]
