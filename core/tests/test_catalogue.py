"""The catalogue of tests: each code by a right submission with one mistake upstream, and the right one beside it."""

from __future__ import annotations

import copy
import time
from collections.abc import Callable, Iterable
from functools import cache
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from facts import claim
from plumb_core.checks.catalogue.page import page
from plumb_core.checks.catalogue.registry import PARTS, catalogue_test, catalogue_tests
from plumb_core.checks.recheck import recheck
from plumb_core.documents.thresholds import DEFAULTS, Thresholds
from plumb_core.errors import InputRefused
from plumb_core.solve import solve
from test_stages import EDITIONS, right, taken_in

G = 9.80665
FOOT = 3.280839895
Change = Callable[["Seed"], None]


class Seed:
    """A right submission of an edition, to be distorted."""

    def __init__(self, edition: str):
        self.edition = edition
        self.document: dict[str, Any] = copy.deepcopy(_document(edition))
        self.values = right(edition).values

    @property
    def brief(self) -> dict[str, Any]:
        return self.document["brief"]  # type: ignore[no-any-return]

    @property
    def claims(self) -> list[dict[str, Any]]:
        return self.document["submission"]["claims"]  # type: ignore[no-any-return]

    def of(self, *names: str, **place: Any) -> list[dict[str, Any]]:
        """Claims of quantities, at a place."""
        return [c for c in self.claims if c["quantity"] in names and all(c.get(k) == v for k, v in place.items())]

    def scale(self, factor: float, *names: str, **place: Any) -> None:
        """Multiply values, as they would be written."""
        found = self.of(*names, **place)
        assert found, names
        for each in found:
            self.write(each, each["value"] * factor)

    def write(self, each: dict[str, Any], value: float | str) -> None:
        each["value"] = value
        each["text"] = value if isinstance(value, str) else f"{value / each.get('scale', 1.0):.6g}"

    def put(self, quantity: str, value: float | str, direction: str | None = None, **place: Any) -> None:
        """State a value, in place of the one that is there."""
        where = {"direction": direction, **place} if direction else place
        found = self.of(quantity, **where)
        for each in found:
            self.write(each, value)
        if not found:
            self.claims.append(claim(quantity, value, direction) | place)

    def drop(self, *names: str) -> None:
        self.document["submission"]["claims"] = [c for c in self.claims if c["quantity"] not in names]

    def cases_of(self, kind: str) -> set[str]:
        return {c["name"] for c in self.document["submission"]["cases"] if c.get("kind") == kind}

    def solved(self, kind: str, **more: Any) -> dict[str, Any]:
        parts = ("edition", "site", "occupancy", "system", "stories", "period")
        return solve({"kind": kind, **{n: self.brief[n] for n in parts if n in self.brief}, **more})

    def ground(self) -> dict[str, Any]:
        return solve({"kind": "ground", **{n: self.brief[n] for n in ("edition", "site", "occupancy")}})

    def curve(self, T: Iterable[float], change: Callable[[float, float], float] = lambda T, S: S) -> None:
        """State the curve of the edition at periods, changed."""
        periods = list(T)
        parts = {n: self.brief[n] for n in ("edition", "site", "occupancy", "system")}
        ordinates = solve({"kind": "spectrum", **parts, "direction": "X", "T": periods})["elastic"]
        for i, (period, S) in enumerate(zip(periods, ordinates, strict=True)):
            self.claims.append(claim("T_points", period) | {"point": i})
            self.claims.append(claim("S_a", change(period, S)) | {"point": i})

    def answer(self) -> dict[str, Any]:
        return recheck(self.document, steps=False)  # type: ignore[return-value]


@cache
def _document(edition: str) -> dict[str, Any]:
    return taken_in(right(edition)).document.model_dump(mode="json", exclude_none=True)


def spoken(answer: dict[str, Any], code: str) -> list[dict[str, Any]]:
    return [c for c in answer["checks"] if c["slip"] == code]


SEEDS: dict[str, tuple[tuple[str, ...], Change]] = {}
"""Editions and distortion by code."""


def seed(code: str, *editions: str) -> Callable[[Change], Change]:
    def register(change: Change) -> Change:
        SEEDS[code] = (editions or ("asce7-16", "ubc97", "en1998-1"), change)
        return change

    return register


def _modal_shears(s: Seed, factor: float) -> None:
    s.scale(factor, "V_dynamic", "V_scaled")
    modal = s.cases_of("modal")
    for each in s.of("reaction_X", "reaction_Y"):
        if each["case"] in modal:
            s.write(each, each["value"] * factor)


@seed("S01")
def _(s: Seed) -> None:
    _modal_shears(s, 1.0 / G)


@seed("S02", "asce7-16", "ubc97", "as1170.4")
def _(s: Seed) -> None:
    factor = {"asce7-16": 5.0, "ubc97": 5.5, "as1170.4": 2.0 / 0.77}[s.edition]
    _modal_shears(s, factor)


@seed("S03", "asce7-16", "ubc97", "is1893-2016")
def _(s: Seed) -> None:
    s.scale(1000.0, "spectrum_factor")


@seed("S04", "asce7-16", "ubc97")
def _(s: Seed) -> None:
    s.put("T_a", s.values["static"]["X"]["T_a"] * FOOT**-0.75, "X")


@seed("S05")
def _(s: Seed) -> None:
    s.put("damping_modes", 5.0)
    s.put("damping", 5.0)


@seed("S06")
def _(s: Seed) -> None:
    s.scale(G, "m")


@seed("S07")
def _(s: Seed) -> None:
    s.scale(1.0 / G, "w")


@seed("S08")
def _(s: Seed) -> None:
    pass  # static reactions are negative in the right submission too


@seed("S09")
def _(s: Seed) -> None:
    dead = s.cases_of("gravity").pop()
    for each in s.of("reaction_Z", case=dead):
        each["quantity"] = "reaction_Y"
        each.pop("direction", None)
    s.document["submission"]["claims"] = [
        c for c in s.claims if not (c.get("case") == dead and c["quantity"] == "reaction_Y" and not c["value"])
    ]


@seed("S10")
def _(s: Seed) -> None:
    for each in s.of("T_mode"):
        s.claims.append(claim("f_mode", 2.0 * np.pi / each["value"]) | {"point": each["point"]})


@seed("S12", "asce7-16", "en1998-1", "is1893-2016")
def _(s: Seed) -> None:
    s.put("mass_target", 0.85)


@seed("S13", "asce7-16", "asce7-10")
def _(s: Seed) -> None:
    s.put("S_S", 1.0)


@seed("S14", "asce7-16")
def _(s: Seed) -> None:
    s.brief["site"] = s.brief["site"] | {"class_by_default": True}
    s.put("F_a", 1.02)


@seed("S15", "asce7-16", "ubc97", "asce7-10")
def _(s: Seed) -> None:
    ground, (a, b) = s.ground(), ("C_a", "C_v") if s.edition == "ubc97" else ("F_a", "F_v")
    s.put(a, ground[b])
    s.put(b, ground[a])


@seed("S16", "asce7-16", "asce7-05")
def _(s: Seed) -> None:
    s.put("S_DS", s.ground()["S_MS"])


@seed("S17", "asce7-16", "asce7-05")
def _(s: Seed) -> None:
    s.put("design_category", "B")


@seed("S18", "asce7-16")
def _(s: Seed) -> None:
    s.brief["site"] = s.brief["site"] | {"S_S": 0.10, "S_1": 0.03}


@seed("S19", "asce7-16")
def _(s: Seed) -> None:
    s.brief["site"] = s.brief["site"] | {"S_S": 2.1}
    s.brief["period"] = {d: {"analysis": 0.3} for d in "XY"}
    s.put("C_s_plateau", 1.0 / 5.0, "X")


@seed("S20", "ubc97", "is1893-2002", "is1893-2016")
def _(s: Seed) -> None:
    s.put("Z", 0.27)


@seed("S21", "asce7-16", "ubc97")
def _(s: Seed) -> None:
    name = "C_a" if s.edition == "ubc97" else "F_a"
    s.put(name, s.ground()[name])


@seed("S22", "asce7-16", "ubc97", "is1893-2016")
def _(s: Seed) -> None:
    s.put("R", 8.0, "X")


@seed("S24", "asce7-16")
def _(s: Seed) -> None:
    s.brief["system"]["X"] |= {"R": 6.0, "Omega_0": 2.5, "C_d": 5.0}
    s.put("C_d", 2.5, "X")


@seed("S25", "asce7-16")
def _(s: Seed) -> None:
    s.brief["system"]["X"] |= {"rho": 1.3}
    s.put("rho", 1.0, "X")


@seed("S28")
def _(s: Seed) -> None:
    s.curve(np.linspace(0.0, 4.0, 21), lambda T, S: S * 1.12 if abs(T - 1.0) < 0.01 else S)


@seed("S29")
def _(s: Seed) -> None:
    s.curve([0.0, 0.1, 0.35, 3.0])


@seed("S30")
def _(s: Seed) -> None:
    s.curve(np.linspace(0.0, 0.5, 11))


@seed("S32")
def _(s: Seed) -> None:
    s.curve(np.linspace(0.2, 3.0, 29), lambda T, S: S * G * (T / (2 * np.pi)) ** 2 * 1000.0)


@seed("S33")
def _(s: Seed) -> None:
    dead = {c["story"]: c["value"] for c in s.of("load_amount", case="Structure")}
    for each in s.of("w"):
        s.write(each, each["value"] + dead[each["story"]])


@seed("S38")
def _(s: Seed) -> None:
    s.scale(1.08, "m", story="L3")


@seed("S39")
def _(s: Seed) -> None:
    s.put("load_amount", -120.0, case="Plant", story="L2")


@seed("S41")
def _(s: Seed) -> None:
    s.scale(0.1, "load_intensity", case="Structure")


@seed("S42", "asce7-16", "en1998-1")
def _(s: Seed) -> None:
    for story in s.brief["stories"]:
        story["centre"] = [15.0, 10.0]
        s.claims.append(claim("x_m", 16.5, "X", story["name"]))


@seed("S44")
def _(s: Seed) -> None:
    s.document["submission"]["claims"] = [c for c in s.claims if c.get("point") is None or c["point"] < 2]
    s.put("modes_count", 2.0)


@seed("S45")
def _(s: Seed) -> None:
    each = s.of("mass_running", direction="X", point=2)[0]
    s.write(each, each["value"] + 0.05)


@seed("S46")
def _(s: Seed) -> None:
    for each in s.of("mass_running", direction="X"):
        other = s.of("mass_running", direction="Y", point=each["point"])[0]
        s.write(each, each["value"] + other["value"])


@seed("S49")
def _(s: Seed) -> None:
    s.claims.append(claim("mass_ratio_RZ", 0.93) | {"point": 0})


@seed("S50")
def _(s: Seed) -> None:
    first = 1 + max(c["point"] for c in s.of("T_mode"))
    for k in range(first, first + 12):
        s.claims.append(claim("T_mode", 0.05 - 0.001 * k) | {"point": k})
        s.claims.extend(claim("mass_ratio", 0.0002, d) | {"point": k} for d in "XY")
    s.put("modes_count", float(first + 12))


@seed("S51")
def _(s: Seed) -> None:
    s.put("T_analysis", 4.8, "X")


@seed("S53")
def _(s: Seed) -> None:
    s.claims.append(claim("displacement_centre", -0.01, "Y", "L3", "Y modes"))


@seed("S54", "asce7-16", "ubc97", "asce7-05")
def _(s: Seed) -> None:
    s.put("T", 1.25 * s.values["static"]["X"]["T_limit"], "X")


@seed("S56", "asce7-16", "ubc97")
def _(s: Seed) -> None:
    s.put("C_s" if s.edition == "asce7-16" else "coefficient", 0.001, "X")


@seed("S57")
def _(s: Seed) -> None:
    s.scale(1.15, "V_static", direction="X")


@seed("S58")
def _(s: Seed) -> None:
    for each in s.of("F", direction="X", story="L4"):
        s.write(each, each["value"] * 1.3)
    for each in s.of("F"):
        if each["case"].startswith("X static") and each["story"] == "L4":
            s.write(each, each["value"] * 1.3)


@seed("S59")
def _(s: Seed) -> None:
    s.scale(1.2, "h", story="L1")


@seed("S64")
def _(s: Seed) -> None:
    s.scale(1.15, "V_static", direction="X")


@seed("S66", "asce7-16", "ubc97", "is1893-2016")
def _(s: Seed) -> None:
    SEEDS["S44"][1](s)
    s.put("factor_used", 1.3, "X")


@seed("S92")
def _(s: Seed) -> None:
    s.put("diaphragms", "to be confirmed")


@seed("S93", "asce7-16", "ubc97")
def _(s: Seed) -> None:
    s.drop("second_order_stated")


@seed("S11", "asce7-16", "en1998-1", "is1893-2016")
def _(s: Seed) -> None:
    s.put("edition_stated", "UBC 97")


@seed("S31", "asce7-16", "en1998-1", "as1170.4")
def _(s: Seed) -> None:
    s.put("damping_modes", 0.02)


@seed("S34")
def _(s: Seed) -> None:
    for story in s.brief["stories"]:
        story["weight"] = 360.0
    s.scale(0.1, "w")
    s.scale(0.1, "m")
    s.scale(0.1, "load_amount")
    s.scale(0.1, "load_intensity")


@seed("S35", "en1998-1", "as1170.4")
def _(s: Seed) -> None:
    for each in s.of("load_share", case="Office floor"):
        s.write(each, 0.5)


@seed("S36", "is1893-2002", "is1893-2016")
def _(s: Seed) -> None:
    for each in s.of("load_share", case="Office floor"):
        if each["value"]:
            s.write(each, 0.5)


@seed("S37", "asce7-16", "ubc97")
def _(s: Seed) -> None:
    s.document["submission"]["claims"] = [c for c in s.claims if c.get("case") != "Partition walls"]


@seed("S40")
def _(s: Seed) -> None:
    s.put("base_level", "L1")


@seed("S43")
def _(s: Seed) -> None:
    s.scale(1.04, "w", story="L3")


@seed("S48")
def _(s: Seed) -> None:
    s.put("modes_count", 12.0)


@seed("S52", "asce7-16", "ubc97", "en1998-1")
def _(s: Seed) -> None:
    s.put("combined_by", "SRSS")
    s.put("T_mode", 0.9, point=1)


@seed("S55", "en1998-1")
def _(s: Seed) -> None:
    s.put("V_static", s.of("V_static", direction="X")[0]["value"], "Y")


@seed("S61", "asce7-16", "is1893-2016")
def _(s: Seed) -> None:
    s.drop("factor_used", "V_scaled")
    after = {c["name"] for c in s.document["submission"]["cases"] if c.get("step") == "after"}
    s.document["submission"]["claims"] = [c for c in s.claims if c.get("case") not in after]
    s.document["submission"]["cases"] = [c for c in s.document["submission"]["cases"] if c["name"] not in after]


@seed("S62", "asce7-16", "is1893-2016")
def _(s: Seed) -> None:
    s.put("factor_used", 1.0, "X")
    s.put("V_scaled", s.of("V_dynamic", direction="X")[0]["value"], "X")


@seed("S67")
def _(s: Seed) -> None:
    s.scale(1.07, "V_scaled", direction="X")


@seed("S70")
def _(s: Seed) -> None:
    gone = {c["name"] for c in s.document["submission"]["cases"] if c["name"].startswith("Y ") and c["name"][-1] == "-"}
    s.document["submission"]["claims"] = [c for c in s.claims if c.get("case") not in gone]
    s.document["submission"]["cases"] = [c for c in s.document["submission"]["cases"] if c["name"] not in gone]


@seed("S71", "asce7-16", "ubc97", "is1893-2016")
def _(s: Seed) -> None:
    s.put("torsion_stated", "torsional", "X")


@seed("S77")
def _(s: Seed) -> None:
    for each in s.document["submission"]["cases"]:
        each.pop("eccentricity", None)
    s.drop("eccentricity")


@seed("S79", "asce7-16", "as1170.4")
def _(s: Seed) -> None:
    wrong = 0.03 if s.edition == "asce7-16" else 0.05
    for each in s.document["submission"]["cases"]:
        if each.get("eccentricity"):
            each["eccentricity"] = wrong if each["eccentricity"] > 0 else -wrong


@seed("S80", "asce7-16", "ubc97", "en1998-1", "as1170.4")
def _(s: Seed) -> None:
    for each in s.of("drift_end_1", "drift_end_2"):
        if "design drift" in each["case"]:
            s.write(each, each["value"] / 2.4)
    s.drop("amplifier")


@seed("S81")
def _(s: Seed) -> None:
    s.drop("drift_end_1", "drift_end_2", "displacement_end_1", "displacement_end_2")


@seed("S85", "asce7-16", "ubc97", "en1998-1", "is1893-2016", "as1170.4")
def _(s: Seed) -> None:
    s.scale(4.0, "drift_end_1", "drift_end_2", "displacement_end_1", "displacement_end_2")


@seed("S88")
def _(s: Seed) -> None:
    pass  # results of combined modes are in the right submission too


@seed("S89")
def _(s: Seed) -> None:
    for d in "XY":
        s.put("T_analysis", 1.2 * float(s.values["modal"][d]["T"][0]), d)


@seed("S90")
def _(s: Seed) -> None:
    s.drop("T_mode", "mass_ratio", "mass_running")


@seed("S91")
def _(s: Seed) -> None:
    s.claims.append(claim("log_line", "WARNING: the stiffness matrix is ill-conditioned at joint 12"))


@seed("S26", "asce7-16", "ubc97", "en1998-1")
def _(s: Seed) -> None:
    # the lowest story moves twice as much
    for name in ("drift_end_1", "drift_end_2"):
        s.scale(2.0, name, story="L1")


@seed("S23", "asce7-16", "asce7-10")
def _(s: Seed) -> None:
    # Table 12.2-1: not permitted in category D
    for d in "XY":
        s.brief["system"][d] = {
            "lateral_system": "A_ordinary_RC_shear_wall",
            "R": 4.0,
            "Omega_0": 2.5,
            "C_d": 4.0,
            "period_type": "other",
        }


@seed("S27", "asce7-16", "asce7-05")
def _(s: Seed) -> None:
    s.brief["site"] |= {"S_S": 0.25, "S_1": 0.06}
    s.put("lateral_system", "special steel moment frames", "X")


@seed("S47", "is1893-2016")
def _(s: Seed) -> None:
    # Table 6 vii: 65 % of the mass in the first three modes
    for each in s.of("mass_ratio", direction="X"):
        s.write(each, {0: 0.45, 2: 0.05}.get(each["point"], each["value"]))


@seed("S63", "asce7-16", "is1893-2016")
def _(s: Seed) -> None:
    for d in "XY":
        s.put("factor_used", 1.05, d)


@seed("S65", "asce7-16", "ubc97")
def _(s: Seed) -> None:
    _modal_shears(s, 0.3)
    s.drop("mass_ratio", "mass_running", "spectrum_factor")


@seed("S68")
def _(s: Seed) -> None:
    for each in s.of("reaction_X"):
        if each["case"].startswith("X static"):
            s.write(each, each["value"] * 1.2)


def _turning(s: Seed) -> None:
    """End 1 moves 1.4 times the mean."""
    for each in s.of("drift_end_1", "displacement_end_1"):
        s.write(each, each["value"] * 1.6)
    s.put("torsion_stated", "torsional", "X")
    s.put("torsion_stated", "torsional", "Y")


@seed("S75", "asce7-16", "ubc97")
def _(s: Seed) -> None:
    _turning(s)


@seed("S76", "asce7-16", "ubc97")
def _(s: Seed) -> None:
    pass  # the right submission tests torsion alone


@seed("S78", "asce7-16", "ubc97")
def _(s: Seed) -> None:
    for each in s.of("drift_end_1", "drift_end_2"):
        if each["case"].startswith("X ") and each["story"] == "L6":
            s.write(each, 0.00030 if each["quantity"] == "drift_end_1" else 0.00010)


def _modal_movements(s: Seed, with_drifts: bool) -> None:
    """Displacements of the modal case, and drifts that are their differences."""
    for n in (1, 2):
        before = 0.0
        for i, story in enumerate(s.brief["stories"], 1):
            u = 0.01 * i + 0.001 * n * i
            s.claims.append(claim(f"displacement_end_{n}", u, "X", story["name"], "X modes", f"{u:.6f}"))
            if with_drifts:
                s.claims.append(claim(f"drift_end_{n}", u - before, "X", story["name"], "X modes", f"{u - before:.6f}"))
            before = u


@seed("S82", "asce7-16", "ubc97", "is1893-2016")
def _(s: Seed) -> None:
    _modal_movements(s, with_drifts=True)


@seed("S83", "asce7-16", "asce7-05")
def _(s: Seed) -> None:
    s.brief["system"]["irregularities"] = {"torsional": True}
    _at_the_centre(s)


def _at_the_centre(s: Seed) -> None:
    """Displacements of the centre of mass in place of those of the ends."""
    for each in s.of("displacement_end_1"):
        (other,) = s.of("displacement_end_2", case=each["case"], story=each["story"])
        mean = (each["value"] + other["value"]) / 2.0
        s.claims.append(claim("displacement_centre", mean, each["direction"], each["story"], each["case"]))
    s.drop("displacement_end_1", "displacement_end_2", "drift_end_1", "drift_end_2")


IN_RIGHT_ONES = {"S08", "S76", "S88", "S93"}
"""Notes that a right submission has as well."""


@pytest.mark.parametrize(("code", "edition"), [(c, e) for c, (editions, _) in SEEDS.items() for e in editions])
def test_a_mistake_is_reported_with_its_code(code: str, edition: str) -> None:
    seeded = Seed(edition)
    if code not in IN_RIGHT_ONES:
        assert spoken(seeded.answer(), code) == []
    SEEDS[code][1](seeded)
    answer = seeded.answer()
    found = spoken(answer, code)
    assert found, {c["id"]: (c["slip"], c["note"]) for c in answer["checks"] if c["verdict"] not in ("agrees", "open")}
    kind = catalogue_tests()[code].sort
    if kind == "wrong":
        assert any(c["verdict"] in ("differs", "breaches", "question") for c in found)
    for each in found:
        assert each["note"] or each["draft"]


@pytest.mark.parametrize("edition", EDITIONS)
@pytest.mark.parametrize(("code", "most"), [("S06", 1), ("S07", 1), ("S16", 1), ("S32", 1), ("S33", 1)])
def test_one_mistake_over_many_values_is_one_origin(code: str, most: int, edition: str) -> None:
    editions, change = SEEDS[code]
    if edition not in editions:
        return
    seeded = Seed(edition)
    change(seeded)
    answer = seeded.answer()
    of_code = [c for c in spoken(answer, code) if c["role"] == "origin"]
    assert len(of_code) == most
    same = [c for c in answer["checks"] if c["id"] in answer["origins"] and c["quantity"] == of_code[0]["quantity"]]
    assert len(same) == most
    gathered = [c for c in answer["checks"] if of_code[0]["id"] in c["rests_on"] and c["kind"] != "catalogue"]
    assert of_code[0]["used_by"] == len(gathered)


@pytest.mark.parametrize("edition", EDITIONS)
def test_a_right_submission_has_notes_and_nothing_else(edition: str) -> None:
    answer = Seed(edition).answer()
    assert answer["origins"] == []
    assert [c["id"] for c in answer["checks"] if c["verdict"] in ("differs", "breaches", "question")] == []
    assert {c["verdict"] for c in answer["checks"] if c["kind"] == "catalogue"} <= {"note"}


@pytest.mark.parametrize("edition", ["asce7-16", "en1998-1", "as1170.4"])
@pytest.mark.parametrize(("by", "asked"), [(1.0, False), (1.2, False), (1.6, True), (0.5, True)])
def test_static_displacements_of_another_stiffness_are_asked_about(edition: str, by: float, asked: bool) -> None:
    """Displacements b times as great are a period sqrt(b) times as long: 1.10, 1.26 and 0.71."""
    seeded = Seed(edition)
    seeded.scale(by, "displacement_end_1", "displacement_end_2", "drift_end_1", "drift_end_2")
    found = [c["id"] for c in spoken(seeded.answer(), "S89")]
    assert found == (["catalogue_T_mode.S89.X", "catalogue_T_mode.S89.Y"] if asked else [])


@pytest.mark.parametrize(
    ("code", "thresholds"),
    [
        # 4.8 s over 0.85 s of C_t h^x; 360 kN on 600 m2; a tenth of 6 kPa; modes of 0.02 %
        ("S51", {"period_ratio": [0.1, 20.0]}),
        ("S34", {"weight_per_area": [0.1, 20.0]}),
        ("S41", {"self_weight": [0.1, 15.0]}),
        ("S50", {"local_share": 0.0001}),
        # neighbouring periods of the seed and of the right submission, at most 0.995 of one another
        ("S52", {"close_modes": 0.999}),
    ],
)
def test_a_threshold_of_the_office_decides_what_is_asked(code: str, thresholds: dict[str, Any]) -> None:
    seeded = Seed("asce7-16")
    SEEDS[code][1](seeded)
    assert spoken(seeded.answer(), code)
    seeded.brief["thresholds"] = thresholds
    assert spoken(seeded.answer(), code) == []


def test_the_tolerance_of_the_office_holds_where_the_review_has_none() -> None:
    seeded = Seed("asce7-16")
    seeded.scale(1.03, "V_static", direction="X")
    assert "V_static.X" in seeded.answer()["origins"]
    seeded.brief["thresholds"] = {"tolerance": 0.05}
    assert "V_static.X" not in seeded.answer()["origins"]
    seeded.brief["tolerance"] = 0.01
    assert "V_static.X" in seeded.answer()["origins"]


@pytest.mark.parametrize("wrong", [{"period_ratio": [2.0, 1.0]}, {"tolerance": 0.0}, {"local_share": 0.5}, {"mood": 1}])
def test_a_threshold_that_cannot_be_is_refused(wrong: dict[str, Any]) -> None:
    seeded = Seed("asce7-16")
    seeded.brief["thresholds"] = wrong
    with pytest.raises(InputRefused) as refused:
        seeded.answer()
    assert refused.value.problems[0].path.startswith(f"/brief/thresholds/{next(iter(wrong))}")


def test_every_threshold_has_its_default_and_the_source_of_it() -> None:
    assert {d.name for d in DEFAULTS} == set(Thresholds.model_fields)
    assert all(d.source and d.words and set(d.codes) <= catalogue_tests().keys() for d in DEFAULTS)


@pytest.mark.parametrize(("by", "stories", "code"), [(0.9072, 1, "S43"), (0.9072, 6, "S07"), (0.92, 6, "S43")])
def test_one_value_that_is_a_tenth_off_is_no_mixed_unit(by: float, stories: int, code: str) -> None:
    seeded = Seed("asce7-16")
    for i in range(stories):
        seeded.scale(by, "w", story=f"L{i + 1}")
    answer = seeded.answer()
    assert {c["slip"] for c in answer["checks"] if c["id"] in answer["origins"]} == {code}


def test_consequences_are_linked_to_their_cause() -> None:
    seeded = Seed("asce7-16")
    SEEDS["S66"][1](seeded)
    repaired = {c["direction"]: c["rests_on"] for c in spoken(seeded.answer(), "S66")}
    assert repaired == {d: [f"target_mass_sum.{d}"] for d in "XY"}
    seeded = Seed("asce7-16")
    SEEDS["S64"][1](seeded)
    (depending,) = spoken(seeded.answer(), "S64")
    assert depending["rests_on"] == ["V_static.X"]


def test_drifts_that_we_derive_ourselves_are_no_question() -> None:
    """Only displacements of the modal case are stated: the differences are ours, and noted as such."""
    seeded = Seed("asce7-16")
    _modal_movements(seeded, with_drifts=False)
    answer = seeded.answer()
    assert spoken(answer, "S82") == []
    (note,) = [c for c in answer["checks"] if c["id"] == "drift_open_delta_e.X.derived"]
    assert note["verdict"] == "note"


def test_every_code_has_a_seed_here_or_a_test_of_its_own() -> None:
    text = "".join(p.read_text() for p in Path(__file__).parent.glob("test_*.py"))
    assert [code for code in catalogue_tests() if f'"{code}"' not in text] == []


def test_a_test_is_set_aside_with_its_reason_and_a_deviation_is_not() -> None:
    seeded = Seed("asce7-16")
    SEEDS["S51"][1](seeded)
    SEEDS["S57"][1](seeded)
    before = seeded.answer()
    assert [c["verdict"] for c in spoken(before, "S51")] == ["question"]
    reasons = [{"code": c, "reason": "explained in the meeting of 3 May"} for c in ("S51", "S57")]
    seeded.brief["set_aside"] = reasons
    after = seeded.answer()
    (set_aside,) = spoken(after, "S51")
    assert set_aside["verdict"] == "note"
    assert set_aside["note"].endswith("set aside for this review: explained in the meeting of 3 May")
    assert after["origins"] == before["origins"]


@pytest.mark.parametrize("code", ["S00", "S94", "X", ""])
def test_only_a_code_of_the_catalogue_is_set_aside(code: str) -> None:
    seeded = Seed("asce7-16")
    seeded.brief["set_aside"] = [{"code": code, "reason": "because"}]
    with pytest.raises(InputRefused) as refused:
        seeded.answer()
    assert refused.value.problems[0].path == "/brief/set_aside/0/code"


def test_all_93_codes_are_tests_with_an_explanation() -> None:
    tests = catalogue_tests()
    assert list(tests) == [f"S{n:02d}" for n in range(1, 94)]
    for test in tests.values():
        assert all(test.part(name).endswith(".") or name == "clause" for name in PARTS), test.code
        assert test.stage in (
            "ground",
            "spectrum",
            "weight",
            "modes",
            "lateral",
            "scaling",
            "twist",
            "drift",
            "process",
        )


def test_the_page_of_the_catalogue_is_the_one_that_the_tests_make() -> None:
    written = (Path(__file__).parents[2] / "docs" / "slips.md").read_text()
    assert written == page(), "write it with `python -m plumb_core.checks.catalogue.page`"


def test_a_code_is_taken_once_and_its_docstring_has_all_parts() -> None:
    def bare(found: Any) -> Iterable[Any]:
        """What it looks like."""
        return ()

    for code in ("S01", "S94", "X1"):
        with pytest.raises(NameError):
            catalogue_test(code, "x", sort="note", stage="drift")(bare)


@pytest.mark.timing
def test_the_tests_of_a_long_submission_take_a_tenth_of_a_second() -> None:
    seeded = Seed("asce7-16")
    extra = [
        claim(f"drift_end_{k}", 0.01 + 1e-6 * n, "X", story["name"], f"Case {n}")
        for n in range(840)
        for story in seeded.brief["stories"]
        for k in (1, 2)
    ]
    seeded.document["submission"]["claims"] += extra
    from plumb_core.checks.catalogue.naming import with_catalogue
    from plumb_core.checks.recheck import checks_of, context_of

    context = context_of(seeded.document)
    checks = checks_of(context)
    with_catalogue(context, checks)
    begun = time.process_time()
    with_catalogue(context, checks)
    assert time.process_time() - begun < 0.1
