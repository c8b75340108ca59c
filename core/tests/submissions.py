"""A brief, and submissions to it, that several tests start from."""

from __future__ import annotations

from typing import Any

import numpy as np
from plumb_core.briefs import brief_evaluation
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read
from plumb_core.quantities import QUANTITIES, Kind, Scope
from plumb_core.rules import Key

EIGHT = [(4.8, 6100.0)] + [(3.9, 5600.0)] * 6 + [(3.9, 4200.0)]

BRIEF: dict[str, Any] = {
    "edition": "asce7-16",
    "site": {"S_S": 1.2, "S_1": 0.36, "T_L": 8.0, "site_class": "D"},
    "occupancy": {"risk_category": "III"},
    "system": {
        "X": {"period_type": "other", "R": 6.0, "Omega_0": 2.5, "C_d": 5.0},
        "Y": {"period_type": "rc_mrf", "R": 8.0, "Omega_0": 3.0, "C_d": 5.5},
    },
    "stories": [{"name": f"L{i + 1}", "height": h, "weight": w} for i, (h, w) in enumerate(EIGHT)],
    "period": {"X": {"analysis": 1.31}, "Y": {"analysis": 1.2}},
}


STATED = (
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
    "C_u",
    "T_a",
    "T_limit",
    "T_analysis",
    "T",
    "C_s",
    "V",
    "k",
    "W",
    "h_n",
    "h",
    "w",
    "F",
    "V_story",
    "M_story",
    "S_a",
)


def own_claims(brief: dict[str, Any], digits: int = 4, pins: dict[Key, Any] | None = None) -> list[dict[str, Any]]:
    """Claims of a submission that states our own results, rounded to a number of significant digits.

    pins : values that the submission has otherwise, with all that follows from them
    """
    read_brief = read(Brief, brief)
    points = [0.0, 0.1, 0.2, 0.5, 0.8, 1.0, 2.0, 4.0, 8.0, 10.0]
    evaluation = brief_evaluation(read_brief).assuming(inputs={Key("T_points"): np.array(points)}, pins=pins)
    claims: list[dict[str, Any]] = []
    for name in STATED:
        quantity = QUANTITIES[name]
        for direction in ("X", "Y") if quantity.scope is Scope.DIRECTION else (None,):
            value = evaluation.value(name, direction)
            values = list(enumerate(np.atleast_1d(value).tolist()))
            for index, single in values:
                claim: dict[str, Any] = {"quantity": name, "direction": direction}
                if quantity.kind is Kind.STORIES:
                    claim["story"] = brief["stories"][index]["name"]
                if quantity.kind is Kind.POINTS:
                    claim["point"] = index
                if isinstance(single, str):
                    claim |= {"value": single, "text": single}
                else:
                    text = f"{single:.{digits}g}"
                    claim |= {"value": float(text), "text": text}
                claims.append(claim)
    claims += [{"quantity": "T_points", "point": i, "value": t, "text": str(t)} for i, t in enumerate(points)]
    return claims


def document(brief: dict[str, Any], claims: list[dict[str, Any]]) -> dict[str, Any]:
    return {"format": "plumb-recheck", "version": 1, "brief": brief, "submission": {"label": "S0", "claims": claims}}
