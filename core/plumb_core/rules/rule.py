"""Rules: pure functions whose parameter names are the quantities that they need."""

from __future__ import annotations

import inspect
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any, NamedTuple

from plumb_core import DIRECTIONS
from plumb_core.quantities import QUANTITIES, Scope
from plumb_core.rules.values import Governed, Key


class Parameter(NamedTuple):
    """What a rule requires.

    Attributes
    ----------
    name : name of the quantity
    scope : whose quantity it is
    optional : whether the rule can do without
    default : what the rule then takes
    wants_governed : whether it receives the record of what governed it
    """

    name: str
    scope: Scope
    optional: bool
    default: Any
    wants_governed: bool


class ParameterSource(NamedTuple):
    """A parameter of a rule and the key it is found at; None where it is a mapping over narrower scopes."""

    parameter: Parameter
    key: Key | None


def _sources(parameters: tuple[Parameter, ...], direction: str | None) -> tuple[ParameterSource, ...]:
    """Where a rule of the building (direction None) or of a direction finds what it requires."""
    requested = []
    for parameter in parameters:
        if parameter.scope is Scope.BUILDING:
            requested.append(ParameterSource(parameter, Key(parameter.name)))
        elif parameter.scope is Scope.DIRECTION and direction is not None:
            requested.append(ParameterSource(parameter, Key(parameter.name, direction)))
        else:
            requested.append(ParameterSource(parameter, None))
    return tuple(requested)


@dataclass(frozen=True, slots=True)
class Rule:
    r"""One definition of a code: a pure function with its clause and its equation.

    In `tex`, ``\q{name}`` represents a quantity; it is shown as the quantity's symbol or as its number.
    """

    name: str
    function: Callable[..., Any]
    clause: str
    tex: str
    parameters: tuple[Parameter, ...]
    sources: Mapping[str | None, tuple[ParameterSource, ...]] = field(init=False, repr=False, compare=False)
    """what the rule requires when it is evaluated for the building (None) or for a direction"""

    def __post_init__(self) -> None:
        # a rule is evaluated thousands of times for the same few keys
        object.__setattr__(self, "sources", {d: _sources(self.parameters, d) for d in (None, *DIRECTIONS)})

    def sources_of_case(self, key: Key) -> tuple[ParameterSource, ...]:
        """What the rule requires when it is evaluated for a load case."""
        return tuple(
            ParameterSource(p, Key(p.name, key.direction, key.case))
            if p.scope is Scope.CASE
            else ParameterSource(p, place)
            for p, place in self.sources[key.direction]
        )


_MARK = re.compile(r"\\q\{(\w+)\}")


def rule(clause: str, tex: str = "", *, defines: str = "") -> Callable[[Callable[..., Any]], Rule]:
    """Make a rule of a function; its parameters are the quantities it needs, its name is the quantity it defines.

    defines : the quantity, where the name of the function is another
    """

    def make(function: Callable[..., Any]) -> Rule:
        name = defines or function.__name__
        parameters = inspect.signature(function).parameters
        unknown = [n for n in (name, *parameters, *_MARK.findall(tex)) if n not in QUANTITIES]
        if unknown:
            raise NameError(f"rule {name}: not in the vocabulary: {', '.join(unknown)}")
        return Rule(
            name=name,
            function=function,
            clause=clause,
            tex=tex,
            parameters=tuple(
                Parameter(
                    n,
                    QUANTITIES[n].scope,
                    p.default is not inspect.Parameter.empty,
                    None if p.default is inspect.Parameter.empty else p.default,
                    p.annotation in (Governed, "Governed", "Governed | None"),
                )
                for n, p in parameters.items()
            ),
        )

    return make


def cited(same: Rule, clause: str) -> Rule:
    """A rule that another edition has under another clause."""
    return replace(same, clause=clause)


def without(same: Rule, *names: str) -> Rule:
    """A rule that does without some of its optional parameters, for an edition that has no such quantities."""
    return replace(same, parameters=tuple(p for p in same.parameters if p.name not in names))


def renamed(same: Rule, names: Mapping[str, str]) -> Rule:
    """A rule for other quantities of the same kind.

    Of the reduced drift of other cases, of an ordinate at other periods.

    names : quantity of the rule -> quantity that is in its place
    """
    function = same.function
    back = {other: name for name, other in names.items()}

    def applied(**arguments: Any) -> Any:
        return function(**{back.get(name, name): value for name, value in arguments.items()})

    applied.__doc__ = function.__doc__

    parameters = tuple(
        p._replace(name=names[p.name], scope=QUANTITIES[names[p.name]].scope) if p.name in names else p
        for p in same.parameters
    )
    tex = _MARK.sub(lambda m: f"\\q{{{names.get(m.group(1), m.group(1))}}}", same.tex)
    return replace(same, name=names.get(same.name, same.name), function=applied, parameters=parameters, tex=tex)


def rule_set(*rules: Rule) -> dict[str, Rule]:
    """Rules by name; a later rule replaces an earlier one of the same name (that is how variants are made)."""
    return {r.name: r for r in rules}


def written(tex: str, show: Callable[[str], str]) -> str:
    r"""The TeX of a rule with each ``\q{name}`` replaced by ``show(name)`` (its symbol, or its number)."""
    # in braces, so that a command before it does not swallow a letter (\\times W)
    return _MARK.sub(lambda m: "{" + show(m.group(1)) + "}", tex)
