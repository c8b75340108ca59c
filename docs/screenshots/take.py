"""Take the pictures of the main views from a running application with its demo data (see README, Working on it).

Usage: .venv/bin/python docs/screenshots/take.py [http://127.0.0.1:8470] [view ...]
"""

import sys
import time
from pathlib import Path

HERE = Path(__file__).resolve().parent
sys.path[:0] = [str(HERE.parents[1] / "server"), str(HERE.parents[1] / "server" / "tests" / "browser")]

from driving import Browser  # noqa: E402
from plumb_server.demo.people import LEAD, PASSWORD  # noqa: E402

PASTED = (
    "Story\tHeight (m)\tWeight\nL3\t3.9\t5600\nL2\t-3.9\t=2*2800\nL2\t3.9\tabout\n<script>\t4.8\t6100\nTotal\t\t17300\n"
)
CLINIC, LIBRARY = "Port Maren Clinic", "Sable Quay Library"
EXCHANGE, GRANARY = "Quillon Exchange", "Aldermouth Granary Lofts"

# name: (review, page, dark, script run before the picture)
VIEWS = {
    "sheet": (CLINIC, "sheet?check=F_v", False, ""),
    "sheet-dark": (CLINIC, "sheet?check=T.X", True, ""),
    "sheet-in-plumb": (LIBRARY, "sheet?check=C_s.X", False, ""),
    "brief": (CLINIC, "brief", False, ""),
    "across": (EXCHANGE, "across", False, ""),
    "exhibits-paste": (CLINIC, "exhibits", False, "paste"),
    "ground": (CLINIC, "ground?check=S_D1", False, ""),
    "spectrum": (CLINIC, "spectrum?check=S_a.1", False, ""),
    "weight": (CLINIC, "weight?check=m.L6", False, ""),
    "frame": (CLINIC, "frame", False, ""),
    "modes": (CLINIC, "modes?check=target_mass_sum.Y", False, ""),
    "lateral": (CLINIC, "lateral?check=w.L5", False, "hover"),
    "scaling": (CLINIC, "scaling", False, ""),
    "twist": (GRANARY, "twist?check=A_x.X.F4", False, ""),
    "drift": (EXCHANGE, "drift?check=amplified_amplifier.Y", False, ""),
    "findings": (CLINIC, "findings", False, ""),
    "report": (CLINIC, "report", False, ""),
}


def main(address: str, wanted: list[str]) -> None:
    browser = Browser(address)
    browser.open("/")
    browser.find("input[type=email]")
    time.sleep(0.5)
    if not wanted or "sign-in" in wanted:
        browser.driver.save_screenshot(str(HERE / "sign-in.png"))
    browser.sign_in(LEAD, PASSWORD)
    if not wanted or "reviews" in wanted:
        time.sleep(1)
        browser.driver.save_screenshot(str(HERE / "reviews.png"))
    paths = {title: browser.review(title) for title in (CLINIC, LIBRARY, EXCHANGE, GRANARY)}
    for name, (title, page, dark, act) in VIEWS.items():
        if wanted and name not in wanted:
            continue
        scheme = {"features": [{"name": "prefers-color-scheme", "value": "dark" if dark else "light"}]}
        browser.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", scheme)
        browser.open(f"{paths[title]}/{page}")
        time.sleep(2.5)
        if act == "paste":
            browser.paste("body", PASTED)
            time.sleep(1.5)
        if act == "hover":
            browser.driver.execute_script(
                "const r = document.querySelectorAll('.log svg rect[fill=transparent]')[4];"
                "r.dispatchEvent(new MouseEvent('mouseover', {bubbles: true}))"
            )
            time.sleep(0.5)
        browser.driver.save_screenshot(str(HERE / f"{name}.png"))
        print(name)
    browser.driver.quit()


if __name__ == "__main__":
    given = sys.argv[1:]
    main(given[0] if given else "http://127.0.0.1:8470", given[1:])
