"""The buildings of the demo, in the invented Hesper Isles: what the reviewers know of them (their briefs)."""

from __future__ import annotations

from typing import Any

CLINIC = "Port Maren Clinic"
LIBRARY = "Sable Quay Library"
EXCHANGE = "Quillon Exchange"
GRANARY = "Aldermouth Granary Lofts"

_CLINIC_WEIGHTS = [6480.0, 5740.0, 5740.0, 5700.0, 5580.0, 5580.0, 5490.0, 4310.0]

CLINIC_BRIEF: dict[str, Any] = {
    "edition": "asce7-16",
    "comparison_editions": ["asce7-22", "en1998-1"],
    "site": {"S_S": 1.2, "S_1": 0.36, "T_L": 8.0, "site_class": "D", "supplements": [1, 3]},
    "occupancy": {"risk_category": "III"},
    "system": {
        "X": {"lateral_system": "B_special_RC_SW", "period_type": "other", "rho": 1.0, "regular": True},
        "Y": {"lateral_system": "C_RC_SMF", "period_type": "rc_mrf", "rho": 1.0, "regular": True},
    },
    "stories": [
        {"name": f"L{i + 1}", "height": 4.8 if i == 0 else 3.9, "weight": weight, "plan": [36.0, 22.5]}
        for i, weight in enumerate(_CLINIC_WEIGHTS)
    ],
    "period": {"X": {"analysis": 1.02}, "Y": {"analysis": 1.63}},
    "comparisons": {
        "asce7-22": {
            "site": {"S_MS": 1.26, "S_M1": 0.72, "S_1": 0.36, "T_L": 8.0, "site_class": "D"},
            "occupancy": {"risk_category": "III"},
            "system": {"X": {"lateral_system": "B_special_RC_SW"}, "Y": {"lateral_system": "C_RC_SMF"}},
        },
        "en1998-1": {
            "site": {"a_gR": 0.32, "ground_type": "C", "spectrum_type": 1},
            "occupancy": {"importance_class": "III"},
            "system": {
                "ductility_class": "DCM",
                "regular_in_plan": True,
                "X": {"lateral_system": "rc_walls", "period_type": "other", "alpha_0": 2.2},
                "Y": {"lateral_system": "rc_frame_multi_bay", "period_type": "rc_mrf"},
            },
        },
    },
}

LIBRARY_BRIEF: dict[str, Any] = {
    "edition": "asce7-16",
    "site": {"S_S": 0.9, "S_1": 0.28, "T_L": 6.0, "site_class": "C", "supplements": [1, 3]},
    "occupancy": {"risk_category": "II"},
    "system": {
        d: {"lateral_system": "C_steel_SMF", "period_type": "steel_mrf", "rho": 1.3, "regular": True}
        for d in ("X", "Y")
    },
    "stories": [
        {"name": name, "height": height, "weight": weight, "plan": [30.0, 27.0]}
        for name, height, weight in (
            ("Ground", 4.8768, 4120.0),
            ("Gallery", 4.2672, 3980.0),
            ("Reading", 4.2672, 3980.0),
            ("Roof", 3.6576, 2210.0),
        )
    ],
    "period": {"X": {"analysis": 0.91}, "Y": {"analysis": 0.97}},
}

EXCHANGE_BRIEF: dict[str, Any] = {
    "edition": "en1998-1",
    "comparison_editions": ["asce7-22", "is1893-2016"],
    "site": {"a_gR": 0.22, "ground_type": "C", "spectrum_type": 1, "v_s30": 265.0},
    "occupancy": {"importance_class": "III"},
    "system": {
        "X": {"lateral_system": "steel_cbf_diagonal", "period_type": "other", "regular": True},
        "Y": {"lateral_system": "steel_mrf", "period_type": "steel_mrf", "regular": True},
        "ductility_class": "DCM",
        "regular_in_plan": True,
        "regular_in_elevation": True,
    },
    "structure_type": "ductile",
    "stories": [
        {"name": f"L{i + 1}", "height": 5.0 if i == 0 else 3.8, "weight": weight, "plan": [42.0, 28.0]}
        for i, weight in enumerate([8450.0, *[7620.0] * 7, *[7380.0] * 5, 5140.0])
    ],
    "period": {"X": {"analysis": 1.14}, "Y": {"analysis": 1.71}},
    "comparisons": {
        "asce7-22": {
            "site": {"S_MS": 1.02, "S_M1": 0.74, "S_1": 0.31, "T_L": 8.0, "site_class": "D"},
            "occupancy": {"risk_category": "III"},
            "system": {"X": {"lateral_system": "B_steel_SCBF"}, "Y": {"lateral_system": "C_steel_SMF"}},
        },
        "is1893-2016": {
            "site": {"zone": "IV", "soil": "II"},
            "occupancy": {"use": "over_200_persons"},
            "system": {
                "X": {"lateral_system": "steel_SBF", "period_type": "other"},
                "Y": {"lateral_system": "steel_SMRF", "period_type": "steel_mrf"},
            },
        },
    },
}


def _granary_story(number: int) -> dict[str, Any]:
    """A story of the granary: storage on the lower floors, dwellings above, the loads that its weight is made of."""
    area = 24.0 * 18.0
    if number == 5:
        loads = [
            {"name": "roof slab and finishes", "kind": "dead", "amount": 6.1 * area},
            {"name": "roof load", "kind": "roof_live", "amount": 0.75 * area, "intensity": 0.75},
            {"name": "tanks", "kind": "equipment", "amount": 120.0},
        ]
    elif number <= 2:
        loads = [
            {"name": "slab, columns, walls", "kind": "dead", "amount": 8.4 * area},
            {"name": "storage", "kind": "storage", "amount": 9.6 * area, "intensity": 9.6, "category": "E"},
        ]
    else:
        loads = [
            {"name": "slab, columns, walls", "kind": "dead", "amount": 7.2 * area},
            {"name": "partitions", "kind": "partition", "amount": 0.6 * area, "area": area},
            {"name": "dwellings", "kind": "live", "amount": 2.0 * area, "intensity": 2.0, "category": "A"},
        ]
    name = "Roof" if number == 5 else f"F{number}"
    return {"name": name, "height": 4.6 if number == 1 else 3.9, "plan": [24.0, 18.0], "loads": loads}


GRANARY_BRIEF: dict[str, Any] = {
    "edition": "ubc97",
    "comparison_editions": ["as1170.4", "asce7-16"],
    "site": {"zone": "3", "soil": "S_D"},
    "occupancy": {"occupancy_category": "4"},
    "system": {
        "X": {"lateral_system": "BF_conc_wall", "period_type": "other", "regular": True, "rho": 1.0},
        "Y": {"lateral_system": "SMRF_conc", "period_type": "rc_mrf", "regular": True, "rho": 1.0},
    },
    "stories": [_granary_story(n) for n in range(1, 6)],
    "period": {"X": {"analysis": 0.58}, "Y": {"analysis": 0.96}},
    "comparisons": {
        "as1170.4": {
            "site": {"Z": 0.13, "subsoil": "D_e"},
            "occupancy": {"importance_level": 2},
            "system": {"X": {"lateral_system": "RC_limited_wall"}, "Y": {"lateral_system": "RC_OMRF"}},
        },
        "asce7-16": {
            "site": {"S_S": 0.82, "S_1": 0.29, "T_L": 6.0, "site_class": "D"},
            "occupancy": {"risk_category": "II"},
            "system": {"X": {"lateral_system": "B_special_RC_SW"}, "Y": {"lateral_system": "C_RC_SMF"}},
        },
    },
}
