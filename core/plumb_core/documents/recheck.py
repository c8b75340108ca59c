"""The recheck document: brief, submission and the reference model, which is a review's export too."""

from __future__ import annotations

from typing import Any, Final, Literal

from pydantic import Field

from plumb_core.documents.base import Part
from plumb_core.documents.brief import Brief
from plumb_core.documents.model import ReferenceModel
from plumb_core.documents.submission import OpenPart, Submission

FORMAT: Final = "plumb-recheck"
FORMAT_VERSION: Final = 1


class RecheckDocument(Part):
    """A recheck document (`.plumb.json`).

    open : parts of the submission that are not read yet.  review : what the web application keeps beside it.
    """

    format: Literal["plumb-recheck"] = FORMAT
    version: Literal[1] = FORMAT_VERSION
    brief: Brief
    submission: Submission = Field(default_factory=Submission)
    open: list[OpenPart] = Field(default_factory=list)
    model: ReferenceModel | None = None
    review: dict[str, Any] | None = None
