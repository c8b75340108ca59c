"""The modes that a submission states, as a table."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Literal

from plumb_core.documents.model_requests import ShapeRow, SubmittedModePart
from plumb_core.documents.submission import Claim
from plumb_core.quantities import QUANTITIES, Kind
from plumb_core.rules import Key

MASS_RATIOS: tuple[tuple[Literal["X", "Y", "RZ"], Key], ...] = (
    ("X", Key("mass_ratio", "X")),
    ("Y", Key("mass_ratio", "Y")),
    ("RZ", Key("mass_ratio_RZ")),
)
"""Axis -> key of the effective modal mass or inertia as a share."""


@dataclass(frozen=True)
class ModeTable:
    """Claims about modes.

    Attributes
    ----------
    values : by key and number of the mode, counted from 0
    shapes : by mode and story, the movements stated (X, Y in m, RZ in rad)
    numbers : the modes that anything is stated of, in their order
    """

    values: Mapping[Key, Mapping[int, Claim]]
    shapes: Mapping[int, Mapping[str, Mapping[str, float]]]
    numbers: tuple[int, ...]

    @classmethod
    def of(cls, claims: Iterable[Claim]) -> ModeTable:
        """The table of the claims of modes."""
        values: dict[Key, dict[int, Claim]] = {}
        shapes: dict[int, dict[str, dict[str, float]]] = {}
        for claim in claims:
            mode = claim.point or 0
            if QUANTITIES[claim.quantity].kind is Kind.MODES:
                values.setdefault(Key(claim.quantity, claim.direction), {})[mode] = claim
            else:
                axis = claim.direction or "RZ"
                shapes.setdefault(mode, {}).setdefault(claim.story or "", {})[axis] = float(claim.value)
        numbers = {m for by_mode in values.values() for m in by_mode} | shapes.keys()
        return cls(values, shapes, tuple(sorted(numbers)))

    def claim(self, key: Key, mode: int) -> Claim | None:
        """What is claimed of a mode; None where nothing is."""
        return self.values.get(key, {}).get(mode)

    def period(self, mode: int) -> float | None:
        """Period of a mode in s, from its frequency where that alone is stated; None where neither is."""
        T, f = self.claim(Key("T_mode"), mode), self.claim(Key("f_mode"), mode)
        if T is not None and float(T.value) > 0:
            return float(T.value)
        return 1.0 / float(f.value) if f is not None and float(f.value) > 0 else None

    def submitted(self) -> list[SubmittedModePart]:
        """The modes as the comparison with a model takes them."""
        parts = []
        for mode in self.numbers:
            shares = {axis: max(float(c.value), 0.0) for axis, key in MASS_RATIOS if (c := self.claim(key, mode))}
            rows = [ShapeRow(story=story, **values) for story, values in self.shapes.get(mode, {}).items()]
            parts.append(SubmittedModePart(T=self.period(mode), mass_ratio=shares, shape=rows or None))
        return parts
