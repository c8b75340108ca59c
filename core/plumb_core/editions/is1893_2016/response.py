"""Dynamic analysis, irregularity, torsion and drift of IS 1893 (Part 1):2016 where they differ from 2002."""

from __future__ import annotations

from plumb_core.editions import shared
from plumb_core.editions.is1893_2002 import response as earlier
from plumb_core.editions.shared import Irregularity
from plumb_core.rules import Array, cited, rule


@rule(clause="7.7")
def modal_rules() -> list[str]:
    """What the code asks of the modal analysis."""
    return [
        "modes for at least 90 % of the seismic mass; those above 33 Hz by a correction for missing mass (7.7.5.2)",
        "the first three modes with at least 65 % of the mass in each direction; in zones IV and V the two lateral periods "
        "at least 10 % apart (Table 6 vii)",
        "CQC, or SRSS without closely spaced modes, closely spaced ones added absolutely first (7.7.5.3)",
        "force quantities times V_B-bar/V_B in each direction where the modal base shear is below that of the approximate "
        "period; displacements aren't scaled (7.7.3, 7.11.1)",
    ]


@rule(clause="7.7.3, 7.11.1")
def scaled() -> list[str]:
    """Responses that the scale factor applies to: forces, not displacements."""
    return ["forces"]


@rule(clause="7.1, Table 5 item i", tex=r"\q{torsion_ratio} = \frac{\q{drift_max}}{2\,\q{drift_avg} - \q{drift_max}}")
def torsion_ratio(drift_max: float, drift_avg: float) -> float:
    """Greatest over least displacement of the two ends; the least follows from the average of the two."""
    return drift_max / (2.0 * drift_avg - drift_max)


@rule(clause="7.1, Table 5 item i")
def torsion_class(torsion_ratio: float) -> str:
    """Torsion irregularity: more than 1.5 between the ends; more than 2.0 (extreme): the configuration is to be revised.

    Ends that move against each other (a ratio below zero) are further apart than any limit.
    """
    if torsion_ratio < 0 or torsion_ratio > 2.0:
        return "extreme"
    return "torsional" if torsion_ratio > 1.5 else "regular"


@rule(clause="7.1, Table 5 item i")
def torsion_consequences(torsion_class: str) -> list[str]:
    """What follows from the irregularity."""
    if torsion_class == "regular":
        return []
    if torsion_class == "extreme":
        return ["the configuration has to be revised (Table 5 item i)"]
    return [
        "rearranged so that torsion isn't among the first two modes, and three-dimensional dynamic analysis (Table 5 item i)"
    ]


@rule(clause="7.1, Table 6")
def vertical_irregularities(
    story_stiffness: Array | None = None,
    story_strength: Array | None = None,
    w: Array | None = None,
    lateral_width: Array | None = None,
) -> list[Irregularity]:
    """Soft, mass, geometric and weak stories, from the story tables that are given; stiffness and strength as the base
    text has them: less than that of the story above."""
    found = shared.less_than_above(story_stiffness, [("soft story", 1.0, None)], "Table 6 i")
    found += shared.more_than_adjacent(w, 1.5, "mass", "Table 6 ii", only_below=True)
    found += shared.more_than_adjacent(lateral_width, 1.25, "vertical geometric", "Table 6 iii", only_below=True)
    return found + shared.less_than_above(story_strength, [("weak story", 1.0, None)], "Table 6 v")


@rule(clause="7.11.1")
def drift_notes() -> list[str]:
    """What holds for the drifts."""
    return [
        "drift under the unfactored design base shear; displacements of the dynamic analysis aren't scaled (7.11.1)",
        "0.002 h in stories with an out-of-plane or in-plane offset (Tables 5 and 6)",
        "the code has no stability coefficient",
    ]


RULES = (
    cited(shared.mass_target, "7.7.5.2"),
    cited(shared.mass_sum, "7.7.5.2"),
    cited(shared.modes_enough, "7.7.5.2"),
    cited(earlier.modal_combination, "7.7.5.3"),
    modal_rules,
    cited(earlier.scaling_share, "7.7.3"),
    cited(shared.factor_required, "7.7.3"),
    scaled,
    torsion_ratio,
    torsion_class,
    torsion_consequences,
    vertical_irregularities,
    cited(earlier.amplifier, "7.11.1"),
    cited(shared.Delta, "7.11.1"),
    cited(shared.drift_ratio, "7.11.1"),
    cited(earlier.drift_limit, "7.11.1.1"),
    drift_notes,
)
