"""`plumb`: the core without the web application."""

from __future__ import annotations

import argparse
import json
import sys
from pathlib import Path
from typing import Any, NoReturn

from pydantic import TypeAdapter

from plumb_core.across import across
from plumb_core.catalogue import editions
from plumb_core.checks.recheck import recheck
from plumb_core.documents.reading import read_recheck
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.documents.requests import Request
from plumb_core.errors import InputRefused, Problem
from plumb_core.intake.records import read_record
from plumb_core.solve import solve


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
_TRUTH = {"type": "boolean"}
_MAYBE = {"type": ["number", "null"]}
_COMMON = {
    "engine": _TEXT,
    "edition": {"type": ["string", "null"]},
    "notes": {"type": "array", "items": _TEXT},
    "steps": {"type": "array"},
}


def _result(kind: str, required: list[str], **properties: Any) -> dict[str, Any]:
    return {
        "type": "object",
        "required": ["engine", "kind", "edition", *required],
        "properties": {**_COMMON, "kind": {"const": kind}, **properties},
    }


def _rows(**properties: Any) -> dict[str, Any]:
    return {"type": "array", "items": {"type": "object", "required": list(properties), "properties": properties}}


_SCALED = {
    "type": "object",
    "required": ["share", "factor_required", "applies_to", "ok"],
    "properties": {
        "share": _MAYBE,
        "factor_required": _NUMBER,
        "applies_to": {"type": "array", "items": {"enum": ["forces", "drifts"]}},
        "ok": _TRUTH,
    },
}
_WARNINGS = _rows(code=_TEXT, message=_TEXT, cause=_TEXT, remedy=_TEXT, path=_TEXT, stops=_TRUTH,
                  nodes={"type": "array", "items": _TEXT}, members={"type": "array", "items": _TEXT})  # fmt: skip
RESULT_SCHEMA: dict[str, Any] = {
    "$schema": "https://json-schema.org/draft/2020-12/schema",
    "title": "Result of one request",
    "oneOf": [
        _result("ground", ["notes"]),
        _result("spectrum", ["T", "elastic", "reduced", "notes"], T=_NUMBERS, elastic=_NUMBERS,
                reduced={"type": ["array", "null"], "items": _NUMBER}),
        _result("static", ["notes"], X=_DIRECTION, Y=_DIRECTION),
        _result("scaling", [], X=_SCALED, Y=_SCALED),
        _result("torsion", ["rows"], rows=_rows(
            story=_TEXT, case=_TEXT, direction={"enum": ["X", "Y", None]}, ratio=_NUMBER,
            **{"class": {"enum": ["regular", "torsional", "extreme", None]}}, amplification=_MAYBE)),
        _result("drift", ["stories"], stories=_rows(
            name=_TEXT, design_drift=_NUMBER, ratio=_NUMBER, limit=_MAYBE, ok=_TRUTH, theta=_MAYBE, theta_limit=_MAYBE,
            theta_ok={"type": ["boolean", "null"]})),
        _result("weight", ["W", "stories"], W=_NUMBER, stories=_rows(name=_TEXT, weight=_NUMBER, loads={"type": "array"})),
        _result("irregularity", ["X", "Y"], X={"type": "array"}, Y={"type": "array"}),
        _result("modes", ["combination"], combination={"type": ["string", "null"]}),
        _result("system", ["X", "Y"], X={"type": "object"}, Y={"type": "object"}),
        _result("model", ["usable", "warnings", "mass", "floors"], usable=_TRUTH, warnings=_WARNINGS),
        _result("modal", ["modes", "cumulative", "enough", "warnings"], warnings=_WARNINGS, modes=_rows(
            T=_NUMBER, f=_NUMBER, omega=_NUMBER, gamma={"type": "object"}, mass_ratio={"type": "object"},
            kind={"enum": ["X", "Y", "twist", "mixed", "local"]})),
        _result("response", ["base_shear", "stories", "warnings"], base_shear={"type": "object"}, warnings=_WARNINGS,
                stories=_rows(name=_TEXT, force={"type": "object"}, shear={"type": "object"},
                              displacement={"type": "object"}, drift={"type": "array"})),
        _result("static_response", ["eccentricity", "forces", "cases", "warnings"], cases={"type": "array"}, warnings=_WARNINGS),
        _result("time_history", ["dt", "base_shear", "stories", "by_spectrum", "warnings"], dt=_NUMBER, warnings=_WARNINGS),
    ],
}  # fmt: skip


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
    commands.add_parser("across", help="compare the editions of a .plumb.json document").add_argument("file")
    recording = commands.add_parser("record", help="read a ground record into what `plumb solve` takes as `record`")
    recording.add_argument("--unit", default="", help="g, m/s2, cm/s2 or mm/s2, where the file doesn't say")
    recording.add_argument("--dt", type=float, help="time step in s, where the file doesn't say")
    recording.add_argument("file")
    commands.add_parser("schema", help="print a JSON Schema").add_argument(
        "name", choices=["request", "recheck", "result"]
    )
    chosen = parser.parse_args(arguments)
    try:
        if chosen.command == "editions":
            print(dump(editions()))
        elif chosen.command == "schema":
            print(dump(schema(chosen.name)))
        elif chosen.command == "record":
            print(dump(read_record(_read_file(chosen.file), chosen.unit, chosen.dt)))
        elif chosen.command == "recheck":
            print(dump(recheck(read_json(_read_file(chosen.file)))))
        elif chosen.command == "across":
            print(dump(across(read_recheck(read_json(_read_file(chosen.file))).brief)))
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
