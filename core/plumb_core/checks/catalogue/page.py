"""The page of the catalogue, `docs/slips.md`: made of the docstrings of the tests.

`python -m plumb_core.checks.catalogue.page` writes it.
"""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

from plumb_core.checks.catalogue.registry import PARTS, CatalogueTest, catalogue_tests

HEAD = """# What goes wrong in submissions

The catalogue of mistakes. Each has a code that does not change, and a test that looks for it in every recheck.
**Wrong** is a deviation or a breach, by arithmetic or by a rule; **ask** is a question, because evidence is missing or
a choice is not justified; **note** is for the record. A deviation that a comparison finds anyway gets the code and its
words; nothing is reported twice. `plumb rules S54` prints an entry. This page is made of the docstrings in
`core/plumb_core/checks/catalogue/` by `python -m plumb_core.checks.catalogue.page`."""


def page() -> str:
    """The page, in Markdown."""
    return "\n".join(_lines()) + "\n"


def _lines() -> Iterator[str]:
    yield HEAD
    tests = catalogue_tests()
    chapter = ""
    for test in tests.values():
        if test.chapter != chapter:
            chapter = test.chapter
            yield ""
            yield f"## {chapter}"
        yield ""
        yield from _entry(test)


def _entry(test: CatalogueTest) -> Iterator[str]:
    yield f"### {test.code} {test.title}"
    yield ""
    yield f"{test.appearance} *{test.sort.capitalize()}, {test.stage}.*"
    yield ""
    for name in PARTS:
        yield f"- **{name.capitalize()}**: {test.part(name)}"


if __name__ == "__main__":
    (Path(__file__).parents[4] / "docs" / "slips.md").write_text(page())
