"""The buildings of the demo, in the invented Hesper Isles: what the reviewers know of them (their briefs)."""

from __future__ import annotations

from typing import Any

CLINIC = "Port Maren Clinic"
LIBRARY = "Sable Quay Library"

_CLINIC_WEIGHTS = [6480.0, 5740.0, 5740.0, 5700.0, 5580.0, 5580.0, 5490.0, 4310.0]

CLINIC_BRIEF: dict[str, Any] = {
    "edition": "asce7-16",
    "site": {"S_S": 1.2, "S_1": 0.36, "T_L": 8.0, "site_class": "D", "supplements": [1, 3]},
    "occupancy": {"risk_category": "III"},
    "system": {
        "X": {"period_type": "other", "R": 6.0, "Omega_0": 2.5, "C_d": 5.0, "rho": 1.0, "regular": True},
        "Y": {"period_type": "rc_mrf", "R": 8.0, "Omega_0": 3.0, "C_d": 5.5, "rho": 1.0, "regular": True},
    },
    "stories": [
        {"name": f"L{i + 1}", "height": 4.8 if i == 0 else 3.9, "weight": weight, "plan": [36.0, 22.5]}
        for i, weight in enumerate(_CLINIC_WEIGHTS)
    ],
    "period": {"X": {"analysis": 1.02}, "Y": {"analysis": 1.63}},
}

LIBRARY_BRIEF: dict[str, Any] = {
    "edition": "asce7-16",
    "site": {"S_S": 0.9, "S_1": 0.28, "T_L": 6.0, "site_class": "C", "supplements": [1, 3]},
    "occupancy": {"risk_category": "II"},
    "system": {
        d: {"period_type": "steel_mrf", "R": 8.0, "Omega_0": 3.0, "C_d": 5.5, "rho": 1.3, "regular": True}
        for d in ("X", "Y")
    },
    "stories": [
        {"name": name, "height": height, "weight": weight, "plan": [30.0, 27.0]}
        for name, height, weight in (("Ground", 4.8768, 4120.0), ("Gallery", 4.2672, 3980.0), ("Reading", 4.2672, 3980.0),
                                     ("Roof", 3.6576, 2210.0))
    ],
    "period": {"X": {"analysis": 0.91}, "Y": {"analysis": 0.97}},
}  # fmt: skip
