"""Response spectrum analysis of the reference model."""

from __future__ import annotations

from typing import Any

import numpy as np

from plumb_core import DIRECTIONS
from plumb_core.answers.modal import modes_of
from plumb_core.answers.structure import usable_structure
from plumb_core.constants import Progress, quiet
from plumb_core.documents.model_requests import (
    ResponseRequest,
    SpectrumPart,
)
from plumb_core.dynamics.response import Settings, Spectrum, by_story, spectrum_response
from plumb_core.dynamics.structure import Array, Warning
from plumb_core.editions.custom import read_curve
from plumb_core.errors import InputRefused, Problem
from plumb_core.inputs import edition_rules, evaluated, inputs_of
from plumb_core.rules import Evaluation, Key


def _by_points(part: SpectrumPart, path: str, warnings: list[Warning]) -> Spectrum:
    assert part.T is not None
    curve = {"T": part.T, "S_a": part.S_a, "read": part.read}
    first, last = part.T[0], part.T[-1]

    def ordinates(T: Array) -> Array:
        if T.max() > last and not any(w.code == "spectrum_ends" for w in warnings):
            warnings.append(
                Warning(
                    "spectrum_ends",
                    f"the longest period is {T.max():.3g} s, the spectrum ends at {last:g} s",
                    "its last ordinate is used for longer periods",
                    "Give points up to the longest period.",
                    f"{path}/T",
                )
            )
        return read_curve(np.clip(T, first, last), curve)

    return ordinates


def _by_edition(part: SpectrumPart, path: str, direction: str, damping: float, vertical: bool = False) -> Spectrum:
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
    if "S_a_damped" in rules:
        # elastic ordinates at the damping of the modes; what the edition reduces by damping follows by its own rules
        given[Key("damping")] = damping
        name = "S_a_damped" if name == "S_a" else name

    def ordinates(T: Array) -> Array:
        at = np.clip(T, site.T[0], site.T[-1]) if site.T is not None else T
        evaluation = Evaluation(rules, given | {Key("T_points"): np.asarray(at, dtype=float)})
        try:
            return np.asarray(evaluated(evaluation, [Key(name, d)])[Key(name, d)].value, dtype=float)
        except InputRefused as refused:
            raise InputRefused([Problem(f"{path}{p.path}", p.message, p.remedy) for p in refused.problems]) from None

    return ordinates


def _spectrum(
    part: SpectrumPart | None,
    request: ResponseRequest,
    path: str,
    direction: str,
    warnings: list[Warning],
    vertical: bool = False,
) -> Spectrum:
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
                [Problem(f"{path}/T", "the periods do not increase", "Sort the points by period, each period once.")]
            )
        return _by_points(part, path, warnings)
    if part is not None and part.edition is not None:
        return _by_edition(part, path, direction, request.damping, vertical)
    if request.edition is not None:
        sent = request.model_fields_set
        entry = SpectrumPart(
            edition=request.edition,
            site=request.site,
            occupancy=request.occupancy,
            system=request.system if "system" in sent else None,
            ordinates=part.ordinates if part else None,
        )
        return _by_edition(entry, "", direction, request.damping, vertical)
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
    directions = request.directions
    if request.vertical_spectrum is not None:
        if directions == "100-30":
            directions = "100-30-30"
            warnings.append(
                Warning(
                    "vertical_combined",
                    "a vertical spectrum is given, and the directions are combined by 100-30",
                    "the vertical action is combined with them by 100-30-30",
                    "Choose 100-30-30 or SRSS, or leave the vertical spectrum out.",
                    "/directions",
                )
            )
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
    combined = spectrum_response(built, modes, spectra, settings, directions)
    sums = np.cumsum(modes.share, axis=0)[-1]
    for k, d in enumerate(DIRECTIONS):
        if d in spectra and sums[k] < 0.9 and not request.residual_mass:
            warnings.append(
                Warning(
                    "too_few_modes",
                    f"the modes reach {sums[k]:.1%} of the mass in {d}",
                    "modes of high frequency are not included",
                    "Request more modes, or add the residual mass.",
                )
            )
    ordinates = {d: curve(modes.T).tolist() for d, curve in spectra.items()}
    return {
        "base_shear": dict(zip(("X", "Y", "MZ"), combined["base"].tolist(), strict=True)),
        "stories": by_story(built.floors, combined),
        "modes": [{"T": float(t), "kind": kind} for t, kind in zip(modes.T, modes.kinds, strict=True)],
        "ordinates": ordinates,
        "mass_sum": {d: float(sums[k]) for k, d in enumerate(DIRECTIONS)},
        "warnings": [w.as_json() for w in dict.fromkeys(warnings)],
    }
