"""Scaling, twist, drift and the roles of load cases, as a reviewer goes through them."""

from __future__ import annotations

import math
from pathlib import Path

from driving import Browser
from plumb_server.demo.people import LEAD, PASSWORD
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select
from test_across import pick


def test_scaling_shows_what_g_left_out_does(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Port Maren Clinic") + "/scaling")
    b.wait_text(".stage", "100 % of static, ours")
    # submitted factor on the spectrum taken apart: what is left is 1/9.81
    b.wait_text(".apart-box.out", "0.1020")
    # nothing is chosen, so the bench says what deviates here, the breaches first
    b.wait_text(".bench", "Out of plumb in this stage")
    marked = [row.text for row in b.all(".out-of-plumb tr")]
    assert marked[0].startswith("factor used")
    b.click_on(".out-of-plumb button", "factor on")
    b.wait_text(".bench-title", "Factor on the ordinates of the spectrum")


def test_twist_names_the_case_that_is_missing_and_draws_the_one_that_is_chosen(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Port Maren Clinic") + "/twist")
    b.wait_text(".matrix", "not submitted")
    assert len(b.all(".matrix-field.missing")) == 1
    # the case that turns the most is drawn first
    b.wait_text(".turning", "Static Y +e")
    b.click_on("button.matrix-field", "Static X +e")
    b.wait_text(".turning", "Static X +e")
    b.wait_text(".stage", "No story is torsionally irregular in any submitted case")
    # the reference model has answered: its ends are next to theirs
    b.find(".turning .ours")


def test_drift_tells_how_the_design_drift_comes_about(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Quillon Exchange") + "/drift?check=amplified_amplifier.Y")
    b.wait_text(".bench", "the drifts given as amplified are 1 times the reduced ones")
    # 1.0 per thousand of 5 m by q = 4: 5.0 mm become 20 mm
    b.wait_text(".chain", "20.00 mm")
    b.wait_text(".stage", "design drift")


def test_a_case_gets_another_role_and_what_changes_is_seen_at_once(lead_browser: Browser) -> None:
    b = lead_browser
    path = b.review("Quillon Exchange")
    b.open(path + "/exhibits")
    b.wait_text(".cases", "Static X +e")
    side = b.find("input[aria-label^='Side of the mass in Static X +e']")
    side.clear()
    side.send_keys("2" + Keys.ENTER)
    b.wait_text(".cases-flips", "Static X +e changed")
    b.wait_text(".cases-flips", "of the cases differs")
    # the field is another one as soon as the stored side is there
    b.settle()
    side = b.find("input[aria-label^='Side of the mass in Static X +e']")
    side.clear()
    side.send_keys("+5 %" + Keys.ENTER)
    b.wait_text(".cases-flips", "no verdict")
    kind = Select(b.find("select[aria-label='Kind of Static X +e']"))
    assert kind.first_selected_option.text == "static"


def shear_frame(k: float) -> dict[str, object]:
    """Three stories of one stiffness along each axis, in two lines each."""
    lines = [
        {"story": i, "at": at, "angle": angle, "stiffness": k / 2}
        for i in range(3)
        for at, angle in (([0.0, -8.0], 0.0), ([0.0, 8.0], 0.0), ([-12.0, 0.0], 90.0), ([12.0, 0.0], 90.0))
    ]
    return {"use": "lines", "lateral_lines": lines}


def test_a_time_history_of_theirs_stands_beside_ours_under_the_same_record(browser: Browser, tmp_path: Path) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    stories = [{"name": f"L{i}", "height": 3.5, "weight": 3600.0, "plan": [30.0, 20.0]} for i in (1, 2, 3)]
    system = {d: {"R": 5.0, "C_d": 5.0, "Omega_0": 3.0} for d in "XY"}
    place = {"site": {"S_S": 0.9, "S_1": 0.35, "site_class": "C"}, "occupancy": {"risk_category": "II"}}
    brief = {"edition": "asce7-16", "stories": stories, "system": system, **place}
    review = b.send("POST", "/api/reviews/", {"title": "Vessel Point Depot", "brief": brief})["id"]
    b.send("PUT", f"/api/reviews/{review}/model/", {"based_on": 0, "model": shear_frame(200_000.0)})
    cases = "Case\tKind\tDirection\tEccentricity\tLevel\nTH 1\ttime history\tX\t0\telastic\n"
    drifts = "Case\tDirection\tStory\tDrift at end 1 (mm)\tDrift at end 2 (mm)\n" + "".join(
        f"TH 1\tX\tL{i}\t9.0\t9.0\n" for i in (1, 2, 3)
    )
    for text in (cases, drifts):
        b.send("POST", f"/api/reviews/{review}/tables/", {"text": text})
    b.open(f"/reviews/{review}/drift")
    b.wait_text("section[aria-label='Time histories']", "none yet")
    # the file says nothing of its unit: it is required, and the same file is read again
    record = tmp_path / "vessel-point.txt"
    record.write_text("\n".join(f"{2.0 * math.sin(i / 4):.5f}" for i in range(600)))
    b.driver.find_element(By.CSS_SELECTOR, "section[aria-label='Time histories'] input[type=file]").send_keys(
        str(record)
    )
    b.wait_text("section[aria-label='Time histories'] .problem", "The unit of the accelerations is not stated")
    pick(b, "Unit of the accelerations", "m/s2")
    b.type_into("input[aria-label='Time step of the record']", "0.02\n")
    b.press("Read vessel-point.txt again")
    b.wait_text(".histories-said", "theirs 9")
    b.wait_text(".histories-said", "greatest ground acceleration 0.204 g")
    b.find("svg[aria-label^='Drift of L2 over']")
    # the bench says where the two part
    b.wait_text("section[aria-label='Time histories']", "greatest story drift at an end, L1 question")
    assert b.all("section[aria-label='Time histories'] path")
    b.wait_text("main", "vessel-point.txt")
