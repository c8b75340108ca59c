"""The checkers: small pure functions from a context to checks, found by their decorator as pytest finds tests."""

from __future__ import annotations

import importlib
import pkgutil
from functools import cache

from plumb_core.checks import registry


@cache
def checkers() -> tuple[registry.Checker, ...]:
    """Every checker of this package, in the order of their modules' names."""
    for module in pkgutil.iter_modules(__path__):
        importlib.import_module(f"{__name__}.{module.name}")
    return tuple(registry.CHECKERS)
