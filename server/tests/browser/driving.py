"""Chromium, driven as a person would."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from typing import Any

from selenium import webdriver
from selenium.common.exceptions import (
    ElementClickInterceptedException,
    NoSuchElementException,
    StaleElementReferenceException,
)
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.by import By
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

FLAGS = [
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-dev-shm-usage",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    # a model that swings all the time, drawn in software, would slow every test after it
    "--force-prefers-reduced-motion",
]


# a machine under load takes its time, and a wait that succeeds costs none
PATIENCE = 60
NOT_YET = (NoSuchElementException, StaleElementReferenceException, ElementClickInterceptedException)

COUNT_REQUESTS = """
window.requestsUnderWay = 0;
const send = window.fetch;
window.fetch = (...given) => {
  window.requestsUnderWay += 1;
  return send(...given).finally(() => { window.requestsUnderWay -= 1; });
};
"""


class Browser:
    """Chromium with the few things that the tests do in it."""

    def __init__(self, address: str, width: int = 1280, height: int = 800):
        options = webdriver.ChromeOptions()
        options.binary_location = "/usr/bin/chromium"
        for flag in (*FLAGS, f"--user-data-dir={tempfile.mkdtemp()}", f"--window-size={width},{height}"):
            options.add_argument(flag)
        options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
        self.driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
        self.size = (width, height)
        self.resize(width, height)
        self.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": COUNT_REQUESTS})
        self.address = address

    def resize(self, width: int, height: int) -> None:
        metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
        self.driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)

    def open(self, path: str) -> None:
        self.driver.get(self.address + path)

    def forget(self) -> None:
        """As a new Chromium would be: no cookies, no storage, an empty page of the first size."""
        self.driver.get("about:blank")
        self.driver.execute_cdp_cmd("Network.clearBrowserCookies", {})
        self.driver.execute_cdp_cmd("Storage.clearDataForOrigin", {"origin": self.address, "storageTypes": "all"})
        self.resize(*self.size)
        self.problems()

    def until(self, true: Callable[[Any], Any], what: str = "") -> Any:
        """What the condition gives, as soon as it gives something."""
        wait = WebDriverWait(self.driver, PATIENCE, poll_frequency=0.1, ignored_exceptions=NOT_YET)
        return wait.until(true, what)

    def find(self, css: str) -> WebElement:
        """The first element, as soon as it is there."""
        return self.until(lambda d: d.find_element(By.CSS_SELECTOR, css))

    def all(self, css: str) -> list[WebElement]:
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def one(self, css: str, text: str) -> WebElement:
        """The element that reads so, or begins so, or has it in it, as soon as there is one."""
        return self.until(lambda _: self._reading(css, text), f"{text!r} in {css}")

    def _reading(self, css: str, text: str) -> WebElement | None:
        # one script: to ask of each of hundreds of options whether it is displayed takes seconds
        return self.driver.execute_script(
            "const shown = [...document.querySelectorAll(arguments[0])]"
            ".filter((e) => e.checkVisibility({visibilityProperty: true})).map((e) => [e.innerText.trim(), e]);"
            "const text = arguments[1];"
            "for (const fits of [(t) => t === text, (t) => t.startsWith(text), (t) => t.includes(text)]) {"
            "  const found = shown.find(([read]) => fits(read)); if (found) return found[1]; }"
            "return null",
            css,
            text,
        )

    def click_on(self, css: str, text: str) -> None:
        """Click on the element that reads so, as soon as there is one that can be clicked on."""

        def clicked(_: Any) -> bool:
            element = self._reading(css, text)
            if element is not None:
                element.click()
            return element is not None

        self.until(clicked, f"{text!r} in {css}")

    def press_in(self, row: str, button: str) -> None:
        """Press a button in the row of a table that has this text in it, as soon as both are there."""
        found = (
            "const row = [...document.querySelectorAll('tr')].find((r) => r.innerText.includes(arguments[0]));"
            "const button = [...(row?.querySelectorAll('button') ?? [])]"
            ".find((b) => b.innerText.trim() === arguments[1] && !b.disabled);"
            "if (button) button.click(); return !!button"
        )
        self.until(lambda d: d.execute_script(found, row, button), f"the button {button!r} in the row of {row!r}")

    def named(self, tag: str, text: str) -> WebElement:
        """The element of a tag that holds exactly this text."""
        path = f"//{tag}[normalize-space(.)={text!r}]"
        return self.until(lambda d: d.find_element(By.XPATH, path))

    def texts(self, css: str) -> list[str]:
        """What a person reads in the elements, all at one moment."""
        script = "return [...document.querySelectorAll(arguments[0])].map((e) => e.innerText)"
        return list(self.driver.execute_script(script, css))

    def wait_text(self, css: str, text: str) -> None:
        self.until(lambda d: any(text in t for t in self.texts(css)), f"{text!r} in {css}")

    def settle(self) -> None:
        """Wait until the page has no request under way and has been drawn with what they brought."""
        self.driver.execute_async_script(
            "const done = arguments[0]; let quiet = 0;"
            "const look = () => { quiet = window.requestsUnderWay ? 0 : quiet + 1;"
            "  if (quiet > 4) done(true); else setTimeout(() => requestAnimationFrame(look), 40); };"
            "look();"
        )

    def press(self, text: str) -> None:
        """Press the first button that reads so, as soon as it is there."""
        self.until(
            lambda d: d.execute_script(
                "const b = [...document.querySelectorAll('button')].find((x) => x.innerText.trim() === "
                "arguments[0] && !x.disabled);"
                "if (b) b.click(); return !!b",
                text,
            ),
            f"the button {text!r}",
        )

    def type_into(self, css: str, text: str) -> None:
        """Replace what a field holds."""
        field = self.find(css)
        field.click()
        self.driver.execute_script("arguments[0].select && arguments[0].select()", field)
        field.send_keys(text)

    def paste(self, css: str, text: str) -> None:
        """What a paste from a spreadsheet does: one paste event with the text."""
        self.driver.execute_script(
            "const data = new DataTransfer(); data.setData('text/plain', arguments[1]);"
            "arguments[0].dispatchEvent(new ClipboardEvent('paste', {clipboardData: data, bubbles: true, "
            "cancelable: true}))",
            self.find(css),
            text,
        )

    def keys(self, text: str) -> None:
        self.find("body").send_keys(text)

    def sign_in(self, email: str, password: str) -> None:
        self.open("/")
        self.find("input[type=email]").send_keys(email)
        self.find("input[type=password]").send_keys(password + "\n")
        self.wait_text("h1", "Reviews")

    def review(self, title: str) -> str:
        """Path of a review in the list."""
        self.open("/")
        self.wait_text(".reviews-list", title)
        link = self.one(".reviews-list a", title)
        return "/reviews/" + str(link.get_attribute("href")).split("/reviews/")[1].split("/")[0]

    def send(self, method: str, path: str, body: Any = None) -> Any:
        """What the page would send; for what a test needs to be there and is not about."""
        told = self.driver.execute_async_script(
            "const [method, path, body, done] = arguments;"
            "const token = (document.cookie.match(/csrftoken=([^;]+)/) ?? [])[1] ?? '';"
            "fetch(path, {method, headers: {'Content-Type': 'application/json', 'X-CSRFToken': token},"
            " body: body === null ? undefined : JSON.stringify(body)})"
            ".then(async (r) => done([r.status, await r.json()])).catch((e) => done([0, String(e)]))",
            method,
            path,
            body,
        )
        assert told[0] in (200, 201, 202), told
        return told[1]

    def problems(self) -> list[str]:
        """Errors that the page has logged."""
        return [e["message"] for e in self.driver.get_log("browser") if e["level"] == "SEVERE"]
