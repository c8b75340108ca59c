"""Modal response spectrum analysis of ASCE/SEI 7-22, 12.9.1: as 7-16 with the near-fault minimum as Eq. 12.8-7."""

from __future__ import annotations

from plumb_core.editions.asce7_16 import modal as earlier
from plumb_core.rules import rule


@rule(clause="12.9.1")
def modal_rules() -> list[str]:
    """What the standard asks of the modal analysis."""
    return [text.replace("12.8-6", "12.8-7") for text in earlier.modal_rules.function()]


RULES = (*earlier.RULES, modal_rules, earlier.scaled_by("12.8-7", "12.9.1.4"))
