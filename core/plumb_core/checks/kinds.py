"""Kinds of checks, each with its behaviour: wording of its remark, step of our value, links to origins, facts it uses."""

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
    step : quantity whose step gives our value, where it isn't the check's own; empty where no rule gives it
    linked_by : what links its deviations with origins: the rules of the edition, the seismic weights, the stated total, nothing
    uses : quantities that its verdict depends on beside those of its own rule
    """

    name: str
    title: str
    wording: Callable[[Check], str]
    prefix: str = ""
    step: str | None = None
    linked_by: Literal["rules", "weights", "total", "none"] = "rules"
    uses: tuple[str, ...] = ()


KINDS: dict[str, CheckKind] = {
    kind.name: kind
    for kind in (
        CheckKind("value", "a submitted value against ours", wording.value),
        CheckKind("unplaced", "a value of a story that the brief doesn't know", wording.none),
        CheckKind("mass", "the mass of the analysis against the seismic weight", wording.mass, linked_by="weights"),
        CheckKind("mode", "a mode against that of our own model", wording.mode, linked_by="none"),
        CheckKind("reciprocal", "a frequency against its own period", wording.consistent, linked_by="none"),
        CheckKind("running_sum", "a running sum against its own rows", wording.consistent, linked_by="none"),
        CheckKind("sum", "story values against their own total", wording.sum, prefix="sum_", linked_by="total"),
        CheckKind("gap", "what is not stated", wording.gap, prefix="gap_"),
        CheckKind(
            "target",
            "the sum of the modal masses against what the code asks for",
            wording.target,
            prefix="target_",
            linked_by="none",
        ),
        CheckKind("axes", "which way the axes of the model run", wording.axes, prefix="axes_", linked_by="none"),
        CheckKind(
            "taken_from",
            "a period against the mode that it has to be taken from",
            wording.taken_from,
            prefix="taken_from_",
            linked_by="none",
        ),
        CheckKind(
            "factor",
            "the scale factor against the one that is required",
            wording.said,
            prefix="scaled_by_",
            step="factor_required",
            uses=(
                "factor_required",
                "scaled",
            ),
        ),
        CheckKind("scaling", "what a scaling leaves to ask", wording.said, prefix="scaling_"),
        CheckKind("reaction", "a base reaction against the base shear", wording.value),
        CheckKind(
            "twist",
            "torsional irregularity from the ends",
            wording.said,
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
            wording.said,
            prefix="side_",
            step="eccentricity",
        ),
        CheckKind(
            "case_missing",
            "a load case that is not there",
            wording.said,
            prefix="case_missing_",
            uses=("eccentricity",),
        ),
        CheckKind("case_open", "what the cases leave to ask", wording.said, prefix="case_open_"),
        CheckKind(
            "amplified", "design drifts against the drifts that they are made of", wording.said, prefix="amplified_"
        ),
        CheckKind(
            "drift",
            "the design story drift against its limit",
            wording.said,
            prefix="drift_",
            uses=(
                "drift_verdict",
                "drift_at",
                "factor_drift",
            ),
        ),
        CheckKind(
            "level",
            "the story drift of an action level against its limit",
            wording.said,
            prefix="level_",
            uses=("level_drifts",),
        ),
        CheckKind(
            "drift_consistent",
            "drifts against the displacements that they are differences of",
            wording.said,
            prefix="consistent_",
        ),
        CheckKind(
            "drift_open",
            "what the drifts leave to ask",
            wording.said,
            prefix="drift_open_",
            uses=(
                "drift_at",
                "p_delta_included",
                "torsion_irregular",
            ),
        ),
        CheckKind(
            "stability",
            "the greatest stability coefficient against its limit",
            wording.said,
            prefix="stability_",
            step="theta",
            uses=(
                "theta_verdict",
                "p_delta_included",
            ),
        ),
        CheckKind("load", "a load of the weight make-up against what the code counts of it", wording.value),
        CheckKind("make_up", "a weight against its own make-up", wording.consistent, prefix="make_up_"),
        CheckKind("own", "a result against that of our own model", wording.said, prefix="own_", step=""),
        CheckKind("declared", "what is declared of the analysis", wording.said, prefix="declared_"),
        CheckKind("make_up_open", "what the weight make-up leaves to ask", wording.said, prefix="make_up_open_"),
        CheckKind(
            "combination",
            "a load combination that the code asks for",
            wording.said,
            prefix="combination_",
            uses=(
                "load_combinations",
                "directions_together",
            ),
        ),
        CheckKind(
            "process",
            "what the analysis as a whole leaves to ask",
            wording.said,
            prefix="process_",
            uses=(
                "static_permitted",
                "factor_drift",
            ),
        ),
        CheckKind(
            "missing_mode",
            "a mode of ours that their list lacks",
            wording.missing_mode,
            prefix="missing_mode_",
            linked_by="none",
        ),
        CheckKind("fact", "a declaration that our own computation contradicts", wording.said, prefix="fact_", step=""),
        CheckKind(
            "permission",
            "a system or a method against what the code permits",
            wording.said,
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
            "an irregularity of the brief's own tables",
            wording.said,
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
            wording.said,
            prefix="system_",
            step="",
            uses=("system_checks",),
        ),
        CheckKind("mode_test", "what the code requires of the first modes", wording.said, prefix="mode_test_", step=""),
    )
}
"""Kinds of checks; a checker registers those that it makes."""
