"""Dynamic analysis, irregularity, torsion and drift of IS 1893 (Part 1):2016 where they differ from 2002."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Any

import numpy as np

from plumb_core.editions import conditions, plans, shared
from plumb_core.editions.is1893_2002 import response as earlier
from plumb_core.editions.shared import Irregularity
from plumb_core.errors import MissingInput
from plumb_core.limits import below, reaches, within
from plumb_core.rules import Array, Governed, Rule, cited, rule


@rule(clause="7.7")
def modal_rules() -> list[str]:
    """What the code asks of the modal analysis."""
    return [
        "modes for at least 90 % of the seismic mass; those above 33 Hz by a correction for missing mass (7.7.5.2)",
        "the first three modes with at least 65 % of the mass in each direction; in zones IV and V the two "
        "lateral periods "
        "at least 10 % apart (Table 6 vii)",
        "CQC, or SRSS without closely spaced modes, closely spaced ones added absolutely first (7.7.5.3)",
        "force quantities times V_B-bar/V_B in each direction where the modal base shear is below that of the "
        "approximate "
        "period; displacements are not scaled (7.7.3, 7.11.1)",
    ]


@rule(clause="7.7.3, 7.11.1")
def scaled() -> list[str]:
    """Responses that the scale factor applies to: forces, not displacements."""
    return ["forces"]


@rule(clause="7.1, Table 5 item i", tex=r"\q{torsion_ratio} = \frac{\q{displacement_max}}{\delta_{\min}}")
def torsion_ratio(
    displacement_max: Array | None = None,
    displacement_avg: Array | None = None,
    drift_max: Array | None = None,
    drift_avg: Array | None = None,
) -> Array:
    """Greatest over least *displacement* of a floor at its two ends.

    By story drifts only where no displacement is given.

    Shape (n_stories,).  The least follows from the average.  Infinite where the far end does not move, or moves
    against the near one.
    """
    greatest, average = displacement_max, displacement_avg
    if greatest is None or average is None:
        greatest, average = drift_max, drift_avg
    if greatest is None or average is None:
        raise MissingInput("displacement_max")
    least = 2.0 * average - greatest
    far = least <= 1e-12 * greatest
    return np.where(far, math.inf, greatest / np.where(far, 1.0, least))


@rule(clause="7.1, Table 5 item i")
def torsion_class(torsion_ratio: Array) -> list[str]:
    """Torsion irregularity of each story: more than 1.5 between the ends.

    More than 2.0 (extreme): the configuration is to be revised.
    """
    return shared.torsion_classes(torsion_ratio, 1.5, 2.0)


@rule(clause="7.1, Table 5 item i")
def torsion_consequences(torsion_class: list[str]) -> list[list[str]]:
    """What follows from the irregularity of each story."""
    words = {
        "regular": [],
        "extreme": ["the configuration has to be revised (Table 5 item i)"],
        "torsional": [
            "rearranged so that torsion is not among the first two modes, and three-dimensional dynamic analysis "
            "(Table 5 item i)"
        ],
    }
    return [words[computed] for computed in torsion_class]


def _vertical(stiffness_share: float, strength_share: float, clause: str) -> Rule:
    @rule(clause=f"7.1, Table 6{clause}")
    def vertical_irregularities(
        story_stiffness: Array | None = None,
        story_strength: Array | None = None,
        w: Array | None = None,
        lateral_width: Array | None = None,
    ) -> list[Irregularity]:
        """Soft, mass, geometric and weak stories, from the story tables that are given."""
        irregular = shared.less_than_above(story_stiffness, [("soft story", stiffness_share, None)], "Table 6 i")
        irregular += shared.more_than_adjacent(w, 1.5, "mass", "Table 6 ii", only_below=True)
        irregular += shared.more_than_adjacent(
            lateral_width, 1.25, "vertical geometric", "Table 6 iii", only_below=True
        )
        return irregular + shared.less_than_above(story_strength, [("weak story", strength_share, None)], "Table 6 v")

    return vertical_irregularities


vertical_irregularities = _vertical(1.0, 1.0, "")
"""As the base text has it: less than that of the story above."""
vertical_irregularities_amended = _vertical(0.8, 0.8, " as amended")
"""With the amendments, where the brief declares them: less than 80 % of that of the story above."""

HORIZONTAL = (
    ("torsional", "i torsion"),
    ("reentrant_corner", "ii re-entrant corners"),
    ("diaphragm_discontinuity", "iii excessive cut-outs"),
    ("out_of_plane_offset", "iv out-of-plane offsets"),
    ("nonparallel_systems", "v non-parallel systems"),
)


@rule(clause="7.1, Tables 5 and 6, 6.3.2.2")
def regularity_consequences(
    horizontal_irregularities: list[dict[str, Any]], zone: str = "", irregularities: Mapping[str, bool] | None = None
) -> list[str]:
    """What follows from the irregularities that are there, offsets among them."""
    types = plans.there(horizontal_irregularities)
    consequences = []
    if "reentrant_corner" in types:
        consequences.append("three-dimensional dynamic analysis (Table 5 ii)")
    if "diaphragm_discontinuity" in types:
        consequences.append("openings over 50 % of the slab: flexible diaphragm (Table 5 iii)")
    if "out_of_plane_offset" in types:
        limit = (
            "drift below 0.2 % in the story with the offset and the one below, and specialist literature"
            if zone != "II"
            else "specialist literature"
        )
        consequences.append(f"out-of-plane offset: {limit} (Table 5 iv)")
    if "nonparallel_systems" in types:
        consequences.append("100 % of one direction with 30 % of the other (Table 5 v, 6.3.2.2)")
    if (irregularities or {}).get("in_plane_discontinuity"):
        ban = (
            "drift at most 0.2 % (zone II)"
            if zone == "II"
            else "not permitted in zones III to V"
            if zone
            else "drift at most 0.2 % in zone II, not permitted in zones III to V"
        )
        consequences.append(f"in-plane discontinuity: {ban} (Table 6 iv)")
    untested = [row["words"] for row in horizontal_irregularities if row["state"] == "not tested"]
    return consequences + ([f"not tested: {', '.join(untested)}"] if untested else [])


@rule(clause="7.1, Table 5 i, Table 6 vii")
def modal_tests(
    T_modes: Array,
    mass_share: Mapping[str, Array],
    zone: str = "",
    mass_share_RZ: Array | None = None,
) -> list[dict[str, Any]]:
    """What Tables 5 and 6 ask of the first modes.

    65 % in the first three, lateral periods 10 % apart, no torsion in the first two.

    A mode is lateral along the direction with its greatest share, or torsional where the share of inertia is the
    greatest.
    """
    order = np.argsort(-np.asarray(T_modes))
    rows: list[dict[str, Any]] = []
    for d, share in mass_share.items():
        total = float(np.sum(np.asarray(share)[order[:3]]))
        rows.append(
            {
                "words": f"first three modes with at least 65 % of the mass in {d}",
                "value": total,
                "limit": 0.65,
                "met": reaches(total, 0.65),
                "clause": "Table 6 vii",
            }
        )
    columns = {**{d: np.asarray(s) for d, s in mass_share.items()}}
    if mass_share_RZ is not None:
        columns["RZ"] = np.asarray(mass_share_RZ)
    kinds = [max(columns, key=lambda c: columns[c][i]) for i in order]
    first = {
        d: next((float(T_modes[i]) for i, kind in zip(order, kinds, strict=True) if kind == d), None)
        for d in ("X", "Y")
    }
    if zone in ("", "IV", "V") and {"X", "Y"} <= mass_share.keys():
        periods = [t for t in first.values() if t is not None]
        gap = (max(periods) - min(periods)) / max(periods) if len(periods) == 2 else None
        rows.append(
            {
                "words": "the two lateral periods at least 10 % of the larger apart (zones IV and V)",
                "value": gap,
                "limit": 0.10,
                "met": None if gap is None else reaches(gap, 0.10),
                "clause": "Table 6 vii",
            }
        )
    torsional = None if mass_share_RZ is None else [n + 1 for n, kind in enumerate(kinds[:2]) if kind == "RZ"]
    rows.append(
        {
            "words": "torsion not among the first two modes",
            "value": None if torsional is None else float(len(torsional)),
            "limit": 0.0,
            "met": None if torsional is None else not torsional,
            "clause": "Table 5 i",
        }
    )
    twist = next((float(T_modes[i]) for i, kind in zip(order, kinds, strict=True) if kind == "RZ"), None)
    lateral = [t for t in first.values() if t is not None]
    ratio = twist / min(lateral) if twist is not None and len(lateral) == 2 else None
    rows.append(
        {
            "words": "period of the first torsional mode below those of the first lateral modes along both axes",
            "value": ratio,
            "limit": 1.0,
            "met": None if ratio is None else below(ratio, 1.0),
            "clause": "Table 5 i",
        }
    )
    return rows


FLAT_SLAB = "flat_slab_walls"


@rule(
    clause="Table 5 iv, Table 6 iv",
    tex=r"0.002\text{ in stories with an offset and below},\ \text{else }\q{drift_limit}",
)
def drift_limits(drift_limit: float, offset_stories: list[Any], zone: str = "") -> list[float]:
    """Limit of the drift of each story over its height, by the offsets of the lateral system.

    Out-of-plane, in zones III to V: 0.2 % in the story with the offset and in the one below it (Table 5 iv).
    In-plane, in
    zone II: 0.2 % in the story (Table 6 iv); in zones III to V it is not permitted.  An offset whose kind is not
    declared
    counts as out-of-plane.
    """
    limits = []
    for computed, above in zip(offset_stories, [*offset_stories[1:], False], strict=True):
        out_of_plane = zone != "II" and any(o and o != "in_plane" for o in (computed, above))
        in_plane = zone in ("", "II") and computed == "in_plane"
        limits.append(min(drift_limit, 0.002) if out_of_plane or in_plane else drift_limit)
    return limits


@rule(clause="Table 9, note on flat slabs", tex=r"\q{roof_drift_limit} = 0.001\text{ for flat slabs with walls}")
def roof_drift_limit(lateral_system: str = "") -> float:
    """Limit of the roof's displacement under the design force over the height, for flat slabs with structural walls."""
    return 0.001 if lateral_system == FLAT_SLAB else math.inf


@rule(clause="Table 9, note on flat slabs", tex=r"\q{roof_drift_ratio} = \sum \q{Delta} / \q{h_n}")
def roof_drift_ratio(Delta: Array, h: Array) -> float:
    """Displacement of the roof under the design force over the height."""
    return float(np.sum(Delta) / np.sum(h))


@rule(clause="Table 9, note on flat slabs", tex=r"\q{roof_drift_ratio} \le \q{roof_drift_limit}")
def roof_drift_verdict(roof_drift_ratio: float, roof_drift_limit: float) -> bool:
    """Whether the displacement of the roof is within its limit."""
    return within(roof_drift_ratio, roof_drift_limit)


@rule(clause="7.11.3", tex=r"\q{separation} = R_1 \delta_1 + R_2 \delta_2")
def separation(R: float, delta_own: float, delta_other: float | None = None, floors_level: bool = False) -> Governed:
    """Least separation, m: R times the own displacement plus the same of the other unit (`delta_other`, with its R).

    With floors of both units at the same level R is replaced by R/2, plus 25 mm.
    """
    total = R * delta_own + (delta_other or 0.0)
    if floors_level:
        return Governed(total / 2.0 + 0.025, "7.11.3, floors level")
    return Governed(total, "7.11.3")


@rule(clause="7.11.1")
def drift_notes() -> list[str]:
    """What holds for the drifts."""
    return [
        "drift under the unfactored design base shear; displacements of the dynamic analysis are not scaled (7.11.1)",
        "0.002 h in stories with an out-of-plane or in-plane offset (Tables 5 and 6)",
        "the code has no stability coefficient",
    ]


@rule(clause="7.9, 7.10")
def infill_effects(infills: Mapping[str, Any], zone: str = "") -> dict[str, Any]:
    """What follows from masonry infills and an open story: conditions with whether they are met, and words."""
    words = ["unreinforced masonry infills modelled as diagonal struts (7.9)"]
    rows: list[dict[str, Any]] = []
    if infills.get("open_story"):
        name = infills["open_story"]
        rows = [
            conditions.condition(
                f"stiffness of {name} at least 80 % of the story above",
                infills.get("stiffness_ratio"),
                0.8,
                "min",
                "7.10.3",
            ),
            conditions.condition(
                f"strength of {name} at least 90 % of the story above",
                infills.get("strength_ratio"),
                0.9,
                "min",
                "7.10.3",
            ),
        ]
        if zone != "II":
            rows.append(
                conditions.condition(
                    "area of structural walls at least 2 % of the plan in each direction",
                    infills.get("wall_density"),
                    0.02,
                    "min",
                    "7.10.4",
                )
            )
        words.append(f"open story {name}: structural walls or braces in selected bays (7.10)")
    return {"eta": None, "words": words, "conditions": rows}


RULES = (
    infill_effects,
    cited(earlier.deformation_factor, "7.11.2, 7.11.3"),
    cited(shared.mass_target, "7.7.5.2"),
    cited(shared.mass_sum, "7.7.5.2"),
    cited(shared.modes_enough, "7.7.5.2"),
    cited(shared.modes_verdict, "7.7.5.2"),
    cited(earlier.modal_combination, "7.7.5.3"),
    modal_rules,
    cited(earlier.scaling_share, "7.7.3"),
    cited(shared.factor_required, "7.7.3"),
    cited(shared.spectrum_factor, "7.7.5.4"),
    scaled,
    torsion_ratio,
    torsion_class,
    torsion_consequences,
    vertical_irregularities,
    cited(earlier.amplifier, "7.11.1"),
    cited(shared.Delta, "7.11.1"),
    cited(shared.drift_ratio, "7.11.1"),
    cited(earlier.drift_limit, "7.11.1.1"),
    drift_limits,
    roof_drift_limit,
    roof_drift_ratio,
    roof_drift_verdict,
    cited(shared.torsion_irregular, "7.1, Table 5 item i"),
    cited(shared.drift_at_edges, "7.11.1, with the torsion of 7.8"),
    cited(shared.V_base_drift_same, "7.11.1"),
    cited(shared.factor_drift_none, "7.11.1"),
    cited(shared.drift_verdict_alone, "7.11.1.1"),
    drift_notes,
    earlier.horizontal_by("Table 5", HORIZONTAL, False),
    regularity_consequences,
    modal_tests,
    separation,
)
