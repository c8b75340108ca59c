"""Which mistake gives these numbers, and what if it were otherwise: on the sheet, on the bench, on every stage."""

from __future__ import annotations

import json
from urllib.parse import quote

import pytest
from driving import Browser
from selenium.webdriver.common.keys import Keys

CLINIC = "Port Maren Clinic"


@pytest.fixture(name="clinic")
def path_of_clinic(lead_browser: Browser) -> str:
    return lead_browser.review(CLINIC)


def test_a_cause_is_found_applied_and_filed(lead_browser: Browser) -> None:
    b = lead_browser
    granary = b.review("Aldermouth Granary Lofts")
    b.open(granary + "/sheet?check=C_v")
    b.wait_text(".cause-head", "deviating values")
    b.find(".cause-proposal").click()
    b.wait_text(".cause-applied", "site class used")
    # Esc brings the marks back
    b.keys(Keys.ESCAPE)
    b.wait_text(".cause-head", "deviating values")
    b.find(".cause-proposal").click()
    b.wait_text(".cause-applied", "Cause applied")
    b.keys("f")
    b.wait_text("body", "Filed as finding")
    b.open(granary + "/findings")
    b.wait_text("main", "site class used")


def test_the_list_of_causes_opens_each_on_the_bench(lead_browser: Browser, clinic: str) -> None:
    b = lead_browser
    b.open(clinic + "/sheet")
    b.find(".cause-head button").click()
    b.wait_text(".cause-list", "two digits exchanged: 2258 for 2528")
    b.click_on(".cause-list button", "2258")
    b.wait_text(".bench-title", "Base shear")


def test_an_input_is_otherwise_on_every_stage_until_it_is_discarded(lead_browser: Browser, clinic: str) -> None:
    b = lead_browser
    b.open(clinic + "/lateral")
    b.wait_text("h2", "Lateral")
    b.settle()
    b.keys("w")
    b.find(".what-if-form input:not([type=hidden])").send_keys("Site class")
    b.settle()
    b.click_on("[role=option]", "Site class")
    b.all(".what-if-form input:not([type=hidden])")[1].click()
    b.settle()
    b.click_on("[role=option]", "C")
    b.press("Show it")
    b.wait_text(".what-if-strip", "verdicts are other ones")
    b.wait_text(".what-if-strip", "Site class C")
    # it stays from stage to stage, and nothing is filed of it
    b.find(".review-nav a[href*=sheet]").click()
    b.wait_text(".what-if-strip", "Site class C")
    assert not b.all(".bench #remark")
    b.press("Discard")
    b.wait_text(".cause-head", "causes explain")
    assert not b.all(".what-if-strip")


def test_a_link_shows_the_same_and_adopting_changes_the_brief(lead_browser: Browser, clinic: str) -> None:
    b = lead_browser
    assumed = quote(json.dumps({"patch": {"site": {"S_1": 0.4}}}))
    b.open(f"{clinic}/ground?if={assumed}")
    b.wait_text(".what-if-strip", "0.4")
    b.wait_text(".what-if-strip", "verdict")
    b.press("Adopt")
    b.wait_text("body", "The brief is changed.")
    b.settle()
    b.open(clinic + "/brief")
    b.wait_text("body", "Undo")
    b.press("Undo")
    b.settle()


def test_what_cannot_be_is_said_at_its_place(lead_browser: Browser, clinic: str) -> None:
    b = lead_browser
    assumed = quote(json.dumps({"patch": {"site": {"site_class": "Q"}}}))
    b.open(f"{clinic}/sheet?if={assumed}")
    b.wait_text(".what-if-strip", "This cannot be assumed")
    # the browser notes the refusal
    b.problems()


def test_what_the_verdicts_rest_on_and_assumptions_side_by_side(lead_browser: Browser, clinic: str) -> None:
    b = lead_browser
    b.open(clinic + "/what-if")
    b.wait_text(".effects", "Site class")
    b.click_on(".effects button", "try")
    b.wait_text(".what-if-columns", "site class C")
    b.press("Put the present assumption beside")
    b.settle()
    assert len(b.all(".what-if-columns thead th")) >= 3
    assert not b.problems()
