r"""The resolver: rules find their inputs by parameter name, and every evaluation leaves its steps behind.

A rule is a pure function whose parameter names are the quantities it needs.  For each the resolver takes, in this
order, the pinned value, the input, or the rule of that name; it looks in the direction's scope for quantities of a
direction and in the building's scope for quantities of the building (see `quantities`).  A building's rule that asks
for a direction's quantity gets a mapping direction -> value; of an optional one it may hold one direction only.
A rule that needs an input only in some of its cases takes it as optional and raises MissingInput where it does.

The same rule set evaluated under different assumptions gives everything the product shows: independent values (no
pins), carried values (submitted values pinned), what-if (an input replaced), another edition (another rule set).
"""

from __future__ import annotations

import inspect
import math
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Literal, NamedTuple

import numpy as np
import numpy.typing as npt

from plumb_core import DIRECTIONS
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.quantities import QUANTITIES, Scope

Key = tuple[str, str | None]
"""(quantity name, direction or None for the building's quantities)."""

Array = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Candidate:
    """One expression among several of which the code lets one govern."""

    label: str
    value: float
    role: Literal["base", "upper", "lower"]


@dataclass(frozen=True, slots=True)
class Governed:
    """A value with the record of which candidate governed it.

    `governed_by` is the label (equation number, or the words of a clause) of the governing candidate.
    """

    value: float
    governed_by: str
    candidates: tuple[Candidate, ...] = ()

    @property
    def margin(self) -> float | None:
        """Relative distance of the governing value to the nearest other candidate, or None if there is no other."""
        others = [c.value for c in self.candidates if c.label != self.governed_by]
        if not others or self.value == 0:
            return None
        return min(abs(other - self.value) for other in others) / abs(self.value)


def bounded(base: Governed, *, upper: Governed | None = None, lower: Governed | None = None) -> Governed:
    """`base`, not above `upper`, and then not below `lower`: a minimum wins over a maximum, as codes word it."""
    candidates = [Candidate(base.governed_by, base.value, "base")]
    best = base
    if upper is not None:
        candidates.append(Candidate(upper.governed_by, upper.value, "upper"))
        if upper.value < best.value:
            best = upper
    if lower is not None:
        candidates.append(Candidate(lower.governed_by, lower.value, "lower"))
        if lower.value > best.value:
            best = lower
    return Governed(best.value, best.governed_by, tuple(candidates))


class Parameter(NamedTuple):
    """What a rule asks for: a quantity, whether per direction, whether it can do without, whether with what governed."""

    name: str
    per_direction: bool
    optional: bool
    wants_governed: bool


@dataclass(frozen=True, slots=True)
class Rule:
    """One definition of a code: a pure function with its clause and its equation.

    In `tex`, ``\\q{name}`` stands for a quantity; it is shown as the quantity's symbol or as its number.
    """

    name: str
    function: Callable[..., Any]
    clause: str
    tex: str
    parameters: tuple[Parameter, ...]


_MARK = re.compile(r"\\q\{(\w+)\}")


def rule(clause: str, tex: str = "", *, defines: str = "") -> Callable[[Callable[..., Any]], Rule]:
    """Make a rule of a function; its parameters are the quantities it needs, its name is the quantity it defines.

    defines : the quantity, for a variant that stands beside the rule it replaces under a name of its own
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
                    QUANTITIES[n].scope is Scope.DIRECTION,
                    p.default is not inspect.Parameter.empty,
                    p.annotation in (Governed, "Governed", "Governed | None"),
                )
                for n, p in parameters.items()
            ),
        )

    return make


def cited(same: Rule, clause: str) -> Rule:
    """A rule that another edition has under another clause."""
    return replace(same, clause=clause)


def rule_set(*rules: Rule) -> dict[str, Rule]:
    """Rules by name; a later rule replaces an earlier one of the same name (that is how variants are made)."""
    return {r.name: r for r in rules}


class Step(NamedTuple):
    """What one evaluation did for one quantity."""

    key: Key
    value: Any
    source: Literal["input", "adopted", "pinned", "rule", "default"]
    clause: str = ""
    tex: str = ""
    inputs: tuple[Key, ...] = ()
    governed: Governed | None = None
    rests_on_adopted: bool = False


PinFunction = Callable[[Key, Callable[[], "Step | None"]], Any]


def _usable(value: Any, unlimited: bool) -> bool:
    """Whether a rule gave a value: not None, not complex (a negative height to a broken power), finite.

    Infinity is a value where the quantity is `unlimited`.
    """
    kind = type(value)
    if kind is str or kind is list:
        return True
    if kind is float or isinstance(value, float):
        return math.isfinite(value) or (unlimited and value == math.inf)
    if isinstance(value, np.ndarray):
        return value.dtype.kind != "c" and bool(np.isfinite(value).all())
    return value is not None and not isinstance(value, complex)


def _computed(applied: Rule, arguments: Mapping[str, Any]) -> Any:
    """Result of a rule; raises RuleRefused where submitted values (a zero, a class that isn't there) give none."""
    try:
        result = applied.function(**arguments)
        value = result.value if isinstance(result, Governed) else result
        if _usable(value, QUANTITIES[applied.name].unlimited):
            return result
    # a rule may need an input only in some of its cases: MissingInput passes
    except MissingInput:
        raise
    except (ArithmeticError, LookupError):
        pass
    raise RuleRefused(
        applied.name,
        f"{QUANTITIES[applied.name].symbol} can't be computed from the values that it rests on",
        f"Check {', '.join(QUANTITIES[p.name].symbol for p in applied.parameters if p.name in arguments)}.",
    )


@dataclass
class Evaluation:
    """One evaluation of a rule set under one set of assumptions; values are computed when asked for, once.

    Parameters
    ----------
    rules : the rule set of an edition
    inputs : values by key
    adopted : keys of inputs that were taken over from the submission for want of our own
    pins : values by key that stand in place of inputs and rules
    pin : how a pinned value is taken: called with the key and a function giving the unpinned step (or None where
        that can't be evaluated), returns the value to use.  By default the value in `pins` as it is.
    """

    rules: Mapping[str, Rule]
    inputs: Mapping[Key, Any]
    adopted: frozenset[Key] = frozenset()
    pins: Mapping[Key, Any] = field(default_factory=dict)
    pin: PinFunction | None = None
    _steps: dict[Key, Step] = field(default_factory=dict)

    def key(self, name: str, direction: str | None) -> Key:
        """The key under which `name` is kept when asked for in a direction."""
        return (name, None if QUANTITIES[name].scope is Scope.BUILDING else direction)

    def value(self, name: str, direction: str | None = None) -> Any:
        """Value of a quantity; raises MissingInput or RuleRefused."""
        return self.step(name, direction).value

    def step(self, name: str, direction: str | None = None) -> Step:
        """Step of a quantity, pinned where a pin is given."""
        return self._at(self.key(name, direction))

    def _at(self, key: Key) -> Step:
        step = self._steps.get(key)
        if step is None:
            step = self._steps[key] = self._pinned(key) if self.pins and key in self.pins else self._free(key)
        return step

    def unpinned(self, name: str, direction: str | None = None) -> Step:
        """Step of a quantity from its input or rule, whether or not it is pinned (its inputs stay pinned)."""
        return self._free(self.key(name, direction))

    def _free(self, key: Key) -> Step:
        if key in self.inputs:
            adopted = key in self.adopted
            return Step(key, self.inputs[key], "adopted" if adopted else "input", rests_on_adopted=adopted)
        applied = self.rules.get(key[0])
        if applied is None:
            raise MissingInput(*key)
        return self._apply(applied, key)

    def steps(self) -> list[Step]:
        """All steps taken so far, inputs before what rests on them."""
        return list(self._steps.values())

    def _pinned(self, key: Key) -> Step:
        if self.pin is None:
            return Step(key, self.pins[key], "pinned")

        def without_pin() -> Step | None:
            try:
                return self.unpinned(*key)
            except (MissingInput, ValueError, ArithmeticError):
                return None

        return Step(key, self.pin(key, without_pin), "pinned")

    def _apply(self, applied: Rule, key: Key) -> Step:
        arguments: dict[str, Any] = {}
        used: list[Key] = []
        adopted = False
        direction = key[1]
        taken, rules, inputs, pins = self._steps, self.rules, self.inputs, self.pins
        for parameter in applied.parameters:
            name, by_direction, optional, wants_governed = parameter
            if by_direction and direction is None:
                found = self._both_ways(parameter)
                if found is None:
                    continue
                used += [s.key for s in found.values()]
                adopted = adopted or any(s.rests_on_adopted for s in found.values())
                arguments[name] = {d: s.value for d, s in found.items()}
                continue
            wanted = (name, direction if by_direction else None)
            step = taken.get(wanted)
            if step is None:
                # most optional inputs are absent; to see that is much quicker than to fail
                if optional and name not in rules and wanted not in inputs and wanted not in pins:
                    continue
                step = self._wanted(parameter, wanted)
                if step is None:
                    continue
            used.append(wanted)
            adopted = adopted or step.rests_on_adopted
            arguments[name] = (step.governed or Governed(step.value, "submitted")) if wants_governed else step.value
        try:
            result = _computed(applied, arguments)
        except RuleRefused as refused:
            refused.direction = key[1]
            raise
        except MissingInput as missing:
            if missing.direction is None and QUANTITIES[missing.name].scope is Scope.DIRECTION:
                missing.direction = key[1]
            raise
        governed = result if isinstance(result, Governed) else None
        return Step(
            key,
            governed.value if governed else result,
            "rule",
            applied.clause,
            applied.tex,
            tuple(used),
            governed,
            adopted,
        )

    def _wanted(self, parameter: Parameter, key: Key) -> Step | None:
        """Step of a parameter, None for one that the rule can do without; raises MissingInput."""
        if not parameter.optional:
            return self._at(key)
        # most optional inputs are absent; to see that is much quicker than to fail
        if key[0] not in self.rules and key not in self.inputs and key not in self.pins:
            return None
        try:
            return self._at(key)
        except MissingInput:
            return None

    def _both_ways(self, parameter: Parameter) -> dict[str, Step] | None:
        """Steps of a direction's parameter for a building's rule; of an optional one those directions that have it."""
        found = {}
        for direction in DIRECTIONS:
            step = self._wanted(parameter, (parameter.name, direction))
            if step is not None:
                found[direction] = step
        return found or None

    def ancestors(self, key: Key, *, optional: bool = True) -> set[Key]:
        """Keys of everything that the rule of `key` rests on, through pinned values too (their rules' inputs).

        With `optional` False, without what rules can do without.
        """
        seen: set[Key] = set()
        todo: list[Key] = self._needs(key, optional)
        while todo:
            new = [k for k in dict.fromkeys(todo) if k not in seen]
            seen.update(new)
            todo = [n for k in new for n in self._needs(k, optional)]
        return seen

    def _needs(self, key: Key, optional: bool) -> list[Key]:
        if key[0] not in self.rules or key in self.inputs:
            return []
        applied = self.rules[key[0]]
        needs: list[Key] = []
        for parameter in applied.parameters:
            if optional or not parameter.optional:
                directions = () if not parameter.per_direction else DIRECTIONS if key[1] is None else (key[1],)
                needs += [(parameter.name, d) for d in directions] or [(parameter.name, None)]
        return needs


def written(tex: str, show: Callable[[str], str]) -> str:
    r"""The TeX of a rule with each ``\q{name}`` replaced by ``show(name)`` (its symbol, or its number)."""
    # in braces, so that a command before it doesn't swallow a letter (\\times W)
    return _MARK.sub(lambda m: "{" + show(m.group(1)) + "}", tex)
