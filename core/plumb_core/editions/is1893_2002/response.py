"""Dynamic analysis, irregularity, torsion and drift of IS 1893 (Part 1):2002: 7.1, 7.8, 7.9, 7.11."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.editions import plans, shared
from plumb_core.editions.is1893_2002.ground import LONGEST, shape
from plumb_core.editions.shared import Irregularity
from plumb_core.rules import Array, Governed, Rule, cited, rule, without


@rule(clause="7.8.4.4")
def modal_combination(T_modes: Array) -> str:
    """CQC; SRSS where no modes are closely spaced (frequencies within 10 % of the lower one)."""
    # frequencies within 10 % of the lower: f_j <= 1.1 f_i, so T_j >= T_i / 1.1, the bound itself being within
    return "CQC" if shared.closely_spaced(T_modes, 1.0 / 1.1 * (1 - 1e-8)) else "SRSS or CQC"


@rule(clause="7.8")
def modal_rules() -> list[str]:
    """What the code asks of the modal analysis."""
    return [
        "modes for at least 90 % of the seismic mass; those above 33 Hz by a correction for missing mass (7.8.4.2)",
        "CQC, or SRSS without closely spaced modes, closely spaced ones added absolutely first (7.8.4.4)",
        (
            "all response quantities times V_B-bar/V_B where the modal base shear is below that of the approximate "
            "period (7.8.2)"
        ),
    ]


@rule(clause="7.8.2.1", tex=r"\q{damping_required} = 0.02\text{ for steel},\ 0.05\text{ for concrete}")
def damping_required(lateral_system: str = "", period_type: str = "") -> float:
    """Damping of dynamic analysis: 2 % of critical for steel, 5 % for reinforced concrete."""
    return 0.02 if lateral_system.startswith("steel") or period_type == "steel_mrf" else 0.05


@rule(clause="7.8.2", tex=r"\q{scaling_share} = 1.0")
def scaling_share() -> float:
    """Share of the base shear with the approximate period that the modal one must reach."""
    return 1.0


@rule(clause="7.8.2")
def scaled() -> list[str]:
    """Responses that the scale factor applies to: all of them."""
    return ["forces", "drifts"]


@rule(clause="7.1, Table 4 item i")
def torsion_class(torsion_ratio: Array) -> list[str]:
    """Torsion irregularity of each story.

    Drift at one end, with the design eccentricity, more than 1.2 times the average.
    """
    return shared.torsion_classes(torsion_ratio, 1.2)


@rule(clause="7.8.1, 7.9")
def torsion_consequences(torsion_class: list[str], zone: str = "") -> list[list[str]]:
    """What follows from the irregularity of each story."""
    limit = {"IV": "12 m", "V": "12 m", "II": "40 m", "III": "40 m"}.get(zone, "12 m (zones IV, V) or 40 m (II, III)")
    words = f"irregular building: dynamic analysis above {limit} (7.8.1)"
    return [[] if computed == "regular" else [words] for computed in torsion_class]


@rule(clause="7.1, Table 5")
def vertical_irregularities(
    story_stiffness: Array | None = None,
    story_strength: Array | None = None,
    w: Array | None = None,
    lateral_width: Array | None = None,
) -> list[Irregularity]:
    """Soft, extreme soft, mass, geometric and weak stories, from the story tables that are given.

    Roofs are not assessed for mass, light or heavy.
    """
    irregular = shared.less_than_above(
        story_stiffness, [("extreme soft story", 0.6, 0.7), ("soft story", 0.7, 0.8)], "Table 5"
    )
    irregular += shared.more_than_adjacent(w, 2.0, "mass", "Table 5", roof_exempt=True)
    irregular += shared.more_than_adjacent(lateral_width, 1.5, "vertical geometric", "Table 5")
    return irregular + shared.less_than_above(story_strength, [("weak story", 0.8, None)], "Table 5")


HORIZONTAL = (
    ("torsional", "i torsion"),
    ("reentrant_corner", "ii re-entrant corners"),
    ("diaphragm_discontinuity", "iii diaphragm discontinuity"),
    ("out_of_plane_offset", "iv out-of-plane offsets"),
    ("nonparallel_systems", "v non-parallel systems"),
)


def horizontal_by(clause: str, types: Sequence[tuple[str, str]], both: bool) -> Rule:
    """Rule for the types of plan irregularity; `both`: a re-entrant corner needs its projections in both directions."""

    @rule(clause=f"7.1, {clause}")
    def horizontal_irregularities(
        irregularities: Mapping[str, bool] | None = None, corners: Sequence[plans.Outline] | None = None
    ) -> list[dict[str, Any]]:
        """Types of plan irregularity, each there, none or not tested; "not tested" is no "none"."""
        shown = {}
        if corners is not None:
            corner = plans.reentrant(corners, 0.15, both)
            basis = f"projection of {corner['projection']:.0%}{' in both directions' if both else ''}, the limit is 15%"
            shown["reentrant_corner"] = {"present": corner["present"], "basis": basis}
        return plans.declared(types, irregularities, clause, shown)

    return horizontal_irregularities


@rule(clause="7.8.1, 6.3.2.2")
def regularity_consequences(horizontal_irregularities: list[dict[str, Any]], zone: str = "") -> list[str]:
    """What follows from the plan irregularities that are there."""
    types = plans.there(horizontal_irregularities)
    limit = {"IV": "12 m", "V": "12 m", "II": "40 m", "III": "40 m"}.get(zone, "12 m (zones IV, V) or 40 m (II, III)")
    consequences = [f"irregular building: dynamic analysis above {limit} (7.8.1)"] if types else []
    if "nonparallel_systems" in types:
        consequences.append("100 % of one direction with 30 % of the other (6.3.2.2)")
    untested = [row["words"] for row in horizontal_irregularities if row["state"] == "not tested"]
    return consequences + ([f"not tested: {', '.join(untested)}"] if untested else [])


@rule(
    clause="7.11.3",
    tex=r"\q{separation} = \q{R}\,(\q{delta_own} + \delta_2),\ R/2 + 25\,\text{mm for floors at one level}",
)
def separation(R: float, delta_own: float, delta_other: float | None = None, floors_level: bool = False) -> Governed:
    """Least separation, m: R times the sum of the displacements of both units (`delta_other` at the same force level).

    With floors of similar units at the same elevation R is replaced by R/2, plus 25 mm.
    """
    total = delta_own + (delta_other or 0.0)
    if floors_level:
        return Governed(R / 2.0 * total + 0.025, "7.11.3, floors level")
    return Governed(R * total, "7.11.3")


@rule(clause="7.11.1", tex=r"\q{amplifier} = 1")
def amplifier() -> float:
    """Drift is that of the design forces with a load factor of 1.0; nothing amplifies it."""
    return 1.0


@rule(clause="7.11.2, 7.11.3", tex=r"\q{deformation_factor} = \q{R}")
def deformation_factor(R: float) -> float:
    """Factor on displacements for separation and deformation compatibility; drifts are without it."""
    return R


@rule(clause="7.11.1", tex=r"\q{drift_limit} = 0.004")
def drift_limit() -> float:
    """Limit of the story drift over the story height."""
    return 0.004


@rule(
    clause="7.11.1, 6.4.2", tex=r"\q{C_s_drift} = \frac{\q{Z}}{2}\,\frac{\q{I}}{\q{R}}\,\frac{S_a}{g}(\q{T_for_drift})"
)
def C_s_drift(Z: float, I: float, R: float, T_for_drift: float, soil: str) -> float:
    """Coefficient for drift: with the computed period and without a lower bound."""
    return float(Z / 2.0 * min(I / R, 1.0) * shape(np.array([min(T_for_drift, LONGEST)]), soil, True)[0])


@rule(clause="7.11.1, 7.11.2")
def drift_notes() -> list[str]:
    """What holds for the drifts."""
    return [
        "for drift alone the force may come from the computed period, without the lower bound of 7.8.2 (7.11.1)",
        "no limit for a single story designed for its drift (7.11.1)",
        "the code has no stability coefficient",
    ]


@rule(clause="7.10")
def infill_effects(infills: Mapping[str, Any]) -> dict[str, Any]:
    """What follows from an open story.

    Dynamic analysis with the infills, or 2.5 times its shears and moments (7.10.3).
    """
    if not infills.get("open_story"):
        return {"eta": None, "words": []}
    name = infills["open_story"]
    words = [
        f"open story {name}: dynamic analysis with the strength and stiffness of the infills (7.10.2), or its "
        f"columns and beams for 2.5 "
        "times the story shears and moments, or symmetric shear walls for 1.5 times the story shear (7.10.3)"
    ]
    return {"eta": 2.5, "words": words}


RULES = (
    infill_effects,
    deformation_factor,
    cited(shared.mass_target, "7.8.4.2"),
    cited(shared.mass_sum, "7.8.4.2"),
    cited(shared.modes_enough, "7.8.4.2"),
    cited(shared.modes_verdict, "7.8.4.2"),
    modal_combination,
    modal_rules,
    damping_required,
    scaling_share,
    cited(shared.factor_required, "7.8.2"),
    cited(shared.spectrum_factor, "7.8.4.5"),
    scaled,
    cited(shared.torsion_ratio, "Table 4"),
    torsion_class,
    torsion_consequences,
    vertical_irregularities,
    amplifier,
    cited(shared.Delta, "7.11.1"),
    cited(shared.drift_ratio, "7.11.1"),
    drift_limit,
    cited(shared.torsion_irregular, "7.1, Table 4 item i"),
    cited(shared.drift_at_edges, "7.11.1, with the torsion of 7.9"),
    cited(shared.T_for_drift, "7.11.1"),
    C_s_drift,
    cited(shared.V_base_drift, "7.11.1"),
    cited(shared.factor_drift_none, "7.11.1"),
    cited(without(shared.drift_verdict_alone, "drift_limits"), "7.11.1"),
    drift_notes,
    horizontal_by("Table 4", HORIZONTAL, True),
    regularity_consequences,
    separation,
)
