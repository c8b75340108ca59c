"""Irregularity, its consequences and redundancy of ASCE/SEI 7-16: 12.3.2 to 12.3.4."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.editions import plans, shared
from plumb_core.editions.shared import Irregularity
from plumb_core.limits import exceeds, within
from plumb_core.rules import Array, Governed, Rule, rule

NINE_METRES = 9.0
"""As printed beside 30 ft in 12.3.3.2."""

HORIZONTAL = (
    ("torsional", "1a torsional"),
    ("extreme_torsional", "1b extreme torsional"),
    ("reentrant_corner", "2 reentrant corner"),
    ("diaphragm_discontinuity", "3 diaphragm discontinuity"),
    ("out_of_plane_offset", "4 out-of-plane offset"),
    ("nonparallel_systems", "5 nonparallel system"),
)


def horizontal_by(types: Sequence[tuple[str, str]], reentrant_limit: float) -> Rule:
    """Rule for the horizontal types: re-entrant corners from the outlines of the floors, the others as declared."""

    @rule(clause="12.3.2.1, Table 12.3-1")
    def horizontal_irregularities(
        irregularities: Mapping[str, bool] | None = None, corners: Sequence[plans.Outline] | None = None
    ) -> list[dict[str, Any]]:
        """Types of horizontal irregularity, each there, none or not tested; "not tested" is no "none"."""
        shown = {}
        if corners is not None:
            corner = plans.reentrant(corners, reentrant_limit, both=True)
            shown["reentrant_corner"] = {
                "present": corner["present"],
                "basis": (
                    f"projections of {corner['projection']:.0%} in both directions, the limit is {reentrant_limit:.0%}"
                ),
            }
        return plans.declared(types, irregularities, "Table 12.3-1", shown)

    return horizontal_irregularities


def _reach(text: str, categories: str, design_category: str) -> list[str]:
    return [text] if not design_category or design_category in categories else []


@rule(clause="12.3.3, 12.5, 12.7.3")
def regularity_consequences(horizontal_irregularities: list[dict[str, Any]], design_category: str = "") -> list[str]:
    """What follows from the horizontal types that are there; all of it where the design category is not known."""
    types = plans.there(horizontal_irregularities)
    consequences: list[str] = []
    if "extreme_torsional" in types:
        consequences += _reach("extreme torsional irregularity is not permitted (12.3.3.1)", "EF", design_category)
    if types & {"torsional", "extreme_torsional", "reentrant_corner", "diaphragm_discontinuity", "out_of_plane_offset"}:
        consequences += _reach(
            "25 % more force in connections of diaphragms to vertical elements and collectors, and in collectors "
            "and their connections (12.3.3.4)",
            "DEF",
            design_category,
        )
    if "out_of_plane_offset" in types:
        consequences += _reach(
            "columns, beams, slabs and trusses under the discontinuous elements for the overstrength Omega_0 "
            "(12.3.3.3)",
            "BCDEF",
            design_category,
        )
    if types & {"torsional", "extreme_torsional", "out_of_plane_offset", "nonparallel_systems"}:
        consequences += _reach("a three-dimensional model (12.7.3)", "BCDEF", design_category)
    if "nonparallel_systems" in types:
        consequences += _reach("100 % of one direction with 30 % of the other (12.5.3)", "CDEF", design_category)
    untested = [row["words"] for row in horizontal_irregularities if row["state"] == "not tested"]
    if untested:
        consequences.append(f"not tested: {', '.join(untested)}")
    return consequences


EXEMPT_IF_LOW = ("1a", "1b", "2")


def low_exempt(N: int, design_category: str) -> bool:
    """12.3.2.2, exception 2: one story anywhere, two stories in category B, C or D."""
    return N == 1 or (N == 2 and design_category in ("B", "C", "D"))


@rule(clause="12.3.2.2, Table 12.3-2")
def vertical_irregularities(
    story_stiffness: Array | None = None,
    story_strength: Array | None = None,
    w: Array | None = None,
    lateral_width: Array | None = None,
    drift_ratio: Array | None = None,
    N: int = 0,
    design_category: str = "",
) -> list[Irregularity]:
    """Soft (1a, 1b), mass (2), geometric (3) and weak (5a, 5b) stories, from the story tables that are given.

    Types 1a, 1b and 2 fall away where no story drift ratio exceeds 1.3 times that above it (12.3.2.2, exception 1), in
    buildings of one story, and in those of two stories in category B, C or D (exception 2).
    """
    irregular = shared.less_than_above(
        story_strength, [("5b extreme weak story", 0.65, None), ("5a weak story", 0.80, None)], "Table 12.3-2"
    )
    irregular += shared.more_than_adjacent(lateral_width, 1.3, "3 vertical geometric", "Table 12.3-2")
    if low_exempt(N, design_category) or shared.steady_drift(drift_ratio, 1.3):
        return irregular
    irregular += shared.less_than_above(
        story_stiffness, [("1b extreme soft story", 0.6, 0.7), ("1a soft story", 0.7, 0.8)], "Table 12.3-2"
    )
    return irregular + shared.more_than_adjacent(w, 1.5, "2 weight (mass)", "Table 12.3-2", light_roof_exempt=True)


def vertical_by(weak: str, extreme_weak: str, in_plane: str) -> Rule:
    """Rule for what follows from the vertical types, by the numbers that the edition gives them."""

    @rule(clause="12.3.3.1 to 12.3.3.4")
    def vertical_consequences(
        vertical_irregularities: list[Irregularity],
        N: int,
        h_n: float,
        design_category: str = "",
        irregularities: Mapping[str, bool] | None = None,
    ) -> list[str]:
        """What follows from the vertical types that are there; all of it where the design category is not known."""
        kinds = {str(irregularity["kind"]).split()[0] for irregularity in vertical_irregularities}
        words = irregularities or {}
        kinds |= {
            number
            for name, number in (
                ("extreme_soft_story", "1b"),
                ("weak_story", weak),
                ("extreme_weak_story", extreme_weak),
                ("in_plane_discontinuity", in_plane),
            )
            if words.get(name)
        }
        consequences: list[str] = []
        banned = sorted(kinds & {"1b", weak, extreme_weak})
        if banned:
            consequences += _reach(
                f"vertical irregularity {', '.join(banned)} is not permitted (12.3.3.1)", "EF", design_category
            )
        if extreme_weak in kinds:
            consequences += _reach(
                f"vertical irregularity {extreme_weak} is not permitted (12.3.3.1)", "D", design_category
            )
            if N > 2 or exceeds(h_n, NINE_METRES):
                consequences += _reach(
                    "not more than two stories or 9 m, unless the weak story resists the design force times Omega_0 "
                    "(12.3.3.2)",
                    "BC",
                    design_category,
                )
        if in_plane in kinds:
            consequences += _reach(
                "columns, beams, slabs and trusses under the discontinuous elements for the overstrength Omega_0 "
                "(12.3.3.3)",
                "BCDEF",
                design_category,
            )
            consequences += _reach(
                "25 % more force in connections of diaphragms and collectors (12.3.3.4)", "DEF", design_category
            )
        return consequences

    return vertical_consequences


# Redundancy

ELEMENTS = {
    "brace": "a brace or its connection removed",
    "moment_frame": "moment resistance lost at both ends of one beam",
    "wall": "a wall or pier with h/l > 1.0, or a collector connection, removed",
    "cantilever_column": "moment resistance lost at the base of one cantilever column",
    "other": "no requirement",
}
"""Table 12.3-3."""


def _not_listed(redundancy: Mapping[str, Any], shares: Array | None) -> list[int]:
    """Stories (0 is the lowest) with more than 35 % of the base shear for which nothing is shown.

    shares : story shear over base shear, where it is known; else the stories below one that counts count as well,
        for the
    story shear grows downwards.
    """
    levels = {s["level"]: s for s in redundancy["stories"] if s.get("level") is not None}
    if not levels:
        return []
    top = max((n for n, s in levels.items() if exceeds(s["shear_share"], 0.35)), default=-1)
    counted = set(range(top + 1))
    if shares is not None:
        counted |= {i for i, share in enumerate(shares.tolist()) if exceeds(share, 0.35)}
    return sorted(counted - levels.keys())


@rule(clause="12.3.4.2, Table 12.3-3")
def redundancy_checks(
    redundancy: Mapping[str, Any],
    w: Array | None = None,
    h_x: Array | None = None,
    k: float | None = None,
    horizontal_irregularities: Sequence[Mapping[str, Any]] | None = None,
) -> list[dict[str, Any]]:
    """Conditions of 12.3.4.2, one by one.

    a: every story with more than 35 % of the base shear without one of its elements; a story that is not shown is not
    met.  b: two bays of perimeter framing on each side of a building regular in plan.
    """
    rows = []
    shares = None
    if w is not None and h_x is not None and k is not None:
        forces = w * h_x**k
        shares = np.cumsum(forces[::-1])[::-1] / np.sum(forces)
    rows += [
        {
            "condition": "a",
            "clause": "12.3.4.2 a",
            "story": "",
            "words": f"story {level + 1} from the base carries more than 35 % of the base shear and is not shown",
            "counts": True,
            "met": None,
        }
        for level in _not_listed(redundancy, shares)
    ]
    for story in redundancy["stories"]:
        loss, extreme = story["strength_loss"], story["extreme_torsion"]
        counts = exceeds(story["shear_share"], 0.35)
        if not counts or story["element"] == "other":
            met: bool | None = True
        elif loss is None or extreme is None:
            met = None if not (extreme or (loss is not None and exceeds(loss, 0.33))) else False
        else:
            met = within(loss, 0.33) and not extreme
        why = ELEMENTS[story["element"]] if counts else "not more than 35 % of the base shear"
        rows.append(
            {
                "condition": "a",
                "clause": "12.3.4.2 a",
                "story": story["story"],
                "words": why,
                "counts": counts,
                "met": met,
            }
        )
    if redundancy["perimeter_bays"] is not None or redundancy["regular_in_plan"] is not None:
        regular, bays = redundancy["regular_in_plan"], redundancy["perimeter_bays"]
        if plans.there(horizontal_irregularities or ()):
            regular = False
        met = None if regular is None or bays is None else bool(regular and bays >= 2)
        rows.append(
            {
                "condition": "b",
                "clause": "12.3.4.2 b",
                "story": "",
                "words": "regular in plan, at least two bays of perimeter framing on each side",
                "counts": True,
                "met": met,
            }
        )
    return rows


def redundancy_shown(checks: Sequence[Mapping[str, Any]]) -> str:
    """Which condition of 12.3.4.2 is shown, empty where none is."""
    removal = [c for c in checks if c["condition"] == "a" and c["counts"]]
    if removal and all(c["met"] for c in removal):
        return "12.3.4.2 a"
    return "12.3.4.2 b" if any(c["condition"] == "b" and c["met"] for c in checks) else ""


def rho_by(extreme_torsion: bool) -> Rule:
    """Rule for the redundancy factor.

    extreme_torsion : whether extreme torsional irregularity leaves 1.3 in category D whatever is shown (from 7-16 on)
    """

    @rule(
        clause="12.3.4.1, 12.3.4.2", tex=r"\q{rho} = 1.3\text{ in category D to F unless 12.3.4.2 is shown, else }1.0"
    )
    def rho(
        design_category: str,
        redundancy_checks: list[dict[str, Any]] | None = None,
        irregularities: Mapping[str, bool] | None = None,
    ) -> Governed:
        """Redundancy factor: 1.0 in category A to C; above 1.3, or 1.0 where a condition of 12.3.4.2 is shown.

        What was assumed for want of a statement states it in `governed_by`.
        """
        if design_category not in ("D", "E", "F"):
            return Governed(1.0, "12.3.4.1")
        if extreme_torsion and design_category == "D" and (irregularities or {}).get("extreme_torsional"):
            return Governed(1.3, "12.3.4.2, extreme torsional irregularity")
        if redundancy_checks is None:
            return Governed(1.3, "12.3.4.2, assumed: not stated")
        shown = redundancy_shown(redundancy_checks)
        return Governed(1.0, shown) if shown else Governed(1.3, "12.3.4.2, not shown")

    return rho


RULES = (
    horizontal_by(HORIZONTAL, 0.15),
    regularity_consequences,
    vertical_irregularities,
    vertical_by("5a", "5b", "4"),
    redundancy_checks,
    rho_by(True),
)
