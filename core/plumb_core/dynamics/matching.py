"""Submitted modes beside ours: matched by shape, never by number."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from plumb_core.dynamics.structure import Array

LIKE = 0.6
"""Likeness from which two modes are taken for the same."""

ENOUGH = 3
"""Periods from which a common ratio can be stated."""


@dataclass(frozen=True)
class SubmittedMode:
    """A mode of a submission: period (s), shares of mass in X, Y, RZ, and movements of the floors (n_floors, 3).

    What is not stated is None, or NaN within a shape.
    """

    T: float | None
    share: tuple[float | None, float | None, float | None]
    shape: Array | None = None


@dataclass(frozen=True)
class Match:
    """theirs, ours : indices.  mac : modal assurance criterion, None without shapes.

    Likeness : what they were matched by.
    """

    theirs: int
    ours: int
    mac: float | None
    likeness: float


@dataclass(frozen=True)
class Matching:
    """swapped : the submitted axes X and Y fit ours only when exchanged, and are matched so.

    Agreement of all either way.
    """

    matches: list[Match]
    swapped: bool
    as_submitted: float
    exchanged: float


def mac(a: Array, b: Array, weights: Array) -> Array:
    """Modal assurance criterion of a shape with several others, weighted by mass, over the components that both have.

    Parameters
    ----------
    a : shape (n_floors, 3); NaN where nothing is stated
    b : shapes (k, n_floors, 3)
    weights : (n_floors, 3), t and t m2

    Returns
    -------
    (k,), from 0 to 1

    References
    ----------
    R. J. Allemang and D. L. Brown, A correlation coefficient for modal vector analysis (1982).
    """
    both = np.isfinite(a) & np.isfinite(b)
    one, others, w = np.where(both, a, 0.0), np.where(both, b, 0.0), np.where(both, weights, 0.0)

    def total(product: Array) -> Array:
        return np.asarray(product.sum(axis=(1, 2)))

    size = total(w * one * one) * total(w * others * others)
    return np.asarray(np.where(size > 0, total(w * one * others) ** 2 / np.where(size > 0, size, 1.0), 0.0))


def _by_numbers(theirs: SubmittedMode, T: float, share: Array) -> float:
    """Likeness from period and shares, 0 to 1, where there are no shapes."""
    near = 1.0 if theirs.T is None else float(np.exp(-(np.log(theirs.T / T) ** 2) / (2 * 0.25**2)))
    stated = [(s, float(o)) for s, o in zip(theirs.share, share, strict=True) if s is not None]
    if not stated:
        return near
    # which way the mode goes counts, not how much mass it takes along
    a, b = np.array([s for s, _ in stated]), np.array([o for _, o in stated])
    size = float(np.linalg.norm(a) * np.linalg.norm(b))
    if max(np.linalg.norm(a), np.linalg.norm(b)) < 0.005:
        return near  # neither moves along what is stated
    way = float(a @ b) / size if size > 0 else 0.0
    return near * (0.2 + 0.8 * way)


def _likeness(
    theirs: Sequence[SubmittedMode], T: Array, share: Array, shapes: Array, weights: Array
) -> tuple[Array, Array]:
    likeness = np.zeros((len(theirs), len(T)))
    macs = np.full((len(theirs), len(T)), np.nan)
    for i, mode in enumerate(theirs):
        if mode.shape is not None and np.isfinite(mode.shape).any():
            macs[i] = mac(mode.shape, shapes, weights)
            # of modes alike in shape, the nearer period
            near = 1.0 if mode.T is None else np.exp(-np.abs(np.log(mode.T / T)))
            likeness[i] = macs[i] * (0.9 + 0.1 * near)
        else:
            likeness[i] = [_by_numbers(mode, float(T[j]), share[j]) for j in range(len(T))]
    return likeness, macs


def _exchanged(mode: SubmittedMode) -> SubmittedMode:
    """The mode with its axes X and Y exchanged."""
    x, y, rz = mode.share
    shape = None if mode.shape is None else np.stack([mode.shape[:, 1], mode.shape[:, 0], mode.shape[:, 2]], axis=1)
    if shape is not None:
        # exchanging the axes mirrors the plan: the sense of rotation turns over
        shape = shape * np.array([1.0, 1.0, -1.0])
    return SubmittedMode(mode.T, (y, x, rz), shape)


def _agreement(theirs: Sequence[SubmittedMode], T: Array, likeness: Array, pairs: Sequence[tuple[int, int]]) -> float:
    """How well pairs agree in shape and in period together, 0 to 1.

    Masses or stiffnesses that are wrong throughout make all periods longer or shorter alike: one ratio that the
    periods have in
    common is no disagreement.
    """
    ratios = {(i, j): float(np.log(entry / T[j])) for i, j in pairs if (entry := theirs[i].T) is not None}
    common = float(np.median(list(ratios.values()))) if len(ratios) >= ENOUGH else 0.0
    reported = [
        likeness[i, j] * (float(np.exp(-4.0 * abs(ratios[i, j] - common))) if (i, j) in ratios else 1.0)
        for i, j in pairs
    ]
    return float(np.mean(reported)) if reported else 0.0


def match_modes(theirs: Sequence[SubmittedMode], T: Array, share: Array, shapes: Array, weights: Array) -> Matching:
    """Pairs of submitted modes and ours.

    T (k,), share (k, 3), shapes (k, n_floors, 3), weights (n_floors, 3) in t, t, t m2.

    Similar shapes with the periods of the other direction indicate exchanged axes.
    """

    def paired(modes: Sequence[SubmittedMode]) -> tuple[Array, Array, list[tuple[int, int]]]:
        likeness, macs = _likeness(modes, T, share, shapes, weights)
        # imported here: the import takes a noticeable part of a second
        from scipy.optimize import linear_sum_assignment

        rows, columns = linear_sum_assignment(likeness, maximize=True)
        return likeness, macs, list(zip(rows.tolist(), columns.tolist(), strict=True))

    likeness, macs, pairs = paired(theirs)
    as_submitted = _agreement(theirs, T, likeness, pairs)
    turned, turned_macs, others = paired([_exchanged(m) for m in theirs])
    exchanged = _agreement(theirs, T, turned, others)
    swapped = exchanged > as_submitted + 0.1 and exchanged > LIKE
    if swapped:
        likeness, macs, pairs = turned, turned_macs, others
    matches = [
        Match(i, j, None if np.isnan(macs[i, j]) else float(macs[i, j]), float(likeness[i, j]))
        for i, j in pairs
        if likeness[i, j] >= LIKE
    ]
    return Matching(matches, swapped, as_submitted, exchanged)
