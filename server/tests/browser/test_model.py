"""The reviewer's reference model in the browser: lateral lines, frames, modes, weights, and runs on the queue."""

from __future__ import annotations

from driving import Browser
from plumb_server.demo.people import LEAD, PASSWORD
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

LINES = "story\tx\ty\tangle\tstiffness\tname\n" + "".join(
    f"{story}\t{x}\t{y}\t{angle}\t{k}\t{name}\n"
    for story in ("Ground", "Gallery", "Reading", "Roof")
    for x, y, angle, k, name in (
        (0, -10, 0, 90000, "A"),
        (0, 10, 0, 90000, "B"),
        (-12, 0, 90, 80000, "1"),
        (12, 0, 90, 80000, "2"),
    )
)


def choose(b: Browser, group: str, value: str) -> None:
    """Choose one of a row of choices."""
    field = b.find(f"[role=radiogroup][aria-label={group!r}] input[value={value!r}]")
    field.find_element("xpath", "following-sibling::label").click()
    b.settle()


def test_modes_of_the_clinic_theirs_and_ours(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Port Maren Clinic") + "/modes")
    b.wait_text("table.modes", "1.632")
    assert "X and Y appear exchanged" in b.find(".stage").text
    assert "theirs sum to 66.2 %" in b.find(".modes-word:nth-of-type(2), .modes-word ~ .modes-word").text
    # a share out of plumb opens on the bench, and says what it follows from
    b.find("table.modes tbody tr button.off").click()
    b.wait_text(".bench-title", "Effective modal mass")
    b.wait_text(".bench", "axes X and Y")
    b.wait_text(".bench", "Ours is a result of the reference model")
    # the viewer: another mode, paused, stepped, seen in plan
    b.find("canvas")
    b.find("button[aria-label='Next mode']").click()
    b.wait_text(".scene-tools", "Mode 2")
    b.named("button", "Play").click()
    b.named("button", "Pause").click()
    b.find("button[aria-label='Step through the oscillation']").click()
    choose(b, "View", "plan")
    assert "their floors, axes exchanged back" in b.find(".scene-legend").text
    assert b.all(".modes-plan polygon")
    assert b.problems() == []


def test_weights_of_the_clinic_by_story(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Port Maren Clinic") + "/weight")
    b.wait_text(".log-table", "3069")
    b.wait_text(".weight-plan", "centre of mass 18.00, 11.25 m")
    b.wait_text(".log-legend", "our static weight")
    # the floor whose mass is short opens from its row
    short = b.one(".log-table tbody tr", "L6")
    short.find_element("css selector", "button.off").click()
    b.wait_text(".bench-title", "Mass of the floor in the analysis")
    b.wait_text("section[aria-label='Sources of mass in the reference model']", "floors")
    assert b.problems() == []


def test_ten_minutes_of_lateral_lines(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    path = b.review("Sable Quay Library")
    b.open(path + "/modes")
    b.wait_text(".empty", "There is no reference model yet")
    b.named("a", "Create one from lateral lines").click()
    b.wait_text(".lines", "No lines in Ground yet")
    # a bad row is named and nothing is taken; then the right ones
    b.paste("input[aria-label='Paste lateral lines here']", "Cellar\t0\t0\t0\t5\nGround\t0\t0\t0\t-5\n")
    b.wait_text(".problem", "enter x (m), y (m), angle")
    b.paste("input[aria-label='Paste lateral lines here']", LINES)
    b.wait_text(".page", "The model is stable: 12 degrees of freedom, 4 floors")
    assert len(b.all(".lines-plan .line")) == 4
    # moved by the keyboard on the plan, the table follows; by the mouse too
    b.all(".lines-plan .line")[3].send_keys(Keys.ARROW_LEFT)
    b.until(lambda d: b.find("input[aria-label='x of 2']").get_attribute("value") == "11.75")
    line = b.all(".lines-plan .line line")[0]
    ActionChains(b.driver).click_and_hold(line).move_by_offset(0, -40).release().perform()
    b.until(lambda d: b.find("input[aria-label='y of A']").get_attribute("value") != "-10")
    b.named("button", "Undo").click()
    b.until(lambda d: b.find("input[aria-label='y of A']").get_attribute("value") == "-10")
    b.open(path + "/modes")
    b.wait_text("table.modes", "twist")
    assert len(b.all("table.modes tbody tr")) == 12
    assert b.problems() == []


def test_a_frame_by_the_grid_goes_to_the_queue_where_it_is_large(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    path = b.review("Aldermouth Granary Lofts")
    b.open(path + "/frame")
    b.wait_text(".page", "Frame")
    choose(b, "Level of detail of the model", "frame")
    choose(b, "Method of input", "grid")
    for label, bays in (("Along X, m", "14x4"), ("Along Y, m", "9x4")):
        field = b.named("label", label)
        b.type_into(f"#{field.get_attribute('for')}", bays + Keys.ENTER)
    b.named("button", "Add a wall").click()
    b.wait_text(".scene-tools", "906 nodes")
    take = b.named("button", "Use this frame")
    b.until(lambda d: take.is_enabled())
    take.click()
    b.until(lambda d: any("The model is stable" in t for t in b.texts(".page")), "the inspection ends")
    b.open(path + "/modes")
    b.until(lambda d: b.all("table.modes tbody tr"), "the worker answers")
    assert b.problems() == []


def choose_unit(b: Browser, unit: str, left: int) -> None:
    """Choose the unit of the first column that has none, until `left` are without."""
    empty = (
        "return [...document.querySelectorAll('.frame-tables input[placeholder=\"unit?\"]')].filter((f) => !f.value)"
    )
    b.driver.execute_script(empty)[0].click()
    b.click_on("[role=option]", unit)
    b.until(lambda d: len(d.execute_script(empty)) == left)


def take_table(b: Browser, text: str, button: str) -> None:
    b.paste("textarea", text)
    b.named("button", button).click()


def test_pasted_tables_ask_for_their_units_and_become_a_frame(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    path = b.review("Quillon Exchange") + "/frame"
    b.open(path)
    b.wait_text(".page", "Frame")
    choose(b, "Level of detail of the model", "frame")
    choose(b, "Method of input", "tables")
    corners = [(x, y) for x in (0, 1) for y in (0, 1)]
    b.paste(
        "textarea",
        "Node\tX\tY\tZ\n" + "".join(f"{x}{y}{k}\t{6 * x}\t{5 * y}\t{3 * k}\n" for k in (0, 1) for x, y in corners),
    )
    b.wait_text(".problem", "The unit of x is missing")
    for left in (2, 1, 0):
        choose_unit(b, "m", left)
    b.named("button", "Use 8 rows of nodes").click()
    b.wait_text(".frame-tables", "Still needed: members, sections, materials, supports.")
    columns = "".join(f"c{x}{y}\t{x}{y}0\t{x}{y}1\tC\tcolumns\t\n" for x, y in corners)
    beams = "".join(
        f"{n}\t{i}\t{j}\tC\tbeams\t\n"
        for n, i, j in (("x0", "001", "101"), ("x1", "011", "111"), ("y0", "001", "011"), ("y1", "101", "111"))
    )
    take_table(
        b,
        "Member\tStart\tEnd\tSection\tGroup\tActs in\n" + columns + beams + "d\t000\t101\tC\tbraces\ttension\n",
        "Use 9 rows of members",
    )
    take_table(
        b, "Section\tArea [cm2]\tIy [cm4]\tIz [cm4]\tJ [cm4]\nC\t150\t40000\t30000\t900\n", "Use 1 row of sections"
    )
    take_table(b, "Material\tE [MPa]\tDensity [kg/m3]\nS\t210000\t7850\n", "Use 1 row of materials")
    take_table(b, "Node\tFixed\n" + "".join(f"{x}{y}0\tfixed\n" for x, y in corners), "Use 4 rows of supports")
    # a word that is not known is marked in its cell
    b.paste("textarea", "Floor\tMass [t]\tRigid\nDeck\t30\tsoft\n")
    b.wait_text(".problem", "'soft' is not recognised")
    assert b.find("td.bad").text == "soft"
    take_table(b, "Floor\tMass [t]\tRigid\nDeck\t30\tyes\n", "Use 1 row of floors")
    b.named("button", "Use this frame").click()
    b.wait_text(".page", "The model is stable: 15 degrees of freedom, 1 floor, 30.00 t on them")
    # What it counts can be set, and undone
    b.type_into("input[aria-label='Factor on EI about y of columns']", "0.5" + Keys.ENTER)
    b.wait_text(".page", "1 member for tension only")
    b.named("button", "Undo").click()
    factor = "input[aria-label='Factor on EI about y of columns']"
    b.until(lambda d: b.find(factor).get_attribute("value") == "1")
    assert b.problems() == []
