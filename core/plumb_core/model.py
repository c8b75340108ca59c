"""Answers of the reviewer's own model: requests in, modes and responses out, with every warning."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Literal

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.documents import Direction
from plumb_core.dynamics import rigidity
from plumb_core.dynamics.factor import NotStable
from plumb_core.dynamics.frame import structure_of_frame
from plumb_core.dynamics.history import (
    Newmark,
    exact_oscillators,
    rayleigh_damping,
    time_history,
)
from plumb_core.dynamics.inspect import about_tables, about_weights
from plumb_core.dynamics.lines import structure_of_lines
from plumb_core.dynamics.matching import SubmittedMode, match_modes
from plumb_core.dynamics.modes import (
    Modes,
    Progress,
    find_modes,
    local_modes_warning,
    mechanism,
    modes_to_target,
    quiet,
    rayleigh_periods,
)
from plumb_core.dynamics.response import Settings, Spectrum, by_story, spectrum_response
from plumb_core.dynamics.static import static_response
from plumb_core.dynamics.structure import GRAVITY, Array, Structure, Warning
from plumb_core.dynamics.tables import tables_of
from plumb_core.editions.custom import read_curve
from plumb_core.errors import InputRefused, MissingInput, Problem, RuleRefused
from plumb_core.inputs import edition_rules, evaluated, inputs_of
from plumb_core.model_requests import (
    InspectRequest,
    ModalRequest,
    ModelPart,
    ModelRequest,
    ResponseRequest,
    SpectrumPart,
    StaticResponseRequest,
    SubmittedModePart,
    TimeHistoryRequest,
)
from plumb_core.rules import Evaluation, Key

NODE_SHAPES = 12
"""Modes whose movements of all nodes are reported, where they are asked for."""
TO_MS2 = {"g": GRAVITY, "m/s2": 1.0, "cm/s2": 0.01, "mm/s2": 0.001}

MOST_STEPS = 500_000
"""Steps of a time history; as many as a record may have."""
MOST_VALUES = 50_000_000
"""Values kept of a time history: of each step the modes, and three of each floor."""


def structure_of(request: ModelPart) -> Structure:
    """The structure that a request describes; raises InputRefused with every reason why there is none."""
    if (request.lateral_lines is None) == (request.frame is None):
        raise InputRefused(
            [
                Problem(
                    "/lateral_lines", "a model is either lateral lines with stories, or a frame", "Give one of the two."
                )
            ]
        )
    if request.lateral_lines is not None:
        if not request.stories:
            raise InputRefused([Problem("/stories", "lateral lines need stories", "Give the stories, bottom to top.")])
        built = structure_of_lines(request.stories, request.lateral_lines, request.p_delta)
    else:
        assert request.frame is not None
        frame = request.frame if not request.p_delta else request.frame.model_copy(update={"p_delta": True})
        built = structure_of_frame(frame)
    weights = {s.name: s.weight for s in request.stories if s.weight is not None}
    built.warnings.extend(about_weights(built, weights))
    return built


def _stopped(request: ModelPart, warnings: list[Warning]) -> InputRefused:
    prefix = "/frame" if request.frame is not None else ""
    return InputRefused(
        [
            Problem((w.path if w.path.startswith("/stories") else f"{prefix}{w.path}").rstrip("/") or "/",
                    f"{w.message}: {w.cause}", w.remedy)
            for w in warnings
        ]
    )  # fmt: skip


def usable_structure(request: ModelPart) -> Structure:
    """As `structure_of`, and refused where it can't stand: mechanisms, and gravity that takes more than the stiffness."""
    built = structure_of(request)
    stopping = [w for w in built.warnings if w.stops]
    if stopping:
        raise _stopped(request, stopping)
    try:
        _ = built.factor
    except NotStable as found:
        raise _stopped(request, [mechanism(built, found)]) from None
    return built


def inspect(request: InspectRequest, progress: Progress = quiet) -> dict[str, Any]:
    """Mass, floors and warnings; never refused for what a warning can say."""
    warnings: list[Warning] = []
    built = None
    if request.frame is not None and request.lateral_lines is None:
        warnings = about_tables(tables_of(request.frame))
    if not any(w.stops for w in warnings):
        built = structure_of(request)
        warnings = built.warnings
        if not any(w.stops for w in warnings):
            progress("factorising", 0.5)
            try:
                _ = built.factor
            except NotStable as found:
                warnings = [*warnings, mechanism(built, found)]
    return {
        "usable": not any(w.stops for w in warnings),
        "warnings": [w.as_json() for w in warnings],
        "degrees_of_freedom": built.n if built else None,
        "mass": built.mass_table if built else [],
        "floors": _floors(built) if built else [],
    }


def _floors(built: Structure) -> list[dict[str, Any]]:
    f = built.floors
    return [
        {
            "name": f.names[i], "z": float(f.z[i]), "height": float(f.h[i]), "centre": f.centre[i].tolist(),
            "mass": float(f.mass[i].mean()), "inertia": float(f.inertia[i]), "corners": f.corners[i].tolist(),
            "rigid": bool(f.rigid[i]),
        }
        for i in range(len(f))
    ]  # fmt: skip


def modes_of(request: Any, built: Structure, progress: Progress = quiet) -> Modes:
    """Modes as a request asks for them: a number, or up to a target; all that there are of lateral lines by default."""
    if request.target is not None and request.modes is None:
        return modes_to_target(built, request.target, request.target_directions, request.method, progress=progress)
    if request.modes is None and request.frame is not None:
        return modes_to_target(built, 0.9, request.target_directions, request.method, progress=progress)
    return find_modes(built, request.modes or built.n, request.method, progress, request.verify)


def _clean(values: Array, size: float) -> list[float]:
    """Values as JSON; what is nothing beside `size` is 0, so that rounding isn't read as movement."""
    return [float(v) for v in np.where(np.abs(values) < 1e-12 * size, 0.0, values)]


def modal(request: ModalRequest, progress: Progress = quiet) -> dict[str, Any]:
    """Modes with participation, running sums, and the comparison with submitted ones."""
    progress("assembling", 0.02)
    built = usable_structure(request)
    modes = modes_of(request, built, progress)
    target = request.target or 0.9
    share = np.where(modes.share < 1e-15, 0.0, modes.share)
    cumulative = np.cumsum(share, axis=0)
    rows = []
    for i, kind in enumerate(modes.kinds):
        biggest = float(np.abs(modes.floors[i]).max())
        rows.append({
            "T": float(modes.T[i]),
            "f": float(1.0 / modes.T[i]),
            "omega": float(modes.omega[i]),
            "gamma": dict(zip(("X", "Y", "RZ"), _clean(modes.gamma[i, :3], float(np.abs(modes.gamma[i]).max())), strict=True)),
            "mass_ratio": dict(zip(("X", "Y", "RZ"), share[i, :3].tolist(), strict=True)),
            "kind": kind,
            "at_floors": float(modes.at_floors[i]),
            "shape": [_clean(row, biggest) for row in modes.floors[i]],
        })  # fmt: skip
    enough = {d: bool(cumulative[-1, k] >= target - 1e-9) for k, d in enumerate(DIRECTIONS)}
    rayleigh = rayleigh_periods(built)
    warnings = [*built.warnings, *modes.warnings, *local_modes_warning(modes)]
    if request.modes is not None and len(modes) < request.modes:
        warnings.append(
            Warning("fewer_modes", f"the model has {len(modes)} modes, {request.modes} were asked for", "that is all its mass can move in",
                    "Nothing needs to be done.")
        )  # fmt: skip
    if not all(enough.values()):
        short = [d for d, e in enough.items() if not e]
        warnings.append(
            Warning("too_few_modes", f"the modes reach {', '.join(f'{cumulative[-1, DIRECTIONS.index(d)]:.1%} in {d}' for d in short)} of the mass, the target is {target:.0%}",
                    "modes of high frequency are left out", "Ask for more modes, or add the residual mass.")
        )  # fmt: skip
    result: dict[str, Any] = {
        "modes": rows,
        "cumulative": {d: cumulative[:, k].tolist() for k, d in enumerate(("X", "Y", "RZ"))},
        "enough": enough,
        "target": target,
        "reached_at": {d: _reached(cumulative[:, k], target) for k, d in enumerate(DIRECTIONS)},
        "mass": {"X": float(built.total[0]), "Y": float(built.total[1]), "RZ": float(built.total[2])},
        "centre": built.axis.tolist(),
        "rayleigh": {d: None if np.isnan(rayleigh[k]) else float(rayleigh[k]) for k, d in enumerate(DIRECTIONS)},
        "counted_by": modes.counted_by,
        "floors": _floors(built),
        "mass_table": built.mass_table,
        "warnings": [w.as_json() for w in warnings],
    }
    if request.shapes == "nodes":
        result["nodes"] = {"ids": built.node_ids, "shapes": _node_shapes(built, modes)}
    if request.submitted is not None:
        result["comparison"] = compared(request.submitted, result)
    return result


def _reached(cumulative: Array, target: float) -> int | None:
    reached = cumulative >= target - 1e-9
    return int(np.argmax(reached)) + 1 if reached.any() else None


def _node_shapes(built: Structure, modes: Modes) -> list[list[list[float]]]:
    """ux, uy, uz of every node in the first modes, four digits of the greatest."""
    found = []
    for k in range(min(NODE_SHAPES, len(modes))):
        u = np.asarray(built.spread @ modes.shapes[:, k]).reshape(-1, 6)[:, :3]
        found.append(np.round(u / max(float(np.abs(u).max()), 1e-300), 4).tolist())
    return found


def _submitted_mode(part: SubmittedModePart, names: list[str]) -> SubmittedMode:
    shape = None
    if part.shape:
        shape = np.full((len(names), 3), np.nan)
        for row in part.shape:
            if row.story in names:
                shape[names.index(row.story)] = [np.nan if v is None else v for v in (row.X, row.Y, row.RZ)]
    given = part.mass_ratio
    return SubmittedMode(part.T, (given.get("X"), given.get("Y"), given.get("RZ")), shape)


def compared(submitted: list[SubmittedModePart], answer: Mapping[str, Any]) -> dict[str, Any]:
    """Their modes beside ours (an answer to `modal`): matched rows in the order of ours, and their sums against the target."""
    modes, floors, target = answer["modes"], answer["floors"], answer["target"]
    theirs = [_submitted_mode(p, [f["name"] for f in floors]) for p in submitted]
    share = np.array([[m["mass_ratio"][d] for d in ("X", "Y", "RZ")] for m in modes])
    weights = np.array([[f["mass"], f["mass"], f["inertia"]] for f in floors])
    matching = match_modes(
        theirs, np.array([m["T"] for m in modes]), share, np.array([m["shape"] for m in modes]), weights
    )
    theirs_of = {m.ours: m for m in matching.matches}
    matched = {m.theirs for m in matching.matches}
    last = max((m.ours for m in matching.matches), default=-1)
    rows = []
    for j in range(len(modes)):
        match = theirs_of.get(j)
        rows.append({"ours": j + 1, "theirs": match.theirs + 1 if match else None,
                     "mac": match.mac if match else None, "likeness": match.likeness if match else None})  # fmt: skip
    axes: tuple[Literal["X", "Y", "RZ"], ...] = ("X", "Y", "RZ")
    sums: dict[str, float | None] = {}
    for d in axes:
        stated = [p.mass_ratio[d] for p in submitted if d in p.mass_ratio]
        sums[d] = float(sum(stated)) if stated else None
    return {
        "rows": rows,
        "unmatched": [i + 1 for i in range(len(theirs)) if i not in matched],
        "missing": [j + 1 for j in range(last + 1) if j not in theirs_of and max(share[j, :2]) > 0.005],
        "swapped": matching.swapped,
        "likeness": {"as_submitted": matching.as_submitted, "exchanged": matching.exchanged},
        "sums": sums,
        "enough": {d: None if (total := sums[d]) is None else total >= target - 1e-9 for d in DIRECTIONS},
    }


# Spectra


def _by_points(part: SpectrumPart, path: str, warnings: list[Warning]) -> Spectrum:
    assert part.T is not None
    curve = {"T": part.T, "S_a": part.S_a, "read": part.read}
    first, last = part.T[0], part.T[-1]

    def ordinates(T: Array) -> Array:
        if T.max() > last and not any(w.code == "spectrum_ends" for w in warnings):
            warnings.append(
                Warning("spectrum_ends", f"the longest period is {T.max():.3g} s, the spectrum ends at {last:g} s",
                        "its last ordinate is taken beyond", "Give points up to the longest period.", f"{path}/T")
            )  # fmt: skip
        return read_curve(np.clip(T, first, last), curve)

    return ordinates


def _by_edition(part: SpectrumPart, path: str, direction: str, vertical: bool = False) -> Spectrum:
    assert part.edition is not None
    site, occupancy = part.site, part.occupancy
    if site is None or occupancy is None:
        lacks = [n for n, v in (("site", site), ("occupancy", occupancy)) if v is None]
        raise InputRefused([Problem(f"{path}/{n}", f"{n} of the spectrum is not given", f"Give {n}.") for n in lacks])
    rules = edition_rules(part.edition, site, part.system)
    reduced = part.ordinates == "reduced" or (part.ordinates is None and part.system is not None)
    name, d = ("S_a_reduced", direction) if reduced else ("S_a", None)
    if vertical:
        # an edition without a reduction of its own for the vertical action has one spectrum for it
        reduced = reduced and "S_a_vertical_reduced" in rules
        name, d = ("S_a_vertical_reduced", direction) if reduced else ("S_a_vertical", None)
        if name not in rules:
            raise InputRefused(
                [
                    Problem(
                        f"{path}/edition",
                        f"{part.edition} has no vertical spectrum here",
                        "Give its points as T and S_a.",
                    )
                ]
            )
    given = inputs_of(site, occupancy, part.system)

    def ordinates(T: Array) -> Array:
        at = np.clip(T, site.T[0], site.T[-1]) if site.T is not None else T
        evaluation = Evaluation(rules, given | {("T_points", None): np.asarray(at, dtype=float)})
        try:
            return np.asarray(evaluated(evaluation, [(name, d)])[name, d].value, dtype=float)
        except InputRefused as refused:
            raise InputRefused([Problem(f"{path}{p.path}", p.message, p.remedy) for p in refused.problems]) from None

    return ordinates


def _spectrum(part: SpectrumPart | None, request: ResponseRequest, path: str, direction: str,
              warnings: list[Warning], vertical: bool = False) -> Spectrum:  # fmt: skip
    if part is not None and part.T is not None and part.S_a is not None:
        if len(part.T) != len(part.S_a):
            raise InputRefused(
                [
                    Problem(
                        f"{path}/T",
                        f"{len(part.T)} periods for {len(part.S_a)} ordinates",
                        "Give one ordinate a period.",
                    )
                ]
            )
        if any(b <= a for a, b in zip(part.T, part.T[1:], strict=False)):
            raise InputRefused(
                [Problem(f"{path}/T", "the periods don't rise", "Sort the points by period, each period once.")]
            )
        return _by_points(part, path, warnings)
    if part is not None and part.edition is not None:
        return _by_edition(part, path, direction, vertical)
    if request.edition is not None:
        sent = request.model_fields_set
        own = SpectrumPart(
            edition=request.edition, site=request.site, occupancy=request.occupancy,
            system=request.system if "system" in sent else None, ordinates=part.ordinates if part else None,
        )  # fmt: skip
        return _by_edition(own, "", direction, vertical)
    raise InputRefused(
        [Problem(path, "no spectrum is given", "Give T and S_a, or an edition with site and occupancy.")]
    )


def response(request: ResponseRequest, progress: Progress = quiet) -> dict[str, Any]:
    """Combined maxima of a response spectrum analysis, by story, bottom to top."""
    progress("assembling", 0.02)
    built = usable_structure(request)
    modes = modes_of(request, built, progress)
    warnings = [*built.warnings, *modes.warnings]
    if request.sign_of_mode is not None and request.sign_of_mode > len(modes):
        raise InputRefused([Problem("/sign_of_mode", f"there are {len(modes)} modes", "Choose one of them.")])
    spectra: dict[str, Spectrum] = {
        d: _spectrum(request.spectrum, request, "/spectrum", d, warnings)
        for d in (DIRECTIONS if request.direction == "both" else (request.direction,))
    }
    if request.vertical_spectrum is not None and request.direction == "both":
        spectra["Z"] = _spectrum(request.vertical_spectrum, request, "/vertical_spectrum", "X", warnings, True)
    settings = Settings(
        combine=request.combine,
        damping=request.damping,
        residual_period=request.residual_period if request.residual_mass else None,
        eccentricity=request.eccentricity,
        eccentricity_as=request.eccentricity_as,
        sign_of=request.sign_of_mode,
    )
    progress("response", 0.9)
    found = spectrum_response(built, modes, spectra, settings, request.directions)
    sums = np.cumsum(modes.share, axis=0)[-1]
    for k, d in enumerate(DIRECTIONS):
        if d in spectra and sums[k] < 0.9 and not request.residual_mass:
            warnings.append(
                Warning("too_few_modes", f"the modes reach {sums[k]:.1%} of the mass in {d}", "modes of high frequency are left out",
                        "Ask for more modes, or add the residual mass.")
            )  # fmt: skip
    ordinates = {d: curve(modes.T).tolist() for d, curve in spectra.items()}
    return {
        "base_shear": dict(zip(("X", "Y", "MZ"), found["base"].tolist(), strict=True)),
        "stories": by_story(built.floors, found),
        "modes": [{"T": float(t), "kind": kind} for t, kind in zip(modes.T, modes.kinds, strict=True)],
        "ordinates": ordinates,
        "mass_sum": {d: float(sums[k]) for k, d in enumerate(DIRECTIONS)},
        "warnings": [w.as_json() for w in dict.fromkeys(warnings)],
    }


def _edition_forces(request: StaticResponseRequest, built: Structure) -> tuple[dict[Direction, Array], Evaluation]:
    """The edition's forces at the floors; the model's own periods where none are given."""
    period = {d: getattr(request.period, d).analysis for d in DIRECTIONS}
    inputs = inputs_of(request.site, request.occupancy, request.system, request.stories, request.period)
    if "w" not in {k[0] for k in inputs} and "loads" not in {k[0] for k in inputs}:
        inputs["w", None] = built.floors.mass.mean(axis=1) * GRAVITY
        inputs["h", None] = built.floors.h
    if any(p is None for p in period.values()):
        modes = find_modes(built, 12)
        for k, d in enumerate(DIRECTIONS):
            if period[d] is None:
                inputs["T_analysis", d] = float(modes.T[np.argmax(modes.share[:, k])])
    evaluation = Evaluation(edition_rules(request.edition, request.site, request.system), inputs)
    if request.forces is not None:
        return {d: np.array(f, dtype=float) for d, f in request.forces.items()}, evaluation
    asked: tuple[Direction, ...] = ("X", "Y") if request.direction == "both" else (request.direction,)
    steps = evaluated(evaluation, [("F", d) for d in asked], request.stories)
    return {d: np.asarray(steps["F", d].value, dtype=float) for d in asked}, evaluation


def _optional(evaluation: Evaluation, name: str) -> Any:
    try:
        return evaluation.value(name) if name in evaluation.rules else None
    except (MissingInput, RuleRefused):
        return None


def static(request: StaticResponseRequest, progress: Progress = quiet) -> dict[str, Any]:
    """Displacements, edge drifts, torsion ratios and A_x under the edition's forces, without and with eccentricity."""
    built = usable_structure(request)
    forces, evaluation = _edition_forces(request, built)
    for d, f in forces.items():
        if len(f) != len(built.floors):
            raise InputRefused(
                [Problem("/stories", f"{len(f)} story forces in {d} for {len(built.floors)} floors of the model",
                         "Give one story for each floor of the model, bottom to top.")]
            )  # fmt: skip
    eccentricity = request.eccentricity
    if eccentricity is None:
        found = _optional(evaluation, "eccentricity")
        eccentricity = float(found) if found is not None else 0.05

    found_factor = _optional(evaluation, "eccentricity_factor")
    factor = 1.0 if found_factor is None else float(found_factor)
    has_amplifier = "A_x" in evaluation.rules
    irregular = has_amplifier and _irregular_anywhere(built, forces, eccentricity, evaluation)

    def amplifier(greatest: float, average: float) -> float:
        displaced: dict[Key, Any] = {("displacement_max", None): greatest, ("displacement_avg", None): average}
        own = Evaluation(evaluation.rules, {**evaluation.inputs, **displaced, ("torsion_irregular", None): irregular})
        return float(own.value("A_x"))

    cases = []
    for k, (d, f) in enumerate(forces.items()):
        progress("static response", k / len(forces))
        for case in static_response(built, d, f, eccentricity, amplifier if has_amplifier else None, factor):
            rows = by_story(built.floors, case.results, (d,))
            for i, row in enumerate(rows):
                row["A_x"] = None if case.A_x is None else float(case.A_x[i])
                row["A_x_first"] = None if case.A_x is None else float(case.rounds[0][i])
                row["e_s"] = None if case.e_s is None else float(case.e_s[i])
                row["e_d"] = None if case.e_d is None else float(case.e_d[i])
            cases.append({
                "direction": d,
                "eccentricity": case.sign * eccentricity,
                "base_shear": dict(zip(("X", "Y", "MZ"), case.results["base"].tolist(), strict=True)),
                "rounds": len(case.rounds),
                "stories": rows,
            })  # fmt: skip
    return {
        "eccentricity": eccentricity,
        "eccentricity_factor": factor,
        "torsion_irregular": irregular if has_amplifier else None,
        "forces": {d: f.tolist() for d, f in forces.items()},
        "cases": cases,
        "warnings": [w.as_json() for w in built.warnings],
    }


def _irregular_anywhere(
    built: Structure, forces: Mapping[Direction, Array], eccentricity: float, evaluation: Evaluation
) -> bool:
    """Whether a story is torsionally irregular by its drifts in any direction and sense, with A_x = 1.0."""
    for d, f in forces.items():
        for case in static_response(built, d, f, eccentricity):
            for a, b, mean in case.results["edge_drift"][:, DIRECTIONS.index(d)]:
                greatest = max(abs(a), abs(b))
                if greatest == 0:
                    continue
                drifts: dict[Key, Any] = {("drift_max", None): greatest, ("drift_avg", None): abs(mean)}
                own = Evaluation(evaluation.rules, {**evaluation.inputs, **drifts})
                if own.value("torsion_class") != "regular":
                    return True
    return False


def plan_stiffness(request: ModelPart) -> list[dict[str, Any]]:
    """Eccentricity, torsional radius and radius of gyration of the floors of the request's model, as the rules take them."""
    built = usable_structure(request)
    found = rigidity.plan_stiffness(built)
    return [
        {"story": name, "plan": None, "e_0": dict(zip(DIRECTIONS, found.e_0[i].tolist(), strict=True)),
         "r": dict(zip(DIRECTIONS, found.r[i].tolist(), strict=True)), "l_s": float(found.l_s[i])}
        for i, name in enumerate(built.floors.names)
    ]  # fmt: skip


# Time history


def _refuse_too_many(steps: float, path: str, remedy: str) -> None:
    if steps > MOST_STEPS:
        raise InputRefused([Problem(path, f"this takes {steps:.3g} steps; at most {MOST_STEPS} are taken", remedy)])


def _record(request: TimeHistoryRequest) -> tuple[float, Array]:
    """(step in s, ground acceleration in m/s2 at the steps)."""
    if (request.record is None) == (request.harmonic is None):
        raise InputRefused([Problem("/record", "give either a record or a harmonic motion", "Give one of the two.")])
    if request.harmonic is not None:
        h = request.harmonic
        dt = h.period / 100.0
        _refuse_too_many(h.duration / dt, "/harmonic/duration", "Shorten the motion, or lengthen its period.")
        t = np.arange(0.0, h.duration + dt / 2, dt)
        return dt, h.amplitude * GRAVITY * np.sin(2.0 * np.pi * t / h.period)
    record = request.record
    assert record is not None
    a = np.array(record.a) * TO_MS2[record.unit]
    if (record.dt is None) == (record.t is None):
        raise InputRefused([Problem("/record/dt", "a record needs either its step or its times", "Give dt or t.")])
    if record.dt is not None:
        return record.dt, a
    t = np.array(record.t)
    if len(t) != len(a):
        raise InputRefused([Problem("/record/t", f"{len(t)} times for {len(a)} values", "Give one time a value.")])
    steps = np.diff(t)
    if np.any(steps <= 0):
        raise InputRefused([Problem("/record/t", "the times don't rise", "Sort the record by time, each time once.")])
    dt = float(steps.min())
    if np.allclose(steps, dt, rtol=1e-3):
        return float(steps.mean()), a
    _refuse_too_many((t[-1] - t[0]) / dt, "/record/t", "Give the record at even steps.")
    # between its points the record goes linearly, so that reading it at the shortest step changes nothing but corners
    grid = np.arange(t[0], t[-1] + dt / 2, dt)
    return dt, np.interp(grid, t, a)


def history(request: TimeHistoryRequest, progress: Progress = quiet) -> dict[str, Any]:
    """Envelopes and histories under a ground motion, and what a spectrum analysis by the record's own spectrum gives."""
    built = usable_structure(request)
    dt, acceleration = _record(request)
    modes = modes_of(request, built, progress)
    kept = len(acceleration) * max(len(modes), 3 * len(built.floors))
    if kept > MOST_VALUES:
        raise InputRefused(
            [Problem("/modes", f"{len(acceleration)} steps of {len(modes)} modes and {len(built.floors)} floors are {kept:.3g} values",
                     "Use a shorter or coarser record, or fewer modes.")]
        )  # fmt: skip
    axis: Literal[0, 1] = 0 if request.direction == "X" else 1
    damping = np.full(len(modes), request.damping)
    if request.rayleigh is not None:
        at = (2.0 * np.pi / request.rayleigh.periods[0], 2.0 * np.pi / request.rayleigh.periods[1])
        damping = rayleigh_damping(modes.omega, at, request.damping)
    method = Newmark(request.newmark.gamma, request.newmark.beta) if request.newmark is not None else None
    warnings = [*built.warnings, *modes.warnings]
    if method is not None:
        limit = min(method.stable_step(float(w), float(z)) for w, z in zip(modes.omega, damping, strict=True))
        if dt > limit:
            raise InputRefused(
                [Problem("/newmark", f"a step of {dt:g} s isn't stable: the shortest mode allows {limit:.3g} s",
                         "Use beta = 0.25, a shorter step, or fewer modes.")]
            )  # fmt: skip
    if method is not None and dt > float(modes.T.min()) / 5:
        warnings.append(
            Warning("long_step", f"the step of {dt:g} s is long for the shortest mode of {modes.T.min():.3g} s", "Newmark's method lengthens its period",
                    "Use the exact method, or a shorter step.", "/newmark")
        )  # fmt: skip
    found = time_history(built, modes, axis, dt, acceleration, damping, method, progress)
    own = _own_spectrum(modes, dt, acceleration, damping)
    by_spectrum = spectrum_response(
        built, modes, {request.direction: own}, Settings(combine="CQC", damping=request.damping)
    )
    result: dict[str, Any] = {
        "dt": dt,
        "steps_taken": len(acceleration),
        "peak_ground": float(np.abs(acceleration).max() / GRAVITY),
        "base_shear": dict(zip(("X", "Y", "MZ"), found.envelope["base"].tolist(), strict=True)),
        "stories": by_story(built.floors, found.envelope),
        "by_spectrum": {"base_shear": dict(zip(("X", "Y", "MZ"), by_spectrum["base"].tolist(), strict=True)),
                        "ordinates": (found.peaks / GRAVITY).tolist()},
        "modes": [{"T": float(t), "damping": float(z)} for t, z in zip(modes.T, damping, strict=True)],
        "warnings": [w.as_json() for w in warnings],
    }  # fmt: skip
    if request.histories:
        result["histories"] = {
            "t": found.t.tolist(),
            "base_shear": {d: found.base[:, k].tolist() for k, d in enumerate(DIRECTIONS)},
            "top": {d: found.displacement[:, -1, k].tolist() for k, d in enumerate(DIRECTIONS)},
            "displacement": {
                name: found.displacement[:, i, axis].tolist() for i, name in enumerate(built.floors.names)
            },
            "shear": {name: found.shear[:, i, axis].tolist() for i, name in enumerate(built.floors.names)},
        }
    return result


def _own_spectrum(modes: Modes, dt: float, acceleration: Array, damping: Array) -> Spectrum:
    """The record's pseudo-acceleration spectrum (g) at the periods of the modes, by the exact method."""
    by_damping: Mapping[float, float] = dict(zip(modes.T.tolist(), damping.tolist(), strict=True))

    def ordinates(T: Array) -> Array:
        omega = 2.0 * np.pi / T
        ratio = np.array([by_damping.get(float(t), float(damping[0])) for t in T])
        d, _ = exact_oscillators(omega, ratio, dt, acceleration)
        return np.asarray(np.abs(d).max(axis=0) * omega**2 / GRAVITY)

    return ordinates


ANSWERS = {
    InspectRequest: inspect,
    ModalRequest: modal,
    ResponseRequest: response,
    StaticResponseRequest: static,
    TimeHistoryRequest: history,
}


def answer(request: ModelRequest, progress: Progress = quiet) -> dict[str, Any]:
    """The answer to a request to the model."""
    return ANSWERS[type(request)](request, progress)  # type: ignore[operator, no-any-return]
