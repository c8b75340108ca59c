"""Load combinations, directions together, and names of parameters in tables, edition by edition."""

from __future__ import annotations

from typing import Any

import pytest
from plumb_core.editions import EDITIONS
from plumb_core.intake.reading import read_table
from plumb_core.intake.sheets import read_text
from plumb_core.solve import solve

US_SITE = {"S_S": 1.5, "S_1": 0.6, "T_L": 6.0, "site_class": "C"}


def system(edition: str, site: dict[str, Any], occupancy: dict[str, Any], **own: Any) -> dict[str, Any]:
    return dict(
        solve({"kind": "system", "edition": edition, "site": site, "occupancy": occupancy, "system": {"X": own}})["X"]
    )


@pytest.mark.parametrize(
    ("edition", "site", "S_DS", "snow", "names"),
    [
        # F_a of class C at S_S = 1.5: 1.0 in 7-05 and 7-10, 1.2 in 7-16
        ("asce7-05", US_SITE, 1.0, 0.2, ["12.4.2.3-5", "12.4.2.3-7"]),
        ("asce7-10", US_SITE, 1.0, 0.2, ["2.3.2-5", "2.3.2-7"]),
        ("asce7-16", US_SITE, 1.2, 0.2, ["2.3.6-6", "2.3.6-7"]),
        (
            "asce7-22",
            {"S_MS": 1.5, "S_M1": 0.8, "S_1": 0.5, "T_L": 6.0, "site_class": "C"},
            1.0,
            0.15,
            ["2.3.6-6", "2.3.6-7"],
        ),
    ],
)
def test_combinations_of_asce_7(edition: str, site: dict[str, Any], S_DS: float, snow: float, names: list[str]) -> None:
    stories = {"stories": [{"name": "L1", "height": 4.0}]}
    request = {
        "kind": "system",
        "edition": edition,
        "site": site,
        "occupancy": {"risk_category": "II"},
        "system": {"X": {"lateral_system": "C_steel_SMF", "period_type": "steel_mrf", "rho": 1.3}},
    } | stories
    found = solve(request)["X"]["load_combinations"]
    assert [c["name"] for c in found[:2]] == names
    # 1.2 D + 0.2 S_DS D + 1.3 Q_E + L + snow; 0.9 D - 0.2 S_DS D + 1.3 Q_E; with overstrength 3.0 instead of 1.3
    assert found[0]["factors"] == pytest.approx({"D": 1.2 + 0.2 * S_DS, "L": 1.0, "S": snow, "Q_E": 1.3})
    assert found[1]["factors"] == pytest.approx({"D": 0.9 - 0.2 * S_DS, "Q_E": 1.3})
    assert [c["factors"]["Q_E"] for c in found[2:]] == [3.0, 3.0]


def test_vertical_action_falls_away_at_low_hazard_where_that_is_declared() -> None:
    # S_DS = 2/3 x 1.2 x 0.15 = 0.12 <= 0.125 in 7-10, class C, S_1 = 0.06 x 1.7 x 2/3 = 0.068: category B
    low = {"S_S": 0.15, "S_1": 0.06, "T_L": 6.0, "site_class": "C"}
    own = {"R": 3.0, "period_type": "other"}

    def D(**site: Any) -> float:
        found = system("asce7-10", low | site, {"risk_category": "II"}, **own)["load_combinations"]
        return float(found[0]["factors"]["D"])

    assert D() == pytest.approx(1.2 + 0.2 * 0.12)
    assert D(low_vertical_effect=True) == 1.2
    # just above: 2/3 x 1.2 x 0.16 = 0.128
    assert D(S_S=0.16, low_vertical_effect=True) == pytest.approx(1.2 + 0.2 * 0.128)


@pytest.mark.parametrize("edition", ["asce7-05", "asce7-10", "asce7-16"])
def test_category_a_has_neither_vertical_action_nor_overstrength(edition: str) -> None:
    low = {"S_S": 0.1, "S_1": 0.03, "T_L": 6.0, "site_class": "B"}
    found = system(edition, low, {"risk_category": "II"}, lateral_system="C_steel_OMF", period_type="steel_mrf")
    assert [c["factors"] for c in found["load_combinations"]] == [
        {"D": 1.2, "L": 1.0, "S": 0.2, "Q_E": 1.0},
        {"D": 0.9, "Q_E": 1.0},
    ]


def test_redundancy_that_is_not_stated_is_that_of_the_category() -> None:
    high = solve(
        {
            "kind": "system",
            "edition": "asce7-16",
            "site": US_SITE,
            "occupancy": {"risk_category": "II"},
            "stories": [{"name": "L1", "height": 4.0}],
            "system": {"X": {"R": 6.0, "period_type": "other"}},
        }
    )
    assert high["X"]["load_combinations"][0]["factors"]["Q_E"] == 1.3


def test_combinations_need_no_period_type() -> None:
    found = system("asce7-16", US_SITE, {"risk_category": "II"}, R=6.0, Omega_0=2.5)
    assert found["load_combinations"][0]["factors"]["D"] == pytest.approx(1.2 + 0.2 * 1.2)


def test_what_a_combination_lacks_is_said() -> None:
    found = system(
        "ubc97", {"zone": "4", "soil": "S_D", "source_type": "B", "source_distance_km": 12.0}, {"I": 1.0}, R=8.5
    )
    assert found["load_combinations"] is None
    # a redundancy factor is not assumed as 1.0 in zones 3 and 4
    assert found["open"]["load_combinations"].startswith("r_max")
    low = system("ubc97", {"zone": "2B", "soil": "S_D"}, {"I": 1.0}, R=8.5)["load_combinations"]
    assert low[0]["factors"]["E_h"] == 1.0


def test_special_combinations_of_ubc() -> None:
    # 1612.4: E_m = Omega_0 E_h without rho and without vertical action
    found = system("ubc97", {"zone": "3", "soil": "S_D"}, {"I": 1.0}, lateral_system="SMRF_steel", rho=1.2)[
        "load_combinations"
    ]
    assert [c["factors"] for c in found[2:]] == [{"D": 1.2, "E_h": 2.8, "L": 0.5}, {"D": 0.9, "E_h": 2.8}]


def test_combinations_of_the_other_codes() -> None:
    ubc = system("ubc97", {"zone": "3", "soil": "S_D"}, {"I": 1.25}, R=5.5, rho=1.0)["load_combinations"]
    # E_v = 0.5 C_a I D = 0.5 x 0.36 x 1.25 = 0.225
    assert ubc[0]["factors"]["D"] == pytest.approx(1.425)
    assert ubc[1]["factors"] == pytest.approx({"D": 0.675, "E_h": 1.0})
    indian = system("is1893-2016", {"zone": "IV", "soil": "II"}, {"use": "other"}, R=5.0)["load_combinations"]
    assert [c["factors"] for c in indian] == [
        {"DL": 1.2, "IL": 1.2, "EL": 1.2},
        {"DL": 1.5, "EL": 1.5},
        {"DL": 0.9, "EL": 1.5},
    ]
    australian = system("as1170.4", {"Z": 0.1, "subsoil": "C_e"}, {"importance_level": 2}, mu=2.0, S_p=0.77)
    # psi_E of AS/NZS 1170.0: imposed loads, storage and other floors, roofs not used as floors
    assert [c["factors"]["Q"] for c in australian["load_combinations"]] == [0.3, 0.6, 0.0]
    # psi_2 of offices 0.3, of storage 0.8
    european = {k: v for c in system("en1998-1", {}, {}, q=3.0)["load_combinations"] for k, v in c["factors"].items()}
    assert (european["Q B"], european["Q E"], european["G"]) == (0.3, 0.8, 1.0)


@pytest.mark.parametrize(
    ("S_S", "words"), [(0.3, "each direction alone"), (0.5, "nonparallel"), (1.5, "20 % of their axial")]
)
def test_directions_together_by_category(S_S: float, words: str) -> None:
    # class B without velocity: S_DS = 2/3 S_S: 0.2 (B), 0.333 (C), 1.0 (D)
    site = {"S_S": S_S, "S_1": 0.05, "T_L": 6.0, "site_class": "B", "velocity_measured": False}
    assert words in " ".join(system("asce7-16", site, {"risk_category": "II"}, R=5.0)["direction_rule"])


# Names in tables of parameters


def read(edition: str, *rows: str) -> tuple[dict[str, Any], list[str]]:
    sheet = read_text("Item\tValue\tUnit\n" + "\n".join(rows) + "\n", "pasted")
    found = read_table(sheet, "parameters", edition=EDITIONS[edition])
    return {c.quantity: c.value for c in found.claims}, [p.message for p in found.problems]


@pytest.mark.parametrize(
    ("edition", "quantity"), [("asce7-16", "I_e"), ("ubc97", "I"), ("is1893-2016", "I"), ("en1998-1", "gamma_I")]
)
def test_the_importance_factor_is_that_of_the_edition(edition: str, quantity: str) -> None:
    assert read(edition, "Importance factor\t1.2\t") == ({quantity: 1.2}, [])


@pytest.mark.parametrize(
    ("edition", "row", "quantity", "value"),
    [
        ("ubc97", "Soil profile type\tSD\t", "soil", "S_D"),
        ("as1170.4", "Sub-soil class\tCe\t", "subsoil", "C_e"),
        ("en1998-1", "Ground type\tc\t", "ground_type", "C"),
        ("is1893-2002", "Soil type\tII\t", "soil", "II"),
        ("asce7-22", "Site class\tclass DE\t", "site_class", "DE"),
        ("ubc97", "Zone\t2B\t", "zone", "2B"),
    ],
)
def test_classes_are_read_as_the_edition_writes_them(edition: str, row: str, quantity: str, value: str) -> None:
    assert read(edition, row) == ({quantity: value}, [])


def test_a_class_of_another_edition_is_marked() -> None:
    claims, problems = read("ubc97", "Soil profile type\tBC\t")
    assert claims == {}
    assert problems == ["'BC' is not a valid soil profile type"]


def test_a_force_at_the_top_may_be_nothing_a_base_shear_may_not() -> None:
    assert read("ubc97", "F_t X\t0\tkN") == ({"F_t": 0.0}, [])
    assert read("ubc97", "V X\t0\tkN")[1]


def test_the_offset_goes_one_way_at_a_time_where_both_directions_act_at_once() -> None:
    """12.8.4.2 distinguishes it from category C on; in A and B each direction acts alone."""
    said = {
        s_s: " ".join(
            system("asce7-16", {"S_S": s_s, "S_1": s_s / 3, "site_class": "C"}, {"risk_category": "II"}, R=5.0)[
                "direction_rule"
            ]
        )
        for s_s in (0.3, 0.5, 1.5)
    }
    assert ["12.8.4.2" in words for words in said.values()] == [False, True, True]
