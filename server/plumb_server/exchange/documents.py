"""What an export holds in addition to the recheck document; validated like any other request."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Any, Literal

from plumb_core.documents.base import Part
from plumb_core.documents.results import Evidence
from plumb_core.documents.submission import OpenPart
from plumb_core.errors import Problem
from pydantic import BaseModel, ConfigDict, Field, StringConstraints, TypeAdapter, ValidationError

MANY = 100_000
MAX_INTEGER = 2_147_483_647
"""The largest whole number that the database keeps."""

Digest = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$")]
Words = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]
ShortText = Annotated[str, StringConstraints(max_length=120)]
Moment = Annotated[datetime, Field(strict=False)]


class MessagePart(Part):
    author: ShortText = ""
    at: Moment | None = None
    text: Annotated[str, StringConstraints(min_length=1, max_length=5000)]


class FindingPart(Part):
    """A finding with its thread; exports of earlier versions say neither author nor dates."""

    number: Annotated[int, Field(ge=1, le=MAX_INTEGER)]
    severity: Literal["must", "should", "note"]
    status: Literal["draft", "issued", "answered", "settled", "withdrawn"]
    title: Annotated[str, StringConstraints(min_length=1, max_length=200)]
    clause: Annotated[str, StringConstraints(max_length=200)] = ""
    text: Annotated[str, StringConstraints(min_length=1, max_length=5000)]
    checks: Annotated[list[Annotated[str, StringConstraints(max_length=200)]], Field(max_length=500)]
    evidence: Annotated[list[dict[str, Any]], Field(max_length=500)]
    thread: Annotated[list[MessagePart], Field(max_length=1000)] = Field(default_factory=list)
    author: ShortText = ""
    created_at: Moment | None = None
    changed_at: Moment | None = None
    due: Annotated[date, Field(strict=False)] | None = None
    origin: dict[str, Any] | None = None


class TablePart(BaseModel):
    """How a table was read; `mapping` in exports of earlier versions."""

    model_config = ConfigDict(extra="forbid")

    sha256: Digest
    kind: Annotated[str, StringConstraints(max_length=20)] = "imported"
    sheet: Annotated[str, StringConstraints(max_length=120)] = ""
    reading: dict[str, Any] = Field(default_factory=dict)
    open_parts: Annotated[list[OpenPart], Field(max_length=1000)] = Field(default_factory=list)
    mapping: dict[str, Any] = Field(default_factory=dict)


class ExhibitPart(Part):
    """A file; without content where the export would have become too large."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=200)]
    sha256: Digest
    pasted: bool = False
    content: str | None


class PersonPart(Part):
    name: ShortText = ""
    firm: ShortText = ""
    role: ShortText = ""


class EntryPart(Part):
    at: Moment
    actor: ShortText = ""
    action: Annotated[str, StringConstraints(max_length=60)]
    detail: dict[str, Any] = Field(default_factory=dict)


class ReportPart(Part):
    number: Annotated[int, Field(ge=1, le=MAX_INTEGER)]
    sha256: Digest
    input_hash: Digest
    issued_by: ShortText = ""
    issued_at: Moment


class ReviewPart(Part):
    """What the application keeps of a review beside brief, submission and model."""

    title: Words = "Imported review"
    place: ShortText = ""
    client: ShortText = ""
    description: Annotated[str, StringConstraints(max_length=2000)] = ""
    accepted: bool = False
    tables: Annotated[list[TablePart], Field(max_length=MANY)] = Field(default_factory=list)
    table_of_claim: Annotated[list[int], Field(max_length=10 * MANY)] = Field(default_factory=list)
    findings: Annotated[list[FindingPart], Field(max_length=10_000)] = Field(default_factory=list)
    exported_at: Moment | None = None
    exported_by: ShortText = ""
    team: Annotated[list[PersonPart], Field(max_length=1000)] = Field(default_factory=list)
    audit: Annotated[list[EntryPart], Field(max_length=MANY)] = Field(default_factory=list)
    reports: Annotated[list[ReportPart], Field(max_length=10_000)] = Field(default_factory=list)
    origin: dict[str, Any] | None = None


EVIDENCE = TypeAdapter(Evidence)


def number_problems(claims: list[Any]) -> list[Problem]:
    """What claims say that cannot be kept: places and names beyond what any table has."""
    problems = []
    for i, claim in enumerate(claims):
        for name, stored in (
            ("point", claim.point is None or claim.point <= MAX_INTEGER),
            ("source/row", claim.source.row is None or 0 <= claim.source.row <= MAX_INTEGER),
            ("unit", len(claim.unit) <= 20),
            ("quantity", len(claim.quantity) <= 30),
            ("source/sheet", len(claim.source.sheet) <= 120),
            ("text", max(len(claim.text), len(str(claim.value))) <= 500),
        ):
            if not stored:
                problems.append(
                    Problem(f"/submission/claims/{i}/{name}", "it cannot be stored", "Export the review again.")
                )
    return problems


def evidence_read(stated: dict[str, Any]) -> dict[str, Any] | None:
    """A check as a finding of an export states it; None where it is none.

    Without its derivation: equations are never taken from outside.
    """
    try:
        return dict(EVIDENCE.validate_python({k: v for k, v in stated.items() if k != "derivation"}))
    except ValidationError:
        return None
