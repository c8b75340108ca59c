"""How a test of the catalogue is made known, and what its docstring says.

A docstring has five paragraphs: what the mistake looks like, then `Why:`, `Test:`, `Clause:` and `Correct:`.  The page
`docs/slips.md` and `plumb rules` are made of them.
"""

from __future__ import annotations

import inspect
import re
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

if TYPE_CHECKING:
    from plumb_core.checks.catalogue.found import Found, Named
    from plumb_core.checks.check import Check

Sort = Literal["wrong", "ask", "note"]
"""Wrong by arithmetic or by rule; evidence is missing or a choice is not justified; for the record."""
Spoken = Iterable["Named | Check"]
Function = Callable[["Found"], Spoken]
PARTS = ("why", "test", "clause", "correct")
CHAPTERS = (
    "scale",
    "hazard",
    "system",
    "spectrum",
    "weight",
    "modes",
    "base_shear",
    "scaling",
    "torsion",
    "drift",
    "process",
)
"""Modules of the tests, in the order of their codes."""


@dataclass(frozen=True, slots=True)
class CatalogueTest:
    """A test of the catalogue.

    Attributes
    ----------
    code : S01 to S93, which never changes
    title : of the mistake, in words
    sort : what its result is
    stage : of the recheck that it belongs to
    function : names checks that its mistake explains, or makes questions and notes
    """

    code: str
    title: str
    sort: Sort
    stage: str
    function: Function

    @property
    def chapter(self) -> str:
        """Title of its chapter."""
        module = inspect.getmodule(self.function)
        return (inspect.getdoc(module) or "").split("\n")[0].rstrip(".")

    @property
    def appearance(self) -> str:
        """What the mistake looks like."""
        return self.part("")

    def part(self, name: str) -> str:
        """A part of its explanation, one of PARTS; with an empty name the first paragraph."""
        paragraphs = re.split(r"\n\s*\n", inspect.getdoc(self.function) or "")
        begins = f"{name.capitalize()}: " if name else ""
        found = next((p for p in paragraphs if p.startswith(begins)), "")
        return " ".join(found.removeprefix(begins).split())


_TESTS: dict[str, CatalogueTest] = {}


def catalogue_test(code: str, title: str, *, sort: Sort, stage: str) -> Callable[[Function], Function]:
    """Register a test; raises NameError for a code that is none or is taken, or a docstring without its parts."""

    def register(function: Function) -> Function:
        made = CatalogueTest(code, title, sort, stage, function)
        lacking = [p for p in PARTS if not made.part(p)]
        if not re.fullmatch(r"S\d\d", code) or code in _TESTS or lacking or not made.appearance:
            raise NameError(f"{code}: the code is none or is taken, or its docstring has no {', '.join(lacking)}")
        _TESTS[code] = made
        return function

    return register


def catalogue_tests() -> dict[str, CatalogueTest]:
    """All tests by their codes, in their order."""
    from importlib import import_module

    for chapter in CHAPTERS:
        import_module(f"plumb_core.checks.catalogue.{chapter}")
    return dict(sorted(_TESTS.items()))


def explained(code: str) -> Iterator[str]:
    """Lines of the explanation of a code, for a terminal; raises KeyError for a code that is not there."""
    test = catalogue_tests()[code]
    yield f"{test.code}  {test.title}  ({test.sort}; {test.stage})"
    yield ""
    yield test.appearance
    for name in PARTS:
        yield f"{name.capitalize()}: {test.part(name)}"
