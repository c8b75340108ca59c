"""What holds on every page: it can be used without a mouse and without seeing, fits its window, and loads quickly."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from driving import Browser
from selenium.webdriver.common.by import By

WEB = Path(__file__).resolve().parents[3] / "web"
PAGES = [
    "sheet",
    "brief",
    "exhibits",
    "ground",
    "spectrum",
    "weight",
    "frame",
    "modes",
    "lateral",
    "scaling",
    "twist",
    "drift",
    "across",
    "requirements",
    "findings",
    "report",
]
REVIEW_OF = {"across": "Quillon Exchange", "brief": "Aldermouth Granary Lofts"}


PATHS: dict[str, str] = {}
"""Of the reviews that were opened, by their titles."""
LEVELS = "['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']"
# colours are what is different in the dark
SCHEMES = {"light": LEVELS, "dark": "{type: 'rule', values: ['color-contrast']}"}


@pytest.mark.parametrize("page", PAGES)
def test_a_page_fits_its_window_and_has_no_serious_accessibility_findings(page: str, lead_browser: Browser) -> None:
    b = lead_browser
    title = REVIEW_OF.get(page, "Port Maren Clinic")
    path = PATHS.get(title) or PATHS.setdefault(title, b.review(title))
    b.open(f"{path}/{page}" + ("?check=F_v" if page in ("ground", "lateral") else ""))
    b.find(".bench-title, .stage-title, .sheet")
    b.settle()
    # What is folded away is assessed too
    b.driver.execute_script("document.querySelectorAll('details').forEach((d) => { d.open = true; })")
    for width, height in ((1024, 768), (1920, 1080), b.size):
        b.resize(width, height)
        b.settle()
        over = b.driver.execute_script("return document.documentElement.scrollWidth - window.innerWidth")
        assert over <= 0, f"{page} at {width}"
    for scheme, rules in SCHEMES.items():
        b.driver.execute_script(
            "document.documentElement.setAttribute('data-mantine-color-scheme', arguments[0])", scheme
        )
        b.driver.execute_script((WEB / "node_modules/axe-core/axe.min.js").read_text())
        found = b.driver.execute_async_script(
            "const done = arguments[0]; axe.run(document, {iframes: false, resultTypes: ['violations'], "
            f"runOnly: {rules}}})"
            ".then((r) => done(r.violations.map((v) => [v.impact, v.id, v.nodes.map((n) => n.target.join(' ') "
            "+ ' ' + n.failureSummary).slice(0, 4)])))"
        )
        serious = [v for v in found if v[0] in ("serious", "critical")]
        assert serious == [], f"{scheme}: {json.dumps(serious, indent=1)[:3000]}"


def test_the_first_load_is_under_350_kb_of_compressed_script(lead_browser: Browser) -> None:
    b = lead_browser
    b.open("/")
    b.wait_text("h1", "Reviews")
    sources = [
        str(s.get_attribute("src")).split("/assets/")[1] for s in b.driver.find_elements(By.CSS_SELECTOR, "script[src]")
    ]
    preloaded = [
        str(s.get_attribute("href")).split("/assets/")[1]
        for s in b.driver.find_elements(By.CSS_SELECTOR, "link[rel=modulepreload]")
    ]
    files = [WEB / "dist/assets" / name for name in {*sources, *preloaded}]
    # What does not get smaller is not compressed
    packed = [f.with_name(f.name + ".gz") for f in files]
    sizes = {f.name: (p if p.is_file() else f).stat().st_size for f, p in zip(files, packed, strict=True)}
    print("first load:", sizes)
    assert 0 < sum(sizes.values()) < 350_000
