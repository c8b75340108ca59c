"""Combination of modal maxima, and of directions."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Literal

import numpy as np

from plumb_core.dynamics.structure import Array

CombinationRule = Literal["CQC", "SRSS", "ABS"]
DirectionRule = Literal["SRSS", "100-30", "100-30-30"]


def cqc_coefficients(omega: Array, damping: float) -> Array:
    """Correlation of modes, (k, k), for equal modal damping.

    E. L. Wilson, A. Der Kiureghian and E. P. Bayo, A replacement for the SRSS method in seismic analysis (1981).
    """
    with np.errstate(invalid="ignore", divide="ignore"):
        r = np.minimum(omega[:, None], omega[None, :]) / np.maximum(omega[:, None], omega[None, :])
    r = np.where(np.isfinite(r), r, 1.0)
    top = 8.0 * damping**2 * (1.0 + r) * r * np.sqrt(r)
    bottom = (1.0 - r**2) ** 2 + 4.0 * damping**2 * r * (1.0 + r) ** 2
    return np.where(bottom > 0, top / np.where(bottom > 0, bottom, 1.0), 1.0)


class ModalRule:
    """Combines values of modes along their first axis.

    rigid : the last value is that of what the modes exclude; it is in no correlation with them (with ABS it adds).
    """

    def __init__(self, rule: CombinationRule, omega: Array, damping: float, rigid: bool):
        self.rule = rule
        k = len(omega)
        self.rho = np.eye(k + rigid)
        if rule == "CQC":
            self.rho[:k, :k] = cqc_coefficients(omega, damping)

    def __call__(self, values: Array) -> Array:
        """Combined maxima, shape of one mode's values."""
        if self.rule == "ABS":
            return np.asarray(np.abs(values).sum(axis=0))
        flat = values.reshape(len(values), -1)
        squares = np.einsum("ij,ij->j", flat, self.rho @ flat)
        return np.asarray(np.sqrt(np.maximum(squares, 0.0)).reshape(values.shape[1:]))

    def of_each(self, values: Mapping[str, Array]) -> dict[str, Array]:
        """Combined maxima of several quantities, in one product."""
        shapes = {name: value.shape[1:] for name, value in values.items()}
        together = self(np.concatenate([value.reshape(len(value), -1) for value in values.values()], axis=1))
        ends = np.cumsum([math.prod(shape) for shape in shapes.values()])[:-1]
        parts = np.split(together, ends)
        return {name: part.reshape(shape) for (name, shape), part in zip(shapes.items(), parts, strict=True)}


def combine_directions(parts: list[Array], rule: DirectionRule) -> Array:
    """One result from those of excitation along X, Y and, where it acts, Z."""
    stacked = np.abs(np.stack(parts))
    if rule == "SRSS":
        return np.asarray(np.sqrt((stacked**2).sum(axis=0)))
    used = stacked if rule == "100-30-30" else stacked[:2]
    weights = 0.3 + 0.7 * np.eye(len(used))
    return np.asarray(np.tensordot(weights, used, axes=1).max(axis=0))
