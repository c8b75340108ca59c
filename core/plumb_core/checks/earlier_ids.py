"""Ids that checks had before they were built of kind, key and place; stored findings and older exports name them."""

from __future__ import annotations

import re

_RENAMED = (
    (re.compile(r"axes_swapped"), "axes_mass_ratio"),
    (re.compile(r"mass_sum\.([XY])"), r"target_mass_sum.\1"),
    (re.compile(r"missing_mode\.(\d+)"), r"missing_mode_T_mode.\1"),
    # once numbered by their place among the values that could not be placed
    (re.compile(r"unplaced_\d+\.(.+)"), r"\1"),
    # a gap is of a requirement, once for both directions
    (re.compile(r"gap_(R|T|V|F|A_x|drift_ratio)\.[XY]"), r"gap_\1"),
)
_COUNTED = re.compile(r"(.+)#\d+")
"""A value stated again was once numbered by where it was."""


def present_id(earlier: str, written: str = "") -> str:
    """The id that a check has today, for one that it had earlier; ids that did not change are given back.

    written : what was written for its value, which states a value stated again from the first one of its place
    """
    for pattern, present in _RENAMED:
        if pattern.fullmatch(earlier):
            return pattern.sub(present, earlier)
    counted = _COUNTED.fullmatch(earlier)
    if counted is None:
        return earlier
    plain = counted.group(1)
    # with a case of its own the place is stated already
    key_of_case = plain.count(".") >= 3 or re.search(r"\.[XY]\.[^.]+\.[^.]+", plain) is not None
    return plain if key_of_case or not written else f"{plain}={written}"
