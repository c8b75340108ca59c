"""Seismic weight of IS 1893 (Part 1):2016, 7.3 and 7.4: as 2002, with partitions, snow and sand."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from plumb_core.editions import shared
from plumb_core.editions.is1893_2002.weight import imposed
from plumb_core.editions.shared import intensity
from plumb_core.limits import exceeds
from plumb_core.rules import cited, rule

PARTITIONS = 0.5
"""Least load of interior partitions, kPa."""


def _share(load: Mapping[str, Any], top: bool) -> tuple[float, str]:
    kind = load["kind"]
    if kind in ("live", "storage", "roof_live"):
        return imposed(load, top)
    if kind == "partition":
        return 1.0, "the actual weight, at least 0.5 kPa"
    if kind == "snow":
        if exceeds(intensity(load), 1.5):
            return 0.2, "20 % of snow or sand above 1.5 kPa"
        return 0.0, "snow or sand not above 1.5 kPa"
    return 1.0, "dead load and permanent equipment in full"


@rule(clause="7.3.1, 7.3.2, 7.4, Table 10")
def w_shares(loads: Sequence[Sequence[Mapping[str, Any]]]) -> list[list[dict[str, Any]]]:
    """Share of each load in the seismic weight."""
    return shared.shares(loads, _share, PARTITIONS)


RULES = (w_shares, cited(shared.w, "7.4"))
