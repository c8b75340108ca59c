"""What the verdict rests on: each doubtful input either side, the values that govern, and the verdicts that flip."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any, NamedTuple

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check
from plumb_core.checks.checkers.declared import USUAL_DAMPING
from plumb_core.checks.context import Context
from plumb_core.checks.recheck import Answers, all_checks, context_of
from plumb_core.documents import results
from plumb_core.documents.brief import Brief
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.editions import EDITIONS, Edition
from plumb_core.errors import InputRefused
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Key
from plumb_core.what_if import Assumptions, assumed, flips

HAZARD = ("S_S", "S_1", "S_MS", "S_M1", "a_gR", "Z")
"""Numbers of the site that scale with the hazard."""
CLASSES = ("site_class", "soil", "ground_type", "subsoil", "zone")
OCCUPANCY = ("risk_category", "importance_class", "importance_level", "occupancy_category", "use")
FACTORS = ("R", "q", "mu")
SHARE = 0.1
"""By how much a number is taken lower and higher, of itself."""
IMPOSED = ("live", "storage", "roof live")
IMPOSED_SHARE = 0.25
DAMPING_STEP = 0.02


class Variant(NamedTuple):
    """One input otherwise.

    Attributes
    ----------
    input : in words
    before, after : its values, in words
    patch : of the brief; empty where no input of the brief makes it so
    inputs : of the evaluation, where the brief has no input for it
    """

    input: str
    before: str
    after: str
    patch: dict[str, Any]
    inputs: Mapping[Key, Any] = {}


def variants(context: Context) -> Iterator[Variant]:
    """Each doubtful input of a brief, one step either side."""
    brief = context.brief
    edition = EDITIONS[brief.edition]
    yield from _classes(brief, edition)
    yield from _hazard(brief)
    yield from _period(brief)
    yield from _system(context, edition)
    yield from _imposed(brief)
    yield from _damping(context)


def _classes(brief: Brief, edition: Edition) -> Iterator[Variant]:
    for part, names in (("site", CLASSES), ("occupancy", OCCUPANCY)):
        given = getattr(brief, part)
        for name in names:
            value = getattr(given, name, None)
            options = list(edition.options.get(name, ()))
            if value not in options:
                continue
            at = options.index(value)
            for other in options[max(at - 1, 0) : at + 2]:
                if other != value:
                    words = QUANTITIES[name].meaning if name in QUANTITIES else name.replace("_", " ")
                    yield Variant(words, str(value), str(other), {part: {name: other}})


def _hazard(brief: Brief) -> Iterator[Variant]:
    given = {n: v for n in HAZARD if isinstance(v := getattr(brief.site, n, None), float)}
    if not given:
        return
    for factor in (1.0 - SHARE, 1.0 + SHARE):
        patch = {n: v * factor for n, v in given.items()}
        yield Variant("Hazard", "as given", _by(factor), {"site": patch})


def _period(brief: Brief) -> Iterator[Variant]:
    given = {d: v for d in DIRECTIONS if (part := getattr(brief.period, d, None)) and (v := part.analysis)}
    if not given:
        return
    for factor in (1.0 - SHARE, 1.0 + SHARE):
        patch = {d: {"analysis": v * factor} for d, v in given.items()}
        yield Variant("Period of the analysis", "as given", _by(factor), {"period": patch})


def _system(context: Context, edition: Edition) -> Iterator[Variant]:
    """The factor of the row beside: the next lower and the next higher one of the table of systems."""
    for name in FACTORS:
        rows = sorted({s.factors[name] for s in edition.systems.values() if name in s.factors})
        found = {d: context.independent.get(name, d) for d in DIRECTIONS}
        given = {d: float(v) for d, v in found.items() if isinstance(v, int | float)}
        if not rows or not given:
            continue
        for side in (-1, 1):
            patch = {}
            for d, v in given.items():
                beside = [r for r in rows if (r - v) * side > 0]
                if beside:
                    patch[d] = {name: beside[0] if side > 0 else beside[-1]}
            if patch:
                before = " and ".join(dict.fromkeys(f"{v:g}" for v in given.values()))
                after = " and ".join(dict.fromkeys(f"{p[name]:g}" for p in patch.values()))
                yield Variant(f"{QUANTITIES[name].meaning}", before, after, {"system": patch})


def _imposed(brief: Brief) -> Iterator[Variant]:
    stories = [s.model_dump(mode="json", exclude_none=True, exclude_unset=True) for s in brief.stories]
    if not any(load["kind"] in IMPOSED for s in stories for load in s.get("loads", ())):
        return
    for factor in (1.0 - IMPOSED_SHARE, 1.0 + IMPOSED_SHARE):
        changed = [
            {**s, "loads": [_scaled(load, factor) for load in s["loads"]]} if s.get("loads") else s for s in stories
        ]
        yield Variant("Imposed loads", "as given", _by(factor), {"stories": changed})


def _damping(context: Context) -> Iterator[Variant]:
    """The damping that the modes are combined with, where the submission has modes."""
    if all(context.independent.get("V_dynamic", d) is None for d in DIRECTIONS):
        return
    key = Key("damping_modes")
    stated = context.independent.get(key.name)
    given = float(stated) if isinstance(stated, int | float) else USUAL_DAMPING
    for value in (given - DAMPING_STEP, given + DAMPING_STEP):
        if value > 0:
            before = _share(given) if stated is not None else f"{_share(given)}, assumed"
            yield Variant("Damping of the modes", before, _share(value), {}, {key: value})


def _share(damping: float) -> str:
    return f"{100.0 * damping:.3g} %"


def _by(factor: float) -> str:
    """A factor as a change in per cent."""
    return f"{100.0 * (factor - 1.0):+.0f} %".replace("-", "\N{MINUS SIGN}")


def _scaled(load: Mapping[str, Any], factor: float) -> dict[str, Any]:
    return {**load, "amount": load["amount"] * factor} if load["kind"] in IMPOSED else dict(load)


def sensitivity(document: RecheckDocument, answers: Answers | None = None) -> list[results.Sensitivity]:
    """What each doubtful input changes, by its greatest effect on a governing value.

    An input that the brief could not have is not listed.
    """
    with np.errstate(all="ignore"):
        context = context_of(document, answers=answers)
        before = all_checks(context)
        governing = _governing(context)
        found = []
        for variant in variants(context):
            try:
                if variant.inputs:
                    under = context.assuming(inputs=variant.inputs)
                    after = all_checks(under)
                else:
                    under, after = assumed(document, before, Assumptions(variant.patch), answers)
            except InputRefused:
                continue
            found.append(_shown(variant, governing, _governing(under), before, after))
    return sorted(found, key=lambda s: -max((abs(v["change"]) for v in s["values"]), default=0.0))


GOVERNING = ("V", "V_dynamic", "drift_ratio")


def _governing(context: Context) -> dict[tuple[str, str], float]:
    """The base shears, static and of the modes, and the greatest drift of each direction."""
    found = {}
    for name in GOVERNING:
        for direction in DIRECTIONS:
            value = context.independent.get(name, direction)
            if value is not None and np.all(np.isfinite(value)):
                found[name, direction] = float(np.max(value))
    return found


def _shown(
    variant: Variant,
    governing: Mapping[tuple[str, str], float],
    under: Mapping[tuple[str, str], float],
    before: list[Check],
    after: list[Check],
) -> results.Sensitivity:
    values: list[results.GoverningValue] = [
        {
            "quantity": name,
            "direction": direction,  # type: ignore[typeddict-item]
            "symbol": QUANTITIES[name].symbol,
            "unit": QUANTITIES[name].unit,
            "before": value,
            "after": under[name, direction],
            "change": under[name, direction] / value - 1.0,
        }
        for (name, direction), value in governing.items()
        if (name, direction) in under and value
    ]
    return {
        "input": variant.input,
        "before": variant.before,
        "after": variant.after,
        "patch": variant.patch,
        "values": values,
        "flips": flips(before, after),
    }
