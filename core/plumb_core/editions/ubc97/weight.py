"""Seismic dead load of UBC 1997, 1630.1.1."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from plumb_core.editions import shared
from plumb_core.editions.shared import PARTITIONS, SNOW_30_PSF, intensity
from plumb_core.limits import exceeds
from plumb_core.rules import cited, rule


def _share(load: Mapping[str, Any], top: bool) -> tuple[float, str]:
    kind = load["kind"]
    if kind in ("dead", "equipment", "landscaping"):
        return 1.0, "dead load and permanent equipment in full"
    if kind == "storage":
        return 0.25, "25 % of the live load of storage and warehouses"
    if kind == "partition":
        return 1.0, "the partition load, at least 10 psf (0.48 kPa)"
    if kind == "snow":
        if exceeds(intensity(load), SNOW_30_PSF):
            return 1.0, "design snow load above 30 psf (1.44 kPa); may be reduced up to 75 % with approval"
        return 0.0, "design snow load of 30 psf (1.44 kPa) or less"
    return 0.0, "live load of floors and roofs is not part of the weight"


@rule(clause="1630.1.1")
def w_shares(loads: Sequence[Sequence[Mapping[str, Any]]]) -> list[list[dict[str, Any]]]:
    """Share of each load in the seismic dead load; snow without the reduction that needs approval."""
    return shared.shares(loads, _share, PARTITIONS)


RULES = (w_shares, cited(shared.w, "1630.1.1"))
