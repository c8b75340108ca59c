"""Right submissions of every edition in canonical tables, made by a shear building of the test's own."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

import numpy as np
from plumb_core.solve import solve
from test_all_editions import FACTORS, OCCUPANCY, SITES

G = 9.80665
STORIES, HEIGHT, PLAN = 6, 3.5, (30.0, 20.0)
WEIGHT = 3600.0
"""kN of each story."""
ECCENTRICITY = {"as1170.4": 0.10}
AREA = 600.0


@dataclass
class Made:
    """A brief and the tables of a submission to it, as text by name; the numbers behind them beside."""

    edition: str
    brief: dict[str, Any]
    tables: dict[str, str]
    values: dict[str, Any] = field(default_factory=dict)

    def files(self) -> list[tuple[str, bytes]]:
        return [(f"{name}.csv", text.encode()) for name, text in self.tables.items()]

    def changed(self, table: str, old: str, new: str) -> Made:
        """The same with a text of one table replaced."""
        assert old in self.tables[table], f"{old!r} is not in {table}:\n{self.tables[table]}"
        return Made(self.edition, self.brief, self.tables | {table: self.tables[table].replace(old, new)}, self.values)

    def without(self, *tables: str) -> Made:
        return Made(self.edition, self.brief, {k: v for k, v in self.tables.items() if k not in tables}, self.values)


def table(*rows: list[Any] | tuple[Any, ...]) -> str:
    return "\n".join(";".join(str(c) for c in row) for row in rows) + "\n"


def shear_building(T_1: float) -> tuple[np.ndarray, np.ndarray, float]:
    """Periods (s), shares of the mass.

    The story stiffness (kN/m) of a uniform shear building with this first period.
    """
    m = WEIGHT / G
    chain = 2.0 * np.eye(STORIES) - np.eye(STORIES, k=1) - np.eye(STORIES, k=-1)
    chain[-1, -1] = 1.0
    values, shapes = np.linalg.eigh(chain)
    k = m * (2.0 * np.pi / T_1) ** 2 / values[0]
    T = 2.0 * np.pi * np.sqrt(m / (k * values))
    shares = shapes.sum(axis=0) ** 2 / STORIES
    return T, shares, float(k)


def cqc(T: np.ndarray, values: np.ndarray, damping: float = 0.05) -> float:
    """Der Kiureghian's combination for equal damping, written out."""
    total = 0.0
    for i in range(len(T)):
        for j in range(len(T)):
            r = min(T[i], T[j]) / max(T[i], T[j])
            rho = 8 * damping**2 * (1 + r) * r**1.5 / ((1 - r * r) ** 2 + 4 * damping**2 * r * (1 + r) ** 2)
            total += rho * values[i] * values[j]
    return float(np.sqrt(total))


def submission(edition: str) -> Made:
    """A right submission: static and modal analysis, twist, drift, make-up, combinations."""
    names = [f"L{i + 1}" for i in range(STORIES)]
    share = live_share(edition)
    live = 3.0 * AREA
    dead = WEIGHT - share * live
    top_dead = WEIGHT - share_on_top(edition) * live
    of_dead = [dead] * (STORIES - 1) + [top_dead]
    # zone 4 beside a fault drifts more than the others
    periods = {"X": 0.80, "Y": 0.62} if edition == "ubc97" else {"X": 0.92, "Y": 0.71}
    brief: dict[str, Any] = {
        "edition": edition,
        "site": SITES[edition],
        "occupancy": OCCUPANCY[edition],
        "system": {
            d: FACTORS[edition] | ({} if edition == "custom" else {"period_type": "other"}) | regular(edition)
            for d in "XY"
        },
        "stories": [{"name": n, "height": HEIGHT, "weight": WEIGHT, "plan": list(PLAN)} for n in names],
        "period": {d: {"analysis": T} for d, T in periods.items()},
    }
    if edition == "en1998-1":
        brief["structure_type"] = "brittle"
        brief["system"] |= {"regular_in_plan": True, "regular_in_elevation": True}
    parts = {n: brief[n] for n in ("edition", "site", "occupancy", "system", "stories", "period")}
    static = solve({"kind": "static", **parts})
    tables: dict[str, str] = {}
    modal: dict[str, dict[str, Any]] = {}
    for d, T_1 in periods.items():
        T, shares, k = shear_building(T_1)
        kept = 4
        ordinates = solve(
            {
                "kind": "spectrum",
                **{n: brief[n] for n in ("edition", "site", "occupancy")},
                "system": brief["system"],
                "direction": d,
                "T": T[:kept].tolist(),
            }
        )
        reduced = np.array(ordinates["reduced"])
        of_modes = shares[:kept] * STORIES * WEIGHT * reduced
        modal[d] = {"T": T[:kept], "shares": shares[:kept], "k": k, "V": cqc(T[:kept], of_modes)}
    required = solve(
        {
            "kind": "scaling",
            **{n: brief[n] for n in ("edition", "site", "occupancy", "system")},
            **{d: {"static": static[d]["V"], "dynamic": modal[d]["V"]} for d in "XY"},
        }
    )
    factors = {d: float(np.ceil(required[d]["factor_required"] * 1e4) / 1e4) for d in "XY"}
    e = ECCENTRICITY.get(edition, 0.05)
    amplifier = amplifier_of(edition)
    tables["stories"] = table(
        ("Story", "Level (m)", "Seismic weight (kN)", "Mass (t)"),
        *(
            (n, f"{HEIGHT * (i + 1):.2f}", f"{WEIGHT:.1f}", f"{WEIGHT / G:.2f}")
            for i, n in reversed(list(enumerate(names)))
        ),
        ("Base", "0.00", "", ""),
        ("Total", "", f"{WEIGHT * STORIES:.1f}", f"{WEIGHT * STORIES / G:.1f}"),
    )
    tables["make up"] = table(
        (
            "Story",
            "Load",
            "Kind",
            "Amount (kN)",
            "Intensity (kPa)",
            "Area (m2)",
            "Share",
            *(("Category",) if edition == "en1998-1" else ()),
        ),
        *(
            row
            for i, n in enumerate(names)
            for row in _loads(edition, n, of_dead[i], live, share if i < STORIES - 1 else share_on_top(edition))
        ),
    )
    tables["modes"] = _modes(modal)
    tables["cases"] = _cases(e)
    tables["reactions"] = _reactions(e, static, modal, factors)
    tables["forces"] = table(
        ("Case", "Story", "Force (kN)", "Shear (kN)", "Overturning (kN m)"),
        *(
            (f"{d} static {s}", n, *(f"{static[d][q][i]:.2f}" for q in ("F", "V_story", "M_story")))
            for d in "XY"
            for s in "+-"
            for i, n in enumerate(names)
        ),
    )
    drift = {d: np.array(static[d]["V_story"]) / modal[d]["k"] for d in "XY"}
    tables["drifts"] = _drifts(names, drift, amplifier)
    tables["displacements"] = table(
        ("Case", "Direction", "Story", "Displacement at end 1 (mm)", "Displacement at end 2 (mm)"),
        *(
            (f"{d} static {s}", d, n, *(f"{1000 * f * u:.4f}" for f in ENDS[s]))
            for d in "XY"
            for s in "+-"
            for n, u in zip(names, np.cumsum(drift[d]), strict=True)
        ),
    )
    tables["combinations"] = _combinations(brief)
    tables["parameters"] = _parameters(edition, static, modal, factors, e, amplifier)
    return Made(edition, brief, tables, {"static": static, "modal": modal, "factors": factors, "drift": drift})


ENDS = {"+": (1.09, 0.91), "-": (0.92, 1.08)}
"""Movement of both ends over that of the centre, with the mass to either side."""


def regular(edition: str) -> dict[str, Any]:
    return {"regular": True} if edition == "ubc97" else {}


def live_share(edition: str) -> float:
    """Share of 3 kPa of live load of offices: none in ASCE 7 and UBC; EN psi_E of offices 0.15; IS 0.25; AS 0.3."""
    return {"en1998-1": 0.15, "is1893-2002": 0.25, "is1893-2016": 0.25, "as1170.4": 0.3, "custom": 1.0}.get(
        edition, 0.0
    )


def share_on_top(edition: str) -> float:
    """On the roof: EN phi = 1 x 0.3; IS none; AS as a floor that is walked on 0.3."""
    return {"en1998-1": 0.30, "as1170.4": 0.3, "custom": 1.0}.get(edition, 0.0)


def amplifier_of(edition: str) -> float:
    """C_d/I_e 5.0; 0.7 R 3.85; q 3.0; mu/S_p 2/0.77; none in IS 1893."""
    if edition.startswith("asce7"):
        return 5.0
    return {"ubc97": 0.7 * 5.5, "en1998-1": 3.0, "as1170.4": 2.0 / 0.77}.get(edition, 1.0)


def _loads(edition: str, story: str, dead: float, live: float, share: float) -> list[tuple[Any, ...]]:
    category = ("B",) if edition == "en1998-1" else ()
    none = ("",) if edition == "en1998-1" else ()
    rows: list[tuple[Any, ...]] = [
        (story, "Structure", "dead", f"{dead:.1f}", f"{dead / AREA:.4f}", f"{AREA:.0f}", "1.00", *none),
        (story, "Office floor", "live", f"{live:.1f}", "3.0000", f"{AREA:.0f}", f"{share:.2f}", *category),
    ]
    for name, kind in (("Partition walls", "partition"), ("Plant", "equipment"), ("Snow", "snow")):
        rows.append((story, name, kind, "0.0", "0.0", "", "0.00" if kind == "snow" else "1.00", *none))
    return rows


def _modes(modal: dict[str, dict[str, Any]]) -> str:
    listed = sorted(
        [(float(T), d, float(s)) for d in "XY" for T, s in zip(modal[d]["T"], modal[d]["shares"], strict=True)],
        reverse=True,
    )
    rows, sums = [], {"X": 0.0, "Y": 0.0}
    for number, (T, d, share) in enumerate(listed, 1):
        sums[d] += share
        shares = {"X": 0.0, "Y": 0.0, d: share}
        rows.append(
            (number, f"{T:.4f}", *(f"{100 * shares[a]:.3f}" for a in "XY"), *(f"{100 * sums[a]:.3f}" for a in "XY"))
        )
    return table(("Mode", "Period (s)", "Share X (%)", "Share Y (%)", "Sum X (%)", "Sum Y (%)"), *rows)


def _cases(e: float) -> str:
    rows: list[tuple[Any, ...]] = []
    for d in "XY":
        for s in "+-":
            rows.append((f"{d} static {s}", "static", d, f"{s}{e:.2f}", "", "", "reduced"))
            rows.append((f"{d} design drift {s}", "static", d, f"{s}{e:.2f}", "", "", "amplified"))
        rows.append((f"{d} modes", "modal", d, "0", "before", "", "reduced"))
        rows.append((f"{d} modes scaled", "modal", d, "0", "after", "", "reduced"))
    rows.append(("Dead", "gravity", "", "", "", "", ""))
    return table(("Case", "Kind", "Direction", "Eccentricity", "Step", "Factor", "Level"), *rows)


def _reactions(e: float, static: dict[str, Any], modal: dict[str, Any], factors: dict[str, float]) -> str:
    rows: list[tuple[Any, ...]] = []
    for d in "XY":
        for s in "+-":
            V, M = -static[d]["V"], static[d]["M_story"][0]
            shear = (f"{V:.2f}", "0.00") if d == "X" else ("0.00", f"{V:.2f}")
            moment = ("0.00", f"{-M:.1f}") if d == "X" else (f"{M:.1f}", "0.00")
            twist = f"{V * e * PLAN[1 if d == 'X' else 0]:.1f}"
            rows.append((f"{d} static {s}", *shear, "0.00", *moment, twist))
        for name, f in (("modes", 1.0), ("modes scaled", factors[d])):
            V = modal[d]["V"] * f
            shear = (f"{V:.2f}", "0.00") if d == "X" else ("0.00", f"{V:.2f}")
            rows.append((f"{d} {name}", *shear, "0.00", "", "", ""))
    rows.append(("Dead", "0.00", "0.00", f"{WEIGHT * STORIES:.1f}", "", "", ""))
    heads = ("Force X (kN)", "Force Y (kN)", "Force Z (kN)", "Moment X (kN m)", "Moment Y (kN m)", "Moment Z (kN m)")
    return table(("Case", *heads), *rows)


def _drifts(names: list[str], drift: dict[str, np.ndarray], amplifier: float) -> str:
    rows = []
    for d in "XY":
        for s in "+-":
            for kind, by in (("static", 1.0), ("design drift", amplifier)):
                for n, at in zip(names, drift[d], strict=True):
                    rows.append((f"{d} {kind} {s}", d, n, *(f"{1000 * f * by * at:.4f}" for f in ENDS[s])))
    return table(("Case", "Direction", "Story", "Drift at end 1 (mm)", "Drift at end 2 (mm)"), *rows)


def _combinations(brief: dict[str, Any]) -> str:
    answer = solve({"kind": "system", **{n: brief[n] for n in ("edition", "site", "occupancy", "system", "stories")}})
    rows, number = [], 0
    for each in answer["X"].get("load_combinations") or []:
        if "overstrength" in each["name"] or "1.1" in each["name"]:
            continue
        factors = each["factors"]
        dead = next(factors[n] for n in ("D", "G", "DL") if n in factors)
        live = next(
            (factors[n] for n in ("L", "IL") if n in factors),
            next((v for n, v in factors.items() if n[0] == "Q" and n != "Q_E"), 0.0),
        )
        action = next(factors[n] for n in ("Q_E", "E_h", "A_Ed", "EL", "E_u") if n in factors)
        for main, other in (("X", "Y"), ("Y", "X")):
            for sign in "+-":
                number += 1
                rows.append(
                    (
                        f"C{number}",
                        (
                            f"{dead:.4g} D + {live:g} L {sign} {action:g} {main} static + + {0.3 * action:g} "
                            f"{other} static +"
                        ),
                    )
                )
    if not rows:
        rows = [
            ("C1", "1.0 D + 1.0 X static + + 0.3 Y static +"),
            ("C2", "1.0 D - 1.0 X static + + 0.3 Y static +"),
            ("C3", "1.0 D + 0.3 X static + + 1.0 Y static +"),
            ("C4", "1.0 D + 0.3 X static + - 1.0 Y static +"),
        ]
    return table(("Combination", "Terms"), *rows)


def _parameters(
    edition: str, static: dict[str, Any], modal: dict[str, Any], factors: dict[str, float], e: float, amplifier: float
) -> str:
    both = [
        ("Static base shear", *(f"{static[d]['V']:.1f}" for d in "XY"), "kN"),
        ("Dynamic base shear before scaling", *(f"{modal[d]['V']:.1f}" for d in "XY"), "kN"),
        ("Scale factor", *(f"{factors[d]:.4f}" for d in "XY"), ""),
        ("Dynamic base shear after scaling", *(f"{modal[d]['V'] * factors[d]:.1f}" for d in "XY"), "kN"),
        ("Torsional irregularity", "none", "none", ""),
        ("Drift amplifier", f"{amplifier:.4f}", f"{amplifier:.4f}", ""),
    ]
    one = [
        ("Number of modes", "8", ""),
        ("Combination of modes", "CQC", ""),
        ("Combination of directions", "100 % + 30 %", ""),
        ("Damping of the spectrum", "5", "%"),
        ("Damping of the modes", "0.05", ""),
        ("Accidental eccentricity", f"{100 * e:g}", "%"),
        ("Diaphragms", "rigid", ""),
        ("Base level", "Base", ""),
        ("Second order effects", "included", ""),
    ]
    factor = spectrum_factor(edition)
    if factor is not None:
        both.append(("Factor on the spectrum", f"{factor * G:.5f}", f"{factor * G:.5f}", "m/s2"))
    return table(
        ("Item", "Value", "X", "Y", "Unit"),
        *((n, "", x, y, u) for n, x, y, u in both),
        *((n, v, "", "", u) for n, v, u in one),
    )


def spectrum_factor(edition: str) -> float | None:
    """I/R: 1/5, 1/5.5, 1/4; S_p/mu; none in EN 1998-1, whose design spectrum holds q."""
    if edition.startswith("asce7"):
        return 0.2
    return {"ubc97": 1 / 5.5, "is1893-2002": 0.25, "is1893-2016": 0.25, "as1170.4": 0.77 / 2.0}.get(edition)
