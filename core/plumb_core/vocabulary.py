"""Stages, kinds of checks and kinds of tables, with their titles, for anyone who shows them."""

from __future__ import annotations

from plumb_core.checks.catalogue.registry import CatalogueTest, catalogue_tests
from plumb_core.checks.kinds import KINDS
from plumb_core.documents.listings import CatalogueEntry, Vocabulary
from plumb_core.documents.thresholds import DEFAULTS
from plumb_core.intake.model_tables import model_table_kinds
from plumb_core.intake.tables import table_kinds
from plumb_core.quantities import STAGES


def vocabulary() -> Vocabulary:
    """What this engine calls its stages, its checks and the tables that it accepts."""
    return {
        "stages": [{"id": stage, "title": stage.capitalize()} for stage in STAGES],
        "check_kinds": [{"id": kind.name, "title": kind.title} for kind in KINDS.values()],
        "tables": [{"id": kind.id, "title": kind.title} for kind in table_kinds().values()],
        "model_tables": [{"id": kind.id, "title": kind.title} for kind in model_table_kinds().values()],
        "catalogue": [_entry(test) for test in catalogue_tests().values()],
        "thresholds": [
            {
                "name": d.name,
                "words": d.words,
                "unit": d.unit,
                "value": list(d.value),
                "codes": list(d.codes),
                "source": d.source,
            }
            for d in DEFAULTS
        ],
    }


def _entry(test: CatalogueTest) -> CatalogueEntry:
    return {
        "code": test.code,
        "title": test.title,
        "sort": test.sort,
        "stage": test.stage,
        "appearance": test.appearance,
        "why": test.part("why"),
        "test": test.part("test"),
        "clause": test.part("clause"),
        "correct": test.part("correct"),
    }
