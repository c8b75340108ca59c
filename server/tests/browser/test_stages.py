"""Scaling, twist, drift and the roles of load cases, as a reviewer goes through them."""

from __future__ import annotations

from driving import Browser
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select


def test_scaling_shows_what_g_left_out_does(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Port Maren Clinic") + "/scaling")
    b.wait_text(".stage", "100 % of static, ours")
    # their factor on the spectrum taken apart: what is left is 1/9.81
    b.wait_text(".apart-box.out", "0.1020")
    # nothing is chosen, so the bench says what deviates here, the breaches first
    b.wait_text(".bench", "Out of plumb in this stage")
    marked = [row.text for row in b.all(".out-of-plumb tr")]
    assert marked[0].startswith("factor used")
    next(button for button in b.all(".out-of-plumb button") if button.text.startswith("factor on")).click()
    b.wait_text(".bench-title", "Factor on the ordinates of the spectrum")


def test_twist_names_the_case_that_is_missing_and_draws_the_one_that_is_chosen(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Port Maren Clinic") + "/twist")
    b.wait_text(".matrix", "not handed in")
    assert len(b.all(".matrix-field.missing")) == 1
    # the case that turns the most is drawn first
    b.wait_text(".turning", "Static Y +e")
    next(f for f in b.all("button.matrix-field") if "Static X +e" in f.text).click()
    b.wait_text(".turning", "Static X +e")
    b.wait_text(".stage", "No story is torsionally irregular in any case that is handed in")
    # our own model has answered: its ends stand beside theirs
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
    side = b.find("input[aria-label^='Side of the mass in Static X +e']")
    side.clear()
    side.send_keys("+5 %" + Keys.ENTER)
    b.wait_text(".cases-flips", "no verdict")
    kind = Select(b.find("select[aria-label='Kind of Static X +e']"))
    assert kind.first_selected_option.text == "static"
