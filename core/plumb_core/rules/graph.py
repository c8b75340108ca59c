"""What is read off a rule set once: which rules need a quantity, and what a key depends on."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Mapping
from dataclasses import dataclass, field

from plumb_core.rules.rule import Rule
from plumb_core.rules.values import Key


@dataclass(frozen=True, slots=True)
class Graph:
    """What is read off a rule set once: who requires a quantity, what a key reaches, what keys rest on under given inputs."""

    dependents: dict[str, list[str]]
    reached: dict[Key, frozenset[Key]] = field(default_factory=dict)
    ancestors: dict[frozenset[Key], dict[Key, frozenset[Key]]] = field(default_factory=dict)


_GRAPHS: OrderedDict[int, tuple[Mapping[str, Rule], Graph]] = OrderedDict()
"""Graphs by the id of their rule set, which is kept with them, so that its id stays its own."""
_OF_RULES: OrderedDict[tuple[int, ...], tuple[tuple[Rule, ...], Graph]] = OrderedDict()
"""Graphs by the rules themselves: an edition makes its rule set anew for each brief, out of the same rules."""
CACHED_GRAPHS = 128
"""How many are kept; an edition has a handful of rule sets, by what is declared."""


def graph_of_rules(rules: Mapping[str, Rule]) -> Graph:
    known = _GRAPHS.get(id(rules))
    if known is None:
        known = _GRAPHS[id(rules)] = (rules, _built(tuple(rules.values())))
        if len(_GRAPHS) > CACHED_GRAPHS:
            _GRAPHS.popitem(last=False)
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
        if len(_OF_RULES) > CACHED_GRAPHS:
            _OF_RULES.popitem(last=False)
    return known[1]
