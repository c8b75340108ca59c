"""`plumb`: the core without the web application."""

from __future__ import annotations

import argparse
import json
import sys
from collections import Counter
from collections.abc import Iterator
from pathlib import Path
from typing import Any, NoReturn

from plumb_core.errors import InputRefused, Problem

# each command imports what it needs: together the imports take over a second

DOCUMENTS = ("request", "recheck", "profile", "result", "rechecked", "across", "difference", "editions")
"""What is read (`request`, `recheck`, `profile`) and what is written (the others)."""


def schema(name: str) -> dict[str, Any]:
    """JSON Schema of a document that is read or written; `name` is one of `DOCUMENTS`."""
    from pydantic import TypeAdapter

    from plumb_core.documents.answers import SOLVED
    from plumb_core.documents.differences import DIFFERENCE
    from plumb_core.documents.listings import EDITION_LIST
    from plumb_core.documents.recheck import RecheckDocument
    from plumb_core.documents.requests import Request
    from plumb_core.documents.results import RECHECKED
    from plumb_core.documents.side_by_side import ACROSS
    from plumb_core.intake.profiles import Profile

    schemas: dict[str, TypeAdapter[Any]] = {
        "request": TypeAdapter(Request),
        "recheck": TypeAdapter(RecheckDocument),
        "profile": TypeAdapter(Profile),
        "result": SOLVED,
        "rechecked": RECHECKED,
        "across": ACROSS,
        "difference": DIFFERENCE,
        "editions": EDITION_LIST,
    }
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schemas[name].json_schema()}


def errors_json(refused: InputRefused) -> dict[str, Any]:
    """Return a refusal as the document that the command prints."""
    return {"errors": [p.as_json() for p in refused.problems]}


def _not_finite(text: str) -> NoReturn:
    raise ValueError(f"{text} is not a JSON number")


def read_json(text: str) -> Any:
    """Parse JSON; raises InputRefused for text that is no JSON, NaN and infinities included."""
    try:
        return json.loads(text, parse_constant=_not_finite)
    except (ValueError, RecursionError) as error:
        raise InputRefused(
            [Problem("/", f"this is not JSON: {error}", "Correct the document at that place.")]
        ) from None


def dump(value: Any) -> str:
    """Return a result as JSON."""
    return json.dumps(value, ensure_ascii=False, allow_nan=False)


def _read_bytes(name: str) -> bytes:
    try:
        return sys.stdin.buffer.read() if name == "-" else Path(name).read_bytes()
    except OSError as error:
        raise InputRefused(
            [Problem("/", f"cannot read {name}: {error.strerror}", "Name a file that exists.")]
        ) from None


def _read_file(name: str) -> str:
    try:
        return _read_bytes(name).decode()
    except UnicodeDecodeError:
        raise InputRefused([Problem("/", f"{name} is not UTF-8 text", "Save it as UTF-8.")]) from None


def _solve_lines(text: str) -> None:
    from plumb_core.solve import solve

    for line in text.splitlines():
        if not line.strip():
            continue
        try:
            print(dump(solve(read_json(line))))
        except InputRefused as refused:
            print(dump(errors_json(refused)))


def _intake(brief: str, files: list[str], answers: str | None) -> int:
    """Write the recheck document, and a line for each table on stderr; 3 where a question is left."""
    from plumb_core.documents.brief import Brief
    from plumb_core.documents.reading import read, read_recheck
    from plumb_core.intake.sheets import SheetRefused
    from plumb_core.intake.submission import read_answers, read_submission

    stated = read_json(_read_file(brief))
    full = isinstance(stated, dict) and "brief" in stated
    entry = read_recheck({k: v for k, v in stated.items() if k != "submission"}).brief if full else read(Brief, stated)
    given = None if answers is None else read_answers(read_json(_read_file(answers)))
    try:
        used = read_submission(entry, [(Path(f).name, _read_bytes(f)) for f in files], given)
    except SheetRefused as refused:
        raise InputRefused([Problem("/", refused.message, refused.remedy)]) from None
    numbers: Counter[tuple[str, str]] = Counter()
    for table in used.tables:
        numbers[table.file, table.sheet] += 1
        print(dump(table.as_json(numbers[table.file, table.sheet])), file=sys.stderr)
    document = used.document.model_dump_json(exclude_none=True)
    print(dump({**stated, **json.loads(document)}) if full else document)
    return 0 if used.complete else 3


def main(arguments: list[str] | None = None) -> int:
    """Run the command; returns the exit status (2 for input that cannot be used)."""
    parser = argparse.ArgumentParser(prog="plumb", description="Seismic code editions and rechecks, headless.")
    commands = parser.add_subparsers(dest="command", required=True)
    commands.add_parser("editions", help="list the editions")
    solving = commands.add_parser("solve", help="answer a request")
    solving.add_argument("--lines", action="store_true", help="one request per line, one result per line")
    solving.add_argument("file", help="a file, or - for standard input")
    rechecking = commands.add_parser("recheck", help="recheck a .plumb.json document, with the causes of deviations")
    rechecking.add_argument("file")
    rechecking.add_argument("--with", dest="patch", metavar="PATCH", help="what if: a JSON merge patch of the brief")
    comparing = commands.add_parser("compare", help="what became of the deviations of a submission in the next one")
    comparing.add_argument("old", help="a recheck document, or an exported review with its findings")
    comparing.add_argument("new", help="the recheck document of the next submission")
    commands.add_parser("across", help="compare the editions of a .plumb.json document").add_argument("file")
    recording = commands.add_parser("record", help="read a ground record into the field `record` of `plumb solve`")
    recording.add_argument("--unit", default="", help="g, m/s2, cm/s2 or mm/s2, if the file does not state it")
    recording.add_argument("--dt", type=float, help="time step in s, if the file does not state it")
    recording.add_argument("file")
    taking = commands.add_parser("intake", help="make a recheck document from a brief and the tables of a submission")
    taking.add_argument("--answers", help="a file with the reviewer's answers to the questions of the tables")
    taking.add_argument("brief", help="a brief, or a recheck document whose submission is replaced")
    taking.add_argument("files", nargs="+", help="CSV, text or XLSX files")
    rules = commands.add_parser("rules", help="explain the codes of the catalogue of mistakes")
    rules.add_argument("codes", nargs="*", metavar="CODE", help="such as S54; all with their titles by default")
    commands.add_parser("schema", help="print a JSON Schema").add_argument("name", choices=DOCUMENTS)
    chosen = parser.parse_args(arguments)
    try:
        return _run(chosen)
    except InputRefused as refused:
        print(dump(errors_json(refused)), file=sys.stderr)
        return 2


def _run(chosen: argparse.Namespace) -> int:
    """Run a command."""
    if chosen.command == "intake":
        return _intake(chosen.brief, chosen.files, chosen.answers)
    if chosen.command == "rules":
        print("\n".join(_explained(chosen.codes)))
        return 0
    if chosen.command == "solve" and chosen.lines:
        _solve_lines(_read_file(chosen.file))
        return 0
    print(dump(_answer(chosen)))
    return 0


def _explained(codes: list[str]) -> Iterator[str]:
    """Lines on codes of the catalogue; raises InputRefused for a code that is not there."""
    from plumb_core.checks.catalogue.registry import catalogue_tests, explained

    tests = catalogue_tests()
    unknown = [c for c in codes if c.upper() not in tests]
    if unknown:
        remedy = f"Use one of {min(tests)} to {max(tests)}."
        raise InputRefused([Problem(f"/{c}", f"{c!r} is not a code of the catalogue", remedy) for c in unknown])
    if not codes:
        yield from (f"{t.code}  {t.title}" for t in tests.values())
    for number, code in enumerate(codes):
        yield from ([""] if number else [])
        yield from explained(code.upper())


def _answer(chosen: argparse.Namespace) -> Any:
    """Return the document that a command prints."""
    match chosen.command:
        case "editions":
            from plumb_core.catalogue import editions

            return editions()
        case "schema":
            return schema(chosen.name)
        case "record":
            from plumb_core.intake.records import read_record

            return read_record(_read_file(chosen.file), chosen.unit, chosen.dt)
        case "recheck":
            from plumb_core.causes.answer import recheck_with_causes
            from plumb_core.what_if import what_if

            document = read_json(_read_file(chosen.file))
            if chosen.patch is None:
                return recheck_with_causes(document)
            return what_if(document, read_json(_read_file(chosen.patch)))
        case "compare":
            from plumb_core.difference.compared import difference

            return difference(read_json(_read_file(chosen.old)), read_json(_read_file(chosen.new)))
        case "across":
            from plumb_core.across import across
            from plumb_core.documents.reading import read_recheck

            return across(read_recheck(read_json(_read_file(chosen.file))).brief)
        case _:
            from plumb_core.solve import solve

            return solve(read_json(_read_file(chosen.file)))


if __name__ == "__main__":
    sys.exit(main())
