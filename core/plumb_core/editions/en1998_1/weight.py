"""Masses of EN 1998-1:2004, 3.2.4 and 4.2.4: permanent loads with psi_E = phi psi_2 of the variable ones."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from plumb_core.editions import shared
from plumb_core.editions.en1998_1 import tables
from plumb_core.errors import RuleRefused
from plumb_core.rules import cited, rule

PHI = {"roof": 1.0, "correlated": 0.8, "independent": 0.5}
"""Table 4.2, categories A to C."""


def _share(load: Mapping[str, Any], top: bool) -> tuple[float, str]:
    kind = load["kind"]
    if kind in ("dead", "equipment", "partition", "landscaping"):
        return 1.0, "permanent load in full"
    if kind == "snow":
        return (
            (0.2, "psi_2 = 0.2 of snow (north, or above 1000 m)")
            if load.get("category") == "above_1000_m"
            else (0.0, "psi_2 = 0 of snow")
        )
    category = "E" if kind == "storage" else "H" if kind == "roof_live" else load.get("category")
    if category not in tables.PSI_2:
        raise RuleRefused(
            "loads",
            f"the share of {load.get('name') or kind} depends on its category of use, which is not given",
            f"Give the category of EN 1990: {', '.join(tables.PSI_2)}.",
        )
    psi_2 = tables.PSI_2[category]
    if category in ("A", "B", "C"):
        occupied = "roof" if top else load.get("occupancy") or "independent"
        phi = PHI[occupied]
        return phi * psi_2, f"psi_E = {phi} x {psi_2}: category {category}, {occupied}"
    return psi_2, f"psi_E = 1.0 x {psi_2}: category {category}"


@rule(clause="3.2.4(2)P, 4.2.4, Eq. 4.2, Table 4.2")
def w_shares(loads: Sequence[Sequence[Mapping[str, Any]]]) -> list[list[dict[str, Any]]]:
    """Share of each load in the mass; movable partitions are entered as live load of their category."""
    return shared.shares(loads, _share)


RULES = (w_shares, cited(shared.w, "3.2.4(2)P, Eq. 3.17"))
