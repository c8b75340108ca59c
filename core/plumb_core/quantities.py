"""The vocabulary: every quantity once, with symbol, meaning, unit, scope and how it is compared.

`part` states where a quantity is in a request (`site`, `occupancy`, `system`, `period`, `stories`), so that a
problem with it can be pointed at; it is empty for quantities that only rules give.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum
from typing import Literal, get_args


class Scope(Enum):
    """Whose quantity it is."""

    BUILDING = "building"
    DIRECTION = "direction"
    CASE = "case"
    """of a load case, which may have a direction"""


class Kind(Enum):
    """What a value of the quantity looks like."""

    NUMBER = "number"
    TEXT = "text"
    FLAG = "flag"
    STORIES = "stories"
    """array of shape (n_stories,), bottom to top"""
    POINTS = "points"
    """array over the points of a table"""
    MODES = "modes"
    """array over modes; never pinned: modes are matched by shape"""
    SHAPES = "shapes"
    """array over modes and stories"""
    DATA = "data"
    """structured input or notes; never compared"""


Stage = Literal["brief", "ground", "spectrum", "weight", "modes", "lateral", "scaling", "twist", "drift"]

STAGES: tuple[Stage, ...] = get_args(Stage)
"""The stages of a recheck, in the order in which one leads to the next."""

InputPart = Literal[
    "",
    "site",
    "occupancy",
    "system",
    "period",
    "stories",
    "spectrum",
    "modes",
    "scaling",
    "twist",
    "drift",
    "separation",
    "lateral",
]


@dataclass(frozen=True, slots=True)
class Quantity:
    """One quantity of the vocabulary.

    Attributes
    ----------
    name : as rules and documents call it
    symbol, tex : the codes' symbol, as text and as TeX
    meaning : in words
    unit : the core's own unit, '' where it is dimensionless
    scope, kind, stage : whose it is, what it looks like, and where a reviewer looks at it
    part : where it is in a request, '' for what only rules give
    tolerance : relative
    unlimited : whether infinity is a value ("no limit")
    sized : whether a submission's value is compared by its size, whichever its sign (results signed against the axis)
    """

    name: str
    symbol: str
    tex: str
    meaning: str
    unit: str
    scope: Scope
    kind: Kind
    stage: Stage
    part: InputPart = ""
    tolerance: float = 0.01
    unlimited: bool = False
    sized: bool = False

    @property
    def checked(self) -> bool:
        """Whether a submission can hold a value of it that is checked."""
        return self.kind not in (Kind.FLAG, Kind.DATA)


_B, _D, _C = Scope.BUILDING, Scope.DIRECTION, Scope.CASE
_N, _T, _F, _S, _P, _X = Kind.NUMBER, Kind.TEXT, Kind.FLAG, Kind.STORIES, Kind.POINTS, Kind.DATA

# fmt: off
_ALL = (
    # Brief
    Quantity("risk_category", "risk category", r"\text{risk category}", "Risk category", "", _B, _T, "brief", "occupancy"),
    Quantity("I_e", "I_e", "I_e", "Importance factor", "", _B, _N, "brief", "occupancy", 0.001),
    Quantity("occupancy_category", "occupancy category", r"\text{occupancy category}", "Occupancy category of Table 16-K", "", _B, _T, "brief", "occupancy"),
    Quantity("use", "use", r"\text{use}", "Use of the building, as the importance table groups it", "", _B, _T, "brief", "occupancy"),
    Quantity("I", "I", "I", "Importance factor", "", _B, _N, "brief", "occupancy", 0.001),
    Quantity("importance_class", "importance class", r"\text{importance class}", "Importance class", "", _B, _T, "brief", "occupancy"),
    Quantity("gamma_I", "γ_I", r"\gamma_I", "Importance factor", "", _B, _N, "brief", "occupancy", 0.001),
    Quantity("importance_level", "importance level", r"\text{importance level}", "Importance level", "", _B, _N, "brief", "occupancy", 0.001),
    Quantity("lateral_system", "lateral system", r"\text{lateral system}", "Seismic force-resisting system, as the edition's table names it", "", _D, _T, "brief", "system"),
    Quantity("R", "R", "R", "Response modification factor", "", _D, _N, "brief", "system", 0.001),
    Quantity("Omega_0", "Ω_0", r"\Omega_0", "Overstrength factor", "", _D, _N, "brief", "system", 0.001),
    Quantity("C_d", "C_d", "C_d", "Deflection amplification factor", "", _D, _N, "brief", "system", 0.001),
    Quantity("rho", "ρ", r"\rho", "Redundancy factor", "", _D, _N, "brief", "system", 0.001),
    Quantity("ductility_class", "ductility class", r"\text{ductility class}", "Ductility class", "", _B, _T, "brief", "system"),
    Quantity("q_0", "q_0", "q_0", "Basic value of the behaviour factor", "", _D, _N, "brief", "system", 0.001),
    Quantity("alpha_u_1", "α_u/α_1", r"\alpha_u/\alpha_1", "Overstrength ratio of the behaviour factor", "", _D, _N, "brief", "system", 0.001),
    Quantity("alpha_0", "α_0", r"\alpha_0", "Prevailing aspect ratio of the walls", "", _D, _N, "brief", "system", 0.005),
    Quantity("k_w", "k_w", "k_w", "Factor for the prevailing failure mode of walls", "", _D, _N, "brief", "", 0.005),
    Quantity("q", "q", "q", "Behaviour factor", "", _D, _N, "brief", "system", 0.001),
    Quantity("mu", "μ", r"\mu", "Structural ductility factor", "", _D, _N, "brief", "system", 0.001),
    Quantity("S_p", "S_p", "S_p", "Structural performance factor", "", _D, _N, "brief", "system", 0.001),
    Quantity("system_permission", "permission", r"\text{permission}", "Whether the code permits the system here, and up to which height", "", _D, _T, "brief"),
    Quantity("height_limit", "h_max", r"h_{\max}", "Greatest height of the system", "m", _D, _N, "brief", "", 0.005, True),
    Quantity("stacked_systems", "systems above", r"\text{systems above}", "Other systems higher up in the same direction", "", _D, _X, "brief", "system"),
    Quantity("regular", "regular", r"\text{regular}", "Regular in plan and height", "", _D, _F, "brief", "system"),
    Quantity("regular_in_plan", "regular in plan", r"\text{regular in plan}", "Regular in plan", "", _B, _F, "brief", "system"),
    Quantity("regular_in_elevation", "regular in elevation", r"\text{regular in elevation}", "Regular in elevation", "", _B, _F, "brief", "system"),
    Quantity("symmetric_in_plan", "symmetric in plan", r"\text{symmetric in plan}", "Stiffness and mass approximately symmetric in plan about both axes", "", _B, _F, "brief", "system"),
    Quantity("light_frame", "light frame", r"\text{light frame}", "Light-frame construction", "", _B, _F, "brief", "system"),
    Quantity("isolated_or_damped", "isolated or damped", r"\text{isolated or damped}", "Seismically isolated, or with a damping system", "", _B, _F, "brief", "site"),
    Quantity("beside_systems", "systems beside", r"\text{systems beside}", "Other systems side by side in the same direction", "", _D, _X, "brief", "system"),
    Quantity("only_moment_frames", "moment frames only", r"\text{moment frames only}", "The lateral system is of moment frames only", "", _D, _F, "brief"),
    Quantity("redundancy", "redundancy", r"\text{redundancy}", "Redundancy of the direction as declared", "", _D, _X, "brief", "system"),
    Quantity("redundancy_checks", "redundancy checks", r"\text{redundancy checks}", "Conditions under which the redundancy factor is 1.0, one by one", "", _D, _X, "brief"),
    Quantity("element_shears", "element shears", r"\text{element shears}", "Greatest shares of single elements in the story shears", "", _D, _X, "brief", "system"),
    Quantity("r_max", "r_max", r"r_{\max}", "Greatest element-story shear ratio of the lower two thirds of the height", "", _D, _N, "brief", "system"),
    Quantity("R_table", "R table", r"R_\text{table}", "Response modification factor of the lateral system by itself", "", _D, _N, "brief", "", 0.001),
    Quantity("R_bearing", "R bearing", r"R_\text{bearing}", "Limit on R from a bearing wall system in one of the directions", "", _B, _N, "brief", "", 0.001, True),
    Quantity("irregularities", "irregularities declared", r"\text{irregularities declared}", "Types of irregularity that were assessed, and whether they exist", "", _B, _X, "brief", "system"),
    Quantity("corners", "corners", r"\text{corners}", "Outlines of the floors in plan", "m", _B, _X, "brief", "stories"),
    Quantity("horizontal_irregularities", "irregular in plan", r"\text{irregular in plan}", "Types of horizontal irregularity: present, none, or not tested", "", _B, _X, "brief"),
    Quantity("podium", "podium", r"\text{podium}", "A flexible upper part on a rigid lower part", "", _D, _X, "brief", "system"),
    Quantity("two_stage", "two-stage analysis", r"\text{two-stage analysis}", "Conditions of the two-stage analysis and the forces transferred from the upper part", "", _D, _X, "lateral"),
    Quantity("two_stage_used", "two-stage analysis used", r"\text{two-stage analysis used}", "The static forces are those of a two-stage analysis", "", _D, _F, "lateral", "lateral"),
    Quantity("floors_known", "plan stiffness", r"\text{plan stiffness}", "Eccentricity, torsional radius and radius of gyration of the floors", "m", _B, _X, "brief", "stories"),
    Quantity("setbacks", "setbacks", r"\text{setbacks}", "Plan dimensions of the floors and positions of the faces", "m", _B, _X, "brief", "stories"),
    Quantity("plan_regularity", "tests in plan", r"\text{tests in plan}", "Regularity in plan, test by test", "", _B, _X, "brief"),
    Quantity("elevation_regularity", "tests in elevation", r"\text{tests in elevation}", "Regularity in elevation, test by test", "", _B, _X, "brief"),
    Quantity("regularity_consequences", "what follows", r"\text{consequences}", "Model, analysis and behaviour factor for this regularity", "", _B, _X, "brief"),
    Quantity("torsionally_flexible", "torsionally flexible", r"\text{torsionally flexible}", "A torsional radius is below the radius of gyration of the floor mass", "", _B, _F, "brief", "system"),
    Quantity("irregular_types", "types of irregularity", r"\text{types of irregularity}", "Types of irregularity that exist, found or declared", "", _D, _X, "brief"),
    Quantity("regular_known", "regularity", r"\text{regularity}", "Regular, irregular, or not known", "", _D, _T, "brief"),
    Quantity("shared_columns", "shared columns", r"\text{shared columns}", "Columns or walls are part of two intersecting systems", "", _B, _F, "brief", "system"),
    Quantity("plane_share", "share in one plane", r"\text{share in one plane}", "Greatest share of the lateral force in one plane of braced frames or walls", "", _D, _N, "brief", "system"),
    Quantity("infills", "masonry infills", r"\text{masonry infills}", "Masonry infills: arrangement in plan and in height", "", _B, _X, "brief", "system"),
    Quantity("infill_effects", "effects of infills", r"\text{effects of infills}", "What follows from masonry infills", "", _D, _X, "brief"),
    Quantity("frame_share", "share of the frames", r"\text{share of the frames}", "Least share of the base shear that the moment frames resist", "", _D, _N, "brief", "system"),
    Quantity("axial_share", "axial share of columns", r"\text{axial share}", "Greatest axial load of a cantilever column over its axial strength", "", _D, _N, "brief", "system"),
    Quantity("wall_share", "share of the walls", r"\text{share of the walls}", "Share of the base shear that walls resist", "", _D, _N, "brief", "system"),
    Quantity("system_checks", "checks of the system", r"\text{checks of the system}", "Conditions of the lateral system, one by one", "", _D, _X, "brief"),
    Quantity("diaphragm_spans", "diaphragm spans", r"\text{diaphragm spans}", "Deflection of the diaphragm over the drift of the supporting elements, and span over depth", "", _B, _X, "brief", "system"),
    Quantity("diaphragm_class", "diaphragm", r"\text{diaphragm}", "Whether the diaphragms are flexible, rigid or neither", "", _D, _T, "brief"),
    # Ground
    Quantity("S_S", "S_S", "S_S", "Mapped MCE_R acceleration at short periods", "g", _B, _N, "ground", "site", 0.005),
    Quantity("S_1", "S_1", "S_1", "Mapped MCE_R acceleration at 1 s", "g", _B, _N, "ground", "site", 0.005),
    Quantity("T_L", "T_L", "T_L", "Long-period transition period", "s", _B, _N, "ground", "site", 0.005),
    Quantity("site_class", "site class", r"\text{site class}", "Site class", "", _B, _T, "ground", "site"),
    Quantity("class_by_default", "class by default", r"\text{class by default}", "Site class taken by default, soil not known", "", _B, _F, "ground", "site"),
    Quantity("site_class_used", "site class used", r"\text{site class used}", "Site class that the coefficients are read for", "", _B, _T, "ground"),
    Quantity("rock", "rock", r"\text{rock}", "The profile is rock, with at most 3 m of soil or weathered rock on it", "", _B, _F, "ground", "site"),
    Quantity("very_soft_thickness", "very soft soil", r"\text{very soft soil}", "Thickness of soil with s_u < 12.5 kPa, N < 6 or velocity up to 150 m/s", "m", _B, _N, "ground", "site"),
    Quantity("velocity_measured", "velocity measured", r"\text{velocity measured}", "Shear wave velocity measured at the site", "", _B, _F, "ground", "site"),
    Quantity("v_s30", "v_s30", r"v_{s,30}", "Average shear wave velocity of the top 30 m", "m/s", _B, _N, "ground", "site"),
    Quantity("N_SPT", "N_SPT", r"N_\text{SPT}", "Average standard penetration resistance of the top 30 m", "", _B, _N, "ground", "site"),
    Quantity("s_u", "s_u", "s_u", "Average undrained shear strength of the top 30 m", "kPa", _B, _N, "ground", "site"),
    Quantity("site_period", "T_site", r"T_\text{site}", "Low-amplitude natural period of the site", "s", _B, _N, "ground", "site"),
    Quantity("soil_by_measurement", "soil by measurement", r"\text{soil by measurement}", "Class of the soil from what was measured", "", _B, _T, "ground"),
    Quantity("F_a", "F_a", "F_a", "Short-period site coefficient", "", _B, _N, "ground", "site", 0.005),
    Quantity("F_v", "F_v", "F_v", "Long-period site coefficient", "", _B, _N, "ground", "site", 0.005),
    Quantity("mce", "S_aM", r"S_{aM}", "Multi-period MCE_R response spectrum", "g", _B, _X, "ground", "site"),
    Quantity("S_MS", "S_MS", "S_{MS}", "Site-adjusted MCE_R acceleration at short periods", "g", _B, _N, "ground", "site"),
    Quantity("S_M1", "S_M1", "S_{M1}", "Site-adjusted MCE_R acceleration at 1 s", "g", _B, _N, "ground", "site"),
    Quantity("S_DS", "S_DS", "S_{DS}", "Design acceleration at short periods", "g", _B, _N, "ground"),
    Quantity("S_D1", "S_D1", "S_{D1}", "Design acceleration at 1 s", "g", _B, _N, "ground"),
    Quantity("site_specific", "site-specific values", r"\text{site-specific values}", "Design spectrum or design values of a site-specific study", "g", _B, _X, "ground", "site"),
    Quantity("S_DS_general", "S_DS general", r"S_{DS,\text{general}}", "Design acceleration at short periods of the general procedure, for the floor of a site-specific study", "g", _B, _N, "ground"),
    Quantity("S_D1_general", "S_D1 general", r"S_{D1,\text{general}}", "Design acceleration at 1 s of the general procedure, for the floor of a site-specific study", "g", _B, _N, "ground"),
    Quantity("site_specific_notes", "notes on the study", r"\text{notes on the study}", "Where the floor of the general spectrum governs a site-specific one", "", _B, _X, "ground"),
    Quantity("design_category", "SDC", r"\text{SDC}", "Seismic design category", "", _B, _T, "ground"),
    Quantity("diaphragms_rigid", "rigid diaphragms", r"\text{rigid diaphragms}", "Diaphragms rigid, or vertical elements at most 12.2 m apart", "", _B, _F, "ground", "site"),
    Quantity("site_specific_required", "site-specific study", r"\text{site-specific study}", "A ground motion hazard or site response analysis is required", "", _B, _F, "ground"),
    Quantity("zone", "zone", r"\text{zone}", "Seismic zone", "", _B, _T, "ground", "site"),
    Quantity("Z", "Z", "Z", "Zone or hazard factor", "", _B, _N, "ground", "site", 0.005),
    Quantity("soil", "soil", r"\text{soil}", "Soil profile type", "", _B, _T, "ground", "site"),
    Quantity("source_type", "source type", r"\text{source type}", "Seismic source type", "", _B, _T, "ground", "site"),
    Quantity("source_distance_km", "source distance", r"\text{source distance}", "Closest distance to the seismic source", "km", _B, _N, "ground", "site", 0.005),
    Quantity("N_a_limited", "N_a limited", r"N_a\text{ limited}", "The conditions under which N_a need not exceed 1.1 are met", "", _B, _F, "ground", "site"),
    Quantity("N_a", "N_a", "N_a", "Near-source factor for C_a", "", _B, _N, "ground", "", 0.005),
    Quantity("N_v", "N_v", "N_v", "Near-source factor for C_v", "", _B, _N, "ground", "", 0.005),
    Quantity("C_a", "C_a", "C_a", "Seismic coefficient of the constant-acceleration branch", "", _B, _N, "ground", "site", 0.005),
    Quantity("C_v", "C_v", "C_v", "Seismic coefficient of the constant-velocity branch", "", _B, _N, "ground", "site", 0.005),
    Quantity("a_gR", "a_gR", "a_{gR}", "Reference peak ground acceleration on type A ground", "g", _B, _N, "ground", "site", 0.005),
    Quantity("a_g", "a_g", "a_g", "Design ground acceleration on type A ground", "g", _B, _N, "ground"),
    Quantity("ground_type", "ground type", r"\text{ground type}", "Ground type", "", _B, _T, "ground", "site"),
    Quantity("spectrum_type", "spectrum type", r"\text{spectrum type}", "Type of elastic response spectrum", "", _B, _N, "ground", "site", 0.001),
    Quantity("S", "S", "S", "Soil factor", "", _B, _N, "ground", "site", 0.005),
    Quantity("T_B", "T_B", "T_B", "Start of the constant-acceleration branch", "s", _B, _N, "spectrum", "site", 0.005),
    Quantity("T_C", "T_C", "T_C", "End of the constant-acceleration branch", "s", _B, _N, "spectrum", "site", 0.005),
    Quantity("T_D", "T_D", "T_D", "Start of the constant-displacement branch", "s", _B, _N, "spectrum", "site", 0.005),
    Quantity("beta", "β", r"\beta", "Lower bound factor of the design spectrum", "", _B, _N, "ground", "site", 0.005),
    Quantity("a_vg_ratio", "a_vg/a_g", "a_{vg}/a_g", "Vertical over horizontal design ground acceleration", "", _B, _N, "ground", "site", 0.005),
    Quantity("k_p", "k_p", "k_p", "Probability factor", "", _B, _N, "ground", "site", 0.005),
    Quantity("subsoil", "sub-soil class", r"\text{sub-soil class}", "Site sub-soil class", "", _B, _T, "ground", "site"),
    Quantity("kpZ", "k_p Z", "k_p Z", "Design hazard, not below its minimum", "g", _B, _N, "ground"),
    Quantity("seismicity", "seismicity", r"\text{seismicity}", "Low or very low seismicity", "", _B, _T, "ground"),
    Quantity("curve", "curve", r"\text{curve}", "Spectrum of the reviewer as points", "", _B, _X, "ground", "site"),
    Quantity("ground_notes", "notes", r"\text{notes}", "Notes on the ground motion", "", _B, _X, "ground"),
    # Spectrum
    Quantity("T_0", "T_0", "T_0", "Start of the constant-acceleration branch", "s", _B, _N, "spectrum"),
    Quantity("T_S", "T_S", "T_S", "End of the constant-acceleration branch", "s", _B, _N, "spectrum"),
    Quantity("T_points", "T_i", "T_i", "Periods of the spectrum table", "s", _B, _P, "spectrum", "spectrum"),
    Quantity("damping_required", "ξ required", r"\xi_\text{required}", "Damping ratio of the code for the structure", "", _D, _N, "spectrum", "", 0.001),
    Quantity("damping", "ξ", r"\xi", "Viscous damping ratio", "", _B, _N, "spectrum", "spectrum", 0.001),
    Quantity("eta", "η", r"\eta", "Damping correction factor", "", _B, _N, "spectrum", "", 0.005),
    Quantity("S_a", "S_a", "S_a", "Elastic design spectral acceleration", "g", _B, _P, "spectrum"),
    Quantity("S_a_damped", "S_a at ξ", r"S_a(\xi)", "Elastic design spectral acceleration at the damping given", "g", _B, _P, "spectrum"),
    Quantity("S_a_vertical", "S_av", "S_{av}", "Vertical design spectral acceleration", "g", _B, _P, "spectrum"),
    Quantity("S_a_vertical_reduced", "S_v reduced", r"S_{v,\text{reduced}}", "Vertical design ordinates with importance and reduction", "g", _D, _P, "spectrum", "spectrum"),
    Quantity("S_a_reduced", "S_a reduced", r"S_{a,\text{reduced}}", "Spectral ordinate for modal strength design", "g", _D, _P, "spectrum"),
    # Weight
    Quantity("h", "h", "h_{sx}", "Story height", "m", _B, _S, "weight", "stories", 0.005),
    Quantity("b", "b", "b", "Plan dimension perpendicular to the direction", "m", _D, _S, "weight", "stories", 0.005),
    Quantity("loads", "loads", r"\text{loads}", "Loads by story: kind, amount, intensity", "", _B, _X, "weight", "stories"),
    Quantity("w_shares", "shares", r"\text{shares}", "Share of each load in the seismic weight", "", _B, _X, "weight"),
    Quantity("w", "w", "w_x", "Seismic weight of the story", "kN", _B, _S, "weight", "stories"),
    Quantity("W", "W", "W", "Effective seismic weight", "kN", _B, _N, "weight"),
    Quantity("h_n", "h_n", "h_n", "Structural height", "m", _B, _N, "weight", "", 0.005),
    Quantity("h_x", "h_x", "h_x", "Height of the level above the base", "m", _B, _S, "weight", "", 0.005),
    Quantity("N", "N", "N", "Number of stories above the base", "", _B, _N, "weight", "", 0.001),
    # Modes
    Quantity("T_modes", "T_m", "T_m", "Periods of the modes", "s", _B, _P, "modes", "modes"),
    Quantity("mass_share", "m_m/m", "m_m/m", "Effective modal mass as a share of the mass", "", _D, _P, "modes", "modes"),
    Quantity("mass_target", "mass target", r"\text{mass target}", "Share of the mass that the modes have to reach", "", _B, _N, "modes", "", 0.001),
    Quantity("modes_enough", "modes enough", r"\text{modes enough}", "Enough modes by the code's target or its alternatives", "", _D, _F, "modes"),
    Quantity("modes_verdict", "verdict on modes", r"\text{verdict on modes}", "Which alternative of the target on modes is met, in words", "", _D, _X, "modes"),
    Quantity("mass_share_RZ", "J_m/J", "J_m/J", "Effective modal inertia about the vertical as a share", "", _B, _P, "modes", "modes"),
    Quantity("modal_tests", "tests of modes", r"\text{tests of modes}", "Requirements on the first modes, test by test", "", _B, _X, "modes"),
    Quantity("modal_combination", "modal combination", r"\text{modal combination}", "Combination of modes that the code requires", "", _B, _T, "modes"),
    Quantity("modal_rules", "modal rules", r"\text{modal rules}", "Requirements on the modal analysis, in words", "", _B, _X, "modes"),
    # Lateral
    Quantity("period_type", "period type", r"\text{period type}", "Structure type of the approximate period", "", _D, _T, "lateral", "system"),
    Quantity("T_a_formula", "formula of T_a", r"\text{formula of }T_a", "Equation used for the approximate period", "", _D, _T, "lateral", "system"),
    Quantity("static_method", "static method", r"\text{static method}", "Clause of the static method that is used", "", _B, _T, "lateral", "system"),
    Quantity("walls", "walls", r"\text{walls}", "Shear walls: web area A_i (m2) and length D_i (m)", "", _D, _X, "lateral", "system"),
    Quantity("A_B", "A_B", "A_B", "Area of the base", "m^2", _B, _N, "lateral", "system"),
    Quantity("d", "d", "d", "Base dimension along the direction", "m", _D, _N, "lateral", "system", 0.005),
    Quantity("d_gravity", "d_top", r"d_\text{top}", "Top displacement under the gravity loads applied horizontally", "m", _D, _N, "lateral", "system"),
    Quantity("C_t", "C_t", "C_t", "Coefficient of the approximate period (metres)", "", _D, _N, "lateral", "", 0.005),
    Quantity("x", "x", "x", "Exponent of the approximate period", "", _D, _N, "lateral", "", 0.005),
    Quantity("C_w", "C_w", "C_w", "Effective wall area coefficient", "", _D, _N, "lateral"),
    Quantity("A_c", "A_c", "A_c", "Effective area of the walls of the first story", "m^2", _D, _N, "lateral"),
    Quantity("T_a", "T_a", "T_a", "Approximate fundamental period", "s", _D, _N, "lateral"),
    Quantity("C_u", "C_u", "C_u", "Coefficient for the upper limit on the period", "", _B, _N, "lateral", "", 0.005),
    Quantity("T_limit", "T_max", r"T_{\max}", "Upper limit on the period for strength", "s", _D, _N, "lateral", "", 0.01, True),
    Quantity("T_analysis", "T_analysis", r"T_\text{analysis}", "Fundamental period from analysis", "s", _D, _N, "lateral", "period"),
    Quantity("T", "T", "T", "Period used for the base shear", "s", _D, _N, "lateral"),
    Quantity("S_a_T", "S_a(T)", "S_a(T)", "Spectral ordinate of the static method at the period used", "", _D, _N, "lateral"),
    Quantity("lambda_", "λ", r"\lambda", "Effective mass factor of the base shear", "", _D, _N, "lateral", "", 0.001),
    Quantity("S_DS_static", "S_DS for C_s", "S_{DS}", "Design acceleration used for C_s", "g", _D, _N, "lateral"),
    Quantity("C_s_plateau", "C_s base", r"C_{s,\text{base}}", "Base coefficient", "", _D, _N, "lateral"),
    Quantity("C_s_upper", "C_s max", r"C_{s,\max}", "Upper bound of the coefficient", "", _D, _N, "lateral"),
    Quantity("C_s_lower", "C_s min", r"C_{s,\min}", "Lower bound of the coefficient", "", _D, _N, "lateral"),
    Quantity("C_s", "C_s", "C_s", "Seismic response coefficient", "", _D, _N, "lateral"),
    Quantity("coefficient", "V/W", "V/W", "Lateral force as a share of the weight", "", _D, _N, "lateral"),
    Quantity("V", "V", "V", "Base shear", "kN", _D, _N, "lateral"),
    Quantity("k", "k", "k", "Exponent of the vertical distribution", "", _D, _N, "lateral"),
    Quantity("F_t", "F_t", "F_t", "Part of the base shear at the top", "kN", _D, _N, "lateral"),
    Quantity("F", "F_x", "F_x", "Lateral force at the level", "kN", _D, _S, "lateral", sized=True),
    Quantity("V_story", "V_x", "V_x", "Story shear", "kN", _D, _S, "lateral", sized=True),
    Quantity("M_story", "M_x", "M_x", "Overturning moment at the bottom of the story", "kN*m", _D, _S, "lateral", sized=True),
    Quantity("eccentricity", "e_a/b", "e_a/b", "Accidental eccentricity as a share of the plan dimension", "", _B, _N, "twist", "", 0.001),
    Quantity("eccentricity_factor", "factor on e_s", r"e_d/e_s", "Factor on the static eccentricity in the design eccentricity", "", _B, _N, "lateral", "", 0.001),
    Quantity("torsion_applies", "accidental torsion applies", r"\text{accidental torsion applies}", "Whether accidental torsion is required: diaphragms are not flexible", "", _D, _F, "lateral"),
    Quantity("M_ta", "M_ta", "M_{ta}", "Accidental torsion moment at the level", "kN*m", _D, _S, "lateral"),
    Quantity("torsion_effects", "δ", r"\delta", "Factor on the effects of an element at distance x from the centre, for plane models", "", _D, _X, "lateral"),
    Quantity("F_px", "F_px", "F_{px}", "Design force of the diaphragm", "kN", _D, _S, "lateral"),
    Quantity("static_permitted", "static method permitted", r"\text{static method permitted}", "Whether the static method is permitted", "", _D, _T, "lateral"),
    Quantity("not_used", "not used", r"\text{not used}", "Values of the static method that are not used here", "", _B, _X, "lateral"),
    Quantity("static_notes", "notes", r"\text{notes}", "Notes on the static method", "", _D, _X, "lateral"),
    Quantity("direction_rule", "directions together", r"\text{directions together}", "How the two directions act together", "", _B, _X, "lateral"),
    Quantity("directions_together", "both directions", r"\text{both directions}", "Why the two directions act together; empty where they do not", "", _B, _X, "lateral"),
    Quantity("load_combinations", "load combinations", r"\text{load combinations}", "Load combinations with the seismic action", "", _D, _X, "lateral"),
    Quantity("story_stiffness", "K_x", "K_x", "Lateral stiffness of the story", "kN/m", _D, _S, "lateral", "stories"),
    Quantity("story_strength", "R_x", "R_x", "Lateral strength of the story", "kN", _D, _S, "lateral", "stories"),
    Quantity("lateral_width", "L_x", "L_x", "Horizontal dimension of the lateral system at the story", "m", _D, _S, "lateral", "stories"),
    Quantity("vertical_irregularities", "irregular in height", r"\text{irregular in height}", "Irregularities in height from the story tables", "", _D, _X, "lateral"),
    Quantity("vertical_consequences", "what follows", r"\text{consequences}", "What follows from the irregularities in height", "", _D, _X, "lateral"),
    # Scaling
    Quantity("V_static", "V static", r"V_\text{static}", "Static base shear that the dynamic one is scaled to", "kN", _D, _N, "scaling", "scaling"),
    Quantity("V_dynamic", "V dynamic", r"V_\text{dynamic}", "Base shear of the modal analysis before scaling", "kN", _D, _N, "scaling", "scaling", 0.03),
    Quantity("factor_used", "factor used", r"f_\text{used}", "Scale factor that was applied", "", _D, _N, "scaling", "scaling", 0.001),
    Quantity("static_governed_by", "C_s governed by", r"C_s\text{ governed by}", "Equation that governed the static coefficient", "", _D, _T, "scaling", "scaling"),
    Quantity("site_spectrum", "site-specific spectrum", r"\text{site-specific spectrum}", "The modal analysis used a site-specific spectrum", "", _B, _F, "scaling", "scaling"),
    Quantity("scaling_share", "scaling share", r"V_\text{dyn}/V_\text{static}", "Share of the static base shear that the dynamic one must reach", "", _D, _N, "scaling", "", 0.001),
    Quantity("factor_required", "factor required", r"f_\text{required}", "Scale factor that the code requires", "", _D, _N, "scaling"),
    Quantity("scaled", "what is scaled", r"\text{scaled}", "Responses that the factor applies to", "", _D, _X, "scaling"),
    Quantity("V_scaled", "V scaled", r"V_\text{scaled}", "Base shear of the modal analysis after scaling", "kN", _D, _N, "scaling"),
    Quantity("spectrum_factor", "factor on S_a", r"f_{S_a}", "Factor on the ordinates of the spectrum in the modal analysis", "g", _D, _N, "scaling"),
    Quantity("S_a_m", "S_a elastic(T_m)", r"S_{a,\text{elastic}}(T_m)", "Elastic ordinates at the periods of the submitted modes", "g", _B, _P, "scaling"),
    Quantity("S_a_m_damped", "S_a(T_m) at ξ", r"S_a(T_m, \xi)", "Elastic ordinates at the periods of the submitted modes and the damping given", "g", _B, _P, "scaling"),
    Quantity("curve_off", "their curve over ours", r"f_\text{curve}", "Ratio of the submitted to our spectrum at the periods of the submitted modes, and of the factors on it", "", _D, _P, "scaling", "scaling"),
    Quantity("displacement_far", "δ_max,x", r"\delta_{\max,x}", "Greatest displacement of the level at an end, of the case that governs", "m", _D, _S, "twist", "twist"),
    Quantity("displacement_mean", "δ_avg,x", r"\delta_{\text{avg},x}", "Average displacement of the two ends of the level, of the case that governs", "m", _D, _S, "twist", "twist"),
    Quantity("S_a_modes", "S_a(T_m)", r"S_a(T_m)", "Reduced ordinates at the periods of the submitted modes", "g", _D, _P, "scaling", "scaling"),
    Quantity("combined_by", "modes combined by", r"\text{modes combined by}", "Combination of modes that was used", "", _B, _T, "scaling", "scaling"),
    Quantity("directions_by", "directions combined by", r"\text{directions combined by}", "Combination of directions that was used", "", _B, _T, "lateral"),
    Quantity("modes_count", "number of modes", r"n_\text{modes}", "Number of modes requested", "", _B, _N, "modes", "", 0.001),
    Quantity("damping_modes", "ξ of the modes", r"\xi_\text{modes}", "Damping ratio of the modal combination", "", _B, _N, "spectrum", "", 0.001),
    # results of load cases
    Quantity("reaction_X", "R_X", "R_X", "Base reaction along X", "kN", _C, _N, "lateral", "", 0.01, False, True),
    Quantity("reaction_Y", "R_Y", "R_Y", "Base reaction along Y", "kN", _C, _N, "lateral", "", 0.01, False, True),
    Quantity("reaction_Z", "R_Z", "R_Z", "Vertical base reaction", "kN", _C, _N, "lateral", "", 0.01, False, True),
    Quantity("reaction_MX", "M_X", "M_X", "Moment at the base about X", "kN*m", _C, _N, "lateral", "", 0.01, False, True),
    Quantity("reaction_MY", "M_Y", "M_Y", "Moment at the base about Y", "kN*m", _C, _N, "lateral", "", 0.01, False, True),
    Quantity("reaction_MZ", "M_Z", "M_Z", "Moment at the base about Z", "kN*m", _C, _N, "lateral", "", 0.01, False, True),
    Quantity("combination_terms", "terms", r"\text{terms}", "Terms of a load combination", "", _C, _T, "lateral"),
    Quantity("log_line", "line of the log", r"\text{line}", "Line of the run log", "", _B, _T, "brief"),
    # weight make-up: a load stands instead of a case
    Quantity("load_kind", "kind of load", r"\text{kind}", "Kind of the load", "", _C, _T, "weight"),
    Quantity("load_amount", "load", "Q", "Amount of the load at the story", "kN", _C, _S, "weight"),
    Quantity("load_share", "share", r"\text{share}", "Share of the load in the seismic weight", "", _C, _S, "weight", "", 0.005),
    Quantity("load_intensity", "intensity", r"\text{intensity}", "Intensity of the load", "kPa", _C, _S, "weight"),
    Quantity("load_area", "A", "A", "Area under the load", "m^2", _C, _S, "weight"),
    Quantity("load_category", "category of use", r"\text{category}", "Category of use of the load", "", _C, _T, "weight"),
    Quantity("load_occupancy", "occupancy of the story", r"\text{occupancy}", "How the occupancy of stories is correlated", "", _C, _T, "weight"),
    # What is declared of the analysis
    Quantity("live_share", "live load share", r"\text{live load share}", "Share of the live load in the seismic weight", "", _B, _N, "weight", "", 0.005),
    Quantity("diaphragms", "diaphragms", r"\text{diaphragms}", "Diaphragms of the analysis", "", _B, _T, "brief"),
    Quantity("base_level", "base level", r"\text{base level}", "Level of the base of the analysis", "", _B, _T, "weight"),
    Quantity("edition_stated", "edition", r"\text{edition}", "Edition stated in the submission", "", _B, _T, "brief"),
    Quantity("tension_only", "tension-only members", r"\text{tension-only members}", "How the analysis treats tension-only members", "", _B, _T, "brief"),
    Quantity("second_order_stated", "second order effects", r"\text{second order effects}", "Whether second order effects are in the analysis", "", _B, _T, "drift"),
    Quantity("torsion_stated", "torsional irregularity", r"\text{torsional irregularity}", "Torsional irregularity as it is stated", "", _D, _T, "twist"),
    Quantity("theta_greatest", "θ greatest", r"\theta_\text{greatest}", "Greatest stability coefficient of the direction", "", _D, _N, "drift", "", 0.02),
    Quantity("x_m", "x_m", "x_m", "Centre of mass of the floor", "m", _D, _S, "weight", "", 0.005),
    Quantity("J_m", "J_m", "J_m", "Mass moment of inertia of the floor about the vertical", "t*m^2", _B, _S, "weight", "", 0.02),
    # Modes of a submission, beside those of the reference model
    Quantity("m", "m", "m_x", "Mass of the floor in the analysis", "t", _B, _S, "weight", "", 0.02),
    Quantity("T_mode", "T_n", "T_n", "Period of the mode", "s", _B, Kind.MODES, "modes", "", 0.05),
    Quantity("f_mode", "f_n", "f_n", "Frequency of the mode", "Hz", _B, Kind.MODES, "modes", "", 0.05),
    Quantity("mass_ratio", "M*/M", r"M^*_n/M", "Effective modal mass as a share of the mass", "", _D, Kind.MODES, "modes", "", 0.05),
    Quantity("mass_ratio_RZ", "J*/J", r"J^*_n/J", "Effective modal inertia about the vertical as a share", "", _B, Kind.MODES, "modes", "", 0.05),
    Quantity("mass_running", "ΣM*/M", r"\sum M^*/M", "Running sum of the effective modal masses", "", _D, Kind.MODES, "modes", "", 0.01),
    Quantity("mass_sum", "Σ m_m/m", r"\sum m_m/m", "Sum of the effective modal masses", "", _D, _N, "modes"),
    Quantity("mass_running_RZ", "ΣJ*/J", r"\sum J^*/J", "Running sum of the effective modal inertias", "", _B, Kind.MODES, "modes", "", 0.01),
    Quantity("mode_u", "φ", r"\varphi", "Movement of the floor in the mode", "m", _D, Kind.SHAPES, "modes"),
    Quantity("mode_rz", "φ_RZ", r"\varphi_{RZ}", "Rotation of the floor in the mode", "rad", _B, Kind.SHAPES, "modes"),
    # Twist
    Quantity("drift_max", "Δ_max", r"\Delta_{\max}", "Greatest story drift at an end", "m", _C, _S, "twist", "twist", sized=True),
    Quantity("drift_avg", "Δ_avg", r"\Delta_\text{avg}", "Average of the story drifts at the two ends", "m", _C, _S, "twist", "twist", sized=True),
    Quantity("displacement_max", "δ_max", r"\delta_{\max}", "Greatest displacement of the level at an end", "m", _C, _S, "twist", "twist", sized=True),
    Quantity("displacement_avg", "δ_avg", r"\delta_\text{avg}", "Average displacement of the two ends of the level", "m", _C, _S, "twist", "twist", sized=True),
    Quantity("drift_end_1", "Δ_1", r"\Delta_1", "Story drift at the first end", "m", _C, _S, "twist"),
    Quantity("drift_end_2", "Δ_2", r"\Delta_2", "Story drift at the second end", "m", _C, _S, "twist"),
    Quantity("displacement_end_1", "δ_1", r"\delta_1", "Displacement of the level at the first end", "m", _C, _S, "twist"),
    Quantity("displacement_end_2", "δ_2", r"\delta_2", "Displacement of the level at the second end", "m", _C, _S, "twist"),
    Quantity("displacement_centre", "δ_m", r"\delta_m", "Displacement of the level at the centre of mass", "m", _C, _S, "drift", "", 0.01, False, True),
    Quantity("torsion_irregular", "irregular anywhere", r"\text{irregular anywhere}", "Whether a story of the building is torsionally irregular", "", _B, _F, "twist", "twist"),
    Quantity("torsion_both", "torsional about both axes", r"\text{torsional about both axes}", "Torsional irregularity in both directions", "", _B, _F, "twist", "twist"),
    Quantity("torsion_ratio", "torsion ratio", r"\Delta_{\max}/\Delta_\text{avg}", "Torsion ratio of the edition", "", _C, _S, "twist", "", 0.01, True),
    Quantity("torsion_class", "torsion class", r"\text{torsion class}", "Torsional irregularity of each story", "", _C, _X, "twist"),
    Quantity("A_x_case", "A_x case", r"A_{x,\text{case}}", "Torsional amplification factor of the case", "", _C, _S, "twist"),
    Quantity("A_x", "A_x", "A_x", "Torsional amplification factor, the greatest of the cases of the direction", "", _D, _S, "twist"),
    Quantity("torsion_consequences", "consequences", r"\text{consequences}", "What follows from a torsional irregularity, story by story", "", _C, _X, "twist"),
    # Drift
    Quantity("structure_type", "structure type", r"\text{structure type}", "Structure for the drift limit", "", _B, _T, "drift", "drift"),
    Quantity("delta_e", "δ_e", r"\delta_{e}", "Elastic story drift under the design forces", "m", _D, _S, "drift", "drift", sized=True),
    Quantity("gravity", "vertical load", r"G_x", "Vertical load at the floor for second order effects", "kN", _B, _S, "drift", "stories"),
    Quantity("P", "P_x", "P_x", "Vertical load at and above the story", "kN", _D, _S, "drift", "drift"),
    Quantity("V_drift", "V_x drift", r"V_{x,\Delta}", "Story shear that belongs to the drifts", "kN", _D, _S, "drift", "drift"),
    Quantity("shear_ratio", "β shear", r"\beta_V", "Shear demand over capacity of the story", "", _D, _N, "drift", "drift"),
    Quantity("deformation_factor", "factor on deformations", r"\delta/\delta_e\text{ of deformations}", "Factor on displacements for separation and deformation compatibility", "", _D, _N, "drift", "", 0.001),
    Quantity("drift_at", "drift taken at", r"\text{drift taken at}", "Where the story drift is taken that is compared with its limit: centre or edges", "", _B, _T, "drift", "drift"),
    Quantity("drift_verdict", "drift within its limit", r"\text{drift within its limit}", "Whether the design drift of each story is within its limit", "", _D, _X, "drift"),
    Quantity("theta_verdict", "θ within its limit", r"\theta\text{ within its limit}", "Whether the stability coefficient of each story is within its limit", "", _D, _X, "drift"),
    Quantity("T_for_drift", "T for drift", r"T_{\Delta,V}", "Period of the base shear for drift", "s", _D, _N, "drift"),
    Quantity("C_s_plateau_drift", "C_s base for drift", r"C_{s,\text{base},\Delta}", "Base coefficient for drift", "", _D, _N, "drift"),
    Quantity("C_s_upper_drift", "C_s max for drift", r"C_{s,\max,\Delta}", "Upper bound of the coefficient for drift", "", _D, _N, "drift", "", 0.01, True),
    Quantity("C_s_drift", "C_s for drift", r"C_{s,\Delta}", "Seismic response coefficient for drift", "", _D, _N, "drift"),
    Quantity("V_base_drift", "V for drift", r"V_\Delta", "Base shear for drift", "kN", _D, _N, "drift"),
    Quantity("factor_drift", "factor on drifts", r"f_\Delta", "Scale factor that modal drifts require", "", _D, _N, "drift"),
    Quantity("levels", "action levels", r"\text{action levels}", "Action levels that are declared: spectrum, drift limit and load cases", "", _B, _X, "drift", "drift"),
    Quantity("T_level", "T level", r"T_\text{level}", "Period at which spectra of action levels are compared", "s", _D, _X, "drift"),
    Quantity("S_a_level", "S_a level", r"S_{a,\text{level}}", "Elastic ordinate of the design action at that period", "g", _D, _X, "drift"),
    Quantity("level_factors", "factors of action levels", r"f_\text{level}", "Factor of each action level on the design action", "", _D, _X, "drift"),
    Quantity("level_results", "drifts of action levels", r"\Delta_\text{level}", "Story drifts of the load cases of each action level", "m", _D, _X, "drift", "drift"),
    Quantity("level_drifts", "Δ/h of action levels", r"(\Delta/h)_\text{level}", "Story drifts of each action level over the story height, and their limits", "", _D, _X, "drift"),
    Quantity("roof_drift_verdict", "roof drift within its limit", r"\text{roof drift within its limit}", "Whether the displacement of the roof is within its limit", "", _D, _X, "drift"),
    Quantity("roof_drift_ratio", "Δ roof/h_n", r"\Delta_\text{roof}/h_n", "Displacement of the roof over the height", "", _D, _N, "drift"),
    Quantity("T_drift", "T drift", r"T_\Delta", "Period that the drift limit depends on", "s", _D, _N, "drift", "drift"),
    Quantity("amplifier", "drift amplifier", r"\delta/\delta_e", "Design drift over elastic drift", "", _D, _N, "drift", "", 0.001),
    Quantity("nu", "ν", r"\nu", "Reduction factor for the damage limitation action", "", _B, _N, "drift", "site", 0.001),
    Quantity("Delta", "Δ", r"\Delta", "Design story drift", "m", _D, _S, "drift"),
    Quantity("drift_ratio", "Δ/h", r"\Delta/h", "Design story drift over the story height, as the limit is worded", "", _D, _S, "drift"),
    Quantity("drift_limit", "Δ_a/h", r"\Delta_a/h", "Limit of the story drift over the story height", "", _D, _N, "drift", "", 0.001, True),
    Quantity("delta_e_mean", "δ_e mean", r"\delta_{e,\text{mean}}", "Elastic story drift at the mean of the ends under the static forces", "m", _D, _S, "drift", "drift", sized=True),
    Quantity("Delta_mean", "Δ mean", r"\Delta_\text{mean}", "Design story drift at the mean of the ends under the static forces", "m", _D, _S, "drift"),
    Quantity("theta", "θ", r"\theta", "Stability coefficient", "", _D, _S, "drift"),
    Quantity("theta_limit", "θ_max", r"\theta_{\max}", "Greatest stability coefficient", "", _D, _N, "drift", "", 0.005),
    Quantity("theta_exempt", "θ exempt", r"\theta\text{ exempt}", "Stories at which second order effects may be neglected", "", _D, _X, "drift"),
    Quantity("theta_amplification", "1/(1-θ)", r"\frac{1}{1-\theta}", "Amplification for second order effects; null where no factor will do", "", _D, _X, "drift"),
    Quantity("p_delta_included", "P-Delta in the model", r"P\text{-}\Delta\text{ in the model}", "Second order effects are included in the analysis of the drifts", "", _B, _F, "drift", "drift"),
    Quantity("theta_checked", "θ checked", r"\theta_\text{checked}", "Stability coefficient compared with its limit", "", _D, _S, "drift"),
    Quantity("second_order", "second order", r"\text{second order}", "Requirements at the stability coefficient of the story", "", _D, _X, "drift"),
    Quantity("drift_second_order", "Δ/h with P-Δ", r"\Delta/h\text{ with }P\Delta", "Design story drift over the story height, with its second order amplification", "", _D, _X, "drift"),
    Quantity("offset_stories", "stories with offsets", r"\text{stories with offsets}", "Stories with an offset of the lateral system, in or out of its plane", "", _B, _X, "drift", "stories"),
    Quantity("drift_limits", "limits by story", r"\text{limits by story}", "Limit of the drift of each story over its height", "", _D, _X, "drift"),
    Quantity("roof_drift_limit", "roof drift limit", r"\Delta_\text{roof}/h_n", "Limit of the roof's displacement over the height", "", _D, _N, "drift", "", 0.001, True),
    Quantity("delta_own", "δ own", r"\delta_1", "Elastic displacement of the building at the level", "m", _D, _N, "drift", "separation"),
    Quantity("delta_other", "δ other", r"\delta_2", "Design displacement of the other building at the level", "m", _D, _N, "drift", "separation"),
    Quantity("same_property", "same property", r"\text{same property}", "Both buildings are on the same property", "", _B, _F, "drift", "separation"),
    Quantity("floors_level", "floors level", r"\text{floors level}", "The floors of both buildings are at the same level", "", _B, _F, "drift", "separation"),
    Quantity("walls_to_base", "walls to the base", r"\text{walls to the base}", "The primary elements are structural walls that go down to the base", "", _B, _F, "drift", "separation"),
    Quantity("separation", "separation", r"\text{separation}", "Least distance to the other building or to the boundary", "m", _D, _N, "drift"),
    Quantity("drift_notes", "notes", r"\text{notes}", "Notes on drift and second order effects", "", _D, _X, "drift"),
    # the reviewer's own limits and factors (custom)
    Quantity("own", "own factors", r"\text{own factors}", "Factors and limits set by the reviewer", "", _B, _X, "brief", "site"),
)
# fmt: on

QUANTITIES: dict[str, Quantity] = {q.name: q for q in _ALL}

GEOMETRY = (
    "A_B",
    "walls",
    "d",
    "d_gravity",
    "v_s30",
    "N_SPT",
    "s_u",
    "site_period",
    "rock",
    "very_soft_thickness",
    "regular",
    "regular_in_plan",
    "regular_in_elevation",
    "torsionally_flexible",
    "symmetric_in_plan",
    "irregularities",
    "shared_columns",
    "plane_share",
    "frame_share",
    "wall_share",
    "axial_share",
    "infills",
    "diaphragm_spans",
)
"""Inputs of site and system that are the same under every edition."""
