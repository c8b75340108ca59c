"""Rotation of every case whose ends are stated, and the torsional irregularity that is found from them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.results import CaseResults, Ends
from plumb_core.checks.wording import figures
from plumb_core.documents.submission import LoadCase
from plumb_core.rules import Array, Evaluation, Key

TINY_OF_GREATEST = 0.05
"""Drifts below these shares of the story height and of the case's greatest say nothing of twist."""
DEGREES = {"none": 0, "regular": 0, "torsional": 1, "extreme": 2}


@dataclass(frozen=True)
class Twist:
    """Twist of one case in its direction.

    Attributes
    ----------
    case, direction : whose
    drift, displacement : of the ends; None where they are not stated
    ratio : by which the edition judges, shape (n_stories,); NaN where it is none
    tiny : stories whose drifts are too small to say anything
    classes : of the stories; None where the edition has none
    judged : whether the class, A_x and the ends of the direction are judged by it
    """

    case: str
    direction: str
    drift: Ends | None
    displacement: Ends | None
    ratio: Array
    tiny: Array
    classes: tuple[str, ...] | None
    judged: bool = True

    @property
    def worst(self) -> tuple[int, str] | None:
        """Story that turns the most and its class, stories of tiny drifts excluded; None where none is usable."""
        usable = np.where(self.tiny | np.isnan(self.ratio), -np.inf, self.ratio)
        story = int(np.argmax(usable))
        if usable[story] == -np.inf:
            return None
        return story, self.classes[story] if self.classes is not None else ""

    @property
    def degree(self) -> int:
        """Degree of the gravest class of its stories, stories of tiny drifts excluded."""
        return max((DEGREES[c] for c, tiny in zip(self.classes or (), self.tiny, strict=False) if not tiny), default=0)


def worst_of(twists: Iterable[Twist]) -> tuple[Twist, int, str] | None:
    """The case and story that turn the most, with its class."""
    best: tuple[float, Twist, int, str] | None = None
    for twist in twists:
        found = twist.worst
        if found is not None and (best is None or twist.ratio[found[0]] > best[0]):
            best = (float(twist.ratio[found[0]]), twist, *found)
    return None if best is None else best[1:]


def _judging(twists: Sequence[Twist], cases: Mapping[str, LoadCase]) -> tuple[Twist, ...]:
    """The twists, each with whether it is judged: static cases of design level where a direction has any.

    Ends of combined modes are greatest values that need not occur together: their ratio is not that of the code.
    """
    roles = {t.case: cases.get(t.case) or LoadCase(name=t.case) for t in twists}
    static = {t.direction for t in twists if is_static(roles[t.case])}
    return tuple(
        replace(t, judged=is_static(roles[t.case]) if t.direction in static else roles[t.case].level != "amplified")
        for t in twists
    )


def is_static(role: LoadCase | None) -> bool:
    """Whether a case is a static one at the level of the design forces.

    One whose kind is not stated is treated as such.
    """
    return role is None or (role.kind in ("static", None) and role.level != "amplified")


@dataclass(frozen=True)
class TorsionFound:
    """What the ends of the cases show of torsional irregularity.

    Attributes
    ----------
    degree : 0 regular, 1 torsional, 2 extreme; None where nothing is judged or the edition has no class
    complete : whether both directions are judged by static cases
    by_direction : degree by direction
    where : ratio, story and case of the greatest rotation, in words
    """

    degree: int | None
    complete: bool
    by_direction: Mapping[str, int]
    where: str


def torsion_found(twists: Sequence[Twist], cases: Mapping[str, LoadCase], stories: Sequence[str]) -> TorsionFound:
    """Torsional irregularity by the judged cases."""
    judged = [t for t in twists if t.judged and t.classes is not None]
    by_direction = {
        d: max(t.degree for t in judged if t.direction == d)
        for d in DIRECTIONS
        if any(t.direction == d for t in judged)
    }
    worst = worst_of(judged)
    where = ""
    if worst is not None:
        twist, story, _ = worst
        where = f"{figures(float(twist.ratio[story]), 3)} at {stories[story]} in {twist.case}"
    static = {t.direction for t in judged if is_static(cases.get(t.case))}
    degree = max(by_direction.values()) if by_direction else None
    return TorsionFound(degree, len(static) == len(DIRECTIONS), by_direction, where)


def twists_of(results: CaseResults, evaluation: Evaluation, tiny: float) -> tuple[Twist, ...]:
    """Twist of every case whose ends are stated, by the edition's ratio and classes; all cases in one evaluation.

    tiny : drift over the height below which a story is not judged
    """
    pairs = results.seismic(
        results.with_values(
            *(f"{what}_{n}" for what in ("drift", "displacement") for n in ("end_1", "end_2", "max", "avg"))
        )
    )
    stated = [(case, d, results.drifts(d, case), results.ends("displacement", d, case)) for case, d in pairs]
    usable = [s for s in stated if any(e is not None and not np.all(np.isnan(e.greatest)) for e in s[2:])]

    if not usable or "torsion_ratio" not in evaluation.rules:
        return ()
    h = evaluation.inputs.get(Key("h"))
    nothing = np.full(results.stories, np.nan)
    columns: dict[str, Array] = {}
    for what, at in (("drift", 2), ("displacement", 3)):
        for which in ("greatest", "mean"):
            parts = [nothing if s[at] is None else getattr(s[at], which) for s in usable]
            columns[f"{what}_{'max' if which == 'greatest' else 'avg'}"] = np.concatenate(parts)
    ratio, classes = _judged(evaluation, columns)
    found = []
    for number, (case, d, drift, displacement) in enumerate(usable):
        ours = slice(number * results.stories, (number + 1) * results.stories)
        found.append(
            Twist(
                case,
                d,
                drift,
                displacement,
                ratio[ours],
                _tiny(drift, h, results.stories, tiny),
                tuple(classes[ours]) if classes is not None else None,
            )
        )
    return _judging(found, results.cases)


def _judged(evaluation: Evaluation, columns: Mapping[str, Array]) -> tuple[Array, list[str] | None]:
    """Ratio and class of every row; rows without values have a ratio that is not a number and the class regular."""
    names = [p.name for p in evaluation.rules["torsion_ratio"].parameters]
    by_rows = {n: columns[n] for n in names if n in columns}
    # the ratio of IS 1893:2016 is read off displacements where they are stated, off drifts elsewhere
    groups = [("displacement_max", "displacement_avg"), ("drift_max", "drift_avg")]
    length = len(next(iter(columns.values())))
    ratio = np.full(length, np.nan)
    for pair in groups:
        if any(n not in by_rows for n in pair):
            continue
        known = ~np.isnan(by_rows[pair[0]]) & ~np.isnan(by_rows[pair[1]]) & (by_rows[pair[0]] > 0) & np.isnan(ratio)
        if known.any():
            ours = Evaluation(
                evaluation.rules, {Key(n, "X", "all"): by_rows[n][known] for n in pair}, cases={"all": "X"}
            )
            ratio[known] = ours.value("torsion_ratio", "X", "all")
    if "torsion_class" not in evaluation.rules:
        return ratio, None
    classes = np.full(length, "regular", dtype=object)
    known = ~np.isnan(ratio)
    if known.any():
        inputs = {**evaluation.inputs, Key("torsion_ratio", "X", "all"): ratio[known]}
        classes[known] = Evaluation(evaluation.rules, inputs, cases={"all": "X"}).value("torsion_class", "X", "all")
    return ratio, list(classes)


def _tiny(drift: Ends | None, h: Array | None, stories: int, of_height: float) -> Array:
    if drift is None or np.all(np.isnan(drift.greatest)):
        return np.zeros(stories, dtype=bool)
    least = TINY_OF_GREATEST * np.nanmax(drift.greatest)
    heights = np.zeros(stories) if h is None or len(h) != stories else h
    return np.asarray(drift.greatest < np.maximum(least, of_height * heights))


def inputs_of_displacements(twists: Sequence[Twist]) -> dict[Key, Any]:
    """Displacements of the ends of each direction, at each story those of the case that turns the most."""
    inputs: dict[Key, Any] = {}
    for d in DIRECTIONS:
        ends = [
            t.displacement
            for t in twists
            if t.judged
            and t.direction == d
            and t.displacement is not None
            and not np.any(np.isnan(t.displacement.greatest))
        ]
        if not ends:
            continue
        greatest, mean = (np.array([getattr(e, n) for e in ends]) for n in ("greatest", "mean"))
        with np.errstate(divide="ignore", invalid="ignore"):
            turns = np.where(mean > 0, greatest / mean, np.inf)
        worst = np.argmax(turns, axis=0)
        stories = np.arange(greatest.shape[1])
        inputs[Key("displacement_far", d)] = greatest[worst, stories]
        inputs[Key("displacement_mean", d)] = mean[worst, stories]
    return inputs
