"""Seismic weight of AS 1170.4-2007, 6.2.2: permanent load with psi_c of the imposed one."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from plumb_core.editions import shared
from plumb_core.rules import cited, rule


def _share(load: Mapping[str, Any], top: bool) -> tuple[float, str]:
    kind = load["kind"]
    if kind == "storage":
        return 0.6, "psi_c = 0.6 for storage"
    if kind in ("live", "roof_live"):
        return 0.3, "psi_c = 0.3 for all imposed loads but storage"
    if kind == "snow":
        return 0.0, "snow is not named; ice on roofs of alpine regions is permanent load"
    return 1.0, "permanent load in full"


@rule(clause="6.2.2")
def w_shares(loads: Sequence[Sequence[Mapping[str, Any]]]) -> list[list[dict[str, Any]]]:
    """Share of each load in the seismic weight."""
    return shared.shares(loads, _share)


RULES = (w_shares, cited(shared.w, "6.2.2"))
