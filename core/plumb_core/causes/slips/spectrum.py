"""Slips of the curve: another quantity on its axis, or the plateau where the modal curve rises."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from plumb_core.causes.slip import Attempt, Place, slip
from plumb_core.constants import GRAVITY

CURVES = ("S_a", "S_a_damped", "S_a_reduced")


@slip("the plateau from the beginning")
def plateau(place: Place) -> Iterator[Attempt]:
    """The curve starts at its plateau, as that of the static method does."""
    value = place.value
    if place.key.name in CURVES and isinstance(value, np.ndarray) and len(value) > 1:
        flat = np.full(len(value), float(np.nanmax(value)))
        yield Attempt(
            "plateau",
            flat,
            "the plateau also at short periods, as in the static method",
            "S28",
            3.0,
            only_deviating=True,
        )


@slip("displacements as accelerations")
def displacements(place: Place) -> Iterator[Attempt]:
    """The ordinates are displacements, in metres or millimetres."""
    periods, value = place.get("T_points"), place.value
    if place.key.name not in CURVES or not isinstance(periods, np.ndarray) or not isinstance(value, np.ndarray):
        return
    if len(periods) != len(value):
        return
    of_curve = value * GRAVITY * (periods / (2.0 * np.pi)) ** 2
    for factor, unit in ((1.0, "metres"), (1000.0, "millimetres"), (1.0 / 0.3048, "feet")):
        yield Attempt(
            f"displacements in {unit}", of_curve * factor, f"displacements in {unit} as accelerations", "S32", 5.0
        )
