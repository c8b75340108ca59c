"""Effective seismic weight of ASCE/SEI 7-22, 12.7.2: 15 % of snow above 45 psf."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from plumb_core.editions import shared
from plumb_core.editions.asce7_16.weight import LANDSCAPING, share_by
from plumb_core.editions.shared import PARTITIONS, SNOW_45_PSF
from plumb_core.rules import cited, rule

_SHARE = share_by(SNOW_45_PSF, 0.15, LANDSCAPING)


@rule(clause="12.7.2")
def w_shares(loads: Sequence[Sequence[Mapping[str, Any]]]) -> list[list[dict[str, Any]]]:
    """Share of each load in the seismic weight."""
    return shared.shares(loads, _SHARE, PARTITIONS)


RULES = (w_shares, cited(shared.w, "12.7.2"))
