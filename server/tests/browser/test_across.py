"""Editions side by side, hazard by coordinates and the weight make-up, as a reviewer uses them."""

from __future__ import annotations

from typing import Any

from driving import Browser
from plumb_server.demo.people import LEAD, PASSWORD
from selenium.webdriver.common.keys import Keys


def pick(b: Browser, label: str, text: str) -> None:
    """Pick an option of a select that cannot be searched."""
    b.find(f"input[aria-label='{label}']").click()
    b.settle()
    b.click_on("[role=option]", text)
    b.settle()


def test_the_same_building_under_three_editions(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Quillon Exchange") + "/across")
    b.wait_text(".across-table", "Base shear, kN")
    assert [t.strip() for t in b.texts(".across-table thead th")[1:]] == ["EN 1998-1:2004", "ASCE 7-22", "IS 1893:2016"]
    # the governing base shear is derived first; another cell opens its own derivation
    b.wait_text(".bench-title", "Base shear")
    cell = next(
        c
        for c in b.all(".across-cell")
        if (c.get_attribute("aria-label") or "").startswith("Reduction of the elastic force, ASCE 7-22")
    )
    cell.click()
    b.wait_text(".bench-place", "ASCE/SEI 7-22")
    b.wait_text(".bench .why-clause", "Table 12.2-1")
    assert "Why the base shears differ, X" in b.find(".stage").text
    assert len(b.all(".shear-ratio")) == 2
    b.find(".stage [role=radiogroup] input[value=Y]").find_element("xpath", "following-sibling::label").click()
    b.wait_text(".stage", "Why the base shears differ, Y")
    b.wait_text(".log", "Story shears, Y")
    assert len(b.all(".stage svg[role=img] path")) >= 3
    assert b.problems() == []


def test_an_edition_to_compare_with_asks_for_what_it_needs(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    b.open(b.review("Sable Quay Library") + "/brief")
    b.wait_text(".stage-title", "Brief")
    compared = b.find("input[placeholder='any number of editions']")
    compared.click()
    compared.send_keys("EN 1998")
    b.settle()
    compared.send_keys(Keys.ARROW_DOWN, Keys.ENTER)
    part = "section[aria-label='EN 1998-1:2004']"
    b.wait_text(f"{part} header", "needs")
    # the class of the soil is proposed, with where the proposal comes from, and only adopted on demand
    b.wait_text(f"{part} .proposals", "C of ASCE/SEI 7-16 means 370 to 760 m/s")
    assert b.find(f"{part} input[aria-label='ground type']").get_attribute("value") == ""
    b.click_on(f"{part} .proposals button", "use B")
    b.settle()
    b.type_into(f"{part} input[aria-label='a_gR']", "0.21\n")
    b.settle()
    pick(b, "spectrum type", "1")
    pick(b, "importance class", "II")
    for d in ("X", "Y"):
        b.type_into(f"{part} input[aria-label='q {d}']", "4\n")
        b.settle()
    b.wait_text(f"{part} header", "complete")
    b.find(f"{part} header a").click()
    b.wait_text(".across-table", "EN 1998-1:2004")
    assert not b.all(".lacks")


def test_another_edition_comes_to_govern_and_goes_again(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    b.open(b.review("Aldermouth Granary Lofts") + "/brief")
    b.wait_text("section[aria-label='UBC 1997'] header", "governs")
    governing: Any = next(
        i for i in b.all("input[role=combobox], input[aria-haspopup=listbox]") if i.get_attribute("value") == "UBC 1997"
    )
    governing.click()
    b.settle()
    b.click_on("[role=option]", "ASCE/SEI 7-16")
    b.wait_text("section[aria-label='ASCE/SEI 7-16'] header", "governs")
    b.wait_text("section[aria-label='UBC 1997'] header", "complete")
    b.wait_text(".review-head", "ASCE 7-16 of record")
    b.named("button", "Undo").click()
    b.wait_text("section[aria-label='UBC 1997'] header", "governs")


def test_hazard_by_coordinates_is_taken_over_on_demand(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    b.open(b.review("Sable Quay Library") + "/ground")
    b.wait_text(".stage-title", "Ground")
    look = "section[aria-label='Hazard by coordinates']"
    b.type_into(f"{look} input[placeholder='47.62']", "12\t")
    b.type_into(f"{look} input[placeholder='−30.41']", "-30.41\t")
    b.named("button", "Look up").click()
    b.wait_text(f"{look} .problem", "outside the area of the grid")
    b.type_into(f"{look} input[placeholder='47.62']", "47.62\t")
    b.named("button", "Look up").click()
    b.wait_text(".lookup-answer", "HI-2016.2 of 2016-05-20")
    before = b.find("input[aria-label='S_S']").get_attribute("value")
    b.named("button", "Use these values").click()
    b.wait_text(".lookup-answer", "Used")
    after = b.find("input[aria-label='S_S']").get_attribute("value")
    assert before == "0.9"
    assert after == "1.4343"
    b.named("button", "Undo").click()
    b.settle()
    assert b.find("input[aria-label='S_S']").get_attribute("value") == "0.9"
