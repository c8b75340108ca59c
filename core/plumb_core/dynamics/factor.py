"""Factorisation of sparse symmetric matrices: solutions, signs of the pivots, and where a matrix is singular."""

from __future__ import annotations

from contextlib import AbstractContextManager, nullcontext
from functools import cache
from typing import Any

import numpy as np
import numpy.typing as npt
import scipy.sparse as sp
from scipy.sparse.linalg import ArpackNoConvergence, eigsh, splu
from threadpoolctl import ThreadpoolController

try:
    from sksparse import cholmod
except ImportError:  # SuperLU does the same, more slowly where models are large (docs/performance.md)
    cholmod = None

Array = npt.NDArray[np.float64]
ALONE = 25_000
"""Equations below which one thread is quicker.

NumPy's threads and those of the factorisation get in each other's way.
"""
SINGULAR = 1e-12
"""Least eigenvalue of the matrix scaled to a unit diagonal, below which it counts as singular."""


@cache
def _pools() -> ThreadpoolController:
    return ThreadpoolController()


def threads_for(n: int) -> AbstractContextManager[Any]:
    """As many threads as n equations are worth."""
    return _pools().limit(limits=1) if n < ALONE else nullcontext()


class NotStable(ValueError):
    """A stiffness that is not positive definite.

    mode : the movement that meets no stiffness, or less than none, shape (n,)
    negative : less than none, which gravity can do to a stiffness
    """

    def __init__(self, mode: Array, negative: bool):
        self.mode = mode
        self.negative = negative
        super().__init__("the stiffness is not positive definite")


def _lu(A: sp.csc_array) -> Any:
    """L U with pivots from the diagonal only, so that it is L D L^T and the signs of the pivots are the inertia."""
    return splu(A, permc_spec="MMD_AT_PLUS_A", diag_pivot_thresh=0.0, options={"SymmetricMode": True})


class Factor:
    """A factorised symmetric positive definite matrix; raises NotStable for any other.

    CHOLMOD's supernodal Cholesky where scikit-sparse is installed, else SuperLU.
    """

    def __init__(self, A: sp.csc_array):
        self.A = A
        diagonal = A.diagonal()
        # What cancels leaves a hair of either sign; a diagonal that is truly negative is gravity's work
        hair = SINGULAR * float(np.abs(diagonal).max(initial=0.0))
        if A.shape[0] == 0 or np.any(diagonal <= hair):
            raise NotStable((diagonal <= hair).astype(float), bool(np.any(diagonal < -1e6 * hair)))
        self._scale = 1.0 / np.sqrt(diagonal)
        self._solve, positive = self._factorised(A)
        least, mode = self._least()
        if abs(least) < SINGULAR:
            raise NotStable(mode, False)
        if not positive or least < 0:
            raise NotStable(self._most_negative(mode), True)

    def _factorised(self, A: sp.csc_array) -> tuple[Any, bool]:
        """(solver, whether the matrix is positive definite)."""
        if cholmod is not None:
            try:
                # supernodal, since its simplicial L D L^T takes negative pivots without a word
                return cholmod.cholesky(sp.csc_matrix(A), mode="supernodal"), True
            except cholmod.CholmodNotPositiveDefiniteError:
                pass
        try:
            lu = _lu(A)
        except RuntimeError:  # exactly singular: with a hair of stiffness everywhere it shows where
            lu = _lu((A + sp.diags_array(1e-14 * A.diagonal())).tocsc())
        # the pivots have the signs of the eigenvalues
        return lu.solve, bool(np.all(lu.U.diagonal() > 0))

    def _most_negative(self, least: Array) -> Array:
        """Movement that the matrix scaled to a unit diagonal drives most, unscaled; `least` where it is not found."""
        D = sp.diags_array(self._scale)
        start = np.random.default_rng(0).standard_normal(len(self._scale))
        if len(start) < 3:
            vectors = np.linalg.eigh((D @ self.A @ D).toarray())[1]
        else:
            try:
                _, vectors = eigsh(D @ self.A @ D, k=1, which="SA", tol=1e-3, v0=start)
            except ArpackNoConvergence:
                return least
        mode = vectors[:, 0] * self._scale
        return np.asarray(mode / float(np.abs(mode).max()))

    def solve(self, b: Array) -> Array:
        """Solution for b of shape (n,) or (n, k)."""
        return np.asarray(self._solve(np.asfortranarray(b)))

    def _least(self) -> tuple[float, Array]:
        """Estimate of the least eigenvalue (in size) of the matrix scaled to a unit diagonal.

        Its vector, unscaled.
        """
        v = np.random.default_rng(0).standard_normal(len(self._scale))
        value = 1.0
        for _ in range(3):
            v /= np.linalg.norm(v)
            w = self.solve(v / self._scale) / self._scale
            if not np.all(np.isfinite(w)):
                break
            value = float(v @ w) / float(w @ w)
            v = w
        mode = v * self._scale
        return value, mode / max(float(np.abs(mode).max()), 1e-300)


def negative_eigenvalues(K: sp.csc_array, mass: Array, shift: float) -> int:
    """Number of eigenvalues of (K, M) below `shift` (Sylvester's law of inertia on K - shift M)."""
    lu = _lu((K - shift * sp.diags_array(mass)).tocsc())
    return int(np.count_nonzero(lu.U.diagonal() < 0))
