"""Ground motion values of ASCE/SEI 7-16, sections 11.4 and 11.6."""

from __future__ import annotations

from collections.abc import Sequence

from plumb_core import DIRECTIONS
from plumb_core.editions import shared
from plumb_core.editions.asce7_16 import tables
from plumb_core.errors import RuleRefused
from plumb_core.limits import below, reaches, within
from plumb_core.rules import Rule, rule

SITE_RESPONSE = "Give F_a and F_v from the site response analysis (21.1), or correct the site class."


@rule(clause="Table 1.5-2", tex=r"\q{I_e} = \text{Table 1.5-2}(\q{risk_category})")
def I_e(risk_category: str) -> float:
    """Importance factor by risk category."""
    return tables.TABLE_1_5_2[risk_category]


@rule(clause="11.4.3", tex=r"\q{site_class_used} = \q{site_class}\text{, by default D unless E or F}")
def site_class_used(site_class: str, class_by_default: bool = False) -> str:
    """Site class that the coefficients are read for.

    Where the soil is not known class D, unless class E or F soils are there.
    """
    return "D" if class_by_default and site_class in ("A", "B", "C") else site_class


@rule(
    clause="Table 11.4-1, 11.4.3, 11.4.4",
    tex=r"\q{F_a} = \text{Table 11.4-1}(\q{site_class_used},\ \q{S_S})",
)
def F_a(
    S_S: float,
    site_class_used: str,
    class_by_default: bool = False,
    velocity_measured: bool = True,
    isolated_or_damped: bool = False,
) -> float:
    """Short-period site coefficient.

    Class D by default: not below 1.2 (11.4.4).  Class B without measured velocity: 1.0 (11.4.3).  Class E with
    S_S >= 1.0: the value of class C (11.4.8, exception 1, not for isolated or damped structures).
    """
    if site_class_used == "F":
        raise RuleRefused("site_class", "Table 11.4-1 has no F_a for site class F", SITE_RESPONSE)
    if site_class_used == "B" and not velocity_measured:
        return 1.0
    if site_class_used == "E" and reaches(S_S, 1.0) and isolated_or_damped:
        raise RuleRefused(
            "site_class",
            (
                "Table 11.4-1 has no F_a for site class E with S_S >= 1.0, and exception 1 of 11.4.8 is not for "
                "isolated or damped structures"
            ),
            "Give the design values of a ground motion hazard analysis (21.2).",
        )
    value = tables.interpolated(tables.F_A, site_class_used, S_S)
    return max(value, 1.2) if class_by_default and site_class_used == "D" else value


@rule(
    clause="Table 11.4-2, 11.4.3",
    tex=r"\q{F_v} = \text{Table 11.4-2}(\q{site_class_used},\ \q{S_1})",
)
def F_v(S_1: float, site_class_used: str, velocity_measured: bool = True) -> float:
    """Long-period site coefficient, with the numbers that Supplement 1 gives class E.

    Class B without measured velocity: 1.0 (11.4.3).
    """
    if site_class_used == "F":
        raise RuleRefused("site_class", "Table 11.4-2 has no F_v for site class F", SITE_RESPONSE)
    if site_class_used == "B" and not velocity_measured:
        return 1.0
    return tables.interpolated(tables.F_V, site_class_used, S_1)


@rule(clause="Table 11.4-2 (first printing)", tex=F_v.tex, defines="F_v")
def F_v_as_printed(S_1: float, site_class_used: str, velocity_measured: bool = True) -> float:
    """Long-period site coefficient as first printed: class E has a number only for S_1 <= 0.1."""
    if site_class_used == "E" and not within(S_1, 0.1):
        raise RuleRefused(
            "site_class",
            "the first printing of Table 11.4-2 has no F_v for site class E with S_1 above 0.1",
            "Declare Supplement 1, or give F_v from a ground motion hazard analysis (11.4.8).",
        )
    return float(F_v.function(S_1, site_class_used, velocity_measured))


@rule(clause="11.4.4, Eq. 11.4-1", tex=r"\q{S_MS} = \q{F_a}\,\q{S_S}")
def S_MS(F_a: float, S_S: float) -> float:
    """Site-adjusted MCE_R acceleration at short periods, g."""
    return F_a * S_S


def exception_2(site_class: str, S_1: float, isolated_or_damped: bool) -> bool:
    """Whether exception 2 of 11.4.8 replaces the hazard analysis."""
    return site_class == "D" and reaches(S_1, 0.2) and not isolated_or_damped


@rule(
    clause="11.4.4, Eq. 11.4-2, with 11.4.8 exception 2 of Supplement 3",
    tex=r"\q{S_M1} = \q{F_v}\,\q{S_1}\;(\times\,1.5\text{ for class D with }S_1 \ge 0.2)",
)
def S_M1(F_v: float, S_1: float, site_class_used: str, isolated_or_damped: bool = False) -> float:
    """Site-adjusted MCE_R acceleration at 1 s, g; 50 % more for class D with S_1 >= 0.2 (Supplement 3)."""
    return F_v * S_1 * (1.5 if exception_2(site_class_used, S_1, isolated_or_damped) else 1.0)


@rule(clause="11.4.4, Eq. 11.4-2", tex=r"\q{S_M1} = \q{F_v}\,\q{S_1}", defines="S_M1")
def S_M1_as_printed(F_v: float, S_1: float) -> float:
    """Site-adjusted MCE_R acceleration at 1 s, g, before Supplement 3."""
    return F_v * S_1


@rule(clause="11.4.5, Eq. 11.4-3", tex=r"\q{S_DS} = \tfrac{2}{3}\,\q{S_MS}")
def S_DS(S_MS: float) -> float:
    """Design acceleration at short periods, g."""
    return 2.0 / 3.0 * S_MS


@rule(clause="11.4.5, Eq. 11.4-4", tex=r"\q{S_D1} = \tfrac{2}{3}\,\q{S_M1}")
def S_D1(S_M1: float) -> float:
    """Design acceleration at 1 s, g."""
    return 2.0 / 3.0 * S_M1


def _near_fault(risk_category: str) -> str:
    return "F" if risk_category == "IV" else "E"


@rule(
    clause="11.6, Tables 11.6-1 and 11.6-2",
    tex=r"\q{design_category} = \max\left(\text{Table 11.6-1}(\q{S_DS}),\ \text{Table 11.6-2}(\q{S_D1})\right)",
)
def design_category(S_DS: float, S_D1: float, S_1: float, risk_category: str) -> str:
    """Seismic design category A to F: the graver of the two tables, E or F for S_1 >= 0.75."""
    if reaches(S_1, 0.75):
        return _near_fault(risk_category)
    return max(
        tables.category(tables.CATEGORY_BY_S_DS, S_DS, risk_category),
        tables.category(tables.CATEGORY_BY_S_D1, S_D1, risk_category),
    )


@rule(clause="11.4.2, as declared; 11.6", tex=design_category.tex, defines="design_category")
def design_category_A_by_map(S_DS: float, S_D1: float, S_1: float, risk_category: str, S_S: float | None = None) -> str:
    """Category A where S_1 <= 0.04 and S_S <= 0.15, as 11.4.2 permits and the brief declares, else by the tables."""
    if S_S is not None and within(S_1, 0.04) and within(S_S, 0.15):
        return "A"
    return str(design_category.function(S_DS, S_D1, S_1, risk_category))


@rule(
    clause="11.6, Table 11.6-1 alone",
    tex=r"\q{design_category} = \text{Table 11.6-1}(\q{S_DS})",
    defines="design_category",
)
def design_category_by_S_DS_alone(
    S_DS: float,
    S_D1: float,
    S_1: float,
    risk_category: str,
    T_S: float,
    I_e: float,
    T_a: dict[str, float] | None = None,
    T: dict[str, float] | None = None,
    R: dict[str, float] | None = None,
    diaphragms_rigid: bool = False,
) -> str:
    """Seismic design category from Table 11.6-1 alone where the four conditions of 11.6 hold, else from both tables.

    The period for drift (condition 2) is the period used, which is not below it where the analysis period governs.
    What
    is not known of both directions is not met.
    """
    ways = [(T_a[d], T[d], R[d]) for d in DIRECTIONS if T_a and T and R and d in T_a and d in T and d in R]
    shown = len(ways) == len(DIRECTIONS) and diaphragms_rigid and below(S_1, 0.75)
    if shown and all(
        below(approximate, 0.8 * T_S) and below(used, T_S) and _on_plateau(S_DS, S_D1, S_1, used, factor, I_e)
        for approximate, used, factor in ways
    ):
        return tables.category(tables.CATEGORY_BY_S_DS, S_DS, risk_category)
    return str(design_category.function(S_DS, S_D1, S_1, risk_category))


def _on_plateau(S_DS: float, S_D1: float, S_1: float, T: float, R: float, I_e: float) -> bool:
    """Whether C_s is that of the plateau: neither its upper nor its lower bounds govern."""
    least = max(0.044 * S_DS * I_e, 0.01, 0.0 if below(S_1, 0.6) else 0.5 * S_1 * I_e / R)
    return reaches(S_D1 / T, S_DS) and reaches(S_DS * I_e / R, least)


def _triggers(
    site_class: str, S_S: float, S_1: float, isolated_or_damped: bool, given: Sequence[str] = ()
) -> list[str]:
    """The items of 11.4.8 that require a site-specific study.

    given : of F_a and F_v those that are declared as values of such a study; no exception is used for them
    """
    triggers = []
    if site_class == "F":
        triggers.append("site class F: site response analysis (21.1) is required by 11.4.8")
    if isolated_or_damped and reaches(S_1, 0.6):
        triggers.append("isolated or damped structure with S_1 >= 0.6: hazard analysis (21.2) is required by 11.4.8")
    unless = "its exceptions are not for isolated or damped structures" if isolated_or_damped else "unless {}"
    if site_class == "E" and reaches(S_S, 1.0):
        exception = "exception 1 (F_a of class C), which these values use"
        of_study = "the declared F_a has to be its result; exception 1 is not used"
        words = of_study if "F_a" in given and not isolated_or_damped else unless.format(exception)
        triggers.append(f"site class E with S_S >= 1.0: hazard analysis by 11.4.8, {words}")
    if site_class == "D" and reaches(S_1, 0.2):
        exception = "exception 2, which these values use as the declared supplements word it"
        of_study = "the declared F_v has to be its result; exception 2 is not used"
        words = of_study if "F_v" in given and not isolated_or_damped else unless.format(exception)
        triggers.append(f"site class D with S_1 >= 0.2: hazard analysis by 11.4.8, {words}")
    if site_class == "E" and reaches(S_1, 0.2):
        exception = "exception 3 (T <= T_S and the static method)"
        triggers.append(f"site class E with S_1 >= 0.2: hazard analysis by 11.4.8, {unless.format(exception)}")
    return triggers


@rule(clause="11.4.8")
def site_specific_required(site_class_used: str, S_S: float, S_1: float, isolated_or_damped: bool = False) -> bool:
    """Whether an item of 11.4.8 requires a site-specific study (an exception may be in for it; see the notes)."""
    return bool(_triggers(site_class_used, S_S, S_1, isolated_or_damped))


def by_default(site_class: str, site_class_used: str, class_by_default: bool, clause: str) -> list[str]:
    """What a class by default means here."""
    if site_class != site_class_used:
        return [
            f"site class {site_class} by default: {clause} gives class D where the soil is not known, and D is taken"
        ]
    if class_by_default and site_class in ("E", "F"):
        return [
            (
                f"site class {site_class} by default: {clause} gives class D unless class E or F soils are "
                f"present; {site_class} is taken"
            )
        ]
    return []


def ground_notes_by(given: Sequence[str] = ()) -> Rule:
    """Rule for the notes on the ground motion.

    given : of F_a and F_v those that are declared as values of a study
    """

    @rule(clause="11.4.3, 11.4.4, 11.4.8")
    def ground_notes(
        site_class: str,
        site_class_used: str,
        S_S: float,
        S_1: float,
        class_by_default: bool = False,
        velocity_measured: bool = True,
        isolated_or_damped: bool = False,
        site_specific_notes: list[str] | None = None,
    ) -> list[str]:
        """What a reviewer should know about the ground motion values."""
        notes = [*(site_specific_notes or _triggers(site_class_used, S_S, S_1, isolated_or_damped, given))]
        notes += by_default(site_class, site_class_used, class_by_default, "11.4.3")
        if class_by_default and site_class_used == "D":
            notes.append("site class D by default: F_a not below 1.2 (11.4.4)")
        if site_class_used == "B" and not velocity_measured:
            notes.append("class B without measured velocity: F_a = F_v = 1.0 (11.4.3)")
        if reaches(S_1, 0.75):
            notes.append("S_1 >= 0.75: design category E or F (11.6)")
        return notes

    return ground_notes


ground_notes = ground_notes_by()


@rule(clause="11.4.8", defines="site_specific_notes")
def no_study() -> list[str]:
    """Nothing to note: the brief declares no study."""
    return []


VELOCITY = (("A", 1500.0), ("B", 760.0), ("C", 370.0), ("D", 180.0))
"""Table 20.3-1: lower bounds of the shear wave velocity, m/s."""
BLOWS = (("C", 50.0), ("D", 15.0))
STRENGTH = (("C", 100.0), ("D", 50.0))


@rule(clause="20.3.3, Table 20.3-1", tex=r"\q{soil_by_measurement} = \text{Table 20.3-1}")
def soil_by_measurement(v_s30: float | None = None, N_SPT: float | None = None, s_u: float | None = None) -> str:
    """Site class A to E from v_s30 (m/s), else the softer of those by blow count and undrained strength (kPa).

    Class F is found by its soils.
    """
    return shared.measured(VELOCITY, BLOWS, STRENGTH, "E", v_s30, N_SPT, s_u, softer_holds=True)


RULES = (
    I_e,
    soil_by_measurement,
    site_class_used,
    F_a,
    F_v,
    S_MS,
    S_M1,
    S_DS,
    S_D1,
    design_category,
    site_specific_required,
    no_study,
    ground_notes,
)
