"""One comparison of a submission with ours, as the recheck builds it up."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from plumb_core.checks.compare import Comparison
from plumb_core.documents.submission import Claim
from plumb_core.rules import Key


@dataclass
class Check:
    """One comparison.

    verdict: agrees, differs, breaches, gap, open.  role: origin, inherited or None.  level: 1 consistent, 2
    recomputed (our rule on inputs of theirs), 3 independent (our own inputs).
    """

    id: str
    key: Key
    label: str
    claim: Claim | None
    index: int | None = None
    carried: Comparison | None = None
    independent: Comparison | None = None
    verdict: str = "open"
    role: str | None = None
    level: int | None = None
    limit: dict[str, Any] | None = None
    follows: bool = True
    rests_on: list[str] = field(default_factory=list)
    clause: str = ""
    note: str = ""

    def shown(self) -> Comparison | None:
        """The comparison that the offset on the sheet shows: the carried one where the deviation starts here."""
        if self.carried is not None and (self.role == "origin" or self.independent is None):
            return self.carried
        return self.independent
