"""Writes the tables in `tables/`, each with its truth beside it: `python make_tables.py` from this folder."""

from __future__ import annotations

import json
from pathlib import Path

import more_tables
import tables_of_granary as granary

FOLDER = Path(__file__).parents[1] / "tables"


def main() -> None:
    for part in (
        granary.stories_of_granary,
        granary.forces_of_granary,
        granary.drifts_of_granary,
        granary.displacements_of_granary,
        granary.modes_of_granary,
        granary.spectra_of_granary,
        granary.parameters_of_granary,
        granary.reactions_of_granary,
        granary.others_of_granary,
        granary.several_of_granary,
        more_tables.more_of_granary,
    ):
        part()
    FOLDER.mkdir(exist_ok=True)
    for old in FOLDER.iterdir():
        if old.name.removesuffix(".truth.json") not in granary.TABLES:
            old.unlink()
    for name, (content, truth) in granary.TABLES.items():
        file, beside = FOLDER / name, FOLDER / f"{name}.truth.json"
        told = json.dumps(truth, ensure_ascii=False, separators=(",", ":")) + "\n"
        # workbooks and pages hold the time when they were made: those that say the same stay as they are
        if file.suffix in (".xlsx", ".pdf") and file.exists() and beside.exists() and beside.read_text() == told:
            continue
        file.write_bytes(content)
        beside.write_text(told)
    print(len(granary.TABLES), "tables")


if __name__ == "__main__":
    main()
