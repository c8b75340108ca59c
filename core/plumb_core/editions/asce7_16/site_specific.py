"""Site-specific ground motion of ASCE/SEI 7, chapter 21.

The design spectrum with its floor (21.3), design values (21.4).

The rules replace those of 11.4 where the brief declares `site.site_specific`: a design spectrum (T, S_a), or S_DS and
S_D1 of the study.  `declared` gives the rules of an edition by how it words 21.3 and 21.4.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

import numpy as np

from plumb_core.editions.asce7_16 import spectrum, tables
from plumb_core.editions.shared import read_points
from plumb_core.errors import RuleRefused
from plumb_core.limits import below, exceeds, reaches, within
from plumb_core.rules import Array, Candidate, Governed, Rule, bounded, cited, rule

FLOOR = 0.8

DesignValue = Callable[[Array, Array, str], float]
"""A design value from periods (s), ordinates (g) of the design spectrum, and the site class."""


def inside(T: Array, S_a: Array, first: float, last: float) -> Array:
    """Which points lie from `first` to `last` s; refused where none does."""
    chosen = np.array([reaches(t, first) and within(t, last) for t in T.tolist()])
    if not chosen.any():
        raise RuleRefused(
            "site_specific",
            f"the site-specific spectrum has no point between {first:g} and {last:g} s",
            "Give the points of the study there, or its S_DS and S_D1.",
        )
    return chosen


def S_DS_21_4(T: Array, S_a: Array, site_class: str) -> float:
    """21.4: 0.9 of the greatest ordinate from 0.2 to 5 s."""
    return 0.9 * float(np.max(S_a[inside(T, S_a, 0.2, 5.0)]))


def S_D1_21_4(T: Array, S_a: Array, site_class: str) -> float:
    """21.4: the greatest T S_a over 1 to 2 s for velocities above 1200 ft/s (classes A to C), else over 1 to 5 s."""
    chosen = inside(T, S_a, 1.0, 2.0 if site_class in ("A", "B", "C") else 5.0)
    return float(np.max(T[chosen] * S_a[chosen]))


def _dense(site_specific: Mapping[str, Any]) -> Array:
    """Periods at which the floored spectrum is searched for its greatest values: the points of the study and a grid."""
    points = np.asarray(site_specific["T"], dtype=float)
    grid = np.concatenate([np.arange(0.2, 1.0, 0.01), np.arange(1.0, 5.0001, 0.05)])
    return np.unique(np.concatenate([points, grid[(points[0] <= grid) & (points[-1] >= grid)]]))


@rule(clause="21.3, Table 11.4-1", tex=r"\q{F_a} = 1.0\text{ for class E and F with }S_S \ge 1.0", defines="F_a")
def F_a_of_floor(S_S: float, site_class_used: str, class_by_default: bool = False) -> float:
    """F_a of the general spectrum that the floor of 21.3 takes; class F as class E."""
    row = "E" if site_class_used == "F" else site_class_used
    if row == "E" and reaches(S_S, 1.0):
        return 1.0
    value = tables.interpolated(tables.F_A, row, S_S)
    return max(value, 1.2) if class_by_default and row == "D" else value


@rule(
    clause="21.3, Table 11.4-2",
    tex=r"\q{F_v} = 2.4\text{ or }2.5\text{ (D)},\ 4.2\text{ or }4.0\text{ (E, F)}",
    defines="F_v",
)
def F_v_of_floor(S_1: float, site_class_used: str) -> float:
    """F_v of the general spectrum that the floor of 21.3 takes: D 2.4 below S_1 = 0.2, else 2.5.

    E 4.2 up to 0.1, else 4.0.
    """
    if site_class_used == "D":
        return 2.4 if below(S_1, 0.2) else 2.5
    if site_class_used in ("E", "F"):
        return 4.2 if within(S_1, 0.1) else 4.0
    return tables.interpolated(tables.F_V, site_class_used, S_1)


@rule(clause="11.4.5, for the floor of 21.3", tex=r"\q{S_DS_general} = \tfrac{2}{3}\,\q{F_a}\,\q{S_S}")
def S_DS_general(F_a: float, S_S: float) -> float:
    """Design acceleration at short periods of the general procedure, g."""
    return 2.0 / 3.0 * F_a * S_S


@rule(clause="11.4.5, for the floor of 21.3", tex=r"\q{S_D1_general} = \tfrac{2}{3}\,\q{F_v}\,\q{S_1}")
def S_D1_general(F_v: float, S_1: float) -> float:
    """Design acceleration at 1 s of the general procedure, g, never with the factor of 11.4.8."""
    return 2.0 / 3.0 * F_v * S_1


def general(T: Array, S_DS: float, S_D1: float, T_L: float) -> Array:
    """General design spectrum, g, of the two design values."""
    T_S = S_D1 / S_DS
    return np.asarray(spectrum.S_a.function(T, S_DS, S_D1, 0.2 * T_S, T_S, T_L))


@rule(clause="21.3", tex=r"\q{S_a} = \max(\text{study},\ 0.8\,S_{a,\text{general}})", defines="S_a")
def S_a_floored(
    T_points: Array, site_specific: Mapping[str, Any], S_DS_general: float, S_D1_general: float, T_L: float
) -> Array:
    """Site-specific design spectrum, g, shape of `T_points` (s), not below 80 % of the general one."""
    T = np.asarray(T_points, dtype=float)
    return np.maximum(
        read_points(T, site_specific, "site_specific"), FLOOR * general(T, S_DS_general, S_D1_general, T_L)
    )


def _of_study(name: str, by_curve: DesignValue, floor: str) -> Rule:
    def read(
        site_specific: Mapping[str, Any], S_DS_general: float, S_D1_general: float, T_L: float, site_class_used: str
    ) -> Governed:
        least = FLOOR * (S_DS_general if name == "S_DS" else S_D1_general)
        given = site_specific.get(name)
        if site_specific.get("T") is not None:
            T = _dense(site_specific)
            S_a = S_a_floored.function(T, site_specific, S_DS_general, S_D1_general, T_L)
            computed = Governed(by_curve(T, S_a, site_class_used), "21.4")
        elif given is not None:
            computed = Governed(given, "study")
        else:
            # the study gives the other value only: the general one is used, as 11.4 has it
            general_value = S_DS_general if name == "S_DS" else S_D1_general
            return Governed(general_value, "general", (Candidate("general", general_value, "base"),))
        return bounded(computed, lower=Governed(least, f"21.4, 80 % of the general value ({floor})"))

    read.__doc__ = f"{name} of the study, g, not below 80 % of the general procedure's."
    return rule(
        clause="21.3, 21.4", tex=rf"\q{{{name}}} = \max(\text{{study}},\ 0.8\,\q{{{name}_general}})", defines=name
    )(read)


@rule(clause="21.3, 21.4")
def site_specific_notes(
    site_specific: Mapping[str, Any],
    S_DS: Governed,
    S_D1: Governed,
    S_DS_general: float,
    S_D1_general: float,
    T_L: float,
) -> list[str]:
    """Where the values come from, and where the floor of 80 % governs."""
    notes = ["design values of a site-specific study (chapter 21); what 11.4 requires is taken as met by it"]
    notes += [
        f"the study's {name} is below 80 % of the general value, which governs (21.4)"
        for name, value in (("S_DS", S_DS), ("S_D1", S_D1))
        if value.governed_by.startswith("21.4, 80 %")
    ]
    if site_specific.get("T") is not None:
        T = np.asarray(site_specific["T"], dtype=float)
        floor = FLOOR * general(T, S_DS_general, S_D1_general, T_L)
        low = [t for t, computed, least in zip(T, site_specific["S_a"], floor, strict=True) if exceeds(least, computed)]
        if low:
            notes.append(
                f"the study's spectrum is below 80 % of the general one at {len(low)} of its {len(T)} points "
                f"({low[0]:g} to {low[-1]:g} s); the floor governs there (21.3)"
            )
    return notes


@rule(clause="21.4", tex=r"\q{S_MS} = 1.5\,\q{S_DS}", defines="S_MS")
def S_MS_of_study(S_DS: float) -> float:
    """Site-adjusted MCE_R acceleration at short periods, g."""
    return 1.5 * S_DS


@rule(clause="21.4", tex=r"\q{S_M1} = 1.5\,\q{S_D1}", defines="S_M1")
def S_M1_of_study(S_D1: float) -> float:
    """Site-adjusted MCE_R acceleration at 1 s, g."""
    return 1.5 * S_D1


MCE_OF_STUDY = (S_MS_of_study, S_M1_of_study)
GENERAL = (F_a_of_floor, F_v_of_floor, S_DS_general, S_D1_general)


def declared(
    choices: Mapping[str, Any],
    by_curve: tuple[DesignValue, DesignValue] = (S_DS_21_4, S_D1_21_4),
    floor: tuple[Rule, ...] = (*GENERAL, *MCE_OF_STUDY),
    curve_rule: Rule = S_a_floored,
    curve: Rule = spectrum.S_a,
) -> tuple[Rule, ...]:
    """Rules that replace those of 11.4 where the site declares a study; none where it does not.

    by_curve : S_DS and S_D1 from the spectrum.  floor : general values that the floor takes.  curve_rule : the floored
    spectrum where points are given; curve : the general shape by S_DS and S_D1 where they are not.
    """
    study = choices.get("site_specific")
    if study is None:
        return ()
    points = study.T if not isinstance(study, Mapping) else study.get("T")
    values = tuple(_of_study(name, rule_, "21.3") for name, rule_ in zip(("S_DS", "S_D1"), by_curve, strict=True))
    return (*floor, *values, site_specific_notes, curve_rule if points is not None else cited(curve, "21.4, 11.4.6"))
