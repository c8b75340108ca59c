"""What the submission declares of its analysis, compared with the rest of it and against the edition."""

from __future__ import annotations

import re
from collections.abc import Iterator

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check
from plumb_core.checks.claims import ClaimsOfKey, theirs
from plumb_core.checks.context import Context
from plumb_core.checks.registry import checker
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.checks.wording import figures
from plumb_core.documents.submission import Claim
from plumb_core.editions import EDITIONS, Edition
from plumb_core.editions.shared import closely_spaced
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Array, Key

USUAL_DAMPING = 0.05
WARNING = re.compile(
    r"warn|error|negative|singular|unstable|instabilit|ill-?conditioned|not converge|zero stiffness", re.I
)
"""Words of a line of the log that state of something doubtful."""
NO_WARNING = re.compile(
    r"\b(no|0|without|zero) (\w+ )?(warning|error)s?\b|(warning|error)s?\s*[:=]\s*(0|none|no|nil)\b", re.I
)
"""Words by which a line says that there was nothing."""
NOTED = ("diaphragms", "base_level", "tension_only", "second_order_stated", "directions_by", "log_line")
"""Declarations that are for the record: other checks read them."""
DECLARED = (*NOTED, "mass_target", "edition_stated", "combined_by", "modes_count", "damping_modes", "damping")


@checker("declared")
def declared(context: Context) -> Iterator[Check]:
    """Declarations: noted, compared with the rest of the submission, or questioned."""
    for name in DECLARED:
        of_key = context.claims.by_key.get(Key(name))
        for claim in _first(name, of_key):
            verdict, note, slip = _judged(context, name, claim)
            role = DeviationRole.ORIGIN if verdict is Verdict.DIFFERS else None
            yield Check(
                "declared",
                Key(name),
                QUANTITIES[name].symbol,
                claim,
                verdict=verdict,
                role=role,
                level=2,
                note=note,
                slip=slip,
                covers=(Key(name),),
            )


def _first(name: str, of_key: ClaimsOfKey | None) -> list[Claim]:
    """The claim that a declaration is stated at; of a log that is its first line."""
    if of_key is None:
        return []
    return (of_key.all if name == "log_line" else of_key.single)[:1]


def _judged(context: Context, name: str, claim: Claim) -> tuple[Verdict, str, str]:
    value = theirs(claim)
    if name == "edition_stated":
        return _edition(context, str(value))
    if name == "mass_target":
        return _target(context, float(value))
    if name == "combined_by":
        return _combination(context, str(value))
    if name == "modes_count":
        number = len(context.claims.modes.numbers)
        if number and abs(float(value) - number) > 0.5:
            words = f"{figures(float(value))} modes are stated, the submitted table lists {number}"
            return Verdict.QUESTION, words, "S48"
        return (
            Verdict.AGREES,
            f"the submitted table lists {number} modes" if number else "no table of modes is submitted",
            "",
        )
    if name in ("damping", "damping_modes"):
        return _damping(context, name, float(value))
    if name == "base_level":
        return _base(context, str(value))
    if name == "log_line":
        return _log(context)
    return Verdict.NOTE, f"as stated: {value}", ""


def _log(context: Context) -> tuple[Verdict, str, str]:
    """Lines of the log of a run: those that warn are asked about (S91)."""
    of_key = context.claims.by_key.get(Key("log_line"))
    lines = [str(theirs(c)) for c in of_key.all] if of_key is not None else []
    warning = [line for line in lines if WARNING.search(line) and not NO_WARNING.search(line)]
    if not warning:
        return Verdict.NOTE, f"as stated: {'; '.join(lines[:2])}", ""
    more = f", and {len(warning) - 1} more" if len(warning) > 1 else ""
    return Verdict.QUESTION, f"the log of the analysis has a warning without an explanation: {warning[0]}{more}", "S91"


def _base(context: Context, stated: str) -> tuple[Verdict, str, str]:
    """The base at a floor of the building: what is below it is no part of the seismic weight (S40)."""
    stories = context.claims.stories
    at = next((i for i, name in enumerate(stories) if _plain(name) == _plain(stated)), None)
    if at is None:
        return Verdict.NOTE, f"as stated: {stated}", ""
    below = ", ".join(stories[: at + 1][:4])
    words = f"the base is stated at {stories[at]}, but {below} are among the stories whose weights and heights are used"
    return Verdict.QUESTION, words, "S40"


def _plain(title: str) -> str:
    return "".join(c for c in title.lower() if c.isalnum())


def _likeness(stated: str, edition: Edition) -> int:
    """Letters of the longest name of an edition that the stated one begins with; 0 where it is none of them."""
    names = (_plain(t) for t in (edition.id, edition.title, edition.short))
    return max((len(n) for n in names if stated.startswith(n)), default=0)


def _edition(context: Context, stated: str) -> tuple[Verdict, str, str]:
    named = {e.id: _likeness(_plain(stated), e) for e in EDITIONS.values()}
    best = max(named.values())
    if best and named[context.edition.id] == best:
        return Verdict.AGREES, f"the review follows {context.edition.title}", ""
    known = best > 0
    other = "another edition" if known else "an edition that is not available here"
    return Verdict.QUESTION, f"the submission says it follows {stated}, {other} than {context.edition.title}", "S11"


def _target(context: Context, stated: float) -> tuple[Verdict, str, str]:
    """A target on modes that is below the code's (S12); one that requires more is no fault."""
    step = context.limit_step("mass_target", None) if "mass_target" in context.independent.rules else None
    if step is None:
        return Verdict.NOTE, "the edition has no target on modes", ""
    if stated < float(step.value) - 1e-6:
        return Verdict.DIFFERS, f"a target of {stated:.3g} is stated, {float(step.value):.3g} is required", "S12"
    return Verdict.AGREES, f"{float(step.value):.3g} is required", ""


def _combination(context: Context, stated: str) -> tuple[Verdict, str, str]:
    """A combination of modes that is not the one that closely spaced periods request (S52)."""
    table = context.claims.modes
    periods = [T for m in table.numbers if (T := table.period(m)) is not None]
    decided = "modal_combination" in context.independent.rules and len(periods) > 1
    if decided and stated == "SRSS" and _close(context, np.array(periods)):
        return Verdict.QUESTION, "modes are combined by SRSS, and some periods are closely spaced", "S52"
    return Verdict.AGREES, f"modes combined by {stated}", ""


def _close(context: Context, periods: Array) -> bool:
    """Whether modes are close: by the threshold of the office or of the review, else by the measure of the edition."""
    threshold = context.brief.thresholds.close_modes
    if threshold is not None:
        return closely_spaced(periods, threshold)
    under = context.independent.assuming(inputs={Key("T_modes"): periods})
    return bool(under.get("modal_combination") == "CQC")


def _damping(context: Context, name: str, value: float) -> tuple[Verdict, str, str]:
    """Damping of the curve and of the modes: alike, and 5 % or justified (S31)."""
    both = [
        float(theirs(of_key.single[0]))
        for n in ("damping", "damping_modes")
        if (of_key := context.claims.by_key.get(Key(n))) is not None and of_key.single
    ]
    if max(both) - min(both) > 1e-6:
        if name == "damping":
            return Verdict.NOTE, "the damping of the modes differs", ""
        return (
            Verdict.QUESTION,
            f"the spectrum is for {both[0]:.3g} of critical damping, the modes for {both[-1]:.3g}",
            "S31",
        )
    required = {float(context.independent.get("damping_required", d) or USUAL_DAMPING) for d in DIRECTIONS}
    if all(abs(value - r) > 1e-6 for r in required):
        usual = " or ".join(f"{r:.3g}" for r in sorted(required))
        return (
            Verdict.QUESTION,
            f"a damping of {value:.3g} differs from the {usual} of the code for this structure",
            "S31",
        )
    return Verdict.AGREES, f"{value:.3g} of critical damping", ""
