"""What the stages of a recheck show beside their checks."""

from __future__ import annotations

from collections.abc import Sequence

from plumb_core.checks.check import Check
from plumb_core.checks.context import Context
from plumb_core.checks.stages.drift.shown import drift_shown
from plumb_core.checks.stages.scaling.shown import scaling_shown
from plumb_core.checks.stages.twist.shown import twist_shown
from plumb_core.documents import results


def stages_shown(context: Context, checks: Sequence[Check]) -> results.Stages:
    """The stages of scaling, twist and drift."""
    return {
        "scaling": scaling_shown(context, checks),
        "twist": twist_shown(context, checks),
        "drift": drift_shown(context),
    }
