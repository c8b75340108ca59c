"""What reviewers do, in a real browser against the real server."""

from __future__ import annotations

from pathlib import Path

import pytest
from driving import Browser
from plumb_server.demo.people import LEAD, PASSWORD, REVIEWER, SUBMITTER
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from timing import YARDSTICK, yardstick_seconds


def test_the_demo_sheet_shows_what_hangs_out_of_plumb_and_why(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Port Maren Clinic") + "/sheet")
    b.wait_text(".review-counts", "11 origins")
    assert "4 beyond a limit" in b.find(".review-counts").text
    # the first deviation is open on the bench before anything is clicked
    b.wait_text(".bench-title", "Long-period site coefficient")
    values = b.find(".bench-values").text
    assert "1.680" in values
    assert "1.940" in values
    assert "−13.4 %" in values
    assert "clinic-S0-parameters.xlsx" in values
    b.wait_text(".why", "needs")
    b.find(".why .katex")


def test_a_clean_review_is_a_straight_line(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Sable Quay Library") + "/sheet")
    b.wait_text(".review-counts", "0 origins")
    # what its tables do not have, and nothing else
    assert b.all(".review-counts [aria-label=' 3 gaps'], .review-counts [aria-label='3 gaps']")
    b.find(".sheet-line")
    b.settle()
    assert all("gap" in str(line.get_attribute("aria-label")) for line in b.all(".sheet-line.out"))
    assert len(b.all(".sheet-line")) > 30


def test_the_keys_go_from_deviation_to_deviation_and_into_the_derivation(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Port Maren Clinic") + "/sheet")
    b.wait_text(".bench-title", "Long-period")
    seen = []
    for _ in range(4):
        b.keys("n")
        b.settle()
        seen.append(b.find(".bench-title").text)
    assert len(set(seen)) == 4
    b.keys("d")
    b.find(".why .why")
    b.keys("?")
    b.wait_text("[role=dialog]", "next deviation")
    b.keys(Keys.ESCAPE)
    b.settle()

    # at first only what is out of plumb is shown; the key `o` shows the rest too
    def lines() -> int:
        # of a long list only what is in sight is drawn; each line says of how many it is one
        return int(str(b.find(".sheet-line").get_attribute("aria-setsize")))

    out = lines()
    assert out >= len(b.all(".sheet-line")) == len(b.all(".sheet-line.out")) > 30
    b.keys("o")
    b.settle()
    assert lines() > out
    assert len(b.all(".sheet-line")) > len(b.all(".sheet-line.out"))
    b.keys("o")


def test_the_palette_reaches_a_check_by_name(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Port Maren Clinic") + "/sheet")
    b.wait_text(".review-counts", "origins")
    b.keys(Keys.CONTROL + "k")
    search = b.find("input[aria-label=Search]")
    search.send_keys("exponent")
    b.wait_text("[role=dialog]", "Exponent of the vertical distribution")
    search.send_keys(Keys.ARROW_DOWN + Keys.ENTER)
    b.wait_text(".bench-title", "Exponent of the vertical distribution")


def test_a_finding_is_filed_issued_answered_and_settled(address: str) -> None:
    reviewer = Browser(address)
    try:
        reviewer.sign_in(REVIEWER, PASSWORD)
        path = reviewer.review("Port Maren Clinic")
        reviewer.open(path + "/sheet?check=V.Y")
        reviewer.wait_text(".bench-title", "Base shear")
        reviewer.keys("r")
        reviewer.find("#remark").send_keys(" See row 28." + Keys.CONTROL + Keys.ENTER)
        reviewer.wait_text(".bench-filed", "finding 2")
        reviewer.open(path + "/findings?finding=2")
        reviewer.wait_text(".bench-place", "Finding 2")
        reviewer.named("button", "Issue").click()
        reviewer.wait_text(".bench-place", "issued")
    finally:
        reviewer.driver.quit()
    submitter = Browser(address)
    try:
        submitter.sign_in(SUBMITTER, PASSWORD)
        submitter.open(path + "/findings?finding=2")
        submitter.find("textarea[aria-label='Your answer']").send_keys("Two digits changed places; corrected in S1.")
        submitter.named("button", "Answer").click()
        submitter.wait_text(".bench-place", "answered")
        assert not submitter.all(".review-counts")
    finally:
        submitter.driver.quit()
    lead = Browser(address)
    try:
        lead.sign_in(LEAD, PASSWORD)
        lead.open(path + "/findings?finding=2")
        lead.wait_text(".message", "corrected in S1")
        lead.named("button", "Close").click()
        lead.wait_text(".bench-place", "settled")
    finally:
        lead.driver.quit()


STORIES = "Level\tHeight (ft)\tWeight (kip)\nL2\t12\t200\nL1\t14\t220\n"
PARAMETERS = (
    "Item\tValue\tX\tY\tUnit\nS_S\t1.5\t\t\tg\nSite class\tB\t\t\t\nR\t\t5\t5\t\nS_DS\t0.9\t\t\tg\nV\t\t84\t76\tkip\n"
)

BRIEF = "L2\t3,6576\t890\nL1\t4,2672\t978,6\n"


def test_a_new_review_from_the_brief_to_the_first_marks(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    b.named("button", "New review").click()
    b.find("[role=dialog] input").send_keys("Gull Rock Station")
    b.named("button", "Create and enter the brief").click()
    b.wait_text(".stage-title", "Brief")
    b.paste("input[aria-label='Paste stories here']", BRIEF)
    b.find("input[aria-label='Height of L1']")
    b.type_into("input[aria-label='R X']", "5\n")
    b.settle()
    b.type_into("input[aria-label='R Y']", "5\n")
    b.settle()
    b.find("nav a[href*=ground]").click()
    b.wait_text(".stage-title", "Ground")
    fields = b.all(".fields input")
    for field, text in zip(fields, ("1.5", "0.6", "8"), strict=False):
        field.click()
        field.send_keys(text + "\n")
        b.settle()
    b.find("nav a[href*=exhibits]").click()
    # What is pasted before the page is there goes nowhere
    b.find(".paste-target textarea")
    # a table with doubtful cells states it in them, and what would stay open
    b.paste("body", STORIES.replace("\t12\t", "\t-12\t").replace("Weight (kip)", "Weight"))
    b.wait_text(".preview .problem", "1 row and 1 column with questions would not be read")
    assert len(b.all(".preview td.bad")) == 2
    assert any("leave 1 row and 1 column open" in x.text for x in b.all(".preview button"))
    b.named("button", "Close").click()
    b.find(".paste-target textarea")
    for text in (STORIES, PARAMETERS):
        b.paste("body", text)
        b.find(".preview")
        b.driver.execute_script("arguments[0].click()", b.one(".preview button", "Accept"))
        b.find(".paste-target textarea")
    b.find("nav a[href*=sheet]").click()
    b.wait_text(".review-counts", "origins")
    b.settle()
    labels = b.driver.execute_script(
        "return [...document.querySelectorAll('.sheet-line')].map((e) => e.getAttribute('aria-label'))"
    )
    # heights and weights in feet and kips agree with the brief's metres and kilonewtons
    assert "h: agrees" in labels
    assert "w: agrees" in labels
    assert b.problems() == []


def test_what_the_edition_requires_is_walked_and_a_missing_item_becomes_a_finding(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Port Maren Clinic") + "/requirements")
    b.wait_text(".stage-head", "19 of 25 requirements shown, 6 missing")
    # the first that is missing is open, with its remark
    b.wait_text(".bench-title", "seismic design category")
    b.find("#requirement-category").send_keys(Keys.ARROW_DOWN)
    b.wait_text(".bench", "Response modification factor")
    b.find("#requirement-system").send_keys(Keys.ARROW_DOWN)
    b.wait_text(".bench", "12.3.4.1")
    b.press("File as a finding")
    b.wait_text("[role=status]", "Filed as finding")
    assert b.problems() == []


def test_a_question_is_filtered_set_aside_and_taken_up_again(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Quillon Exchange") + "/sheet")
    b.find(".sheet-line")
    b.keys("q")
    b.settle()
    lines = b.all(".sheet-line")
    assert len(lines) == 1
    lines[0].click()
    b.wait_text(".bench summary", "S86")
    b.find(".bench summary").click()
    b.find(".bench input[aria-label='Reason to set this test aside']").send_keys(
        "shown in a letter of 3 May", Keys.ENTER
    )
    b.wait_text(".bench-note", "set aside for this review: shown in a letter of 3 May")
    b.wait_text(".bench-verdict", "for the record")
    b.press("take it up again")
    b.wait_text(".bench-verdict", "needs an explanation")
    b.press("File the question as a finding")
    b.wait_text(".bench-filed", "finding")
    assert b.problems() == []


def test_a_file_too_large_is_refused_where_it_was_chosen(browser: Browser, tmp_path: Path) -> None:
    big = tmp_path / "big.csv"
    big.write_bytes(b"a,b\n" * 12_500_000)
    browser.sign_in(LEAD, PASSWORD)
    browser.open(browser.review("Sable Quay Library") + "/exhibits")
    browser.find(".paste-target")
    browser.driver.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(big))
    browser.wait_text(".problem", "has 50 MB; the limit is 20 MB")
    assert "S0, accepted" in browser.find(".stage-head").text


@pytest.mark.timing
def test_a_changed_input_is_on_the_screen_within_150_ms(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    b.open(b.review("Sable Quay Library") + "/ground")
    b.wait_text(".checks", "agrees")
    times, yardsticks = [], []
    # the best of up to 24, and against a yardstick: a busy or slowed machine is not measured
    for value in (f"0.{hundredths}" for hundredths in range(70, 94)):
        took = b.driver.execute_async_script(
            """
            const [value, done] = arguments;
            const field = document.querySelectorAll('.fields input')[0];
            const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
            set.call(field, value);
            field.dispatchEvent(new Event('input', {bubbles: true}));
            const row = [...document.querySelectorAll('.checks tbody tr')].find((r) => r.textContent.startsWith('SMS'));
            const before = row.textContent;
            setTimeout(() => {
              const start = performance.now();
              const watch = new MutationObserver(() => {
                const rows = [...document.querySelectorAll('.checks tbody tr')];
                const now = rows.find((r) => r.textContent.startsWith('SMS'));
                if (now && now.textContent !== before) { watch.disconnect(); done(performance.now() - start); }
              });
              watch.observe(document.querySelector('.stage'), {subtree: true, childList: true, characterData: true});
              field.dispatchEvent(new KeyboardEvent('keydown', {key: 'Enter', bubbles: true}));
            }, 100);
            """,
            value,
        )
        times.append(took)
        yardsticks.append(yardstick_seconds())
        slowness = max(1.0, min(yardsticks) / YARDSTICK)
        if took < 150 * slowness and len(times) >= 3:
            break
        b.settle()
    print("changed input on the screen after, ms:", [round(t) for t in times], "slowness", round(slowness, 2))
    assert min(times) < 150 * slowness
    b.named("button", "Undo").click()


def test_a_lead_adds_a_member_and_writes_the_scope(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    b.open(b.review("Sable Quay Library") + "/brief")
    b.type_into("input[type=email]", "avel.tran@northlight.example\n")
    # anyone who is not known from a review or the firm is invited, whether there is an account or not
    b.wait_text("[role=status]", "avel.tran@northlight.example is invited")
    b.type_into("input[type=email]", "clerk@port-maren.example\n")
    b.wait_text(".problem", "The team has clerk@port-maren.example already")
    b.type_into("textarea", "The scope of this review.\t")
    b.settle()
    b.open(b.review("Sable Quay Library") + "/report")
    b.driver.switch_to.frame(b.find("iframe"))
    b.wait_text("body", "The scope of this review.")
    b.driver.switch_to.default_content()


def test_the_report_is_read_before_it_is_issued(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Sable Quay Library") + "/report")
    b.find("iframe")
    b.driver.switch_to.frame(b.find("iframe"))
    try:
        b.wait_text("h1", "Sable Quay Library")
        assert "Not checked" in b.find("body").text
    finally:
        b.driver.switch_to.default_content()
    b.press("Print a draft")
    b.press("Report as XLSX")
    assert b.find("a[href^='/api/printings/']").text == "Open the XLSX"


def test_strangers_are_told_there_is_nothing(browser: Browser) -> None:
    browser.sign_in("avel.tran@northlight.example", PASSWORD)
    browser.open("/reviews/00000000-0000-4000-8000-000000000000/sheet")
    browser.wait_text(".problem", "There is nothing here, or you have no access to it")
