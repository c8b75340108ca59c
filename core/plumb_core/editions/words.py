"""Words of options that several editions have."""

from __future__ import annotations

PERIOD_TYPES = {
    "steel_mrf": "steel moment frame",
    "rc_mrf": "concrete moment frame",
    "composite_mrf": "composite moment frame",
    "rc_walls": "concrete structural walls",
    "steel_ebf": "steel eccentrically braced frame",
    "steel_brbf": "steel buckling-restrained braced frame",
    "other": "all other systems",
}
