"""Effective seismic weight of ASCE/SEI 7-05, 12.7.2: as 7-10, with landscaping of roofs as dead load."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from plumb_core.editions import shared
from plumb_core.editions.asce7_16.weight import share_by
from plumb_core.editions.shared import PARTITIONS, SNOW_30_PSF
from plumb_core.rules import cited, rule

_SHARE = share_by(SNOW_30_PSF, 0.20, "landscaping of roofs is dead load (3.1)")


@rule(clause="12.7.2")
def w_shares(loads: Sequence[Sequence[Mapping[str, Any]]]) -> list[list[dict[str, Any]]]:
    """Share of each load in the seismic weight; landscaping of roofs is not listed by itself, it is dead load."""
    return shared.shares(loads, _SHARE, PARTITIONS)


RULES = (w_shares, cited(shared.w, "12.7.2"))
