"""Effective seismic weight of ASCE/SEI 7-16, 12.7.2."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

from plumb_core.editions import shared
from plumb_core.editions.shared import PARTITIONS, SNOW_30_PSF, intensity
from plumb_core.limits import exceeds
from plumb_core.rules import cited, rule


def share_by(
    snow_over: float, snow_share: float, landscaping: str
) -> Callable[[Mapping[str, Any], bool], tuple[float, str]]:
    """The shares of 12.7.2 with the snow threshold (kPa), its share, and the words for landscaping of roofs."""

    def share(load: Mapping[str, Any], top: bool) -> tuple[float, str]:
        kind = load["kind"]
        if kind in ("dead", "equipment"):
            return 1.0, "dead load and permanent equipment in full"
        if kind == "storage":
            return 0.25, "25 % of the live load of storage"
        if kind == "partition":
            return 1.0, "the actual weight, at least 10 psf (0.48 kPa)"
        if kind == "snow":
            if exceeds(intensity(load), snow_over):
                return snow_share, f"{snow_share:.0%} of the flat roof snow load above {snow_over:.2f} kPa"
            return 0.0, f"flat roof snow load not above {snow_over:.2f} kPa"
        if kind == "landscaping":
            return 1.0, landscaping
        return 0.0, "live load of floors and roofs is not part of the weight"

    return share


LANDSCAPING = "landscaping of roofs in full (item 5)"
_SHARE = share_by(SNOW_30_PSF, 0.20, LANDSCAPING)


@rule(clause="12.7.2")
def w_shares(loads: Sequence[Sequence[Mapping[str, Any]]]) -> list[list[dict[str, Any]]]:
    """Share of each load in the seismic weight.

    The exception that excludes storage adding no more than 5 % to a level is not used: it is a permission.
    """
    return shared.shares(loads, _SHARE, PARTITIONS)


RULES = (w_shares, cited(shared.w, "12.7.2"))
