r"""The resolver: rules find their inputs by parameter name, and every evaluation leaves its steps behind.

A rule is a pure function whose parameter names are the quantities it needs.  For each the resolver takes, in this
order, the pinned value, the input, or the rule of that name.  A quantity belongs to the building, to a direction or
to a
load case (see `quantities`); what is not stated of a case is looked for in its direction, then in the building.  A
building's rule that requires a direction's quantity gets a mapping direction -> value, a rule that requires a case's
quantity from outside of it a mapping case -> value (a direction's rule: of the cases of its direction).  Of an optional
one the mapping holds those that have it.  A rule that needs an input only under some circumstances takes it as optional
and raises MissingInput where it does.  The default that a rule takes for want of an input leaves a step of its own.

The same rule set evaluated under different assumptions gives everything the product shows: independent values (no
pins), carried values (submitted values pinned), what-if (an input replaced), another edition (another rule set).
"""

from __future__ import annotations

import math
from collections.abc import Callable, Container, Iterable, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any, Literal, NamedTuple

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.quantities import QUANTITIES, Scope
from plumb_core.rules.facts import Fact
from plumb_core.rules.graph import CACHED_GRAPHS, graph_of_rules
from plumb_core.rules.rule import Parameter, Rule
from plumb_core.rules.values import Array, Governed, Key

StepSource = Literal["input", "adopted", "pinned", "rule", "assumed", "found", "declared", "submitted"]


class Step(NamedTuple):
    """What one evaluation did for one quantity.

    Attributes
    ----------
    key : whose value of what
    value : a number, text, flag, array of shape (n_stories,) or (n_points,), or structured data, in the core's units
    source : where it comes from: given by the reviewer (input), adopted from the submission for want of our own
        (adopted), put instead of the rule (pinned), computed (rule), assumed by a rule for want of anything else
        (assumed); of a fact found, declared, submitted or assumed
    clause, tex : of the rule
    inputs : keys that the rule took
    governed : which of several expressions governed
    rests_on_adopted : whether anything above was adopted from the submission
    """

    key: Key
    value: Any
    source: StepSource
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
        if value.dtype.kind == "c":
            return False
        usable = np.isfinite(value)
        return bool((usable | (value == math.inf) if unlimited else usable).all())
    return value is not None and not isinstance(value, complex)


def _open_as_given(value: Array, arguments: Mapping[str, Any]) -> bool:
    """Whether an array has no value only at the stories where an input has none, and finite ones elsewhere."""
    if value.dtype.kind != "f":
        return False
    given = [a for a in arguments.values() if isinstance(a, np.ndarray) and a.shape == value.shape]
    open_ones = np.zeros(value.shape, dtype=bool)
    for each in given:
        if each.dtype.kind == "f":
            open_ones |= np.isnan(each)
    return bool(np.all(np.isfinite(value) | (np.isnan(value) & open_ones)))


def _computed(applied: Rule, arguments: Mapping[str, Any]) -> Any:
    """Result of a rule; raises RuleRefused where submitted values (a zero, a class that is not there) give none."""
    try:
        result = applied.function(**arguments)
        value = result.value if type(result) is Governed else result
        if (type(value) is float and math.isfinite(value)) or _usable(value, QUANTITIES[applied.name].unlimited):
            return result
        if isinstance(value, np.ndarray) and _open_as_given(value, arguments):
            return result
    # a rule may need an input only in some of its cases: MissingInput passes
    except MissingInput:
        raise
    except (ArithmeticError, LookupError):
        pass
    raise RuleRefused(
        applied.name,
        f"{QUANTITIES[applied.name].symbol} cannot be computed from the values it depends on",
        f"Check {', '.join(QUANTITIES[p.name].symbol for p in applied.parameters if p.name in arguments)}.",
    )


@dataclass(frozen=True)
class Evaluation:
    """One evaluation of a rule set under one set of assumptions; values are computed when requested, once.

    Nothing of it changes from outside; `assuming` gives another one that shares every step the change cannot reach.

    Parameters
    ----------
    rules : the rule set of an edition
    inputs : values by key
    adopted : keys of inputs that were adopted from the submission for want of our own
    pins : values by key that replace inputs and rules
    pin : how a pinned value is taken: called with the key and a function giving the unpinned step (or None where
        that cannot be evaluated), returns the value to use.  By default the value in `pins` as it is.
    cases : the load cases, each with its direction (None for one without)
    facts : conditions that were resolved from several sources, by key; they precede inputs and rules
    """

    rules: Mapping[str, Rule]
    inputs: Mapping[Key, Any]
    adopted: frozenset[Key] = frozenset()
    pins: Mapping[Key, Any] = field(default_factory=dict)
    pin: PinFunction | None = None
    cases: Mapping[str, str | None] = field(default_factory=dict)
    facts: Mapping[Key, Fact] = field(default_factory=dict)
    # What has been computed so far; a memory, not a state
    _steps: dict[Key, Step] = field(default_factory=dict, init=False, repr=False, compare=False)
    _unpinned: dict[Key, Step] = field(default_factory=dict, init=False, repr=False, compare=False)
    _assumed: dict[Key, Step] = field(default_factory=dict, init=False, repr=False, compare=False)

    def key(self, name: str, direction: str | None = None, case: str | None = None) -> Key:
        """The key under which `name` is kept when requested in a direction or a case."""
        scope = QUANTITIES[name].scope
        if scope is Scope.BUILDING:
            return Key(name)
        if scope is Scope.DIRECTION or case is None:
            return Key(name, direction)
        return Key(name, self.cases.get(case, direction), case)

    def value(self, name: str, direction: str | None = None, case: str | None = None) -> Any:
        """Value of a quantity; raises MissingInput or RuleRefused."""
        return self.step(name, direction, case).value

    def get(self, name: str, direction: str | None = None, case: str | None = None) -> Any:
        """Value of a quantity; None where an input is missing or a rule refuses."""
        key = self.key(name, direction, case)
        if name not in self.rules and not (key in self.inputs or key in self.pins or key in self.facts or case):
            return None
        try:
            return self.at(key).value
        except (MissingInput, RuleRefused):
            return None

    def step(self, name: str, direction: str | None = None, case: str | None = None) -> Step:
        """Step of a quantity, pinned where a pin is given."""
        return self.at(self.key(name, direction, case))

    def at(self, key: Key) -> Step:
        """Step of a key; raises MissingInput or RuleRefused."""
        step = self._steps.get(key)
        if step is None:
            step = self._steps[key] = self._pinned(key) if self.pins and key in self.pins else self._free(key)
        return step

    def unpinned(self, key: Key) -> Step:
        """Step of a key from its input or rule, whether or not it is pinned (its inputs stay pinned)."""
        if key not in self.pins:
            return self.at(key)
        step = self._unpinned.get(key)
        if step is None:
            step = self._unpinned[key] = self._free(key)
        return step

    def steps(self) -> list[Step]:
        """All steps taken so far, what was assumed first, inputs before what rests on them."""
        return [*(s for s in self._assumed.values() if s.key not in self._steps), *self._steps.values()]

    def assuming(
        self,
        *,
        rules: Mapping[str, Rule] | None = None,
        inputs: Mapping[Key, Any] | None = None,
        pins: Mapping[Key, Any] | None = None,
        cases: Mapping[str, str | None] | None = None,
    ) -> Evaluation:
        """Return the evaluation under another assumption, sharing every step that the change cannot reach.

        Parameters
        ----------
        rules : rules by name that replace those of the edition, or are added to them
        inputs : inputs by key that replace the present ones; None takes an input away
        pins : values by key that replace inputs and rules; existing ones remain
        cases : load cases in addition to the present ones
        """
        changed = [Key(name) for name in rules or ()]
        changed += [k for k, v in (inputs or {}).items() if not _same(self.inputs.get(k), v)]
        changed += [k for k, v in (pins or {}).items() if k not in self.pins or not _same(self.pins[k], v)]
        given = self.inputs
        adopted = self.adopted
        if inputs:
            given = {k: v for k, v in {**self.inputs, **inputs}.items() if v is not None}
            adopted = self.adopted - inputs.keys()
        facts = self.facts
        if facts and inputs and not facts.keys().isdisjoint(inputs):
            facts = {k: f for k, f in facts.items() if k not in inputs}
        other = Evaluation(
            {**self.rules, **rules} if rules else self.rules,
            given,
            adopted,
            {**self.pins, **pins} if pins else self.pins,
            self.pin,
            {**self.cases, **cases} if cases else self.cases,
            facts,
        )
        reached = other.reached(changed, every_direction={k.name for k in changed[: len(rules or ())]})
        for mine, theirs in (
            (self._steps, other._steps),
            (self._unpinned, other._unpinned),
            (self._assumed, other._assumed),
        ):
            theirs.update((k, s) for k, s in mine.items() if k not in reached)
        return other

    def with_(
        self,
        *,
        rules: Mapping[str, Rule] | None = None,
        inputs: Mapping[Key, Any] | None = None,
        adopted: Mapping[Key, Any] | None = None,
        facts: Mapping[Key, Fact] | None = None,
        pins: Mapping[Key, Any] | None = None,
        pin: PinFunction | None = None,
        cases: Mapping[str, str | None] | None = None,
    ) -> Evaluation:
        """A new evaluation with further rules, inputs, facts, pins or cases; nothing that was computed is kept.

        adopted : inputs from the submission
        """
        return Evaluation(
            {**self.rules, **(rules or {})},
            {**self.inputs, **(inputs or {}), **(adopted or {})},
            self.adopted | (adopted or {}).keys(),
            {**self.pins, **(pins or {})},
            pin or self.pin,
            {**self.cases, **(cases or {})},
            {**self.facts, **(facts or {})},
        )

    def adopting(self, values: Mapping[Key, Any]) -> Evaluation:
        """Return the evaluation with values adopted from a submission, where it has no inputs of its own."""
        used = {key: value for key, value in values.items() if key not in self.inputs}
        return replace(self, inputs={**used, **self.inputs}, adopted=self.adopted | used.keys())

    def reached(self, changed: Iterable[Key], every_direction: Container[str] = ()) -> set[Key]:
        """Keys whose values may differ when those of `changed` do, these included.

        every_direction : names among them that change wherever they are (a rule that was replaced)
        """
        starts = [k for key in changed for k in (self._everywhere(key.name) if key.name in every_direction else [key])]
        return {key for start in starts for key in self._reached_from(start)}

    def _reached_from(self, start: Key) -> frozenset[Key]:
        """Keys below one key, kept with the rule set where no cases are given."""
        graph = graph_of_rules(self.rules)
        if self.cases:
            return self._walked_from(start, graph.dependents)
        known = graph.reached.get(start)
        if known is None:
            known = graph.reached[start] = self._walked_from(start, graph.dependents)
        return known

    def _walked_from(self, start: Key, dependents: Mapping[str, list[str]]) -> frozenset[Key]:
        seen: set[Key] = set()
        todo = [start]
        while todo:
            key = todo.pop()
            if key in seen:
                continue
            seen.add(key)
            if key.case is None and QUANTITIES[key.name].scope is Scope.CASE:
                # What is not stated of a case is taken from here
                todo += self._below(key.name, key)
            for name in dependents.get(key.name, ()):
                todo += self._below(name, key)
        return frozenset(seen)

    def _everywhere(self, name: str) -> list[Key]:
        """All keys that a quantity can have here."""
        return self._below(name, Key(name))

    def _below(self, name: str, above: Key) -> list[Key]:
        """Keys of a quantity whose rule requires the quantity of `above`."""
        scope = QUANTITIES[name].scope
        if scope is Scope.BUILDING:
            return [Key(name)]
        if scope is Scope.DIRECTION:
            return [Key(name, d) for d in (DIRECTIONS if above.direction is None else (above.direction,))]
        if above.case is not None:
            return [Key(name, above.direction, above.case)]
        return [Key(name, d, c) for c, d in self.cases.items() if above.direction in (None, d)]

    def _free(self, key: Key) -> Step:
        fact = self.facts.get(key) if self.facts else None
        if fact is not None:
            return Step(key, fact.value, fact.source, fact.clause, rests_on_adopted=fact.source == "submitted")
        if key in self.inputs:
            adopted = key in self.adopted
            return Step(key, self.inputs[key], "adopted" if adopted else "input", rests_on_adopted=adopted)
        applied = self.rules.get(key.name)
        if applied is not None:
            return self._apply(applied, key)
        # What is not stated of the case holds as it is stated of its direction, then of the building
        for wider in (Key(key.name, key.direction), Key(key.name)) if key.case is not None else ():
            if wider in self.inputs:
                return self.at(wider)
        raise MissingInput(*key)

    def _pinned(self, key: Key) -> Step:
        if self.pin is None:
            return Step(key, self.pins[key], "pinned")

        def without_pin() -> Step | None:
            try:
                return self.unpinned(key)
            except (MissingInput, ValueError, ArithmeticError):
                return None

        return Step(key, self.pin(key, without_pin), "pinned")

    def arguments(self, key: Key) -> dict[str, Any]:
        """What the rule of a key takes, by parameter; raises MissingInput or RuleRefused."""
        return self._arguments(self.rules[key.name], key)[0]

    def _arguments(self, applied: Rule, key: Key) -> tuple[dict[str, Any], list[Key], bool]:
        """What a rule takes, the keys that it is from, and whether any of it rests on what was adopted."""
        arguments: dict[str, Any] = {}
        used: list[Key] = []
        adopted = False
        accepted, rules, inputs, pins, facts = self._steps, self.rules, self.inputs, self.pins, self.facts
        for parameter, expected in applied.sources[key.direction] if key.case is None else applied.sources_of_case(key):
            name, _, optional, default, wants_governed = parameter
            if expected is None:
                steps = self._narrower(parameter, key.direction)
                if steps:
                    used += [s.key for s in steps.values()]
                    adopted = adopted or any(s.rests_on_adopted for s in steps.values())
                    arguments[name] = {place: s.value for place, s in steps.items()}
                continue
            step = accepted.get(expected)
            if step is None:
                if not optional:
                    step = self.at(expected)
                # most optional inputs are absent; to see that is much quicker than to fail
                elif (
                    name in rules
                    or expected in inputs
                    or (pins and expected in pins)
                    or (facts and expected in facts)
                    or expected.case is not None
                ):
                    step = self._wanted(parameter, expected)
                if step is None:
                    if default is not None and default != "":
                        self._assume(expected, default)
                        used.append(expected)
                    continue
            used.append(expected)
            if step.rests_on_adopted:
                adopted = True
            arguments[name] = (step.governed or Governed(step.value, "submitted")) if wants_governed else step.value
        return arguments, used, adopted

    def _apply(self, applied: Rule, key: Key) -> Step:
        arguments, used, adopted = self._arguments(applied, key)
        try:
            result = _computed(applied, arguments)
        except RuleRefused as refused:
            refused.direction = key.direction
            raise
        except MissingInput as missing:
            if missing.direction is None and QUANTITIES[missing.name].scope is not Scope.BUILDING:
                missing.direction = key.direction
                missing.case = key.case if QUANTITIES[missing.name].scope is Scope.CASE else None
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

    def _assume(self, key: Key, default: Any) -> None:
        """Leave a step for what a rule takes by itself; it is no value that another rule could take."""
        if key not in self._assumed:
            self._assumed[key] = Step(key, default, "assumed")

    def _wanted(self, parameter: Parameter, key: Key) -> Step | None:
        """Step of a parameter, None for one that the rule can do without; raises MissingInput."""
        if not parameter.optional:
            return self.at(key)
        try:
            return self.at(key)
        except MissingInput:
            return None

    def _narrower(self, parameter: Parameter, direction: str | None) -> dict[str, Step]:
        """Steps of what is narrower than the rule that requires it, by direction or by case.

        Of an optional one those places that have it; empty where none has.  Of cases those that have it: not every
        case is
        there for every purpose.
        """
        steps: dict[str, Step] = {}
        if parameter.scope is Scope.DIRECTION:
            for d in DIRECTIONS:
                key = Key(parameter.name, d)
                given = parameter.name in self.rules or key in self.inputs or key in self.pins or key in self.facts
                if parameter.optional and not given:
                    continue
                step = self._wanted(parameter, key)
                if step is not None:
                    steps[d] = step
            return steps
        for case, entry in self.cases.items():
            if direction is not None and entry != direction:
                continue
            try:
                steps[case] = self.at(Key(parameter.name, entry, case))
            except MissingInput:
                continue
        if not steps and not parameter.optional:
            raise MissingInput(parameter.name, direction)
        return steps

    def ancestors(self, key: Key) -> frozenset[Key]:
        """Keys of everything that the rule of `key` rests on, through pinned values too (their rules' inputs)."""
        known = self._known_ancestors
        above = known.get(key)
        if above is None:
            above = known[key] = frozenset(self._above(key, True))
        return above

    @cached_property
    def _known_ancestors(self) -> dict[Key, frozenset[Key]]:
        """What keys rest on, kept with the rule set for all evaluations that have the same inputs and cases given."""
        if self.cases:
            return {}
        retained = graph_of_rules(self.rules).ancestors
        if len(retained) > CACHED_GRAPHS:
            retained.clear()
        return retained.setdefault(frozenset((*self.inputs, *self.facts)), {})

    def required(self, key: Key) -> set[Key]:
        """As `ancestors`, without what rules can do without."""
        return self._above(key, False)

    def _above(self, key: Key, optional: bool) -> set[Key]:
        seen: set[Key] = set()
        todo: list[Key] = self._needs(key, optional)
        while todo:
            new = [k for k in dict.fromkeys(todo) if k not in seen]
            seen.update(new)
            todo = [n for k in new for n in self._needs(k, optional)]
        return seen

    def _needs(self, key: Key, optional: bool) -> list[Key]:
        if key.name not in self.rules or key in self.inputs or key in self.facts:
            return []
        needs: list[Key] = []
        for parameter in self.rules[key.name].parameters:
            if not optional and parameter.optional:
                continue
            if parameter.scope is Scope.CASE and key.case is not None:
                needs.append(Key(parameter.name, key.direction, key.case))
            else:
                needs += self._below(parameter.name, Key("", key.direction))
        return needs


def _same(one: Any, other: Any) -> bool:
    """Whether two values are the same; arrays element by element."""
    if isinstance(one, np.ndarray) or isinstance(other, np.ndarray):
        return isinstance(one, np.ndarray) and isinstance(other, np.ndarray) and np.array_equal(one, other)
    return bool(one == other)
