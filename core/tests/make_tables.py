"""Writes the tables in `tables/`, each with its truth beside it: `python make_tables.py` from this folder."""

from __future__ import annotations

import json
from pathlib import Path

import more_tables
import tables_of_granary as granary

FOLDER = Path(__file__).parent / "tables"


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
        old.unlink()
    for name, (content, truth) in granary.TABLES.items():
        (FOLDER / name).write_bytes(content)
        (FOLDER / f"{name}.truth.json").write_text(json.dumps(truth, ensure_ascii=False, separators=(",", ":")) + "\n")
    print(len(granary.TABLES), "tables")


if __name__ == "__main__":
    main()
