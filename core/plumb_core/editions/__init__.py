"""The code editions that this engine holds, by id: every package of this folder that has an `EDITION`."""

from __future__ import annotations

import importlib
import pkgutil

from plumb_core.editions.edition import Edition

__all__ = ["EDITIONS", "Edition"]


def _editions() -> dict[str, Edition]:
    packages = [m.name for m in pkgutil.iter_modules(__path__) if m.ispkg]
    stored: list[Edition] = [importlib.import_module(f"{__name__}.{name}").EDITION for name in packages]
    return {edition.id: edition for edition in sorted(stored, key=lambda e: (e.rank, e.id))}


EDITIONS: dict[str, Edition] = _editions()
