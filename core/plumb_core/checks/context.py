"""All that checkers work from: the brief, what is claimed, and the evaluations of both."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any, NamedTuple

from plumb_core.answers.modal import compare_modes
from plumb_core.briefs import brief_evaluation
from plumb_core.checks.carried import as_option, carried_evaluation, independent_evaluation
from plumb_core.checks.check import Check
from plumb_core.checks.claims import ClaimSet
from plumb_core.checks.compare import Comparison, compare
from plumb_core.checks.results import CaseResults
from plumb_core.checks.stages import staged
from plumb_core.checks.stages.drift.inputs import Governing
from plumb_core.checks.stages.scaling.inputs import modal_shear
from plumb_core.checks.stages.twist.inputs import TorsionFound, Twist
from plumb_core.checks.two_stage import with_two_stage
from plumb_core.documents import results as documents
from plumb_core.documents.brief import Brief
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.documents.submission import Claim
from plumb_core.documents.thresholds import level
from plumb_core.editions import EDITIONS, Edition
from plumb_core.errors import MissingInput, RuleRefused
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Evaluation, Key, Rule, Step

USUAL_TOLERANCE = 0.01
"""Relative tolerance that the tolerances of the vocabulary are meant for."""


class OurValue(NamedTuple):
    """Our value beside a submitted one.

    Attributes
    ----------
    value : number or text; None where there is none
    rests_on_adopted : whether anything it rests on was adopted from the submission
    why : why there is none, in words
    step : the step that it was read from
    """

    value: float | str | None
    rests_on_adopted: bool
    why: str
    step: Step | None = None


@dataclass(frozen=True)
class Context:
    """What a recheck is about.

    Attributes
    ----------
    brief, edition : the reviewer's side, and its governing edition
    submission : label of the submission
    claims : the submission's side
    independent : evaluation over our own inputs
    carried : the same rules with every other submitted value pinned
    results, twists, torsion : results of their load cases, how each of them turns, and what that shows of torsion
    drifts : of each direction that states any, those that are compared with the limit
    own_modes : the answer of the reference model to `modal`; None where it has not been run
    reference : all its answers by kind of request
    modes_beside_ours : the submitted modes matched with those of the reference model; None without either
    made, made_of_claims, linked : checks made so far, shared between assumptions: by key with what they were made from;
        of checkers whose checks no assumption changes; and by the id of a check, that check as it was linked with
        its origins
    """

    brief: Brief
    edition: Edition
    submission: str
    claims: ClaimSet
    independent: Evaluation
    carried: Evaluation
    results: CaseResults
    twists: tuple[Twist, ...] = ()
    torsion: TorsionFound = field(default_factory=lambda: TorsionFound(None, False, {}, ""))
    drifts: tuple[Governing, ...] = ()
    own_modes: Mapping[str, Any] | None = None
    modes_compared: documents.ModeComparison | None = None
    reference: Mapping[str, Mapping[str, Any]] = field(default_factory=dict)
    made: dict[Key, tuple[tuple[Any, ...], list[Check]]] = field(default_factory=dict, repr=False, compare=False)
    made_of_claims: dict[Any, list[Check]] = field(default_factory=dict, repr=False, compare=False)
    linked: dict[int, tuple[Check, Check]] = field(default_factory=dict, repr=False, compare=False)

    @classmethod
    def of(cls, document: RecheckDocument, ours: Mapping[str, Mapping[str, Any]] | None = None) -> Context:
        """The context of a recheck document.

        reference : answers of the reference model by kind of request (modal, static_response, response_X, response_Y)
        """
        own_modes = (ours or {}).get("modal")
        brief = document.brief
        claims = ClaimSet.of(
            document.submission, (s.name for s in brief.stories), EDITIONS[brief.edition].sums, document.open
        )
        independent = with_two_stage(independent_evaluation(brief_evaluation(brief), claims), claims)
        carried = carried_evaluation(brief, independent, claims)
        results = CaseResults(claims.of_cases, claims.cases, len(claims.stories), claims.rounded)
        stages = staged(brief, independent, carried, claims, results)
        independent, carried = stages.independent, stages.carried
        adjacent = None
        if own_modes is not None and claims.modes.numbers:
            adjacent = compare_modes(claims.modes.submitted(), own_modes)
        return cls(
            brief,
            EDITIONS[brief.edition],
            document.submission.label,
            claims,
            independent,
            carried,
            results,
            stages.twists,
            stages.torsion,
            stages.drifts,
            own_modes,
            adjacent,
            ours or {},
        )

    def assuming(
        self,
        *,
        rules: Mapping[str, Rule] | None = None,
        inputs: Mapping[Key, Any] | None = None,
        pins: Mapping[Key, Any] | None = None,
    ) -> Context:
        """The context under another assumption on our side; what the change cannot reach is not computed again."""
        carried_pins = {k: v for k, v in (pins or {}).items() if k not in self.carried.pins}
        return replace(
            self,
            independent=self.independent.assuming(rules=rules, inputs=inputs, pins=pins),
            carried=self.carried.assuming(rules=rules, inputs=inputs, pins=carried_pins),
        )

    @property
    def irregular(self) -> bool:
        """Whether the building is torsionally irregular: found, declared, stated or assumed, in this order."""
        return bool(self.independent.get("torsion_irregular"))

    def modal_shear(self, direction: str, step: str) -> Claim | None:
        """The modal base shear of a direction before or after scaling.

        As stated, else the reaction of its modal case.
        """
        return modal_shear(self.claims, self.results, direction, step)

    @cached_property
    def tolerance_scale(self) -> float:
        """What the tolerances of the vocabulary are multiplied by."""
        stated = self.brief.tolerance or level(self.brief.thresholds, "tolerance")
        return stated / USUAL_TOLERANCE

    def compared(self, name: str, value: float | str, ours: float | str, floor: float) -> Comparison:
        """A value against ours with the tolerance of its quantity, not below `floor`."""
        if isinstance(value, str):
            value = as_option(value, self.edition.options.get(name, ()))
        return compare(value, ours, QUANTITIES[name].tolerance * self.tolerance_scale, floor)

    def step(self, evaluation: Evaluation, key: Key) -> Step | OurValue:
        """The step of a key, on the carried side that of its rule on their upstream values; or why there is none."""
        try:
            # of the independent side nothing is pinned but by an assumption
            return evaluation.unpinned(key) if evaluation.pin is not None else evaluation.at(key)
        except MissingInput as missing:
            return OurValue(None, False, f"{QUANTITIES[missing.name].symbol} is missing on our side")
        except RuleRefused as refused:
            return OurValue(None, False, f"{refused.message}. {refused.remedy}")

    def ours(self, evaluation: Evaluation, key: Key, index: int | None = None) -> OurValue:
        """Our value of a key, of a story or point of it where `index` is given."""
        return read_off(self.step(evaluation, key), index)

    @cached_property
    def has_make_up(self) -> bool:
        """Whether the submission states a weight make-up with the share of every load."""
        values = self.results.values
        loads = {k.case: len(v.indexed) for k, v in values.items() if k.name in ("load_amount", "load_intensity")}
        shares = {k.case: len(v.indexed) for k, v in values.items() if k.name == "load_share"}
        return bool(loads) and all(shares.get(load, 0) >= number for load, number in loads.items())

    @property
    def not_used(self) -> Mapping[str, str]:
        """Why a quantity does not count here, by its name: an edition may have a value that nothing rests on."""
        return self.independent.get("not_used") or {}

    def limit_step(self, name: str, direction: str | None) -> Step | None:
        """Step of a limit by our own inputs, else by theirs; None where neither gives one."""
        for evaluation in (self.independent, self.carried):
            if evaluation.get(name, direction) is not None:
                return evaluation.step(name, direction)
        return None


def read_off(step: Step | OurValue, index: int | None) -> OurValue:
    """Our value as a step has it, of a story or point where `index` is given."""
    if isinstance(step, OurValue):
        return step
    value = step.value if index is None else step.value[index]
    if isinstance(value, float) and math.isnan(value):
        return OurValue(None, False, "what it is computed from is not read at this place", step)
    if isinstance(value, float) and math.isinf(value):
        return OurValue(None, False, "by our values there is no limit", step)
    return OurValue(value if isinstance(value, str) else float(value), step.rests_on_adopted, "", step)
