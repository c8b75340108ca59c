"""Tables of a submission: one module for each kind, found by its `KIND`."""

from __future__ import annotations

import importlib
import pkgutil
from functools import cache

from plumb_core.intake.tables.kind import TableKind


@cache
def table_kinds() -> dict[str, TableKind]:
    """Every kind of table by its id, in the order in which they are offered."""
    names = [m.name for m in pkgutil.iter_modules(__path__) if m.name != "kind"]
    kinds: list[TableKind] = [importlib.import_module(f"{__name__}.{name}").KIND for name in names]
    return {kind.id: kind for kind in sorted(kinds, key=lambda k: k.rank)}
