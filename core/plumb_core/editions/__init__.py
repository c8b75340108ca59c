"""The code editions that this engine holds, by id."""

from __future__ import annotations

from types import ModuleType

from plumb_core.editions import asce7_05, asce7_10, asce7_16

EDITIONS: dict[str, ModuleType] = {m.ID: m for m in (asce7_05, asce7_10, asce7_16)}
