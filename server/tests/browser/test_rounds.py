"""A second submission: what became of findings, closed by the reviewer; answers that come back in a workbook."""

from __future__ import annotations

import io
import subprocess
import sys
from pathlib import Path

import pytest
from driving import Browser
from openpyxl import load_workbook
from plumb_server.demo.people import LEAD, PASSWORD
from selenium.webdriver.common.by import By

SERVER = Path(__file__).resolve().parents[2]


TITLE = "Port Maren Annex"
MADE = f"""
from plumb_server.demo import seed
from plumb_server.demo.buildings import CLINIC_BRIEF
from plumb_server.demo.rounds import go_on
people = {{email: seed._person(email) for email in seed.PEOPLE}}
review = seed._review(people, {TITLE!r}, CLINIC_BRIEF, "clinic-")
seed._first_finding(review, people)
go_on(review)
"""


@pytest.fixture(scope="module")
def annex(environment: dict[str, str]) -> None:
    """A review like the clinic with its second submission; the demo's own stays as other tests have it."""
    subprocess.run([sys.executable, "manage.py", "shell", "-c", MADE], cwd=SERVER, env=environment, check=True)


@pytest.fixture
def clinic(annex: None, browser: Browser) -> Browser:
    """Its sheet, the lead signed in."""
    browser.sign_in(LEAD, PASSWORD)
    browser.open(browser.review(TITLE))
    browser.settle()
    return browser


def page(browser: Browser, name: str) -> None:
    browser.driver.find_element(By.LINK_TEXT, name).click()
    browser.settle()


def test_what_is_resolved_is_closed_with_a_key(clinic: Browser) -> None:
    assert "see what became of the open findings on S1" in clinic.texts(".next-step")[0]
    page(clinic, "Rounds")
    rows = clinic.texts("aside tbody tr")
    assert "resolved by the numbers" in rows[0]
    clinic.keys("C")
    clinic.wait_text("aside", "changed, not right")
    clinic.settle()
    titles = [row.split("\n")[0] for row in clinic.texts("aside table:first-of-type tbody tr")]
    assert [title[:2] for title in titles[:2]] == ["4.", "5."]


def test_answers_come_back_in_the_workbook(clinic: Browser, tmp_path: Path) -> None:
    page(clinic, "Findings")
    review = clinic.driver.current_url.split("/reviews/")[1].split("/")[0]
    data = clinic.driver.execute_async_script(
        "const done = arguments[1]; fetch(`/api/reviews/${arguments[0]}/matrix/`).then((r) => r.arrayBuffer())"
        ".then((b) => done(Array.from(new Uint8Array(b))))",
        review,
    )
    book = load_workbook(io.BytesIO(bytes(data)))
    sheet = book["Findings"]
    for row in sheet.iter_rows(min_row=4):
        if row[0].value == "5":
            row[5].value = "C_u T_a is used now."
    book.save(tmp_path / "matrix.xlsx")
    clinic.press("Response matrix")
    field = clinic.driver.find_element(By.CSS_SELECTOR, "input[type=file][accept='.xlsx']")
    field.send_keys(str(tmp_path / "matrix.xlsx"))
    clinic.wait_text("section[role=dialog]", "C_u T_a is used now.")
    clinic.press("Import 1 answer")
    clinic.wait_text(".register", "answered")
