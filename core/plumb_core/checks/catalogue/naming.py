"""Codes and explanations added to finished checks: no deviation is reported twice, one mistake is one origin."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace

from plumb_core.checks.catalogue.found import Found, Named
from plumb_core.checks.catalogue.registry import catalogue_tests
from plumb_core.checks.check import Check
from plumb_core.checks.context import Context
from plumb_core.checks.verdict import DeviationRole, Verdict


def with_catalogue(context: Context, checks: Sequence[Check]) -> list[Check]:
    """The checks with the codes of the mistakes that explain them, and with the questions and notes of the tests.

    A code that a checker has given stays unless a test names it as farther from the cause.  Of several tests that name
    a check the first whose numbers show it is used, else the first in the order of the codes.
    """
    found = Found(context, checks)
    names: dict[str, tuple[str, Named]] = {}
    more: list[Check] = []
    for code, test in catalogue_tests().items():
        for spoken in test.function(found):
            if isinstance(spoken, Check):
                more.append(spoken)
                continue
            known = names.get(spoken.check)
            if known is None or (spoken.exact and not known[1].exact):
                names[spoken.check] = code, spoken
    resting = _gathered(names.values())
    complete = [_named(c, names.get(c.id), resting.get(c.id)) for c in checks] + more
    aside = {entry.code: entry.reason for entry in context.brief.set_aside}
    return [_aside(c, aside) for c in complete] if aside else complete


def _aside(check: Check, reasons: Mapping[str, str]) -> Check:
    """A question or a note of a test that is set aside, for the record; a deviation stays what it is."""
    if check.slip not in reasons or check.verdict not in (Verdict.QUESTION, Verdict.NOTE):
        return check
    words = f"{check.note}; set aside for this review: {reasons[check.slip]}"
    return replace(check, verdict=Verdict.NOTE, note=words)


def _gathered(named: Iterable[tuple[str, Named]]) -> dict[str, str]:
    """Id of an origin -> id of the origin that has the same cause."""
    return {other: n.check for _, n in named for other in n.gathers if other != n.check}


def _named(check: Check, named: tuple[str, Named] | None, resting_on: str | None) -> Check:
    if resting_on is not None and check.role is DeviationRole.ORIGIN:
        return replace(check, role=DeviationRole.INHERITED, rests_on=(resting_on,))
    if named is None:
        return check
    code, by = named
    if check.slip and check.slip not in by.instead_of:
        return check
    note = "; ".join(p for p in (check.note, by.words) if p)
    return replace(check, slip=code, note=note)
