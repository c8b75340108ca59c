"""Makes the grids of the simulated hazard service: smooth, invented fields over the invented Hesper Isles.

`python3 hazard/make_grids.py` writes `hazard/grids/*.json`; the numbers mean nothing outside this demo.
"""

from __future__ import annotations

import json
import math
from pathlib import Path
from typing import Any

LATITUDES = [47.0 + 0.25 * i for i in range(9)]
LONGITUDES = [-32.0 + 0.25 * i for i in range(13)]
PERIODS = [0, 0.01, 0.02, 0.03, 0.05, 0.075, 0.1, 0.15, 0.2, 0.25, 0.3, 0.4, 0.5, 0.75, 1, 1.5, 2, 3, 4, 5, 7.5, 10]
OUT = Path(__file__).parent / "grids"


def shaking(latitude: float, longitude: float) -> float:
    """Peak acceleration on rock, g.

    A fault from the south-west to the north-east of the isles, and a hum in the west.
    """
    across = abs((latitude - 47.4) - 0.45 * (longitude + 31.2)) / 1.1
    return round(0.08 + 0.34 * math.exp(-((2.2 * across) ** 2)) + 0.05 * math.exp(-((longitude + 31.9) ** 2)), 4)


def field(of: Any) -> list[list[float | str]]:
    """Return the values of a field at all points of the grid."""
    return [[of(shaking(lat, lon)) for lon in LONGITUDES] for lat in LATITUDES]


def rounded(factor: float, digits: int = 3) -> Any:
    """Return a field times a factor, rounded."""
    return lambda pga: round(factor * pga, digits)


def zones(*bounds: tuple[float, str]) -> Any:
    """Return a field of zones by their bounds."""
    return lambda pga: next(name for bound, name in bounds if pga < bound)


def spectrum(pga: float) -> list[float]:
    """Multi-period MCE_R ordinates of class BC, g."""
    S_S, S_1 = 2.6 * pga * 1.5, 0.95 * pga * 1.5
    found = []
    for T in PERIODS:
        rise = 0.42 + 0.58 * min(1.0, T / 0.12)
        fall = (S_1 / S_S) / max(T, S_1 / S_S) * (1.0 if T <= 6 else 6 / T)
        found.append(round(S_S * rise * min(1.0, fall), 4))
    return found


GRIDS: dict[str, dict[str, Any]] = {
    "asce7-05": {
        "version": "HI-2004.1",
        "date": "2004-11-15",
        "values": {
            "S_S": field(rounded(3.55)),
            "S_1": field(rounded(1.36)),
            "T_L": field(lambda pga: 8.0 if pga > 0.2 else 6.0),
        },
    },
    "asce7-10": {
        "version": "HI-2009.3",
        "date": "2009-08-01",
        "values": {
            "S_S": field(rounded(3.68)),
            "S_1": field(rounded(1.40)),
            "T_L": field(lambda pga: 8.0 if pga > 0.2 else 6.0),
        },
    },
    "asce7-16": {
        "version": "HI-2016.2",
        "date": "2016-05-20",
        "values": {
            "S_S": field(rounded(3.75)),
            "S_1": field(rounded(1.33)),
            "T_L": field(lambda pga: 8.0 if pga > 0.2 else 6.0),
        },
    },
    "asce7-22": {
        "version": "HI-2022.1",
        "date": "2022-02-11",
        "by_site_class": True,
        # amplification of short and long periods over class BC
        "amplification": {
            "A": [0.8, 0.75],
            "B": [0.9, 0.85],
            "BC": [1.0, 1.0],
            "C": [1.22, 1.4],
            "CD": [1.3, 1.9],
            "D": [1.25, 2.4],
            "DE": [1.15, 2.9],
            "E": [1.0, 3.2],
        },
        "periods": PERIODS,
        "values": {
            "S_S": field(rounded(3.9)),
            "S_1": field(rounded(1.42)),
            "T_L": field(lambda pga: 8.0 if pga > 0.2 else 6.0),
            "mce": field(spectrum),
        },
    },
    "ubc97": {
        "version": "HI-1997",
        "date": "1997-01-01",
        "zones": True,
        "values": {"zone": field(zones((0.1, "1"), (0.16, "2A"), (0.22, "2B"), (0.32, "3"), (9, "4")))},
    },
    "en1998-1": {"version": "HI-NA.2008", "date": "2008-12-01", "values": {"a_gR": field(rounded(1.0))}},
    "is1893-2002": {
        "version": "HI-2002",
        "date": "2002-06-30",
        "zones": True,
        "values": {"zone": field(zones((0.13, "II"), (0.21, "III"), (0.31, "IV"), (9, "V")))},
    },
    "is1893-2016": {
        "version": "HI-2016",
        "date": "2016-12-15",
        "zones": True,
        "values": {"zone": field(zones((0.12, "II"), (0.2, "III"), (0.3, "IV"), (9, "V")))},
    },
    "as1170.4": {"version": "HI-2018", "date": "2018-10-05", "values": {"Z": field(rounded(0.9))}},
}


def main() -> None:
    """Write the grids of all editions."""
    OUT.mkdir(exist_ok=True)
    for edition, grid in GRIDS.items():
        content = {"edition": edition, "latitudes": LATITUDES, "longitudes": LONGITUDES} | grid
        (OUT / f"{edition}.json").write_text(json.dumps(content, separators=(",", ":")) + "\n")


if __name__ == "__main__":
    main()
