"""`plumb`: the core without the web application."""

from __future__ import annotations

import argparse
import json
import sys
from pathlib import Path
from typing import Any, NoReturn

from pydantic import TypeAdapter

from plumb_core.checks.recheck import recheck
from plumb_core.documents import KINDS, RecheckDocument, Request
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused, Problem
from plumb_core.solve import solve


def editions() -> list[dict[str, Any]]:
    """The editions of this engine: id, title, year, request kinds, structure types, and what a brief can declare."""
    return [
        {
            "id": e.id,
            "title": e.title,
            "year": e.year,
            "supports": list(KINDS),
            "period_types": list(e.period_types),
            "choices": list(e.choices),
        }
        for e in EDITIONS.values()
    ]


def schema(name: str) -> dict[str, Any]:
    """JSON Schema of the documents `request`, `recheck` and `result`."""
    if name == "request":
        return TypeAdapter(Request).json_schema()
    if name == "recheck":
        return RecheckDocument.model_json_schema()
    return RESULT_SCHEMA


_NUMBERS = {"type": "array", "items": {"type": "number"}}
_NUMBER = {"type": "number"}
_TEXT = {"type": "string"}
_DIRECTION = {
    "type": "object",
    "required": ["T_a", "T_limit", "T", "coefficient", "governed_by", "W", "V", "exponent", "F", "V_story", "M_story"],
    "properties": {
        "T_a": _NUMBER,
        "T_limit": {"type": ["number", "null"]},
        "T": _NUMBER,
        "coefficient": _NUMBER,
        "governed_by": _TEXT,
        "W": _NUMBER,
        "V": _NUMBER,
        "exponent": {"type": ["number", "null"]},
        "F": _NUMBERS,
        "V_story": _NUMBERS,
        "M_story": _NUMBERS,
    },
}
_COMMON = {"engine": _TEXT, "edition": _TEXT, "notes": {"type": "array", "items": _TEXT}, "steps": {"type": "array"}}
RESULT_SCHEMA: dict[str, Any] = {
    "$schema": "https://json-schema.org/draft/2020-12/schema",
    "title": "Result of one request",
    "oneOf": [
        {
            "type": "object",
            "required": ["engine", "kind", "edition", "notes"],
            "properties": {**_COMMON, "kind": {"const": "ground"}},
        },
        {
            "type": "object",
            "required": ["engine", "kind", "edition", "T", "elastic", "reduced", "notes"],
            "properties": {
                **_COMMON,
                "kind": {"const": "spectrum"},
                "T": _NUMBERS,
                "elastic": _NUMBERS,
                "reduced": {"type": ["array", "null"], "items": {"type": "number"}},
            },
        },
        {
            "type": "object",
            "required": ["engine", "kind", "edition", "notes"],
            "properties": {**_COMMON, "kind": {"const": "static"}, "X": _DIRECTION, "Y": _DIRECTION},
        },
    ],
}


def errors_json(refused: InputRefused) -> dict[str, Any]:
    return {"errors": [p.as_json() for p in refused.problems]}


def _not_finite(text: str) -> NoReturn:
    raise ValueError(f"{text} is not a JSON number")


def read_json(text: str) -> Any:
    """Parse JSON; raises InputRefused for text that is no JSON, NaN and infinities included."""
    try:
        return json.loads(text, parse_constant=_not_finite)
    except (ValueError, RecursionError) as error:
        raise InputRefused([Problem("/", f"this is not JSON: {error}", "Mend the document at that place.")]) from None


def dump(value: Any) -> str:
    return json.dumps(value, ensure_ascii=False, allow_nan=False)


def _read_file(name: str) -> str:
    try:
        return sys.stdin.buffer.read().decode() if name == "-" else Path(name).read_bytes().decode()
    except OSError as error:
        raise InputRefused([Problem("/", f"can't read {name}: {error.strerror}", "Name a file that exists.")]) from None
    except UnicodeDecodeError:
        raise InputRefused([Problem("/", f"{name} is not UTF-8 text", "Save it as UTF-8.")]) from None


def _solve_lines(text: str) -> None:
    for line in text.splitlines():
        if not line.strip():
            continue
        try:
            print(dump(solve(read_json(line))))
        except InputRefused as refused:
            print(dump(errors_json(refused)))


def main(arguments: list[str] | None = None) -> int:
    """Run the command; returns the exit status (2 for input that can't be used)."""
    parser = argparse.ArgumentParser(prog="plumb", description="Seismic code editions and rechecks, headless.")
    commands = parser.add_subparsers(dest="command", required=True)
    commands.add_parser("editions", help="list the editions")
    solving = commands.add_parser("solve", help="answer a request")
    solving.add_argument("--lines", action="store_true", help="one request per line, one result per line")
    solving.add_argument("file", help="a file, or - for standard input")
    commands.add_parser("recheck", help="recheck a .plumb.json document").add_argument("file")
    commands.add_parser("schema", help="print a JSON Schema").add_argument(
        "name", choices=["request", "recheck", "result"]
    )
    chosen = parser.parse_args(arguments)
    try:
        if chosen.command == "editions":
            print(dump(editions()))
        elif chosen.command == "schema":
            print(dump(schema(chosen.name)))
        elif chosen.command == "recheck":
            print(dump(recheck(read_json(_read_file(chosen.file)))))
        elif chosen.lines:
            _solve_lines(_read_file(chosen.file))
        else:
            print(dump(solve(read_json(_read_file(chosen.file)))))
    except InputRefused as refused:
        print(dump(errors_json(refused)), file=sys.stderr)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main())
