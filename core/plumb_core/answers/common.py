"""What the answers of the editions share."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from plumb_core.derivation import plain
from plumb_core.rules import Evaluation, Key, Rule

Answer = tuple[dict[str, Any], Evaluation]


def _first(rules: Mapping[str, Rule], names: tuple[str, ...], direction: str | None = None) -> list[Key]:
    """Keys of those names that the edition has rules for."""
    return [Key(name, direction) for name in names if name in rules]


def _if_known(evaluation: Evaluation, name: str, direction: str | None = None, case: str | None = None) -> Any:
    """Value of a quantity as JSON, None where the edition has no rule for it or an input is missing."""
    value = evaluation.get(name, direction, case)
    return None if value is None else plain(value)
