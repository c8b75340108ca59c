"""What the demo's submissions state of their modal analyses, twist and drift, with the slips that are made there.

The clinic:

| spectrum_factor.X | g excluded from the factor on the spectrum of one direction, and out of the modal base shear
with it     |
| case_missing Y-   | no case along Y with the mass to the negative side
      |

The Quillon Exchange:

| load_share        | the share of the live load excluded from the make-up, and out of the weights with it
        |
| amplified.Y       | the drifts given as amplified in Y are the reduced ones
      |
| directions        | no combination takes 100 % of one direction with 30 % of the other (a question)
      |

The Aldermouth Granary Lofts:

| factor_used.Y     | scaled in X only
      |
| A_x.X             | made of the story drifts, not from the displacements
        |
| A_x.Y             | left at 1.0 though the displacements of the ends give more
      |
| theta             | of the base shear at every story, in both directions
      |

The Sable Quay Library's are right.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from plumb_core.intake.cells import factor
from plumb_core.rules import Evaluation, Key

Table = list[list[Any]]
G = 9.80665
SIDES = {"+": (1.06, 0.94), "-": (0.95, 1.05)}
"""Movement of both ends over that of the centre where a building hardly turns."""


@dataclass(frozen=True)
class DemoAnalysis:
    """What a submission's modal analysis, twist and drift are made of.

    Attributes
    ----------
    run : the submission's own evaluation, with its slips
    stories : names, bottom to top
    plan : dimensions along X and Y, m
    reduced_drift : of the first story over its height under the static forces, by direction
    turning : greatest over mean drift of the first story and of the top one with the mass to the positive side,
        between them
        by straight line; 1 apart where a building hardly turns
    by_model : drifts of both ends (m, a row for each story) by direction and side, where a model gives them
    eccentricity : share of the plan dimension
    missing : cases that are not submitted
    unscaled : directions that are not scaled though they should be
    without_g : directions whose factor on the spectrum lacks g
    amplified_by : factor of the drifts given as amplified, by direction; the edition's where it is not named
    irregularity : as stated, by direction
    imperial : whether it is written in feet, inches and kips
    """

    run: Evaluation
    stories: list[str]
    plan: tuple[float, float]
    reduced_drift: dict[str, float]
    turning: tuple[float, float] | None = None
    eccentricity: float = 0.05
    missing: tuple[str, ...] = ()
    unscaled: tuple[str, ...] = ()
    without_g: tuple[str, ...] = ()
    amplified_by: dict[str, float] = field(default_factory=dict)
    irregularity: dict[str, str] = field(default_factory=dict)
    imperial: bool = False
    by_model: dict[tuple[str, str], np.ndarray] = field(default_factory=dict)

    def written(self, value: float, unit: str, digits: int) -> str:
        """A value of the core's unit as the submission writes it."""
        shown = {"kN": "kip", "kN*m": "kip ft", "m": "in"}[unit] if self.imperial else {"m": "mm"}.get(unit, "")
        return f"{value / factor(shown, unit) if shown else value:.{digits}f}"

    @property
    def force(self) -> str:
        return "kip" if self.imperial else "kN"

    @property
    def length(self) -> str:
        return "in" if self.imperial else "mm"

    def drift(self, direction: str) -> np.ndarray:
        """Reduced story drifts at the centre, m: they follow the story shear."""
        V, h = np.asarray(self.run.value("V_story", direction)), np.asarray(self.run.value("h"))
        return np.asarray(self.reduced_drift[direction] * h * V / V[0])

    def ratios(self) -> np.ndarray:
        """Greatest over mean drift of each story with the mass to the positive side."""
        first, top = self.turning or (SIDES["+"][0],) * 2
        return np.linspace(first, top, len(self.stories))

    def both_ends(self, what: str, direction: str, side: str) -> np.ndarray:
        """Reduced drifts or displacements of both ends, m, shape (n_stories, 2); displacements are sums of drifts."""
        drifts = self.by_model.get((direction, side))
        if drifts is None:
            ratios = self.ratios() if side == "+" else np.full(len(self.stories), SIDES["-"][0])
            drifts = self.drift(direction)[:, None] * np.column_stack((ratios, 2.0 - ratios))
        return drifts if what == "drift" else np.cumsum(drifts, axis=0)

    def cases(self) -> list[tuple[str, str]]:
        """(direction, side) of the static cases that are submitted."""
        return [(d, s) for d in ("X", "Y") for s in ("+", "-") if f"{d}{s}" not in self.missing]


def modes_of(T_1: float, stories: int, count: int = 3) -> tuple[np.ndarray, np.ndarray]:
    """Periods and shares of the mass of a uniform shear building with this first period."""
    n = np.arange(1, stories + 1)
    omega = np.sin((2 * n - 1) * math.pi / (2 * (2 * stories + 1)))
    levels = np.arange(1, stories + 1)
    shapes = np.sin(np.outer(levels, (2 * n - 1) * math.pi / (2 * stories + 1)))
    shares = shapes.sum(axis=0) ** 2 / ((shapes**2).sum(axis=0) * stories)
    return T_1 * omega[0] / omega[:count], shares[:count]


def table_of_modes(periods: dict[str, float], stories: int) -> list[tuple[float, float, float]]:
    """(period, share X, share Y) of the modes of both directions, the longest first, as a table prints them."""
    rows = []
    for direction, T_1 in periods.items():
        for T, share in zip(*modes_of(T_1, stories), strict=True):
            rows.append((float(T), *(round(float(share), 4) if d == direction else 0.0 for d in ("X", "Y"))))
    return sorted([(round(T, 3), x, y) for T, x, y in rows], reverse=True)


def modes_table(rows: list[tuple[float, float, float]]) -> Table:
    """The table of modes with its running sums."""
    table: Table = [["Mode", "Period (s)", "Share X (%)", "Share Y (%)", "Sum X (%)", "Sum Y (%)"]]
    sums = [0.0, 0.0]
    for number, (T, *shares) in enumerate(rows, 1):
        sums = [a + b for a, b in zip(sums, shares, strict=True)]
        table.append([number, f"{T:.3f}", *(f"{100 * s:.2f}" for s in (*shares, *sums))])
    return table


def modal_shear(run: Evaluation, rows: list[tuple[float, float, float]], direction: str) -> float:
    """Base shear of the modes of a table, kN, combined by CQC at 5 % of critical damping."""
    T = np.array([r[0] for r in rows])
    share = np.array([r[1 if direction == "X" else 2] for r in rows])
    points = run.assuming(inputs={Key("T_points"): T})
    V = share * run.value("W") * np.asarray(points.value("S_a_reduced", direction))
    r = np.minimum.outer(T, T) / np.maximum.outer(T, T)
    rho = 8 * 0.05**2 * (1 + r) * r**1.5 / ((1 - r**2) ** 2 + 4 * 0.05**2 * r * (1 + r) ** 2)
    return float(np.sqrt(V @ rho @ V))


@dataclass(frozen=True)
class ScaledForces:
    """Base shears of a direction as they are stated, kN, and the factor between them."""

    static: float
    before: float
    factor: float

    @property
    def after(self) -> float:
        return self.before * self.factor


def scaled(a: DemoAnalysis, rows: list[tuple[float, float, float]], direction: str) -> ScaledForces:
    """The modal base shear of a direction, brought up to the share of the static one unless that is forgotten."""
    static, before = float(a.run.value("V", direction)), modal_shear(a.run, rows, direction)
    if direction in a.without_g:
        before /= G
    share = float(a.run.value("scaling_share", direction)) if "scaling_share" in a.run.rules else 0.0
    needed = 1.0 if direction in a.unscaled else max(1.0, share * static / before)
    return ScaledForces(static, before, math.ceil(needed * 1e4) / 1e4)


def parameters(a: DemoAnalysis, rows: list[tuple[float, float, float]]) -> Table:
    """Parameters of the modal analysis, twist and drift."""
    entry = {d: scaled(a, rows, d) for d in ("X", "Y")}
    amplifier = {d: float(a.run.value("amplifier", d)) for d in ("X", "Y")}
    table: Table = [["Item", "Value", "X", "Y", "Unit"]]
    for title, pick in (
        ("Static base shear", lambda s: s.static),
        ("Dynamic base shear before scaling", lambda s: s.before),
        ("Dynamic base shear after scaling", lambda s: s.after),
    ):
        table.append([title, "", *(a.written(pick(entry[d]), "kN", 1) for d in ("X", "Y")), a.force])  # type: ignore[no-untyped-call]
    table.append(["Scale factor", "", *(f"{entry[d].factor:.4f}" for d in ("X", "Y")), ""])
    if "spectrum_factor" in a.run.rules:
        values = [float(a.run.value("spectrum_factor", d)) * (1.0 if d in a.without_g else G) for d in ("X", "Y")]
        table.append(["Factor on the spectrum", "", *(f"{v:.5f}" for v in values), "m/s2"])
    if a.irregularity:
        table.append(["Torsional irregularity", "", *(a.irregularity[d] for d in ("X", "Y")), ""])
    if not a.amplified_by:
        table.append(["Drift amplifier", "", *(f"{amplifier[d]:.3f}" for d in ("X", "Y")), ""])
    one = (
        ("Combination of modes", "CQC", ""),
        ("Damping of the spectrum", "5", "%"),
        ("Damping of the modes", "5", "%"),
        ("Accidental eccentricity", f"{100 * a.eccentricity:g}", "%"),
        ("Diaphragms", "rigid", ""),
        ("Second order effects", "not included", ""),
    )
    return table + [[title, value, "", "", unit] for title, value, unit in one]


def cases(a: DemoAnalysis) -> Table:
    """The load cases with their roles."""
    table: Table = [["Case", "Kind", "Direction", "Eccentricity", "Step", "Level"]]
    e = f"{100 * a.eccentricity:g} %"
    for d in ("X", "Y"):
        table.append([f"Static {d}", "static", d, "0", "", "reduced"])
        for s in [side for along, side in a.cases() if along == d]:
            table.append([f"Static {d} {s}e", "static", d, f"{s}{e}", "", "reduced"])
            table.append([f"Design drift {d} {s}e", "static", d, f"{s}{e}", "", "amplified"])
        table.append([f"Modal {d}", "modal", d, "0", "before", "reduced"])
        table.append([f"Modal {d} scaled", "modal", d, "0", "after", "reduced"])
    return table


def reactions(a: DemoAnalysis, rows: list[tuple[float, float, float]]) -> Table:
    """Base reactions of the static and the modal cases."""
    moment = "kip ft" if a.imperial else "kN m"
    heads = [*(f"Force {x} ({a.force})" for x in "XYZ"), *(f"Moment {x} ({moment})" for x in "XYZ")]
    table: Table = [["Case", *heads]]
    for d in ("X", "Y"):
        entry, M = scaled(a, rows, d), float(a.run.value("M_story", d)[0])

        def row(name: str, V: float, M: float | None, twist: float = 0.0, d: str = d) -> list[str]:
            force = a.written(V, "kN", 1)
            over = "" if M is None else a.written(M, "kN*m", 0)
            none = "" if M is None else a.written(0.0, "kN*m", 0)
            along = [force, a.written(0.0, "kN", 1)] if d == "X" else [a.written(0.0, "kN", 1), force]
            about = [none, over] if d == "X" else [over, none]
            turn = "" if M is None else a.written(twist, "kN*m", 0)
            return [name, *along, a.written(0.0, "kN", 1), *about, turn]

        table.append(row(f"Static {d}", -entry.static, -M if d == "X" else M))
        for s in [side for along, side in a.cases() if along == d]:
            twist = (1 if s == "+" else -1) * entry.static * a.eccentricity * a.plan[1 if d == "X" else 0]
            table.append(row(f"Static {d} {s}e", -entry.static, -M if d == "X" else M, twist))
        table.append(row(f"Modal {d}", entry.before, None))
        table.append(row(f"Modal {d} scaled", entry.after, None))
    return table


def drifts(a: DemoAnalysis) -> Table:
    """Story drifts of both ends, reduced and amplified."""
    table: Table = [["Case", "Direction", "Story", *(f"Drift at end {n} ({a.length})" for n in (1, 2))]]
    for d, s in a.cases():
        amplifier = a.amplified_by.get(d, float(a.run.value("amplifier", d)))
        for name, by in ((f"Static {d} {s}e", 1.0), (f"Design drift {d} {s}e", amplifier)):
            table += _moved(a, name, d, a.both_ends("drift", d, s) * by)
    return table


def displacements(a: DemoAnalysis) -> Table:
    """Displacements of both ends under the static forces."""
    table: Table = [["Case", "Direction", "Story", *(f"Displacement at end {n} ({a.length})" for n in (1, 2))]]
    for d, s in a.cases():
        table += _moved(a, f"Static {d} {s}e", d, a.both_ends("displacement", d, s))
    return table


def _moved(a: DemoAnalysis, name: str, direction: str, both: np.ndarray) -> Table:
    """Rows of a case, top story first; its name and direction are in the first."""
    digits = 5 if a.imperial else 3
    rows: Table = []
    for i in reversed(range(len(a.stories))):
        first = i == len(a.stories) - 1
        moved = [a.written(float(v), "m", digits) for v in both[i]]
        rows.append([name if first else "", direction if first else "", a.stories[i], *moved])
    return rows


def amplifications(a: DemoAnalysis) -> Table:
    """A_x of each story: in X made of the drifts, in Y left at 1.0."""
    made = np.clip((a.ratios() / 1.2) ** 2, 1.0, 3.0)
    rows: Table = [[story, f"{v:.3f}", "1.000"] for story, v in zip(a.stories, made, strict=True)]
    return [["Story", "A_x X", "A_x Y"], *reversed(rows)]


def thetas_of_base_shear(a: DemoAnalysis) -> Table:
    """Stability coefficients with the base shear at every story."""
    P = np.cumsum(np.asarray(a.run.value("w"))[::-1])[::-1]
    h = np.asarray(a.run.value("h"))
    entry = {d: P * a.drift(d) / (float(a.run.value("V", d)) * h) for d in ("X", "Y")}
    rows: Table = [[s, *(f"{entry[d][i]:.4f}" for d in ("X", "Y"))] for i, s in enumerate(a.stories)]
    return [["Story", "Theta X", "Theta Y"], *reversed(rows)]


def combinations(a: DemoAnalysis, together: bool = True) -> Table:
    """The combinations with the seismic action, both signs.

    With 30 % of the other direction unless that is forgotten.
    """
    table: Table = [["Combination", "Terms"]]
    listed = [c for c in a.run.value("load_combinations", "X") if "overstrength" not in c["name"]]
    pairs: dict[Any, Any] = {}
    for each in listed:
        factors = each["factors"]
        dead = next(factors[n] for n in ("D", "G", "DL") if n in factors)
        live = next((v for n, v in factors.items() if n in ("L", "IL") or n.startswith("Q ")), 0.0)
        action = next(factors[n] for n in ("Q_E", "E_h", "A_Ed", "EL", "E_u") if n in factors)
        pairs.setdefault((dead, action), (live, factors.get("S", 0.0)))
    for (dead, action), (live, snow) in pairs.items():
        for main, other in (("X", "Y"), ("Y", "X")):
            for sign in "+-":
                terms = f"{dead:.4g} D + {live:g} L{f' + {snow:g} S' if snow else ''} {sign} {action:g} Static {main}"
                terms += f" + {0.3 * action:.3g} Static {other}" if together else ""
                table.append([f"U{len(table)}", terms])
    return table


def make_up(a: DemoAnalysis, live_intensity: float, stated_share: float, category: str = "") -> Table:
    """Loads of the stories: dead load, live load and rows for what there is none of.

    stated_share : of the live load; the dead load makes up the rest of the stated weights
    """
    area = a.plan[0] * a.plan[1]
    live = live_intensity * area
    stated = np.asarray(a.run.value("w"))
    heads = ["Story", "Load", "Kind", f"Amount ({a.force})", "Share", *(["Category"] if category else [])]
    table: Table = [heads]

    def row(story: str, load: str, kind: str, amount: float, part: float, of_use: str = "") -> list[str]:
        return [story, load, kind, a.written(amount, "kN", 2), f"{part:.2f}", *([of_use] if category else [])]

    for i in reversed(range(len(a.stories))):
        story, roof = a.stories[i], i == len(a.stories) - 1
        imposed = 0.0 if roof else live
        dead = float(stated[i]) - stated_share * imposed
        table.append(row(story, "Frame, slab, finishes", "dead", dead, 1.0))
        if not roof:
            table.append(row("", "Floor load", "live", imposed, stated_share, category))
        for load, kind, part in (("Partitions", "partition", 1.0), ("Plant", "equipment", 1.0), ("Snow", "snow", 0.0)):
            table.append(row("", load, kind, 0.0, part))
    return table
