"""The slips: small functions from a place of the evaluation to the values that a mistake gives there."""

from __future__ import annotations

import importlib
import pkgutil
from functools import cache

from plumb_core.causes.slip import REGISTERED, Slip


@cache
def slips() -> tuple[Slip, ...]:
    """Every slip of this package, in the order of their modules and of their definition."""
    for module in pkgutil.iter_modules(__path__):
        importlib.import_module(f"{__name__}.{module.name}")
    return tuple(REGISTERED)
