"""Speed of the reference model: the whole solve against the bare factorisation and eigen solution, in one run.

    .venv/bin/python bench/dynamics.py [2000 20000 60000]

Regular frames with rigid floors and member mass, 60 modes.  *bare*: scipy.sparse.linalg.splu (minimum degree
ordering, the
better one for these matrices) and eigsh in shift-and-invert mode on the same matrices.  *whole*: read and inspect
the document, assemble,
constrain, factorise, modes, participation.  *response*: both directions, residual mass, the accidental
eccentricity either way, as moments or as shifted mass, whichever takes longer.  Prints ratios, the growth exponent,
and peak memory.
"""

from __future__ import annotations

import math
import resource
import sys
import time
from typing import Any

import numpy as np
import scipy.sparse as sp
from plumb_core.documents.model import Frame
from plumb_core.dynamics import factor
from plumb_core.dynamics.frame import assembled, read_tables
from plumb_core.dynamics.modes import find_modes
from plumb_core.dynamics.response import Settings, spectrum_response
from scipy.sparse.linalg import LinearOperator, eigsh, splu

MODES = 60
SHAPES = {2_000: (5, 4, 20), 20_000: (16, 13, 27), 60_000: (30, 22, 28)}


def building(nx: int, ny: int, stories: int) -> dict[str, Any]:
    """A frame of nx by ny bays of 6 m with rigid floors."""
    name = "{}-{}-{}".format
    nodes, members, supports, diaphragms = [], [], [], []
    for k in range(stories + 1):
        floor = [(i, j) for j in range(ny + 1) for i in range(nx + 1)]
        for i, j in floor:
            nodes.append({"id": name(i, j, k), "at": [6.0 * i, 6.0 * j, 3.5 * k]})
            if k == 0:
                supports.append({"node": name(i, j, k), "fixed": ["ux", "uy", "uz", "rx", "ry", "rz"]})
                continue
            ends = [("c", name(i, j, k - 1), "C")]
            ends += [("x", name(i + 1, j, k), "B")] if i < nx else []
            ends += [("y", name(i, j + 1, k), "B")] if j < ny else []
            for kind, other, section in ends:
                members.append(
                    {
                        "id": f"{kind}{name(i, j, k)}",
                        "i": name(i, j, k),
                        "j": other,
                        "section": section,
                        "material": "M",
                    }
                )
        if k:
            diaphragms.append({"id": f"L{k}", "nodes": [name(i, j, k) for i, j in floor]})
    return {
        "nodes": nodes,
        "members": members,
        "supports": supports,
        "diaphragms": diaphragms,
        "member_mass": True,
        "materials": [{"id": "M", "E": 3e7, "nu": 0.2, "density": 2.5}],
        "sections": [
            {"id": "C", "A": 0.36, "Iy": 0.0108, "Iz": 0.0108, "J": 0.0182, "Ay": 0.3, "Az": 0.3},
            {"id": "B", "A": 0.24, "Iy": 0.0072, "Iz": 0.0032, "J": 0.006},
        ],
        "floors": [{"diaphragm": d["id"], "mass": 0.8 * 36 * nx * ny} for d in diaphragms],
    }


def seconds(work: Any) -> tuple[float, Any]:
    start = time.perf_counter()
    found = work()
    return time.perf_counter() - start, found


def bare(K: Any, mass: np.ndarray) -> tuple[float, float, np.ndarray]:
    """(s of the factorisation, s of the eigen solution, periods)."""
    f, lu = seconds(lambda: splu(K, permc_spec="MMD_AT_PLUS_A", diag_pivot_thresh=0.0, options={"SymmetricMode": True}))
    inverse = LinearOperator(K.shape, matvec=lu.solve, dtype=float)
    e, (values, _) = seconds(lambda: eigsh(K, k=MODES, M=sp.diags_array(mass).tocsc(), sigma=0.0, OPinv=inverse))
    return f, e, np.sort(2 * np.pi / np.sqrt(values))[::-1]


def all_responses(structure: Any, modes: Any, how: Any) -> None:
    def curve(T: np.ndarray) -> np.ndarray:
        return np.minimum(1.0, 0.6 / np.maximum(T, 0.01))

    spectra = {"X": curve, "Y": curve}
    entry = Settings(residual_period=0.0, eccentricity=0.05, eccentricity_as=how)
    spectrum_response(structure, modes, spectra, entry, "SRSS")


def one_round(document: dict[str, Any]) -> dict[str, float]:
    """Seconds of each part, one after the other, so that a slow moment of the machine meets both sides of a ratio."""
    read, tables = seconds(lambda: read_tables(Frame.model_validate(document)))
    assemble, structure = seconds(lambda: assembled(*tables))
    factored, _ = seconds(lambda: structure.factor)
    solved, modes = seconds(lambda: find_modes(structure, MODES))
    response = max(seconds(lambda how=how: all_responses(structure, modes, how))[0] for how in ("moments", "mass"))
    f, e, T = bare(structure.K, structure.masses)
    assert np.allclose(T, modes.T, rtol=1e-6), "the bare solution has other periods"
    complete = read + assemble + factored + solved
    return {
        "dof": structure.n,
        "read": read,
        "assemble": assemble,
        "factor": factored,
        "modes": solved,
        "whole": complete,
        "splu": f,
        "eigsh": e,
        "bare": f + e,
        "whole/bare": complete / (f + e),
        "assembly": assemble / complete,
        "response": response,
        "of modal": response / (factored + solved),
    }


def measured(document: dict[str, Any]) -> dict[str, float]:
    """Medians of up to fifteen rounds within ten seconds; the first of several is a cold start and does not count."""
    rounds, start = [one_round(document)], time.perf_counter()
    while len(rounds) < 16 and time.perf_counter() - start < 10.0:
        rounds.append(one_round(document))
    counted = rounds[1:] if len(rounds) > 2 else rounds
    return {name: float(np.median([r[name] for r in counted])) for name in rounds[0]}


def main(sizes: list[int]) -> None:
    print(f"factorisation: {'CHOLMOD' if factor.cholmod else 'SuperLU'}; {MODES} modes")
    print(
        f"{'dof':>7} {'members':>8} | {'read':>6} {'assemble':>8} {'factor':>7} {'modes':>7} {'whole':>7} | "
        f"{'splu':>7} {'eigsh':>7} {'bare':>7} |"
        f" {'whole/bare':>10} {'assembly':>8} | {'response':>8} {'of modal':>8} | {'memory':>7}"
    )
    done = []
    for size in sizes:
        document = building(*SHAPES[size])
        r = measured(document)
        memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1e6
        print(
            f"{r['dof']:7.0f} {len(document['members']):8d} | {r['read']:6.2f} {r['assemble']:8.3f} "
            f"{r['factor']:7.2f} {r['modes']:7.2f} {r['whole']:7.2f} |"
            f" {r['splu']:7.2f} {r['eigsh']:7.2f} {r['bare']:7.2f} | {r['whole/bare']:10.2f} "
            f"{r['assembly']:8.1%} | {r['response']:8.3f}"
            f" {r['of modal']:8.1%} | {memory:5.2f} GB",
            flush=True,
        )
        done.append((r["dof"], r["whole"]))
    if len(done) > 1:
        (n0, t0), (n1, t1) = done[0], done[-1]
        print(f"growth exponent from {n0:.0f} to {n1:.0f}: {math.log(t1 / t0) / math.log(n1 / n0):.2f}")


if __name__ == "__main__":
    main([int(a) for a in sys.argv[1:]] or list(SHAPES))
