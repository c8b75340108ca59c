"""Whatever is wrong with a request, under every edition and choice: a finite answer or a refusal with its place."""

from __future__ import annotations

import copy
from typing import Any

from hypothesis import given, settings
from mangling import answered, mangled, stands
from test_all_editions import FACTORS, OCCUPANCY, VARIANTS, site_of

STORIES = [
    {
        "name": f"L{i + 1}",
        "height": 3.5,
        "weight": 4000.0,
        "plan": [30.0, 20.0],
        "stiffness": {"X": 2e5, "Y": 3e5},
        "strength": {"X": 4e3, "Y": 5e3},
        "width": {"X": 20.0, "Y": 18.0},
        "plan_stiffness": {"e_0": {"X": 1.0, "Y": 2.0}, "r": {"X": 9.0, "Y": 8.0}, "l_s": 10.0},
        "corners": [[0, 0], [30, 0], [30, 12], [15, 12], [15, 20], [0, 20]],
    }
    for i in range(4)
]
MORE = {
    "podium": {"from_story": "L2", "stiffness_ratio": 12.0, "T_whole": 0.5, "T_upper": 0.48, "R_upper": 8.0},
    "redundancy": {
        "stories": [{"story": "L1", "shear_share": 1.0, "element": "wall", "strength_loss": 0.2}],
        "perimeter_bays": 2,
    },
    "element_shears": [{"story": "L1", "element": "wall", "shear": 500.0, "story_shear": 2000.0, "length": 6.0}],
}


def requests(variant: str) -> list[dict[str, Any]]:
    """Sound requests of every kind of the rules under one edition and its choices."""
    edition = VARIANTS[variant][0]
    system: dict[str, Any] = {
        d: {
            **FACTORS[edition],
            "regular": True,
            **({} if edition == "custom" else {"period_type": "other"}),
            **(MORE if d == "X" else {"rho": 1.0}),
        }
        for d in ("X", "Y")
    }
    system |= {"irregularities": {"torsional": True, "mass": False}, "A_B": 600.0}
    common = {"edition": edition, "site": site_of(variant), "occupancy": OCCUPANCY[edition]}
    held = {**common, "system": system}
    loads = [
        {"kind": "dead", "amount": 3000.0},
        {"kind": "live", "amount": 600.0, "intensity": 3.0, "category": "B"},
        {"kind": "partition", "amount": 10.0, "area": 200.0},
        {"kind": "snow", "amount": 90.0, "intensity": 1.5},
    ]
    shears = {"static": 4000.0, "dynamic": 2900.0, "factor_used": 1.2, "T": 0.8}
    return [
        {"kind": "ground", **common, "steps": True},
        {"kind": "spectrum", **held, "T": [0.0, 0.2, 1.0, 3.0]},
        {"kind": "static", **held, "stories": STORIES, "period": {"X": {"analysis": 0.6}, "Y": {"analysis": 0.7}}},
        {"kind": "scaling", **held, "regular": True, "X": shears, "Y": shears},
        {
            "kind": "torsion",
            **held,
            "rows": [
                {"story": "L2", "direction": "X", "ends": [0.004, 0.007], "displacement_ends": [0.01, 0.02]},
                {"story": "L1", "direction": "Y", "max": 0.005, "avg": 0.004},
            ],
        },
        {
            "kind": "drift",
            **held,
            "stories": STORIES,
            "structure_type": "ductile" if edition == "en1998-1" else None,
            "elastic_drift": [0.004] * 4,
            "P": [9000.0, 7000.0, 5000.0, 2000.0],
            "V": [900.0, 800.0, 600.0, 300.0],
        },
        {
            "kind": "weight",
            **common,
            "stories": [{"name": "L1", "height": 4.0, "loads": loads}, {"name": "L2", "height": 4.0, "loads": loads}],
        },
        {"kind": "irregularity", **held, "stories": STORIES, "drift_ratio": {"X": [0.004] * 4}},
        {
            "kind": "modes",
            **common,
            "T": [1.0, 0.9, 0.3],
            "mass_share": {"X": [0.7, 0.1, 0.15], "Y": [0.1, 0.7, 0.1], "RZ": [0.1, 0.1, 0.6]},
        },
        {"kind": "system", **held, "stories": STORIES},
        {
            "kind": "separation",
            **held,
            "stories": STORIES,
            "displacement": 0.05,
            "other_displacement": 0.03,
            "same_property": False,
            "gap": 0.2,
        },
    ]


REQUESTS = [request for variant in VARIANTS for request in requests(variant)]


def test_the_sound_ones_are_answered() -> None:
    for request in REQUESTS:
        found, problems = answered(copy.deepcopy(request))
        # the reviewer's own factors have no rule for what stands next door
        if (request["edition"], request["kind"]) != ("custom", "separation"):
            assert found, (request["edition"], request["kind"], problems)


@settings(max_examples=1500, deadline=None)
@given(mangled(REQUESTS))
def test_a_mangled_request_is_answered_in_finite_numbers_or_refused_with_its_places(document: dict[str, Any]) -> None:
    stands(document)
