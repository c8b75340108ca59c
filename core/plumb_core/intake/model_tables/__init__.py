"""Tables of the reference model: one module for each kind, found by its `KIND`."""

from __future__ import annotations

import importlib
import pkgutil
from functools import cache

from plumb_core.intake.model_tables.kind import ModelTableKind

NO_KINDS = ("kind", "frame", "dofs")


@cache
def model_table_kinds() -> dict[str, ModelTableKind]:
    """Every kind of table of a model by its id, in the order in which they are offered."""
    names = [m.name for m in pkgutil.iter_modules(__path__) if m.name not in NO_KINDS]
    kinds: list[ModelTableKind] = [importlib.import_module(f"{__name__}.{name}").KIND for name in names]
    return {kind.id: kind for kind in sorted(kinds, key=lambda k: k.rank)}
