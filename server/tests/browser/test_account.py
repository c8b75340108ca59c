"""Coming in, and what is a person's own, as people do it."""

from __future__ import annotations

import re
from urllib.parse import urlsplit

from driving import Browser
from plumb_server.demo.people import LEAD, OFFICE, PASSWORD, REVIEWER, SUBMITTER
from selenium.webdriver.common.virtual_authenticator import VirtualAuthenticatorOptions
from tests.test_own_account import code_of


def link_in_mail(b: Browser, subject: str) -> str:
    """Path of the link in the newest mail of a subject, as the demo's page shows it."""
    b.open("/mail")
    b.wait_text(".mail h2", subject)
    # the page looks for new mail now and then: all of it at one moment
    found = b.driver.execute_script(
        "const m = [...document.querySelectorAll('.mail')].find((x) => x.innerText.includes(arguments[0]));"
        "return m.querySelector('pre a').href",
        subject,
    )
    return str(urlsplit(str(found)).path)


def who_is_there(b: Browser, password: str = PASSWORD) -> None:
    """Answer the question who is at the keyboard."""
    b.type_into(".mantine-Modal-content input[type=password]", password)
    b.press("Continue")


def test_somebody_is_invited_comes_in_and_forgets_the_password(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    b.open(b.review("Sable Quay Library") + "/brief")
    b.type_into("input[aria-label='E-mail address of a new member']", "nell.arden@calder-finch.example")
    b.press("Add")
    b.wait_text("[role=status]", "is invited: a link has been sent")
    b.forget()
    b.open(link_in_mail(b, "invites you to a review"))
    b.wait_text(".door", "Ilse Varga invites nell.arden@calder-finch.example to Sable Quay Library, as reviewer")
    b.type_into(".door input:not([type=password])", "Nell Arden")
    b.type_into("input[type=password]", "password12")
    b.press("Create the account")
    b.wait_text(".problem", "too common")
    b.type_into("input[type=password]", "seven plumb bobs")
    b.press("Create the account")
    b.wait_text(".reviews-list", "Sable Quay Library")
    b.forget()
    b.open("/")
    b.named("a", "Forgot your password?").click()
    b.type_into("input[type=email]", "Nell.Arden@calder-finch.example")
    b.press("Send a link")
    b.wait_text(".door", "a link has been sent")
    b.open(link_in_mail(b, "Reset the password"))
    b.type_into("input[type=password]", "eight plumb bobs")
    b.press("Save the password")
    b.wait_text(".door", "The password has been changed")
    b.sign_in("nell.arden@calder-finch.example", "eight plumb bobs")


def test_an_authenticator_is_asked_for_from_then_on(browser: Browser) -> None:
    b = browser
    b.sign_in(REVIEWER, PASSWORD)
    b.open("/account")
    b.press("Add an authenticator")
    secret = b.find(".account-code code").text
    assert b.find(".account-qr svg")
    b.type_into(".account-code input", code_of(secret))
    b.press("Add")
    who_is_there(b)
    b.wait_text("td", "Authenticator")
    b.named("button", "show codes").click()
    b.find(".account-codes")
    codes = b.find(".account-codes").text.split()
    assert len(codes) == 10
    b.named("button", "remove")
    b.forget()
    b.open("/")
    b.find("input[type=email]").send_keys(REVIEWER)
    b.find("input[type=password]").send_keys(PASSWORD + "\n")
    b.wait_text("h1", "Second factor")
    b.type_into(".door input", "000000")
    b.press("Sign in")
    b.find(".problem")
    b.type_into(".door input", codes[0])
    b.press("Sign in")
    b.wait_text("h1", "Reviews")
    # taken away again, so that others sign in as before
    b.open("/account")
    b.named("button", "remove").click()
    who_is_there(b)
    b.find("form")
    b.wait_text("button", "Add an authenticator")


def test_a_passkey_opens_the_door_without_a_password(browser: Browser) -> None:
    b = browser
    options = VirtualAuthenticatorOptions(
        protocol="ctap2", transport="internal", has_resident_key=True, has_user_verification=True, is_user_verified=True
    )
    b.sign_in(OFFICE, PASSWORD)
    b.driver.add_virtual_authenticator(options)
    try:
        b.open("/account")
        b.type_into("input[placeholder='such as laptop']", "desk")
        b.press("Add a passkey")
        who_is_there(b)
        b.wait_text("td", "Passkey desk, can be used without the password")
        b.open("/")
        b.press("Sign out")
        b.find("input[type=email]")
        b.press("Sign in with a passkey")
        b.wait_text("h1", "Reviews")
        b.open("/account")
        b.named("button", "remove").click()
        b.press("Use a passkey")
        b.wait_text(".account", "None yet")
    finally:
        b.driver.remove_virtual_authenticator()


def test_sessions_and_keys_are_ended_by_their_owner(browser: Browser, address: str) -> None:
    b = browser
    b.sign_in(SUBMITTER, PASSWORD)
    first = b.driver.get_cookie("sessionid")
    b.forget()
    b.sign_in(SUBMITTER, PASSWORD)
    b.open("/account")
    b.press("End other sessions")
    b.settle()
    assert not [t for t in b.texts("button") if t == "End other sessions"]
    b.type_into("section input[maxlength='60']", "nightly")
    b.press("Create a key")
    # a session alone makes no key
    who_is_there(b)
    key = b.find(".account-key").text
    assert re.fullmatch(r"vp_\S{40,}", key)
    b.named("button", "withdraw").click()
    b.settle()
    assert "nightly" not in " ".join(b.texts("td"))
    b.forget()
    b.open("/")
    b.driver.add_cookie({"name": "sessionid", "value": first["value"]})
    b.open("/")
    b.find("input[type=email]")


def test_a_report_is_signed_by_who_is_at_the_keyboard(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    b.open(b.review("Aldermouth Granary Lofts") + "/report")
    b.press("Sign and issue report 1")
    b.press("Sign with a signed-by line")
    who_is_there(b, "not the password")
    b.find(".mantine-Modal-content .problem")
    who_is_there(b)
    b.wait_text(".report-list", "signed by Ilse Varga")


def test_the_lead_is_handed_over(browser: Browser) -> None:
    b = browser
    b.sign_in(LEAD, PASSWORD)
    b.open(b.review("Quillon Exchange") + "/brief")
    b.find("select[aria-label='Role of Tomas Bell']")
    b.press_in("Jonas Reed", "make lead")
    b.wait_text("tr", "Jonas Reed")
    b.settle()
    assert not b.all("select[aria-label='Role of Tomas Bell']")
    b.forget()
    b.sign_in(REVIEWER, PASSWORD)
    b.open(b.review("Quillon Exchange") + "/brief")
    b.wait_text("tr", "Ilse Varga")
    b.press_in("Ilse Varga", "make lead")
    b.settle()


def test_the_office_closes_and_opens_an_account(browser: Browser) -> None:
    b = browser
    b.sign_in(OFFICE, PASSWORD)
    b.named("a", "The office").click()
    b.press_in("avel.tran", "close account")
    b.wait_text("tr", "closed")
    b.press_in("avel.tran", "reopen account")
    b.wait_text("table", "account changed")
    assert b.problems() == []


def test_one_password_signs_one_report_of_four_at_once(lead_browser: Browser) -> None:
    b = lead_browser
    b.open(b.review("Sable Quay Library") + "/report")
    b.settle()
    statuses = b.driver.execute_async_script(
        """
        const [password, done] = arguments;
        const token = document.cookie.match(/(?:^|; )(?:__Host-)?csrftoken=([^;]*)/)[1];
        const send = (path, body) => fetch(path, {
            method: "POST",
            headers: {"Content-Type": "application/json", "X-CSRFToken": token},
            body: JSON.stringify(body),
        });
        const review = location.pathname.split("/")[2];
        const shown = () => document.querySelector("iframe")?.contentDocument?.body?.dataset.seen;
        const wait = () => new Promise((there) => {
            const look = () => (shown() ? there(shown()) : setTimeout(look, 50));
            look();
        });
        let seen;
        wait().then((given) => {
            seen = given;
            return send("/_allauth/browser/v1/auth/reauthenticate", {password});
        }).then(() =>
            Promise.all([0, 1, 2, 3].map(() => send(`/api/reviews/${review}/reports/`, {seen})))
        ).then((answers) => done(answers.map((a) => a.status).sort()));
        """,
        PASSWORD,
    )
    assert statuses == [202, 401, 401, 401]
    # the browser notes the refusals
    b.problems()
