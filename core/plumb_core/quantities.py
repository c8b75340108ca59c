"""The vocabulary: every quantity once, with symbol, meaning, unit, scope and how it is compared.

`part` tells where a quantity stands in a request (`site`, `occupancy`, `system`, `period`, `stories`), so that a
problem with it can be pointed at; it is empty for quantities that only rules give.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum
from typing import Literal


class Scope(Enum):
    """Whose quantity it is."""

    BUILDING = "building"
    DIRECTION = "direction"


class Kind(Enum):
    """What a value of the quantity looks like."""

    NUMBER = "number"
    TEXT = "text"
    FLAG = "flag"
    STORIES = "stories"
    """array of shape (n_stories,), bottom to top"""
    POINTS = "points"
    """array over the points of a table"""
    DATA = "data"
    """structured input or notes; never compared"""


Stage = Literal["brief", "ground", "spectrum", "weight", "lateral"]
Part = Literal["", "site", "occupancy", "system", "period", "stories", "spectrum"]


@dataclass(frozen=True, slots=True)
class Quantity:
    """One quantity of the vocabulary.

    tolerance is relative; `unit` is the core's own unit ('' for dimensionless).
    """

    name: str
    symbol: str
    tex: str
    meaning: str
    unit: str
    scope: Scope
    kind: Kind
    stage: Stage
    part: Part = ""
    tolerance: float = 0.01

    @property
    def compared(self) -> bool:
        """Whether a submission can hold a value of it that is checked."""
        return self.kind not in (Kind.FLAG, Kind.DATA)


_B, _D = Scope.BUILDING, Scope.DIRECTION
_N, _T, _F, _S, _P, _X = Kind.NUMBER, Kind.TEXT, Kind.FLAG, Kind.STORIES, Kind.POINTS, Kind.DATA

_ALL = (
    # Brief
    Quantity(
        "risk_category", "risk category", r"\text{risk category}", "Risk category", "", _B, _T, "brief", "occupancy"
    ),
    Quantity("I_e", "I_e", "I_e", "Importance factor", "", _B, _N, "brief", "occupancy", 0.001),
    Quantity("R", "R", "R", "Response modification coefficient", "", _D, _N, "brief", "system", 0.001),
    Quantity("Omega_0", "Ω_0", r"\Omega_0", "Overstrength factor", "", _D, _N, "brief", "system", 0.001),
    Quantity("C_d", "C_d", "C_d", "Deflection amplification factor", "", _D, _N, "brief", "system", 0.001),
    Quantity("rho", "ρ", r"\rho", "Redundancy factor", "", _D, _N, "brief", "system", 0.001),
    Quantity(
        "regular", "regular", r"\text{regular}", "No irregularity in plan or height", "", _D, _F, "brief", "system"
    ),
    Quantity(
        "light_frame", "light frame", r"\text{light frame}", "Light-frame construction", "", _B, _F, "brief", "system"
    ),
    Quantity(
        "isolated_or_damped",
        "isolated or damped",
        r"\text{isolated or damped}",
        "Seismically isolated, or with a damping system",
        "",
        _B,
        _F,
        "brief",
        "site",
    ),
    # Ground
    Quantity("S_S", "S_S", "S_S", "Mapped MCE_R acceleration at short periods", "g", _B, _N, "ground", "site", 0.005),
    Quantity("S_1", "S_1", "S_1", "Mapped MCE_R acceleration at 1 s", "g", _B, _N, "ground", "site", 0.005),
    Quantity("T_L", "T_L", "T_L", "Long-period transition period", "s", _B, _N, "ground", "site", 0.005),
    Quantity("site_class", "site class", r"\text{site class}", "Site class", "", _B, _T, "ground", "site"),
    Quantity(
        "class_by_default",
        "class by default",
        r"\text{class by default}",
        "Site class taken by default, soil not known",
        "",
        _B,
        _F,
        "ground",
        "site",
    ),
    Quantity(
        "velocity_measured",
        "velocity measured",
        r"\text{velocity measured}",
        "Shear wave velocity measured at the site",
        "",
        _B,
        _F,
        "ground",
        "site",
    ),
    Quantity("F_a", "F_a", "F_a", "Short-period site coefficient", "", _B, _N, "ground", "site", 0.005),
    Quantity("F_v", "F_v", "F_v", "Long-period site coefficient", "", _B, _N, "ground", "site", 0.005),
    Quantity("S_MS", "S_MS", "S_{MS}", "Site-adjusted MCE_R acceleration at short periods", "g", _B, _N, "ground"),
    Quantity("S_M1", "S_M1", "S_{M1}", "Site-adjusted MCE_R acceleration at 1 s", "g", _B, _N, "ground"),
    Quantity("S_DS", "S_DS", "S_{DS}", "Design acceleration at short periods", "g", _B, _N, "ground"),
    Quantity("S_D1", "S_D1", "S_{D1}", "Design acceleration at 1 s", "g", _B, _N, "ground"),
    Quantity("design_category", "SDC", r"\text{SDC}", "Seismic design category", "", _B, _T, "ground"),
    Quantity(
        "diaphragms_rigid",
        "rigid diaphragms",
        r"\text{rigid diaphragms}",
        "Diaphragms rigid, or vertical elements at most 12.2 m apart",
        "",
        _B,
        _F,
        "ground",
        "site",
    ),
    Quantity(
        "site_specific_required",
        "site-specific study",
        r"\text{site-specific study}",
        "A ground motion hazard or site response analysis is asked for",
        "",
        _B,
        _F,
        "ground",
    ),
    Quantity("ground_notes", "notes", r"\text{notes}", "Notes on the ground motion", "", _B, _X, "ground"),
    # Spectrum
    Quantity("T_0", "T_0", "T_0", "Start of the constant-acceleration branch", "s", _B, _N, "spectrum"),
    Quantity("T_S", "T_S", "T_S", "End of the constant-acceleration branch", "s", _B, _N, "spectrum"),
    Quantity("T_points", "T_i", "T_i", "Periods of the spectrum table", "s", _B, _P, "spectrum", "spectrum"),
    Quantity("S_a", "S_a", "S_a", "Design spectral acceleration", "g", _B, _P, "spectrum"),
    Quantity(
        "S_a_reduced",
        "S_a/(R/I_e)",
        r"\frac{S_a}{R/I_e}",
        "Spectral ordinate divided by R/I_e",
        "g",
        _D,
        _P,
        "spectrum",
    ),
    # Weight
    Quantity("h", "h", "h_{sx}", "Story height", "m", _B, _S, "weight", "stories", 0.005),
    Quantity("w", "w", "w_x", "Seismic weight of the story", "kN", _B, _S, "weight", "stories"),
    Quantity("W", "W", "W", "Effective seismic weight", "kN", _B, _N, "weight"),
    Quantity("h_n", "h_n", "h_n", "Structural height", "m", _B, _N, "weight", "", 0.005),
    Quantity("h_x", "h_x", "h_x", "Height of the level above the base", "m", _B, _S, "weight", "", 0.005),
    Quantity("N", "N", "N", "Number of stories above the base", "", _B, _N, "weight", "", 0.001),
    # Lateral
    Quantity(
        "period_type",
        "period type",
        r"\text{period type}",
        "Structure type of the approximate period",
        "",
        _D,
        _T,
        "lateral",
        "system",
    ),
    Quantity(
        "T_a_formula",
        "formula of T_a",
        r"\text{formula of }T_a",
        "Equation used for the approximate period",
        "",
        _D,
        _T,
        "lateral",
        "system",
    ),
    Quantity(
        "walls",
        "walls",
        r"\text{walls}",
        "Shear walls: web area A_i (m2) and length D_i (m)",
        "",
        _D,
        _X,
        "lateral",
        "system",
    ),
    Quantity("A_B", "A_B", "A_B", "Area of the base", "m^2", _B, _N, "lateral", "system"),
    Quantity("C_t", "C_t", "C_t", "Coefficient of the approximate period (metres)", "", _D, _N, "lateral", "", 0.005),
    Quantity("x", "x", "x", "Exponent of the approximate period", "", _D, _N, "lateral", "", 0.005),
    Quantity("C_w", "C_w", "C_w", "Effective wall area coefficient", "", _D, _N, "lateral"),
    Quantity("T_a", "T_a", "T_a", "Approximate fundamental period", "s", _D, _N, "lateral"),
    Quantity("C_u", "C_u", "C_u", "Coefficient for the upper limit on the period", "", _B, _N, "lateral", "", 0.005),
    Quantity("T_limit", "C_u T_a", "C_u T_a", "Upper limit on the period for strength", "s", _D, _N, "lateral"),
    Quantity(
        "T_analysis",
        "T_analysis",
        r"T_\text{analysis}",
        "Fundamental period from analysis",
        "s",
        _D,
        _N,
        "lateral",
        "period",
    ),
    Quantity("T", "T", "T", "Period used for the base shear", "s", _D, _N, "lateral"),
    Quantity("S_DS_static", "S_DS (12.8.1.3)", "S_{DS}", "Design acceleration used for C_s", "g", _D, _N, "lateral"),
    Quantity("C_s_plateau", "C_s (12.8-2)", r"C_{s,\text{12.8-2}}", "Base coefficient", "", _D, _N, "lateral"),
    Quantity("C_s_upper", "C_s max", r"C_{s,\max}", "Upper bound of the coefficient", "", _D, _N, "lateral"),
    Quantity("C_s_lower", "C_s min", r"C_{s,\min}", "Lower bound of the coefficient", "", _D, _N, "lateral"),
    Quantity("C_s", "C_s", "C_s", "Seismic response coefficient", "", _D, _N, "lateral"),
    Quantity("coefficient", "V/W", "V/W", "Lateral force as a share of the weight", "", _D, _N, "lateral"),
    Quantity("V", "V", "V", "Base shear", "kN", _D, _N, "lateral"),
    Quantity("k", "k", "k", "Exponent of the vertical distribution", "", _D, _N, "lateral"),
    Quantity("F", "F_x", "F_x", "Lateral force at the level", "kN", _D, _S, "lateral"),
    Quantity("V_story", "V_x", "V_x", "Story shear", "kN", _D, _S, "lateral"),
    Quantity("M_story", "M_x", "M_x", "Overturning moment at the bottom of the story", "kN*m", _D, _S, "lateral"),
    Quantity("static_notes", "notes", r"\text{notes}", "Notes on the static method", "", _D, _X, "lateral"),
)

QUANTITIES: dict[str, Quantity] = {q.name: q for q in _ALL}
