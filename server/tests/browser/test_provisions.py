"""What a reviewer declares of a building beside its values.

Irregularities, podium, permissions, a study, floors in plan.
"""

from __future__ import annotations

from driving import Browser
from plumb_server.demo.people import LEAD, PASSWORD
from test_across import pick


def unfold(b: Browser, summary: str) -> None:
    """Open the part of the page whose heading starts so."""
    heading = b.one("summary", summary)
    b.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", heading)
    if heading.find_element("xpath", "..").get_attribute("open") is None:
        heading.click()
    b.settle()


def give(b: Browser, label: str, value: str) -> None:
    b.type_into(f"input[aria-label='{label}']", value + "\n")
    b.settle()


def undo(b: Browser, times: int) -> None:
    for _ in range(times):
        b.press("Undo")
        b.settle()


def test_irregularities_and_a_podium_are_declared_and_followed(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    review = b.review("Sable Quay Library")
    b.open(review + "/brief")
    b.wait_text(".building-tests summary", "6 not tested")
    unfold(b, "Irregularities by type")
    pick(b, "Irregularity: out-of-plane offset", "there")
    pick(b, "Irregularity: nonparallel systems", "none")
    b.wait_text(".building-tests summary", "1 not met, 4 not tested")
    unfold(b, "Tests of the building")
    b.wait_text(".building-tests", "4 out-of-plane offset")
    assert "12.3.3.3" in b.find(".building-tests .notes").text, "overstrength under discontinuous elements"

    # a floor that is no rectangle shows its re-entrant corner: 8 of 30 m and 9 of 27 m are beyond 15 %
    unfold(b, "Floors in plan")
    give(b, "Corners of Roof", "0,0; 30,0; 30,18; 22,18; 22,27; 0,27")
    assert b.find("input[aria-label='Corners of Roof']").get_attribute("value").startswith("0, 0; 30, 0")

    # a podium is kept once it has what it needs, and the lateral page states what is handed down
    unfold(b, "Systems above and beside each other")
    b.click_on("button", "add a two-stage podium in X")
    b.wait_text(".rows-editor", "Saved once it has period of the upper part, R of the upper part")
    for label, value in (
        ("stiffness of the lower over the upper part", "14"),
        ("period of the whole", "0.62"),
        ("period of the upper part", "0.55"),
        ("R of the upper part", "8"),
    ):
        give(b, f"{label}, two-stage podium in X 1", value)
    b.wait_text(".building-tests", "not met")
    b.open(review + "/lateral")
    b.wait_text("section[aria-label='Two-stage analysis']", "not permitted")
    b.open(review + "/brief")
    undo(b, 4)
    b.wait_text(".building-tests summary", "nothing found, 6 not tested")


def test_permissions_and_a_study_stand_under_ground(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    review = b.review("Sable Quay Library")
    b.open(review + "/ground")
    b.wait_text(".permissions legend", "none is applied unless ticked")
    boxes = b.all(".permissions input[type=checkbox]")
    assert len(boxes) == 4
    assert not any(box.is_selected() for box in boxes)
    b.find(".permissions label").click()
    b.settle()
    assert b.all(".permissions input[type=checkbox]")[0].is_selected()
    give(b, "S_DS of the study", "0.05")
    b.wait_text(".stage .notes", "the study's SDS is below 80 % of the general value")
    undo(b, 2)
    assert not any(box.is_selected() for box in b.all(".permissions input[type=checkbox]"))


def test_an_action_level_is_declared_and_its_drifts_are_compared(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    review = b.review("Sable Quay Library")
    b.open(review + "/brief")
    b.wait_text("main", "Action levels: those of the edition")
    unfold(b, "Action levels")
    b.press("Add an action level")
    b.wait_text(".action-level", "Remove Serviceability")
    level = b.find(".action-level")
    b.find(".action-level input[placeholder=required]").send_keys("0.1\n")
    b.settle()
    spectrum = level.find_element("xpath", ".//label[text()='Spectrum']/following::input[1]")
    spectrum.click()
    b.settle()
    b.click_on("[role=option]", "factor on the design spectrum")
    b.wait_text(".action-level", "Factor")
    b.settle()
    # as much as the design action: what is within 2 % of the height is beyond 0.1 %
    b.open(review + "/drift")
    b.wait_text("section[aria-label='Action levels']", "exceeded")
    assert "the design action × 1" in b.find("section[aria-label='Action levels']").text
    b.open(review + "/brief")
    undo(b, 3)


def test_a_contradicted_declaration_is_shown_under_the_check_and_in_the_brief(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    review = b.review("Aldermouth Granary Lofts")
    b.open(review + "/brief")
    b.wait_text("main", "Facts the review rests on: ")
    unfold(b, "Facts the review rests on: ")
    facts = [li.text for li in b.all(".facts li.contradicted")]
    assert any(t.startswith("Regular in plan and height in X: no found") for t in facts), facts
    assert all("declared: " in t for t in facts)
    b.open(review + "/scaling?check=scaled_by_factor_used.X")
    b.wait_text(".bench .facts li.contradicted", "declared: yes")
