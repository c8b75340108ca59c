"""What an analysis as a whole leaves to ask: the method, what both directions share, what results rest on."""

from __future__ import annotations

from collections.abc import Iterator

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check
from plumb_core.checks.context import Context
from plumb_core.checks.registry import checker
from plumb_core.checks.stages.drift.inputs import DRIFTS
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.checks.wording import figures
from plumb_core.documents.submission import Claim
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Key

SHEARS = ("V", "V_static")
"""Base shears of the static method."""
STORY_RESULTS = ("F", "V_story", "M_story")
"""Results by story of the static method."""
MODAL_RESULTS = ("reaction_", "drift_", "displacement_", "V_story", "M_story", "F")
"""Beginnings of what is combined over the modes."""


def _question(
    name: str,
    direction: str | None,
    place: str,
    note: str,
    slip: str,
    claim: Claim | None = None,
    clause: str = "",
    verdict: Verdict = Verdict.QUESTION,
) -> Check:
    label = " ".join(part for part in (QUANTITIES[name].symbol, direction) if part)
    return Check(
        "process",
        Key(name, direction),
        label,
        claim,
        place=place,
        verdict=verdict,
        level=1,
        note=note,
        slip=slip,
        clause=clause,
    )


def _single(context: Context, name: str, direction: str) -> Claim | None:
    of_key = context.claims.by_key.get(Key(name, direction))
    return of_key.single[0] if of_key is not None and of_key.single else None


@checker("process")
def one_for_both(context: Context) -> Iterator[Check]:
    """One period or base shear for both directions, where ours differ (S55)."""
    for name in ("T", *SHEARS):
        x, y = (_single(context, name, d) for d in DIRECTIONS)
        if x is None or y is None or isinstance(x.value, str) or x.value != y.value:
            continue
        ours = [context.ours(context.independent, Key(name, d)).value for d in DIRECTIONS]
        if any(not isinstance(o, float) for o in ours):
            continue
        a, b = (float(o) for o in ours if o is not None)
        if context.compared(name, a, b, 0.0).agrees:
            continue
        unit = QUANTITIES[name].unit
        yield _question(
            name,
            None,
            "both",
            f"{QUANTITIES[name].meaning.lower()} is {x.text or x.value} in both directions; ours are "
            f"{figures(a)} {unit} in X and "
            f"{figures(b)} {unit} in Y",
            "S55",
            x,
        )


@checker("permission")
def method(context: Context) -> Iterator[Check]:
    """Static forces alone where the code does not permit them (S60)."""
    if "static_permitted" not in context.independent.rules or context.claims.modes.numbers:
        return
    if context.claims.awaits("T_mode", "mass_ratio", "V_dynamic", "reaction_X", "reaction_Y"):
        return
    modal = {c.direction for c in context.claims.cases.values() if c.kind == "modal"}
    for d in DIRECTIONS:
        stated = _static_result(context, d)
        if stated is None or _single(context, "V_dynamic", d) is not None or modal & {d, "XY", None}:
            continue
        words = str(context.independent.get("static_permitted", d) or "")
        if words.startswith("not permitted"):
            yield Check(
                "permission",
                Key("static_permitted", d),
                f"static method {d}",
                stated,
                verdict=Verdict.BREACHES,
                role=DeviationRole.ORIGIN,
                level=2,
                clause=context.independent.rules["static_permitted"].clause,
                note=f"the static method is {words}; no modal analysis is submitted for {d}",
                slip="S60",
            )


def _static_result(context: Context, direction: str) -> Claim | None:
    """A result of the static method: its base shear, else the first of its story forces."""
    base = next((c for name in SHEARS if (c := _single(context, name, direction)) is not None), None)
    if base is not None:
        return base
    for name in STORY_RESULTS:
        of_key = context.claims.by_key.get(Key(name, direction))
        if of_key is not None and of_key.all:
            return of_key.all[0]
    return None


@checker("process")
def scaled_drifts(context: Context) -> Iterator[Check]:
    """Which modal results the drifts are made of, where scaling parts forces from drifts (S69)."""
    if "scaled" not in context.independent.rules:
        return
    for d in DIRECTIONS:
        steps = {
            context.claims.cases[case].step
            for case, along in context.results.seismic(context.results.with_values(*DRIFTS))
            if along == d and context.claims.cases[case].kind == "modal"
        }
        required = _factor_of_drifts(context, d)
        clause = context.independent.rules["scaled"].clause
        if required is None:
            continue
        if required > 1.0 + 1e-9 and steps == {"before"}:
            words = (
                f"the drifts in {d} are those before scaling, but the code requires scaled drifts: they are "
                f"multiplied by "
                f"{figures(required)}"
            )
            yield _question("scaled", d, "drifts", words, "S69", clause=clause)
        elif required <= 1.0 + 1e-9 and steps == {"after"} and _scaled_by_theirs(context, d):
            words = f"the drifts in {d} are those of scaled results, which the code does not require: on the safe side"
            yield _question("scaled", d, "drifts", words, "S69", clause=clause, verdict=Verdict.NOTE)


def _factor_of_drifts(context: Context, direction: str) -> float | None:
    """Scale factor that the code requires of the drifts on their own modal base shear."""
    before = context.modal_shear(direction, "before")
    on_theirs = {} if before is None else {Key("V_dynamic", direction): abs(float(before.value))}
    under = context.independent.assuming(inputs=on_theirs) if on_theirs else context.independent
    factor = under.get("factor_drift", direction)
    return None if factor is None else float(factor)


def _scaled_by_theirs(context: Context, direction: str) -> bool:
    """Whether their results are scaled at all: a factor above 1, stated or required."""
    used = _single(context, "factor_used", direction)
    if used is not None:
        return float(used.value) > 1.0 + 1e-9
    return float(context.carried.get("factor_required", direction) or 1.0) > 1.0 + 1e-9


@checker("process")
def combined_maxima(context: Context) -> Iterator[Check]:
    """Results of combined modes are greatest values that do not occur together (S88)."""
    kinds: dict[str, set[str]] = {}
    for key in context.results.values:
        role = context.claims.cases.get(key.case or "")
        if role is not None and role.kind == "modal" and key.name.startswith(MODAL_RESULTS):
            kinds.setdefault(role.name, set()).add(f"{key.name}{key.direction or ''}")
    several = [case for case, names in kinds.items() if len(names) > 1]
    if several:
        words = ", ".join(several[:3]) + (" and others" if len(several) > 3 else "")
        note = f"the results of {words} are combined over the modes: greatest values, which need not occur together"
        yield _question("modal_combination", None, "maxima", note, "S88", verdict=Verdict.NOTE)


@checker("process")
def without_modes(context: Context) -> Iterator[Check]:
    """Modal results without the modes that they are made of (S90)."""
    if context.claims.modes.numbers or context.claims.awaits("T_mode", "mass_ratio"):
        return
    modal = {role.name for role in context.claims.cases.values() if role.kind == "modal"}
    of_cases = {key.case for key in context.results.values if key.case in modal}
    stated = [d for d in DIRECTIONS if _single(context, "V_dynamic", d) is not None]
    if of_cases or stated:
        what = ", ".join(sorted(str(c) for c in of_cases)[:3]) or f"the modal base shear in {' and '.join(stated)}"
        note = (
            f"no table of modes is submitted for {what}: neither the share of the mass nor the base shear can be "
            "verified"
        )
        yield _question("modes_count", None, "run", note, "S90", verdict=Verdict.GAP)
