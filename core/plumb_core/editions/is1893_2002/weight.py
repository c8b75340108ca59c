"""Seismic weight of IS 1893 (Part 1):2002, 7.3 and 7.4."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from plumb_core.editions import shared
from plumb_core.editions.shared import intensity
from plumb_core.limits import within
from plumb_core.rules import cited, rule


def imposed(load: Mapping[str, Any], top: bool) -> tuple[float, str]:
    """Share of an imposed load: none on the roof, 25 % up to 3.0 kPa (3.0 included), 50 % above."""
    if top or load["kind"] == "roof_live":
        return 0.0, "imposed load on roofs is not considered"
    if within(intensity(load), 3.0):
        return 0.25, "25 % of an imposed load up to 3.0 kPa"
    return 0.50, "50 % of an imposed load above 3.0 kPa"


def _share(load: Mapping[str, Any], top: bool) -> tuple[float, str]:
    kind = load["kind"]
    if kind in ("live", "storage", "roof_live"):
        return imposed(load, top)
    if kind == "snow":
        return 0.0, "snow is not named among the seismic weights"
    return 1.0, "dead load in full"


@rule(clause="7.3.1, 7.3.2, 7.4, Table 8")
def w_shares(loads: Sequence[Sequence[Mapping[str, Any]]]) -> list[list[dict[str, Any]]]:
    """Share of each load in the seismic weight; weights of columns and walls go half to the floor above and below."""
    return shared.shares(loads, _share)


RULES = (w_shares, cited(shared.w, "7.4"))
