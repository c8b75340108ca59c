"""Take the pictures of the main views from a running application with its demo data (see README, Working on it).

Usage: .venv/bin/python docs/screenshots/take.py [http://127.0.0.1:8470] [view ...]
"""

import sys
import tempfile
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
    "brief": (CLINIC, "brief", False, ""),
    "across": (EXCHANGE, "across", False, ""),
    "exhibits-paste": (CLINIC, "exhibits", False, "paste"),
    "exhibits-page": (LIBRARY, "exhibits", False, "page"),
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


def report_in_pages() -> Path:
    """The library's tables as a report of pages, for a second submission."""
    sys.path.insert(0, str(HERE.parents[1] / "server"))
    from plumb_core.intake.sheets import read_file
    from plumb_server.demo.submissions import FILES
    from weasyprint import HTML

    pages = []
    for file in sorted(FILES.glob("library-*.csv")):
        rows = read_file(file.read_bytes(), file.name)[0].rows[:28]
        cells = "".join("<tr>" + "".join(f"<td>{c.text}</td>" for c in row) + "</tr>" for row in rows)
        title = file.stem.split("-")[-1].capitalize()
        pages.append(
            f"<section><h3>{title}</h3><p>As taken from the run of the library.</p><table>{cells}</table></section>"
        )
    style = (
        "@page { size: A4; margin: 18mm } body { font-family: Archivo, sans-serif; font-size: 10pt } "
        "section { page-break-after: always } td { border: .5pt solid #888; padding: 1pt 7pt; font-size: 9pt } "
        "table { border-collapse: collapse }"
    )
    target = Path(tempfile.mkdtemp()) / "library report.pdf"
    target.write_bytes(HTML(string=f"<style>{style}</style>{''.join(pages)}").write_pdf())
    return target


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
        if act == "page":
            browser.driver.find_element("css selector", "input[type=file]").send_keys(str(report_in_pages()))
            browser.wait_text(".open-exhibit", "tables found")
            browser.wait_text(".read-in", "story drifts by case")
            next(b for b in browser.all(".read-in button") if "story drifts" in b.text).click()
            time.sleep(2)
            browser.wait_text(".pdf-table", "being read")
            time.sleep(2.5)
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
