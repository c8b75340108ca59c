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

CLINIC, LIBRARY = "Port Maren Clinic", "Sable Quay Library"
EXCHANGE, GRANARY = "Quillon Exchange", "Aldermouth Granary Lofts"

# name: (review, page, what is done before the picture)
VIEWS = {
    "sheet": (CLINIC, "sheet?check=F_v&s=0", ""),
    "brief": (CLINIC, "brief?s=0", ""),
    "across": (EXCHANGE, "across", ""),
    "exhibits-page": (LIBRARY, "exhibits", "page"),
    "ground": (CLINIC, "ground?check=S_D1&s=0", ""),
    "spectrum": (CLINIC, "spectrum?check=S_a.1&s=0", ""),
    "weight": (CLINIC, "weight?check=m.L6&s=0", ""),
    "frame": (CLINIC, "frame?s=0", ""),
    "modes": (CLINIC, "modes?check=target_mass_sum.Y&s=0", ""),
    "lateral": (CLINIC, "lateral?check=w.L5&s=0", "hover"),
    "scaling": (CLINIC, "scaling?s=0", ""),
    "twist": (GRANARY, "twist?check=A_x.X.F4", ""),
    "drift": (EXCHANGE, "drift?check=amplified_amplifier.Y", ""),
    "what-if": (CLINIC, "what-if?if=%7B%22patch%22%3A%7B%22site%22%3A%7B%22site_class%22%3A%22C%22%7D%7D%7D&s=0", ""),
    "requirements": (CLINIC, "requirements?s=0", ""),
    "rounds": (CLINIC, "rounds", ""),
    "findings": (CLINIC, "findings", ""),
    "report": (CLINIC, "report", ""),
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
    """Take the pictures of the main views."""
    browser = Browser(address)
    browser.open("/")
    browser.find("input[type=email]")
    browser.sign_in(LEAD, PASSWORD)
    if not wanted or "reviews" in wanted:
        time.sleep(1)
        browser.driver.save_screenshot(str(HERE / "reviews.png"))
    paths = {title: browser.review(title) for title in (CLINIC, LIBRARY, EXCHANGE, GRANARY)}
    for name, (title, page, act) in VIEWS.items():
        if wanted and name not in wanted:
            continue
        scheme = {"features": [{"name": "prefers-color-scheme", "value": "light"}]}
        browser.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", scheme)
        browser.open(f"{paths[title]}/{page}")
        time.sleep(1.5)
        browser.settle()
        time.sleep(1)
        if act == "page":
            browser.driver.find_element("css selector", "input[type=file]").send_keys(str(report_in_pages()))
            browser.wait_text(".open-exhibit", "tables found")
            browser.wait_text(".read-in", "story drifts by case")
            browser.click_on(".read-in button", "story drifts")
            time.sleep(2)
            browser.wait_text(".pdf-table", "being read")
            time.sleep(2.5)
        if act == "hover":
            browser.driver.execute_script(
                "const r = document.querySelectorAll('.log svg rect[fill=transparent]')[4];"
                "r.dispatchEvent(new MouseEvent('mouseover', {bubbles: true}))"
            )
            time.sleep(0.5)
        if name == "report":
            # its page is set by the server
            time.sleep(5)
        browser.driver.save_screenshot(str(HERE / f"{name}.png"))
        print(name)
    browser.driver.quit()


if __name__ == "__main__":
    given = sys.argv[1:]
    main(given[0] if given else "http://127.0.0.1:8470", given[1:])
