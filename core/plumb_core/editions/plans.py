"""Outlines of floors in plan: re-entrant corners, setbacks, slenderness; the same geometry for every code."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.limits import exceeds
from plumb_core.rules import Array

Outline = Sequence[Sequence[float]]


def area(corners: Array) -> float:
    """Area inside an outline (m, shape (n, 2)), positive where it runs counter-clockwise, m2."""
    x, y = corners[:, 0], corners[:, 1]
    return float(np.dot(x, np.roll(y, -1)) - np.dot(y, np.roll(x, -1))) / 2.0


def reentrant_corners(outline: Outline) -> list[tuple[float, float]]:
    """Projections beyond each re-entrant corner along X and Y as shares of the plan dimensions.

    The projection is measured from the corner to the edge of the plan on the side that the notch opens to.
    """
    p = np.asarray(outline, dtype=float)
    if len(p) < 4:
        return []
    if area(p) < 0:
        p = p[::-1]
    low, high = p.min(axis=0), p.max(axis=0)
    extent = high - low
    corners_found = []
    for i in range(len(p)):
        before, after = p[i] - p[i - 1], p[(i + 1) % len(p)] - p[i]
        turn = before[0] * after[1] - before[1] * after[0]
        if turn >= -1e-12 * np.linalg.norm(before) * np.linalg.norm(after):
            continue
        # counter-clockwise the outside lies to the right of both edges
        opens = np.array([before[1], -before[0]]) / np.linalg.norm(before) + np.array(
            [after[1], -after[0]]
        ) / np.linalg.norm(after)
        reach = np.where(opens > 1e-9, high - p[i], np.where(opens < -1e-9, p[i] - low, 0.0))
        corners_found.append((float(reach[0] / extent[0]), float(reach[1] / extent[1])))
    return corners_found


def reentrant(corners: Sequence[Outline], limit: float, both: bool) -> dict[str, Any]:
    """Whether a floor has a re-entrant corner beyond which the plan projects by more than `limit`.

    both : in both directions at the same corner, else in one of them.  Returns the worst projection and its floor.
    """
    worst, place = 0.0, 0
    for level, outline in enumerate(corners):
        for x, y in reentrant_corners(outline):
            judged = min(x, y) if both else max(x, y)
            if judged > worst:
                worst, place = judged, level
    return {"present": exceeds(worst, limit), "projection": worst, "level": place}


def recess(outline: Outline) -> float:
    """Greatest area between the outline and its convex hull on one side, as a share of the floor's area."""
    p = np.asarray(outline, dtype=float)
    if area(p) < 0:
        p = p[::-1]
    # imported here: it takes a noticeable part of a second, and few briefs have outlines
    from scipy.spatial import ConvexHull, QhullError

    try:
        hull = set(ConvexHull(p).vertices.tolist())
    except QhullError:
        return 0.0
    greatest = 0.0
    order = [i for i in range(len(p)) if i in hull]
    for start, end in zip(order, [*order[1:], order[0]], strict=True):
        between = [start]
        while between[-1] != end:
            between.append((between[-1] + 1) % len(p))
        if len(between) > 2:
            greatest = max(greatest, abs(area(p[between])))
    return greatest / abs(area(p))


def slenderness(extent: Mapping[str, Sequence[float]]) -> float:
    """Longer over shorter plan dimension of a floor."""
    sides = sorted(extent[d][1] - extent[d][0] for d in ("X", "Y"))
    return sides[1] / sides[0]


def declared(
    types: Sequence[tuple[str, str]],
    irregularities: Mapping[str, bool] | None,
    clause: str,
    outline: Mapping[str, Mapping[str, Any]],
) -> list[dict[str, Any]]:
    """Types of irregularity with their state: there, none, or not tested.

    types : name and words of each, in the code's order.  outline : what the geometry shows of a type, with `present`
        and
    `basis`; it precedes what is declared, and a contradiction is stated.
    """
    rows = []
    for name, words in types:
        statement = (irregularities or {}).get(name)
        shown = outline.get(name)
        present = shown["present"] if shown else statement
        basis = shown["basis"] if shown else "as declared" if statement is not None else ""
        if shown and statement is not None and statement != shown["present"]:
            basis += f"; declared as {'there' if statement else 'none'}"
        rows.append(
            {
                "type": name,
                "words": words,
                "state": "not tested" if present is None else "there" if present else "none",
                "basis": basis,
                "clause": clause,
            }
        )
    return rows


def there(rows: Sequence[Mapping[str, Any]]) -> set[str]:
    """Names of the types that are there."""
    return {row["type"] for row in rows if row["state"] == "there"}
