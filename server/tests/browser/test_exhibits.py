"""Files that are submitted.

Read with progress, answered by keys, accepted, read again, and assessed where a value stands.
"""

from __future__ import annotations

import base64
import io
from pathlib import Path

import pdfplumber
from driving import Browser
from openpyxl import Workbook
from plumb_server.demo.people import LEAD, PASSWORD
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from weasyprint import HTML

STORIES = [["Story", "Height (m)", "Seismic weight (kN)"], ["L3", 3.4, 2900], ["L2", 3.4, 3100], ["L1", 4.2, 3300]]
MODES = [["Mode", "Period (s)", "X (%)", "Y (%)"], [1, 0.61, 81.0, 0.2], [2, 0.55, 0.1, 79.5], [3, 0.2, 12.0, 0.3]]
DRIFTS = [["Story", "Drift 1", "Drift 2"], ["L3", 7.1, 7.9], ["L2", 9.0, 9.6], ["L1", 6.2, 6.9]]


def book(path: Path) -> Path:
    made = Workbook()
    made.remove(made.active)
    for title, rows in (("Floors", STORIES), ("Modes", MODES), ("Drifts", DRIFTS)):
        sheet = made.create_sheet(title)
        for row in rows:
            sheet.append(row)
    kept = io.BytesIO()
    made.save(kept)
    path.write_bytes(kept.getvalue())
    return path


def report(path: Path) -> Path:
    def table(rows: list[list[object]]) -> str:
        style = "border: .5pt solid black; padding: 1pt 8pt"
        cells = "".join("<tr>" + "".join(f"<td style='{style}'>{c}</td>" for c in r) + "</tr>" for r in rows)
        return f"<table style='border-collapse: collapse'>{cells}</table>"

    pages = [
        "<h2>Kelp Street Hostel</h2><p>Prepared by Tern and Vale.</p>",
        f"<h3>Floors</h3>{table(STORIES)}",
        f"<h3>Modes</h3>{table(MODES)}<p>The period used is T X = 0.61 s.</p>",
    ]
    html = "".join(f"<section style='page-break-after: always'>{p}</section>" for p in pages)
    path.write_bytes(HTML(string=html).write_pdf())
    return path


def new_review(b: Browser) -> str:
    b.sign_in(LEAD, PASSWORD)
    return another_review(b)


def another_review(b: Browser) -> str:
    stories = [{"name": str(n), "height": h, "weight": w} for n, h, w in reversed(STORIES[1:])]
    brief = {"edition": "asce7-16", "stories": stories}
    return f"/reviews/{b.send('POST', '/api/reviews/', {'title': 'Kelp Street Hostel', 'brief': brief})['id']}"


def hand_in(b: Browser, path: str, *files: Path) -> None:
    b.open(path + "/exhibits")
    b.find(".paste-target")
    b.driver.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys("\n".join(map(str, files)))


def test_several_files_are_read_and_what_is_open_is_answered_by_keys(browser: Browser, tmp_path: Path) -> None:
    b = browser
    path = new_review(b)
    hand_in(b, path, book(tmp_path / "hostel.xlsx"), report(tmp_path / "hostel.pdf"))
    b.wait_text(".exhibits td", "3 tables found, none accepted yet")
    b.wait_text(".exhibits td", "2 tables found, none accepted yet")
    b.named("a", "hostel.xlsx").click()
    b.find(".preview-cells")
    # What the brief has is next to what they say
    assert "3.4" in b.texts(".preview-cells .beside")
    b.press("Accept all tables without questions")
    b.wait_text("[role=status]", "2 tables accepted; 1 with questions")
    # the table that asks: units first, the likeliest of them; then the case, then its direction
    b.wait_text(".questions", "the unit of drift at end 1 is missing")
    assert b.texts(".questions .choices button")[0] == "mm"
    b.keys("1")
    b.wait_text(".questions", "The load case of these rows is not stated")
    b.find("input[aria-label='Name of the case']").send_keys("Sway", Keys.ENTER)
    b.wait_text(".questions", "the direction of case 'Sway' is not clear")
    b.keys("2")
    b.press("Accept 6 values")
    b.wait_text(".read-in li", "6 values")
    assert b.problems() == []


def test_a_page_is_read_and_theirs_opens_it_with_the_cell_framed(browser: Browser, tmp_path: Path) -> None:
    b = browser
    path = new_review(b)
    hand_in(b, path, report(tmp_path / "hostel.pdf"))
    # one file alone is opened as soon as it is there
    b.wait_text(".open-exhibit", "page 2 of 3, 2 tables found")
    b.wait_text(".pdf-table", "read this")
    b.press("Accept all tables without questions")
    b.wait_text("[role=status]", "2 tables accepted")
    b.wait_text(".pdf-table", "stories · 6 values")
    # a row is excluded when it is read with other answers, and comes back with Undo
    b.wait_text(".read-in li", "modes")
    b.click_on(".read-in button", "stories")
    b.press("Change the answers")
    b.find("button[aria-label='Exclude row 2']").click()
    b.wait_text(".preview button", "Accept 4 values")
    b.press("Undo")
    b.press("Accept 6 values")
    b.wait_text(".accepted-table", "6 values accepted.")
    b.open(path + "/sheet?check=h.L2")
    b.wait_text(".bench", "hostel.pdf · page 2, table 1 · row 3 · B")
    b.click_on(".bench a", "hostel.pdf")
    # the page has found its place when nothing is under way any more
    b.find(".pdf-cell")
    b.settle()
    cell = b.find(".pdf-cell").rect
    table = b.find(".pdf-table.now").rect
    assert table["x"] < cell["x"] < table["x"] + table["width"]
    assert table["y"] < cell["y"] < table["y"] + table["height"]
    assert b.problems() == []


def test_words_are_dragged_over_and_a_value_is_typed_with_a_pin(browser: Browser, tmp_path: Path) -> None:
    b = browser
    path = new_review(b)
    hand_in(b, path, report(tmp_path / "hostel.pdf"))
    b.wait_text(".open-exhibit", "2 tables found")
    b.settle()
    b.find("button[aria-label^='Page 3']").click()
    b.wait_text(".open-exhibit", "page 3 of 3")
    b.wait_text(".pdf-table", "read this")
    b.settle()
    over = b.find(".pdf-over").rect
    low = b.find(".pdf-table").rect
    y = low["y"] - over["y"] + low["height"]
    drag(b, 40, y + 4, over["width"] - 40, y + 60)
    b.wait_text(".preview-cells td", "T X")
    b.press("Accept 1 value")
    b.wait_text(".accepted-table", "1 value accepted.")
    b.find("button[aria-label^='Page 1']").click()
    b.wait_text(".open-exhibit", "page 1 of 3")
    b.settle()
    drag(b, 100, 300, 100, 300)
    b.type_into(".type-value input", "V X")
    b.all(".type-value input")[1].send_keys("980 kN", Keys.ENTER)
    b.press("Accept 1 value")
    b.wait_text(".accepted-table", "1 value accepted.")
    assert b.problems() == []


def drag(b: Browser, x1: float, y1: float, x2: float, y2: float) -> None:
    """Over a page, from one place of it to another."""
    b.driver.execute_script(
        "const e = document.querySelector('.pdf-over'), o = e.getBoundingClientRect();"
        "e.setPointerCapture = () => {};"
        "const at = (type, x, y) => e.dispatchEvent(new PointerEvent(type,"
        " {clientX: o.left + x, clientY: o.top + y, bubbles: true, pointerId: 1}));"
        "at('pointerdown', arguments[0], arguments[1]);",
        x1,
        y1,
    )
    for kind, x, y in (("pointermove", x2, y2), ("pointerup", x2, y2)):
        b.settle()
        b.driver.execute_script(
            "const e = document.querySelector('.pdf-over'), o = e.getBoundingClientRect();"
            "e.dispatchEvent(new PointerEvent(arguments[0], {clientX: o.left + arguments[1],"
            " clientY: o.top + arguments[2], bubbles: true, pointerId: 1}))",
            kind,
            x,
            y,
        )


PASTE = """
const bytes = Uint8Array.from(atob(arguments[0]), (c) => c.charCodeAt(0));
const clipboard = new DataTransfer();
clipboard.items.add(new File([bytes], "image.png", { type: "image/png" }));
document.dispatchEvent(new ClipboardEvent("paste", { clipboardData: clipboard, bubbles: true, cancelable: true }));
"""


def screenshot(path: Path) -> str:
    """A picture of the page with the stories, as the clipboard has it."""
    with pdfplumber.open(report(path)) as made:
        drawn = made.pages[1].to_image(resolution=120).original.convert("RGB")
    kept = io.BytesIO()
    drawn.save(kept, "PNG")
    return base64.b64encode(kept.getvalue()).decode()


def test_a_screenshot_is_pasted_and_each_value_stands_beside_its_crop(browser: Browser, tmp_path: Path) -> None:
    b = browser
    path = new_review(b)
    b.open(path + "/exhibits")
    b.find(".paste-target")
    b.driver.execute_script(PASTE, screenshot(tmp_path / "hostel.pdf"))
    b.wait_text(".open-exhibit", "1 table found")
    b.wait_text(".pdf-note", "its text was read off it")
    b.click_on(".pdf-table button", "read this")
    b.wait_text(".preview-cells", "%")
    crops = b.all(".scanned-crop canvas[aria-label='as on the page']")
    assert len(crops) >= 9
    # the crops are drawn: no canvas is empty
    drawn = "return arguments[0].getContext('2d').getImageData(0, 0, 40, 12).data.some((v) => v > 0)"
    # a crop is drawn when its picture has come
    b.until(lambda d: d.execute_script(drawn, crops[-1]))
    assert b.problems() == []


def test_answers_for_the_tables_of_a_firm_are_kept_and_proposed_in_the_next_review(
    browser: Browser, tmp_path: Path
) -> None:
    b = browser
    rows = "Level;Height;Load at level\nL3;3.4;2900\nL2;3.4;3100\nL1;4.2;3300\n"
    (tmp_path / "one.csv").write_text(rows)
    (tmp_path / "two.csv").write_text(rows.replace("2900", "2800"))
    path = new_review(b)
    answers = {"columns": {"story": 0, "h": 1, "w": 2}, "units": {"h": "m", "w": "kN"}}
    body = {"text": rows, "name": "one", "kind": "stories", "reading": answers | {"header_row": 0}}
    b.send("POST", f"/api{path}/tables/", body)
    b.open(path + "/exhibits")
    b.press("Keep the answers as a profile")
    b.find("form input").send_keys("Tern and Vale", Keys.ENTER)
    b.wait_text("[role=status]", "Kept: 1 table.")
    other = another_review(b)
    hand_in(b, other, tmp_path / "two.csv")
    b.wait_text(".looks-like", "in the profile Tern and Vale")
    b.wait_text(".questions", "unit of story height is missing")
    b.press("Use these answers")
    b.press("Accept 6 values")
    b.wait_text(".read-in li", "6 values")
    b.open("/profiles")
    b.find("nav[aria-label='Profiles of tables'] button").click()
    b.wait_text("section[aria-label='Tern and Vale']", "Load at level")
    assert b.problems() == []
