"""Dynamic analysis, irregularity, torsion and drift of IS 1893 (Part 1):2002: 7.1, 7.8, 7.9, 7.11."""

from __future__ import annotations

from plumb_core.editions import shared
from plumb_core.editions.shared import Irregularity
from plumb_core.rules import Array, cited, rule


@rule(clause="7.8.4.4")
def modal_combination(T_modes: Array) -> str:
    """CQC; SRSS where no modes are closely spaced (frequencies within 10 % of the lower one)."""
    # frequencies within 10 %: f_j <= 1.1 f_i, so T_j >= T_i / 1.1
    return "CQC" if shared.closely_spaced(T_modes, 1.0 / 1.1 - 1e-12) else "SRSS or CQC"


@rule(clause="7.8")
def modal_rules() -> list[str]:
    """What the code asks of the modal analysis."""
    return [
        "modes for at least 90 % of the seismic mass; those above 33 Hz by a correction for missing mass (7.8.4.2)",
        "CQC, or SRSS without closely spaced modes, closely spaced ones added absolutely first (7.8.4.4)",
        "all response quantities times V_B-bar/V_B where the modal base shear is below that of the approximate period (7.8.2)",
    ]


@rule(clause="7.8.2", tex=r"\q{scaling_share} = 1.0")
def scaling_share() -> float:
    """Share of the base shear with the approximate period that the modal one must reach."""
    return 1.0


@rule(clause="7.8.2")
def scaled() -> list[str]:
    """Responses that the scale factor applies to: all of them."""
    return ["forces", "drifts"]


@rule(clause="7.1, Table 4 item i")
def torsion_class(torsion_ratio: float) -> str:
    """Torsion irregularity: drift at one end, with the design eccentricity, more than 1.2 times the average."""
    return "torsional" if torsion_ratio > 1.2 else "regular"


@rule(clause="7.8.1, 7.9")
def torsion_consequences(torsion_class: str, zone: str = "") -> list[str]:
    """What follows from the irregularity."""
    if torsion_class == "regular":
        return []
    limit = {"IV": "12 m", "V": "12 m", "II": "40 m", "III": "40 m"}.get(zone, "12 m (zones IV, V) or 40 m (II, III)")
    return [f"irregular building: dynamic analysis above {limit} (7.8.1)"]


@rule(clause="7.1, Table 5")
def vertical_irregularities(
    story_stiffness: Array | None = None,
    story_strength: Array | None = None,
    w: Array | None = None,
    lateral_width: Array | None = None,
) -> list[Irregularity]:
    """Soft, extreme soft, mass, geometric and weak stories, from the story tables that are given."""
    found = shared.less_than_above(
        story_stiffness, [("extreme soft story", 0.6, 0.7), ("soft story", 0.7, 0.8)], "Table 5"
    )
    found += shared.more_than_adjacent(w, 2.0, "mass", "Table 5", roof_exempt=True)
    found += shared.more_than_adjacent(lateral_width, 1.5, "vertical geometric", "Table 5")
    return found + shared.less_than_above(story_strength, [("weak story", 0.8, None)], "Table 5")


@rule(clause="7.11.1", tex=r"\q{amplifier} = 1")
def amplifier() -> float:
    """Drift is that of the design forces with a load factor of 1.0; nothing amplifies it."""
    return 1.0


@rule(clause="7.11.1", tex=r"\q{drift_limit} = 0.004")
def drift_limit() -> float:
    """Limit of the story drift over the story height."""
    return 0.004


@rule(clause="7.11.1, 7.11.2")
def drift_notes() -> list[str]:
    """What holds for the drifts."""
    return [
        "for drift alone the force may come from the computed period, without the lower bound of 7.8.2 (7.11.1)",
        "no limit for a single story designed for its drift (7.11.1)",
        "the code has no stability coefficient",
    ]


RULES = (
    cited(shared.mass_target, "7.8.4.2"),
    cited(shared.mass_sum, "7.8.4.2"),
    cited(shared.modes_enough, "7.8.4.2"),
    modal_combination,
    modal_rules,
    scaling_share,
    cited(shared.factor_required, "7.8.2"),
    scaled,
    cited(shared.torsion_ratio, "Table 4"),
    torsion_class,
    torsion_consequences,
    vertical_irregularities,
    amplifier,
    cited(shared.Delta, "7.11.1"),
    cited(shared.drift_ratio, "7.11.1"),
    drift_limit,
    drift_notes,
)
