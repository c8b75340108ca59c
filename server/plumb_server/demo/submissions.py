"""The submissions of the demo: the core is run with right inputs, then slips are made, then files are written.

The Port Maren Clinic's S0 holds these slips, named as the test of them finds them:

| where      | slip                                                                                                 |
|------------|------------------------------------------------------------------------------------------------------|
| F_v        | 1.68 for 1.94: the row of class D in the table of an earlier edition; everything below inherits it   |
| S_a.1      | the curve starts at S_DS instead of 0.4 S_DS, as the static method's does                            |
| w.L5       | 569.0 for 5580 kN: the weight was left in tonnes-force                                                |
| T.X        | 1.02 s, the analysis period, taken without its upper limit C_u T_a                                   |
| F.X.L3     | two digits of the force changed places; shears and moments were summed up with it                    |
| V.Y        | two digits of the base shear changed places; the forces were distributed from it                     |
| k.Y        | 1.0 for 1.49: the forces distributed linearly                                                        |

and excludes the seismic design category.  Its S1 has F_v, w.L5 and V.Y right; k.Y is 1.25, changed and not right;
two digits of F.Y.L6 changed places, which is new; the mass of L2 is another one, which no finding requires; all else
is as in S0.  Its modes (of `clinic_model`) hold

| m.L6       | the mass of one story in part only                                                                     |
| axes_mass_ratio | X and Y exchanged in the table of modes and in the shapes
   |
| target_mass_sum.Y | five modes: too few in one direction, X of the building, which their table calls Y
       |

The Sable Quay Library's S0 is right, written in feet and kips.

The Quillon Exchange's S0 (EN 1998-1):

| S          | 1.20 for 1.15: the soil factor of ground type B                                                       |
| q.Y        | 6.5 for 4.0: the behaviour factor of class DCH for a frame of class DCM                                |
| lambda_.Y  | 0.85 though T_1 exceeds 2 T_C                                                                          |
| V.X        | the importance factor a second time, in the base shear                                                 |

and excludes the importance class.  The Aldermouth Granary Lofts' S0 (UBC 1997):

| C_v        | 0.45 for 0.54: the row of soil profile S_C                                                             |
| w.F1       | the storage load excluded from two floors: one cause, w.F2 is gathered under it
    |
| F_t.Y      | no force at the top though T exceeds 0.7 s                                                             |

and excludes the zone.

What they state of modal analysis, twist and drift, and the slips there, is in `analysis`.

`manage.py make_demo_files` writes them to `demo/files/`.
"""

from __future__ import annotations

import csv
import io
from pathlib import Path
from typing import Any

import numpy as np
from openpyxl import Workbook
from plumb_core.briefs import brief_evaluation
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read
from plumb_core.intake.cells import factor
from plumb_core.rules import Evaluation, Key

from plumb_server.demo import analysis
from plumb_server.demo.analysis import DemoAnalysis
from plumb_server.demo.buildings import (
    CLINIC,
    CLINIC_BRIEF,
    EXCHANGE,
    EXCHANGE_BRIEF,
    GRANARY,
    GRANARY_BRIEF,
    LIBRARY,
    LIBRARY_BRIEF,
)
from plumb_server.demo.clinic_model import STATED_MODES, submitted_drifts, submitted_modes

FILES = Path(__file__).parent / "files"
SLIPS = ("F_v", "S_a.1", "w.L5", "T.X", "F.X.L3.Static X", "V.Y", "k.Y")
"""Ids of the checks at which the clinic's slips are made."""
ANALYSIS_SLIPS = ("spectrum_factor.X",)
"""Ids of the checks at which the slips of the clinic's scaling are made."""
EXCHANGE_SLIPS = ("S", "q.Y", "lambda_.Y", "V.X", "load_share.Floor load.L1", "amplified_amplifier.Y")
MODAL_SLIPS = ("m.L6", "axes_mass_ratio", "target_mass_sum.Y")
"""Ids of the checks at which the slips of the clinic's modal analysis are made."""
GRANARY_SLIPS = (
    "C_v",
    "w.F1",
    "F_t.Y",
    "scaled_by_factor_used.X",
    "scaled_by_factor_used.Y",
    "A_x.X.F4",
    "A_x.Y.F1",
    "theta.X.F4",
    "theta.Y.Roof",
)

PERIODS = [0.0, 0.1, 0.15, 0.2, 0.3, 0.4, 0.5, 0.6, 0.74, 0.8, 0.9, 1.0, 1.2, 1.5, 2.0, 2.5, 3.0, 4.0, 6.0, 8.0, 10.0]

PARAMETERS = {
    CLINIC: (
        "risk_category",
        "I_e",
        "site_class",
        "S_S",
        "S_1",
        "T_L",
        "F_a",
        "F_v",
        "S_MS",
        "S_M1",
        "S_DS",
        "S_D1",
        "T_0",
        "T_S",
        "R",
        "Omega_0",
        "C_d",
        "h_n",
        "C_u",
        "T_a",
        "T_limit",
        "T_analysis",
        "T",
        "C_s",
        "W",
        "V",
        "k",
    ),
    LIBRARY: (
        "risk_category",
        "I_e",
        "site_class",
        "S_S",
        "S_1",
        "T_L",
        "F_a",
        "F_v",
        "S_MS",
        "S_M1",
        "S_DS",
        "S_D1",
        "design_category",
        "T_0",
        "T_S",
        "R",
        "Omega_0",
        "C_d",
        "T_a",
        "T_limit",
        "T_analysis",
        "T",
        "C_s",
        "W",
        "V",
        "k",
    ),
    EXCHANGE: (
        "a_gR",
        "gamma_I",
        "a_g",
        "ground_type",
        "spectrum_type",
        "S",
        "T_B",
        "T_C",
        "T_D",
        "q",
        "h_n",
        "T_a",
        "T_analysis",
        "T",
        "S_a_T",
        "lambda_",
        "W",
        "V",
    ),
    GRANARY: (
        "soil",
        "Z",
        "C_a",
        "C_v",
        "T_S",
        "occupancy_category",
        "I",
        "R",
        "Omega_0",
        "h_n",
        "T_a",
        "T_limit",
        "T_analysis",
        "T",
        "coefficient",
        "W",
        "V",
        "F_t",
    ),
}
NAMES = {
    "risk_category": "Risk category",
    "site_class": "Site class",
    "design_category": "Seismic design category",
    "I_e": "Importance factor",
    "T_limit": "C_u T_a",
    "T_analysis": "Analysis period",
    "T": "Period used",
    "W": "Seismic weight",
    "V": "Base shear",
    "Omega_0": "Omega_0",
    "lambda_": "lambda",
    "S_a_T": "S_d at T_1",
    "ground_type": "Ground type",
    "spectrum_type": "Spectrum type",
    "soil": "Soil profile type",
    "occupancy_category": "Occupancy category",
    "coefficient": "V/W",
}
UNIT_OF = {
    "S_S": "g",
    "S_1": "g",
    "S_MS": "g",
    "S_M1": "g",
    "S_DS": "g",
    "S_D1": "g",
    "T_L": "s",
    "T_0": "s",
    "T_S": "s",
    "T_a": "s",
    "T_limit": "s",
    "T_analysis": "s",
    "T": "s",
    "h_n": "m",
    "W": "kN",
    "V": "kN",
    "a_gR": "g",
    "a_g": "g",
    "T_B": "s",
    "T_C": "s",
    "T_D": "s",
    "F_t": "kN",
}
DIGITS = {
    "I_e": 2,
    "S_S": 2,
    "S_1": 2,
    "T_L": 0,
    "Omega_0": 1,
    "C_d": 1,
    "h_n": 1,
    "C_s": 4,
    "W": 0,
    "V": 0,
    "k": 3,
    "gamma_I": 1,
    "spectrum_type": 0,
    "S": 2,
    "T_B": 2,
    "T_C": 1,
    "T_D": 1,
    "q": 1,
    "S_a_T": 4,
    "lambda_": 2,
    "Z": 2,
    "I": 2,
    "coefficient": 4,
    "F_t": 0,
}
TWO_WAYS = (
    "R",
    "Omega_0",
    "C_d",
    "q",
    "T_a",
    "T_limit",
    "T_analysis",
    "T",
    "C_s",
    "S_a_T",
    "lambda_",
    "coefficient",
    "V",
    "k",
    "F_t",
)

Table = list[list[Any]]


def evaluation_of(brief: dict[str, Any], pins: dict[Key, Any]) -> Evaluation:
    """The submitter's own run: the rules with the slips pinned in place."""
    right = brief_evaluation(read(Brief, brief))
    return right.assuming(inputs={Key("T_points"): np.array(PERIODS)}, pins=pins)


def swap_digits(value: float, place: int) -> float:
    """The whole number with the digits at `place` and the next one exchanged."""
    digits = list(f"{value:.0f}")
    digits[place], digits[place + 1] = digits[place + 1], digits[place]
    return float("".join(digits))


def clinic_run() -> Evaluation:
    """The clinic's submission with its slips, each made where the table above says."""
    weights = np.array([s["weight"] for s in CLINIC_BRIEF["stories"]])
    weights[4] = round(weights[4] / factor("tf", "kN"), 1)
    pins: dict[Key, Any] = {Key("F_v"): 1.68, Key("w"): weights, Key("T", "X"): 1.02, Key("k", "Y"): 1.0}
    before = evaluation_of(CLINIC_BRIEF, pins)
    forces = np.array(before.value("F", "X"))
    forces[2] = swap_digits(forces[2], 0)
    pins |= {Key("V", "Y"): swap_digits(before.value("V", "Y"), 1), Key("F", "X"): forces}
    return evaluation_of(CLINIC_BRIEF, pins)


def clinic_second_run() -> Evaluation:
    """The clinic's second submission: three slips corrected, one changed and not right, a new one."""
    pins: dict[Key, Any] = {Key("T", "X"): 1.02, Key("k", "Y"): 1.25}
    before = evaluation_of(CLINIC_BRIEF, pins)
    along_x, along_y = np.array(before.value("F", "X")), np.array(before.value("F", "Y"))
    along_x[2], along_y[5] = swap_digits(along_x[2], 0), swap_digits(along_y[5], 0)
    return evaluation_of(CLINIC_BRIEF, pins | {Key("F", "X"): along_x, Key("F", "Y"): along_y})


EXCHANGE_LIVE = 3.0
"""kPa of live load on the floors of the exchange, of which 0.15 counts (offices, occupied independently)."""


def exchange_run() -> Evaluation:
    """Evaluation of the exchange."""
    stories = EXCHANGE_BRIEF["stories"]
    live = [EXCHANGE_LIVE * s["plan"][0] * s["plan"][1] for s in stories[:-1]] + [0.0]
    weights = np.array([s["weight"] - 0.15 * entry for s, entry in zip(stories, live, strict=True)])
    pins: dict[Key, Any] = {Key("S"): 1.20, Key("q", "Y"): 6.5, Key("lambda_", "Y"): 0.85, Key("w"): weights}
    before = evaluation_of(EXCHANGE_BRIEF, pins)
    return evaluation_of(EXCHANGE_BRIEF, pins | {Key("V", "X"): round(1.2 * before.value("V", "X"))})


def granary_run() -> Evaluation:
    """Evaluation of the granary."""
    weights = np.array(evaluation_of(GRANARY_BRIEF, {}).value("w"))
    for story in (0, 1):
        dead, _storage = GRANARY_BRIEF["stories"][story]["loads"]
        weights[story] = dead["amount"]
    return evaluation_of(GRANARY_BRIEF, {Key("C_v"): 0.45, Key("w"): weights, Key("F_t", "Y"): 0.0})


def library_run() -> Evaluation:
    """Evaluation of the library."""
    return evaluation_of(LIBRARY_BRIEF, {})


def _written(name: str, value: Any, unit: str = "", imperial: bool = False) -> str:
    if isinstance(value, str):
        return value
    if imperial and unit == "kN":
        value = value / factor("kip", "kN")
        return f"{value:.1f}"
    return f"{value:g}" if name == "R" else f"{value:.{DIGITS.get(name, 3)}f}"


def parameters(run: Evaluation, building: str, imperial: bool) -> Table:
    """Return the table of parameters of a building."""
    rows: Table = [["Item", "Value", "X", "Y", "Unit"]]
    for name in PARAMETERS[building]:
        unit = UNIT_OF.get(name, "")
        shown = "kip" if imperial and unit == "kN" else unit
        label = NAMES.get(name, name)
        if name in TWO_WAYS:
            entry = [_written(name, run.value(name, d), unit, imperial) for d in ("X", "Y")]
            rows.append([label, "", *entry, shown])
        else:
            rows.append([label, _written(name, run.value(name), unit, imperial), "", "", shown])
    return rows


def modes() -> Table:
    """The clinic's table of modes, with X and Y exchanged."""
    rows: Table = [["Mode", "Period (s)", "Share X (%)", "Share Y (%)", "Share RZ (%)", "Sum X (%)", "Sum Y (%)"]]
    sums = [0.0, 0.0]
    for n, mode in enumerate(submitted_modes()["modes"][:STATED_MODES]):
        share = [round(100 * mode["mass_ratio"][d], 2) for d in ("Y", "X", "RZ")]
        sums = [sums[0] + share[0], sums[1] + share[1]]
        rows.append([n + 1, f"{mode['T']:.3f}", *(f"{s:.2f}" for s in share), *(f"{s:.2f}" for s in sums)])
    return rows


def shapes() -> Table:
    """The clinic's mode shapes at the centres of mass, axes exchanged, the greatest movement 1 m."""
    rows: Table = [["Mode", "Story", "Movement X (m)", "Movement Y (m)", "Rotation RZ (rad)"]]
    names = [f["name"] for f in submitted_modes()["floors"]]
    for n, mode in enumerate(submitted_modes()["modes"][:STATED_MODES]):
        greatest = max(abs(v) for row in mode["shape"] for v in row[:2]) or max(abs(row[2]) for row in mode["shape"])
        for i in reversed(range(len(names))):
            x, y, rz = (v / greatest for v in mode["shape"][i])
            # seen in exchanged axes the sense of rotation turns over
            rows.append([n + 1 if i == len(names) - 1 else "", names[i], f"{y:.4f}", f"{x:.4f}", f"{-rz:.5f}"])
    return rows


def with_masses(table: Table) -> Table:
    """The clinic's stories with the masses of its modal analysis, of one story only in part."""
    masses = {f["name"]: f["mass"] for f in submitted_modes()["floors"]}
    return [[*table[0], "Mass (t)"], *([*row, f"{masses[row[0]]:.1f}"] for row in table[1:])]


def with_another_mass(table: Table) -> Table:
    """The stories with the mass of L2 a little greater, within the tolerance and unasked."""
    return [[*row[:-1], f"{1.004 * float(row[-1]):.1f}"] if row[0] == "L2" else row for row in table]


def stories(run: Evaluation, brief: dict[str, Any], imperial: bool) -> Table:
    """Return the table of stories of a building."""
    length, force = ("ft", "kip") if imperial else ("m", "kN")
    rows: Table = [["Story", f"Height ({length})", f"Seismic weight ({force})"]]
    values = zip(brief["stories"], run.value("h"), run.value("w"), strict=True)
    body = [
        [s["name"], f"{h / factor(length, 'm'):.{2 if imperial else 1}f}", f"{w / factor(force, 'kN'):.1f}"]
        for s, h, w in values
    ]
    return rows + body[::-1]


def forces(run: Evaluation, brief: dict[str, Any], imperial: bool) -> Table:
    """Return the table of static story forces of a building."""
    force, moment = ("kip", "kip ft") if imperial else ("kN", "kN m")
    rows: Table = [["Case", "Story", f"Force ({force})", f"Shear ({force})", f"Overturning ({moment})"]]
    for direction in ("X", "Y"):
        entry = [run.value(n, direction) for n in ("F", "V_story", "M_story")]
        for i in reversed(range(len(brief["stories"]))):
            case = f"Static {direction}" if i == len(brief["stories"]) - 1 else ""
            F, V, M = (values[i] for values in entry)
            digits = 1 if imperial else 0
            rows.append(
                [
                    case,
                    brief["stories"][i]["name"],
                    *(f"{v / factor(force, 'kN'):.{digits}f}" for v in (F, V)),
                    f"{M / factor(moment, 'kN*m'):.0f}",
                ]
            )
    return rows


def spectrum(run: Evaluation, first: float | None = None) -> Table:
    """Return the table of spectrum points."""
    ordinates = [float(v) for v in run.value("S_a")]
    if first is not None:
        ordinates[0] = first
    return [["T (s)", "Sa (g)"], *([f"{t:g}", f"{s:.4f}"] for t, s in zip(PERIODS, ordinates, strict=True))]


def csv_bytes(table: Table) -> bytes:
    """Return a table as a CSV file."""
    text = io.StringIO()
    csv.writer(text, lineterminator="\n").writerows(table)
    return text.getvalue().encode()


def xlsx_bytes(sheet: str, table: Table) -> bytes:
    """Return a table as a workbook."""
    book = Workbook()
    page = book.active
    page.title = sheet
    for row in table:
        page.append(row)
    page.column_dimensions["A"].width = 28
    data = io.BytesIO()
    book.save(data)
    return data.getvalue()


def _names(brief: dict[str, Any]) -> list[str]:
    return [s["name"] for s in brief["stories"]]


def _common(prefix: str, a: DemoAnalysis, rows: list[tuple[float, float, float]]) -> dict[str, Table]:
    """Tables that every submission has of its modal analysis and its drifts."""
    return {
        f"{prefix}-analysis.csv": analysis.parameters(a, rows),
        f"{prefix}-cases.csv": analysis.cases(a),
        f"{prefix}-reactions.csv": analysis.reactions(a, rows),
        f"{prefix}-drifts.csv": analysis.drifts(a),
        f"{prefix}-displacements.csv": analysis.displacements(a),
    }


def _of_the_clinic(run: Evaluation, label: str) -> dict[str, Table]:
    # as its table of modes has them, axes exchanged
    rows = [
        (round(m["T"], 3), round(m["mass_ratio"]["Y"], 4), round(m["mass_ratio"]["X"], 4))
        for m in submitted_modes()["modes"][:STATED_MODES]
    ]
    static = {d: [float(f) for f in run.value("F", d)] for d in ("X", "Y")}
    a = DemoAnalysis(
        run,
        _names(CLINIC_BRIEF),
        (36.0, 22.5),
        {},
        missing=("Y-",),
        without_g=("X",),
        irregularity={"X": "none", "Y": "none"},
        by_model={side: np.array(drifts) for side, drifts in submitted_drifts(static).items()},
    )
    masses = with_masses(stories(run, CLINIC_BRIEF, imperial=False))
    prefix = f"clinic-{label}"
    return _common(prefix, a, rows) | {
        f"{prefix}-combinations.csv": analysis.combinations(a),
        f"{prefix}-parameters.xlsx": parameters(run, CLINIC, imperial=False),
        f"{prefix}-stories.csv": masses if label == "S0" else with_another_mass(masses),
        f"{prefix}-modes.csv": modes(),
        f"{prefix}-shapes.csv": shapes(),
        f"{prefix}-forces.csv": forces(run, CLINIC_BRIEF, imperial=False),
        f"{prefix}-spectrum.csv": spectrum(run, first=float(run.value("S_DS"))),
    }


def _of_the_library(run: Evaluation) -> dict[str, Table]:
    rows = analysis.table_of_modes({"X": 0.91, "Y": 0.97}, len(LIBRARY_BRIEF["stories"]))
    a = DemoAnalysis(
        run,
        _names(LIBRARY_BRIEF),
        (30.0, 27.0),
        {"X": 0.0021, "Y": 0.0022},
        irregularity={"X": "none", "Y": "none"},
        imperial=True,
    )
    return _common("library-S0", a, rows) | {
        "library-S0-modes.csv": analysis.modes_table(rows),
        "library-S0-combinations.csv": analysis.combinations(a),
        "library-S0-make-up.csv": analysis.make_up(a, 4.79, 0.0),
    }


def _of_the_exchange(run: Evaluation) -> dict[str, Table]:
    rows = analysis.table_of_modes({"X": 1.14, "Y": 1.71}, len(EXCHANGE_BRIEF["stories"]))
    a = DemoAnalysis(
        run, _names(EXCHANGE_BRIEF), (42.0, 28.0), {"X": 0.0012, "Y": 0.0010}, amplified_by={"X": 4.0, "Y": 1.0}
    )
    return _common("exchange-S0", a, rows) | {
        "exchange-S0-modes.csv": analysis.modes_table(rows),
        "exchange-S0-combinations.csv": analysis.combinations(a, together=False),
        "exchange-S0-make-up.csv": analysis.make_up(a, EXCHANGE_LIVE, 0.0, "B"),
    }


def _of_the_granary(run: Evaluation) -> dict[str, Table]:
    rows = analysis.table_of_modes({"X": 0.58, "Y": 0.96}, len(GRANARY_BRIEF["stories"]))
    a = DemoAnalysis(
        run,
        _names(GRANARY_BRIEF),
        (24.0, 18.0),
        {"X": 0.0021, "Y": 0.0019},
        turning=(1.40, 1.12),
        unscaled=("Y",),
        irregularity={"X": "torsional", "Y": "torsional"},
    )
    return _common("granary-S0", a, rows) | {
        "granary-S0-modes.csv": analysis.modes_table(rows),
        "granary-S0-amplification.csv": analysis.amplifications(a),
        "granary-S0-stability.csv": analysis.thetas_of_base_shear(a),
    }


def tables() -> dict[str, Table]:
    """The tables of the demo's files, by file name."""
    clinic, library, exchange, granary = clinic_run(), library_run(), exchange_run(), granary_run()
    return {
        **_of_the_clinic(clinic, "S0"),
        **_of_the_clinic(clinic_second_run(), "S1"),
        **_of_the_library(library),
        **_of_the_exchange(exchange),
        **_of_the_granary(granary),
        "library-S0-parameters.csv": parameters(library, LIBRARY, imperial=True),
        "library-S0-stories.csv": stories(library, LIBRARY_BRIEF, imperial=True),
        "library-S0-forces.csv": forces(library, LIBRARY_BRIEF, imperial=True),
        "library-S0-spectrum.csv": spectrum(library),
        "exchange-S0-parameters.xlsx": parameters(exchange, EXCHANGE, imperial=False),
        "exchange-S0-stories.csv": stories(exchange, EXCHANGE_BRIEF, imperial=False),
        "exchange-S0-forces.csv": forces(exchange, EXCHANGE_BRIEF, imperial=False),
        "exchange-S0-spectrum.csv": spectrum(exchange),
        "granary-S0-parameters.csv": parameters(granary, GRANARY, imperial=False),
        "granary-S0-stories.csv": stories(granary, GRANARY_BRIEF, imperial=False),
        "granary-S0-forces.csv": forces(granary, GRANARY_BRIEF, imperial=False),
        "granary-S0-spectrum.csv": spectrum(granary),
    }


def file_bytes(name: str, table: Table) -> bytes:
    """Return a table in the format of a file's name."""
    return xlsx_bytes("Seismic", table) if name.endswith(".xlsx") else csv_bytes(table)
