"""Kinds of checks, each with its behaviour.

Wording of its remark, step of our value, links to origins, facts it uses.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

from plumb_core.checks import wording

if TYPE_CHECKING:
    from plumb_core.checks.check import Check


@dataclass(frozen=True, slots=True)
class CheckKind:
    """What a check does.

    Attributes
    ----------
    name, title : of the kind, and in words
    wording : draft of a remark from a check of this kind
    prefix : of the id; empty for kinds that recheck one submitted value itself, of which there is one check each
    step : quantity whose step gives our value, where it is not the check's own; empty where no rule gives it
    linked_by : what links its deviations with origins: the rules of the edition, the seismic weights, the stated
        total, nothing
    uses : quantities that its verdict depends on beside those of its own rule
    """

    name: str
    title: str
    wording: Callable[[Check, wording.Basis], str]
    prefix: str = ""
    step: str | None = None
    linked_by: Literal["rules", "weights", "total", "none"] = "rules"
    uses: tuple[str, ...] = ()


KINDS: dict[str, CheckKind] = {
    kind.name: kind
    for kind in (
        CheckKind("value", "a submitted value compared with ours", wording.value),
        CheckKind(
            "catalogue",
            "a question or a note of the catalogue",
            wording.from_note,
            prefix="catalogue_",
            step="",
            linked_by="none",
        ),
        CheckKind("unplaced", "a value of a story that is not in the brief", wording.none),
        CheckKind(
            "mass", "the mass of the analysis compared with the seismic weight", wording.mass, linked_by="weights"
        ),
        CheckKind("mode", "a mode compared with that of the reference model", wording.mode, linked_by="none"),
        CheckKind("reciprocal", "a frequency compared with its period", wording.consistent, linked_by="none"),
        CheckKind("running_sum", "a running sum compared with its rows", wording.consistent, linked_by="none"),
        CheckKind("sum", "story values compared with their total", wording.sum, prefix="sum_", linked_by="total"),
        CheckKind("gap", "a value that is not stated", wording.gap, prefix="gap_"),
        CheckKind(
            "target",
            "the sum of the modal masses compared with the required share",
            wording.target,
            prefix="target_",
            linked_by="none",
        ),
        CheckKind("axes", "directions of the axes of the model", wording.axes, prefix="axes_", linked_by="none"),
        CheckKind(
            "taken_from",
            "a period compared with that of its mode",
            wording.taken_from,
            prefix="taken_from_",
            linked_by="none",
        ),
        CheckKind(
            "factor",
            "the scale factor compared with the required factor",
            wording.from_note,
            prefix="scaled_by_",
            step="factor_required",
            uses=(
                "factor_required",
                "scaled",
            ),
        ),
        CheckKind("scaling", "questions about the scaling", wording.from_note, prefix="scaling_"),
        CheckKind("reaction", "a base reaction compared with the base shear", wording.value),
        CheckKind(
            "twist",
            "torsional irregularity from the ends",
            wording.from_note,
            prefix="twist_",
            step="",
            uses=(
                "torsion_irregular",
                "irregularities",
            ),
        ),
        CheckKind(
            "side",
            "the side of the accidental eccentricity in a case",
            wording.from_note,
            prefix="side_",
            step="eccentricity",
        ),
        CheckKind(
            "case_missing",
            "a missing load case",
            wording.from_note,
            prefix="case_missing_",
            uses=("eccentricity",),
        ),
        CheckKind("case_open", "questions about the load cases", wording.from_note, prefix="case_open_"),
        CheckKind(
            "amplified", "design drifts compared with the elastic drifts", wording.from_note, prefix="amplified_"
        ),
        CheckKind(
            "drift",
            "the design story drift compared with its limit",
            wording.from_note,
            prefix="drift_",
            uses=(
                "drift_verdict",
                "drift_at",
                "factor_drift",
            ),
        ),
        CheckKind(
            "level",
            "the story drift of an action level compared with its limit",
            wording.from_note,
            prefix="level_",
            uses=("level_drifts",),
        ),
        CheckKind(
            "drift_consistent",
            "drifts compared with the differences of displacements",
            wording.from_note,
            prefix="consistent_",
        ),
        CheckKind(
            "drift_open",
            "questions about the drifts",
            wording.from_note,
            prefix="drift_open_",
            uses=(
                "drift_at",
                "p_delta_included",
                "torsion_irregular",
            ),
        ),
        CheckKind(
            "stability",
            "the greatest stability coefficient compared with its limit",
            wording.from_note,
            prefix="stability_",
            step="theta",
            uses=(
                "theta_verdict",
                "p_delta_included",
            ),
        ),
        CheckKind("load", "a load of the weight make-up compared with its share in the code", wording.value),
        CheckKind("make_up", "a weight compared with its make-up", wording.consistent, prefix="make_up_"),
        CheckKind(
            "own", "a result compared with that of the reference model", wording.from_note, prefix="own_", step=""
        ),
        CheckKind("declared", "what is declared of the analysis", wording.from_note, prefix="declared_"),
        CheckKind("make_up_open", "questions about the weight make-up", wording.from_note, prefix="make_up_open_"),
        CheckKind(
            "combination",
            "a load combination that the code requires",
            wording.from_note,
            prefix="combination_",
            uses=(
                "load_combinations",
                "directions_together",
            ),
        ),
        CheckKind(
            "process",
            "questions about the analysis as a whole",
            wording.from_note,
            prefix="process_",
            uses=(
                "static_permitted",
                "factor_drift",
            ),
        ),
        CheckKind(
            "missing_mode",
            "a mode missing from the submitted list",
            wording.missing_mode,
            prefix="missing_mode_",
            linked_by="none",
        ),
        CheckKind(
            "fact", "a declaration that our own computation contradicts", wording.from_note, prefix="fact_", step=""
        ),
        CheckKind(
            "permission",
            "a system or a method compared with what the code permits",
            wording.from_note,
            prefix="permission_",
            step="",
            uses=(
                "static_permitted",
                "system_permission",
                "irregularities",
            ),
        ),
        CheckKind(
            "irregularity",
            "an irregularity found from the tables of the brief",
            wording.from_note,
            prefix="irregularity_",
            step="",
            uses=(
                "irregular_types",
                "regular_known",
            ),
        ),
        CheckKind(
            "system",
            "a condition of the lateral system",
            wording.from_note,
            prefix="system_",
            step="",
            uses=("system_checks",),
        ),
        CheckKind(
            "mode_test", "what the code requires of the first modes", wording.from_note, prefix="mode_test_", step=""
        ),
    )
}
"""Kinds of checks; a checker registers those that it makes."""
