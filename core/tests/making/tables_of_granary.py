"""What the tables in `tables/` are made of: the numbers of one building, and the ways that people print them.

The numbers are those of one invented building, Aldermouth Granary. Each table prints some of them in one of the ways that people
do; the truth is taken from the numbers, not from what reads them. A table that nobody can read for sure has, as its truth, the
places that must be asked about, and where an answer makes it whole, that answer with the numbers that it gives.
"""

from __future__ import annotations

import io
from collections.abc import Callable, Iterable, Sequence
from typing import Any

from openpyxl import Workbook
from weasyprint import HTML

NAMES = ["L5", "L4", "L3", "L2", "L1"]
H = {"L5": 3.4, "L4": 3.4, "L3": 3.6, "L2": 3.6, "L1": 4.2}
LEVEL = {"L5": 18.2, "L4": 14.8, "L3": 11.4, "L2": 7.8, "L1": 4.2}
W = {"L5": 3912.5, "L4": 4931.5, "L3": 4931.5, "L2": 4987.0, "L1": 5213.4}
M = {"L5": 399.0, "L4": 502.9, "L3": 502.9, "L2": 508.5, "L1": 531.6}
F = {"Static X": {"L5": 812.4, "L4": 640.1, "L3": 455.8, "L2": 268.2, "L1": 118.5}, "Static Y": {"L5": 905.7, "L4": 713.6, "L3": 508.2, "L2": 299.0, "L1": 132.1}}
V = {c: {n: round(sum(list(f.values())[: i + 1]), 1) for i, n in enumerate(NAMES)} for c, f in F.items()}
D1 = {"Static X": {"L5": 7.12, "L4": 9.35, "L3": 11.02, "L2": 11.48, "L1": 9.81}, "Static Y": {"L5": 6.03, "L4": 7.94, "L3": 9.21, "L2": 9.66, "L1": 8.17}}
D2 = {c: {n: round(1.08 * d, 2) for n, d in of.items()} for c, of in D1.items()}
"""Drifts at the ends, mm."""
U1 = {c: {n: round(sum(list(d.values())[i:]), 2) for i, n in enumerate(NAMES)} for c, d in D1.items()}
U2 = {c: {n: round(1.05 * u, 2) for n, u in of.items()} for c, of in U1.items()}
"""Displacements at the ends, mm."""
MODES = [
    # T, share X, share Y, share RZ in %
    (0.934, 78.4, 0.1, 1.2),
    (0.871, 0.2, 77.9, 0.4),
    (0.702, 1.1, 0.5, 76.3),
    (0.312, 11.6, 0.0, 0.3),
    (0.287, 0.1, 12.2, 0.1),
    (0.231, 0.3, 0.2, 11.9),
]
SUMS = [[round(sum(m[a] for m in MODES[: i + 1]), 1) for a in (1, 2, 3)] for i in range(len(MODES))]
POINTS = [(0.0, 0.293), (0.1, 0.512), (0.15, 0.733), (0.75, 0.733), (1.0, 0.55), (1.5, 0.367), (2.0, 0.275), (3.0, 0.183)]
REACTIONS = {"Static X": (2295.0, 12.4, 0.0, 148.0, 30210.5, 26410.0), "Static Y": (-8.2, 2558.6, 0.0, -33640.2, 105.5, 36850.0), "Gravity": (0.0, 0.0, 23975.9, 210560.0, -342110.0, 0.0)}

Row = list[Any]
Values = list[Row]


def row(quantity: str, value: Any, *, story: str = "", case: str = "", d: str = "", point: int | None = None) -> Row:
    return [quantity, story, case, d, point, value]


def of_stories(*what: str, names: Callable[[str], str] = str) -> Values:
    held = {"h": H, "w": W, "m": M}
    return [row(q, held[q][n], story=names(n)) for q in what or ("h", "w") for n in NAMES]


def of_forces(*what: str, cases: Iterable[str] = F, named: Callable[[str], str] = str) -> Values:
    held = {"F": F, "V_story": V}
    return [row(q, held[q][c][n], story=n, case=named(c), d=c[-1]) for q in what or ("F", "V_story") for c in cases for n in NAMES]


def of_drifts(*what: str, cases: Iterable[str] = D1, named: Callable[[str], str] = str) -> Values:
    held = {"drift_end_1": D1, "drift_end_2": D2, "drift_max": D2, "drift_avg": {c: {n: round((D1[c][n] + D2[c][n]) / 2, 4) for n in NAMES} for c in D1}}
    return [row(q, held[q][c][n] / 1000, story=n, case=named(c), d=c[-1]) for q in what or ("drift_end_1", "drift_end_2") for c in cases for n in NAMES]


def of_displacements(*what: str, cases: Iterable[str] = U1) -> Values:
    held = {"displacement_end_1": U1, "displacement_end_2": U2, "displacement_max": U2}
    return [row(q, held[q][c][n] / 1000, story=n, case=c, d=c[-1]) for q in what or ("displacement_end_1", "displacement_end_2") for c in cases for n in NAMES]


def of_modes(T: bool = True, shares: str = "XY", sums: str = "") -> Values:
    found = []
    for i, mode in enumerate(MODES):
        if T:
            found.append(row("T_mode", mode[0], point=i))
        for axis, value, total in zip(("X", "Y", "RZ"), mode[1:], SUMS[i], strict=True):
            d = "" if axis == "RZ" else axis
            end = "_RZ" if axis == "RZ" else ""
            if axis in shares.split() or (axis in ("X", "Y") and axis in shares):
                found.append(row(f"mass_ratio{end}", value / 100, d=d, point=i))
            if axis in sums.split() or (axis in ("X", "Y") and axis in sums):
                found.append(row(f"mass_running{end}", total / 100, d=d, point=i))
    return found


def of_points(scale: float = 1.0) -> Values:
    return [r for i, (t, a) in enumerate(POINTS) for r in (row("T_points", t, point=i), row("S_a", a * scale, point=i))]


def of_reactions(*axes: str, cases: Iterable[str] = REACTIONS) -> Values:
    order = ("X", "Y", "Z", "MX", "MY", "MZ")
    return [row(f"reaction_{a}", REACTIONS[c][order.index(a)], case=c) for c in cases for a in axes or order]


# how tables are written

TABLES: dict[str, tuple[bytes, dict[str, Any]]] = {}


def grid(rows: Sequence[Sequence[Any]], sep: str = "\t") -> str:
    return "\n".join(sep.join("" if c is None else str(c) for c in r) for r in rows) + "\n"


def table(name: str, content: str | bytes, values: Values | None = None, *, kind: str, asks: Sequence[str] = (), answers: dict[str, Any] | None = None, marks: Sequence[str] = (), stories: Sequence[str] | None = None, edition: str = "asce7-16", cases: Sequence[dict[str, Any]] = (), tables: int = 1) -> None:
    """Keep a table.

    asks : `place: words` of every question that holds it up, none where anybody can read it
    marks : the same of those that leave a row out, or mark a value, and hold nothing up
    stories : of the brief, bottom to top; those of the building where none are given, [] for a brief without
    """
    assert name not in TABLES, name
    truth = {"kind": kind, "tables": tables, "edition": edition, "stories": list(reversed(NAMES)) if stories is None else list(stories), "cases": list(cases), "asks": list(asks), "marks": list(marks), "answers": answers, "values": values or []}
    TABLES[name] = (content.encode() if isinstance(content, str) else content, truth)


def book(*sheets: tuple[str, Sequence[Sequence[Any]]] | Sequence[Sequence[Any]], change: Callable[[Workbook], None] | None = None) -> bytes:
    made = Workbook()
    made.remove(made.active)
    for i, given in enumerate(sheets):
        title, rows = given if isinstance(given, tuple) else (f"Sheet{i + 1}", given)
        sheet = made.create_sheet(title)
        for r in rows:
            sheet.append(list(r))
    if change:
        change(made)
    kept = io.BytesIO()
    made.save(kept)
    return kept.getvalue()


def fixed(rows: Sequence[Sequence[Any]], width: int = 14, first: int = 10) -> str:
    return "\n".join("".join(str(c).ljust(first) if i == 0 else str(c).rjust(width) for i, c in enumerate(r)) for r in rows) + "\n"


def comma(value: Any) -> str:
    return str(value).replace(".", ",")


def story_rows(*columns: dict[str, Any], names: Callable[[str], str] = str, order: Sequence[str] = NAMES) -> list[Row]:
    return [[names(n), *(c[n] for c in columns)] for n in order]


def stories_of_granary() -> None:
    K = "stories"
    head = ["Story", "Height (m)", "Seismic weight (kN)"]
    rows = story_rows(H, W)
    up = list(reversed(rows))
    t = table
    t("stories-01-plain.tsv", grid([head, *rows]), of_stories(), kind=K)
    t("stories-02-bottom-up.csv", grid([head, *up], ";"), of_stories(), kind=K)
    t("stories-03-decimal-comma.csv", grid([head, *[[n, comma(h), comma(w)] for n, h, w in rows]], ";"), of_stories(), kind=K)
    t("stories-04-units-row.tsv", grid([["Story", "Height", "Weight"], ["", "m", "kN"], *rows]), of_stories(), kind=K)
    t("stories-05-units-in-cells.tsv", grid([["Story", "Height", "Weight"], *[[n, f"{h} m", f"{w} kN"] for n, h, w in rows]]), of_stories(), kind=K)
    t("stories-06-feet-kips.tsv", grid([["Story", "Height (ft)", "Weight (kips)"], *[[n, round(h / 0.3048, 9), round(w / 4.4482216152605, 9)] for n, h, w in rows]]), of_stories(), kind=K)
    t("stories-07-total.tsv", grid([head, *rows, ["Total", 18.2, 23975.9]]), of_stories(), kind=K)
    t("stories-08-levels-base.tsv", grid([["Story", "Level (m)", "Weight (kN)"], *story_rows(LEVEL, W), ["Base", "0.00", "-"]]), of_stories(), kind=K)
    t("stories-09-title-notes.csv", grid([["Table 4.2 Seismic weight of the floors", "", ""], ["", "", ""], head, *rows, ["", "", ""], ["Note: weights hold 25 % of the stored grain.", "", ""]], ";"), of_stories(), kind=K)
    t("stories-10-thousands-quoted.csv", grid([head, *[[n, h, f'"{w:,.1f}"'] for n, h, w in rows]], ","), of_stories(), kind=K)
    t("stories-11-thin-space.tsv", grid([head, *[[n, h, f"{w:,.1f}".replace(",", "\u2009")] for n, h, w in rows]]), of_stories(), kind=K)
    t("stories-12-apostrophe.tsv", grid([head, *[[n, h, f"{w:,.1f}".replace(",", "\u2019")] for n, h, w in rows]]), of_stories(), kind=K)
    t("stories-13-fixed-width.txt", fixed([["Story", "Height (m)", "Weight (kN)"], *rows]), of_stories(), kind=K)
    t("stories-14-bars.txt", "\n".join("| " + " | ".join(map(str, r)) + " |" for r in [head, ["---", "---:", "---:"], *rows]) + "\n", of_stories(), kind=K)
    t("stories-15-heading-two-rows.tsv", grid([["Story", "Story", "Seismic"], ["", "height (m)", "weight (kN)"], *rows]), of_stories(), kind=K)
    t("stories-16-across.tsv", grid([["Story", *NAMES], ["Height (m)", *[H[n] for n in NAMES]], ["Weight (kN)", *[W[n] for n in NAMES]]]), of_stories(), kind=K)
    foreign = {"L5": "4. OG", "L4": "3. OG", "L3": "2. OG", "L2": "1. OG", "L1": "EG"}
    t("stories-17-german.csv", grid([["Geschoss", "Geschosshöhe [m]", "Gewicht [kN]"], *[[foreign[n], comma(h), comma(w)] for n, h, w in rows], ["Summe", "18,2", "23975,9"]], ";"), of_stories(names=foreign.__getitem__), kind=K, stories=[])
    t("stories-18-french.csv", grid([["Étage", "Hauteur d'étage (m)", "Poids sismique (kN)"], *[[n, comma(h), comma(w)] for n, h, w in rows]], ";"), of_stories(), kind=K)
    t("stories-19-spanish.csv", grid([["Nivel", "Altura de entrepiso (m)", "Peso sísmico (kN)"], *[[n, comma(h), comma(w)] for n, h, w in rows]], ";"), of_stories(), kind=K)
    t("stories-20-italian.csv", grid([["Piano", "Altezza interpiano (m)", "Peso sismico (kN)"], *[[n, comma(h), comma(w)] for n, h, w in rows]], ";"), of_stories(), kind=K)
    t("stories-21-height-above-base.tsv", grid([["Story", "Height above base (m)", "Weight (kN)"], *story_rows(LEVEL, W)]), of_stories(), kind=K)
    t("stories-22-rising-heights.tsv", grid([["Story", "Height (m)", "Weight (kN)"], *story_rows(LEVEL, W)]), of_stories(), kind=K, asks=["/rows/0/1: levels"], answers={"columns": {"story": 0, "level": 1, "w": 2}})
    t("stories-23-elevation.tsv", grid([["Floor", "Elev. (m)", "Wt (kN)"], *story_rows(LEVEL, W)]), of_stories(), kind=K)
    t("stories-24-millimetres.tsv", grid([["Storey", "Storey height (mm)", "Weight (kN)"], *[[n, round(h * 1000), w] for n, h, w in rows]]), of_stories(), kind=K)
    t("stories-25-metres-with-comma.csv", grid([head, *[[n, f"{h:.3f}".replace(".", ","), round(w)] for n, h, w in rows]], ";"), [*of_stories("h"), *[row("w", round(W[n]), story=n) for n in NAMES]], kind=K)
    t("stories-26-both-ways.csv", grid([["Story", "Height (m)", "Weight (kN)"], *[[n, 4, f"{round(W[n]):,}"] for n in NAMES]], ";"), [row(q, v, story=n) for n in NAMES for q, v in (("h", 4.0), ("w", float(round(W[n]))))], kind=K, asks=["/rows/0/2: numbers are written"], answers={"numbers": "point"})
    t("stories-27-bare-commas.csv", "Story,Height (m),Weight (kN)\nL5,3.40,3,912.5\nL4,3.40,4,931.5\nL3,3.60,4,931.5\nL2,3.60,4,987.0\nL1,4.20,5,213.4\n", kind=K, asks=["/rows/\\d/3: more cells"])
    trees = dict(zip(NAMES, ["Alder", "Birch", "Cedar", "Damson", "Elm"], strict=True))
    t("stories-28-levels-tell-order.tsv", grid([["Story", "Level (m)", "Weight (kN)"], *story_rows(LEVEL, W, names=trees.__getitem__)]), of_stories(names=trees.__getitem__), kind=K, stories=[])
    t("stories-29-no-order.tsv", grid([head, *story_rows(H, W, names=trees.__getitem__)]), of_stories(names=trees.__getitem__), kind=K, stories=[], asks=["/rows/0/0: the lowest"], answers={"order": "top_down"})
    words = dict(zip(NAMES, ["Roof", "Fourth", "Third", "Second", "First"], strict=True))
    t("stories-30-ordinals.tsv", grid([head, *story_rows(H, W, names=words.__getitem__)]), of_stories(names=words.__getitem__), kind=K, stories=[])
    below = dict(zip(NAMES, ["L2", "L1", "G", "B1", "B2"], strict=True))
    t("stories-31-basements.tsv", grid([head, *story_rows(H, W, names=below.__getitem__)]), of_stories(names=below.__getitem__), kind=K, stories=[])
    signed = {n: f"+{LEVEL[n]:.2f}" for n in NAMES}
    t("stories-32-named-by-level.tsv", grid([head, *reversed(story_rows(H, W, names=signed.__getitem__))]), of_stories(names=signed.__getitem__), kind=K, stories=[])
    t("stories-33-book.xlsx", book([head, *rows]), of_stories(), kind=K)

    def hide(made: Workbook) -> None:
        sheet = made.active
        sheet.insert_rows(3)
        for i, v in enumerate(["L4 (old)", 3.4, 4000.0], 1):
            sheet.cell(3, i).value = v
        sheet.row_dimensions[3].hidden = True
        sheet.insert_cols(3)
        for i, v in enumerate(["Seismic weight (kN)", 1.0, 1.0, 1.0, 1.0, 1.0, 1.0], 1):
            sheet.cell(i, 3).value = v
        sheet.column_dimensions["C"].hidden = True

    t("stories-34-hidden.xlsx", book([head, *rows], change=hide), of_stories(), kind=K)

    def thousands(made: Workbook) -> None:
        for (cell,) in made.active["C2:C6"]:
            cell.number_format = "#,##0.00,"

    t("stories-35-format-thousands.xlsx", book([["Story", "Height (m)", "Weight (MN)"], *rows], change=thousands), of_stories(), kind=K)

    def formulas(made: Workbook) -> None:
        made.active["C3"] = "=4900+31.5"

    t("stories-36-formula.xlsx", book([head, *rows], change=formulas), kind=K, asks=["/rows/2/2: formula"])

    def merged(made: Workbook) -> None:
        made.active.insert_rows(1)
        made.active["A1"] = "Aldermouth Granary, floors"
        made.active.merge_cells("A1:C1")

    t("stories-37-merged-title.xlsx", book([head, *rows], change=merged), of_stories(), kind=K)

    def literal(made: Workbook) -> None:
        for (cell,) in made.active["C2:C6"]:
            cell.number_format = '0.0" kN"'
        for (cell,) in made.active["B2:B6"]:
            cell.number_format = '0.00" m"'

    t("stories-38-format-with-unit.xlsx", book([["Story", "Height", "Weight"], *rows], change=literal), of_stories(), kind=K)

    def unseen(made: Workbook) -> None:
        made.active["D1"] = "Mass (t)"
        for i in range(2, 7):
            made.active.cell(i, 4).value = 1.0
            made.active.cell(i, 4).number_format = ";;;"

    t("stories-39-format-shows-nothing.xlsx", book([head, *rows], change=unseen), of_stories(), kind=K)
    t("stories-40-sums.tsv", grid([head, *rows, ["Totals", "", 23975.9], ["Σ W", "", 23975.9]]), of_stories(), kind=K)
    t("stories-41-level-beside.tsv", grid([["No.", "Level [m]", "Story", "Weight [kN]"], *[[i, LEVEL[n], n, W[n]] for i, n in enumerate(NAMES, 1)]]), of_stories(), kind=K)
    t("stories-42-footnote.tsv", grid([head, *rows[:-1], ["L1", 4.2, "5213.4*"], ["* with the plinth", "", ""]]), of_stories(), kind=K)
    inches = {"L5": "11'-2\"", "L4": "11'-2\"", "L3": "11'-10\"", "L2": "11'-10\"", "L1": "13'-9 1/2\""}
    feet = {"L5": 11 + 2 / 12, "L4": 11 + 2 / 12, "L3": 11 + 10 / 12, "L2": 11 + 10 / 12, "L1": 13 + 9.5 / 12}
    t("stories-43-feet-inches.tsv", grid([["Story", "Height", "Weight (kN)"], *story_rows(inches, W)]), [*[row("h", feet[n] * 0.3048, story=n) for n in NAMES], *of_stories("w")], kind=K)
    t("stories-44-feet-unclear.tsv", grid([["Story", "Height (ft)", "Weight (kN)"], ["L3", "11.5", 4931.5], ["L2", "11'6", 4987.0], ["L1", "13'6", 5213.4]]), kind=K, asks=["/rows/[23]/1: is not a number"])
    t("stories-45-became-a-date.csv", grid([head, ["L5", "3.4", 3912.5], ["L4", "03-Apr", 4931.5], *rows[2:]], ";"), kind=K, asks=["/rows/2/1: is not a number"])
    t("stories-46-split-number.tsv", grid([head, ["L5", 3.4, "3912.5 2"], *rows[1:]]), kind=K, asks=["/rows/1/2: "])
    page = [["Aldermouth Granary", "", "page 1 of 2"], head]
    again = [["Aldermouth Granary", "", "page 2 of 2"], head]
    t("stories-47-repeated-headings.csv", grid([*page, *rows[:3], *again, *rows[3:]], ";"), of_stories(), kind=K)
    t("stories-48-units-in-note.tsv", grid([["All weights in kN, all heights in m", "", ""], ["Story", "Height", "Weight"], *rows]), of_stories(), kind=K)
    t("stories-49-units-below.tsv", grid([["Story", "Height", "Weight"], *rows, ["Units: kN, m", "", ""]]), of_stories(), kind=K)
    t("stories-50-masses.tsv", grid([["Story", "Height (m)", "Mass (t)"], *story_rows(H, M)]), of_stories("h", "m"), kind=K)
    t("stories-51-masses-kg.tsv", grid([["Story", "Height (m)", "Mass (kg)"], *[[n, H[n], round(M[n] * 1000)] for n in NAMES]]), of_stories("h", "m"), kind=K)
    t("stories-52-mass-in-kn.tsv", grid([["Story", "Height (m)", "Mass (kN)"], *rows]), kind=K, asks=["/rows/0/2: not a unit"])
    t("stories-53-unit-missing.tsv", grid([["Story", "Height (m)", "Weight"], *rows]), of_stories(), kind=K, asks=["/rows/0/2: the unit"], answers={"units": {"w": "kN"}})
    t("stories-54-two-units.tsv", grid([["Story", "Height (m)", "Weight"], *[[n, h, f"{w} {'kip' if n == 'L2' else 'kN'}"] for n, h, w in rows]]), kind=K, asks=["/rows/(0|4)/2: "])
    t("stories-55-twice.tsv", grid([head, *rows[:2], ["L4", 3.6, 4931.5], *rows[3:]]), kind=K, asks=["/rows/3/0: in row"])
    t("stories-56-missing.tsv", grid([head, *rows[:2], ["L3", "", 4931.5], *rows[3:]]), kind=K, asks=["/rows/3/1: missing"])
    t("stories-57-dash-is-not-stated.tsv", grid([[*head, "Centre x (m)"], *[[*r, "-"] for r in rows]]), of_stories(), kind=K)
    full = {n: str(H[n]).translate({ord(c): ord(c) + 0xFEE0 for c in "0123456789."}) for n in NAMES}
    t("stories-58-wide-digits.tsv", grid([head, *story_rows(full, W)]), of_stories(), kind=K)
    t("stories-59-level-names.tsv", grid([head, *story_rows(H, W, names=lambda n: f"Level {n[1]}")]), of_stories(), kind=K)
    t("stories-60-floor-names.tsv", grid([head, *story_rows(H, W, names=lambda n: {"1": "1st", "2": "2nd", "3": "3rd"}.get(n[1], n[1] + "th") + " floor")]), of_stories(), kind=K)
    t("stories-61-roof-of-what.tsv", grid([head, *story_rows(H, W, names=lambda n: "Roof" if n == "L5" else n)]), kind=K, asks=["/rows/1/0: Roof"])
    t("stories-62-numbers-as-names.xlsx", book([head, *[[int(n[1]), H[n], W[n]] for n in NAMES]]), of_stories(), kind=K)
    t("stories-63-utf16.txt", b"\xff\xfe" + grid([head, *rows]).encode("utf-16-le"), of_stories(), kind=K)
    t("stories-64-cp1252.csv", grid([["Storey", "Höhe (m)", "Gewicht (kN)"], *rows], ";").encode("cp1252"), of_stories(), kind=K)
    t("stories-65-old-line-ends.csv", grid([head, *rows], ";").replace("\n", "\r").encode(), of_stories(), kind=K)
    t("stories-66-more-columns.tsv", grid([["Story", "Height (m)", "Area (m2)", "Weight (kN)", "Remarks"], *[[n, H[n], 842.0, W[n], "new" if n == "L5" else ""] for n in NAMES]]), of_stories(), kind=K)
    t("stories-67-error-cell.tsv", grid([head, ["L5", 3.4, "#REF!"], *rows[1:]]), kind=K, asks=["/rows/1/2: is not a number"])
    t("stories-68-symbols.tsv", grid([["Level x", "h_sx (m)", "w_x (kN)"], *rows]), of_stories(), kind=K)
    t("stories-69-short-words.tsv", grid([["Sty.", "Sty ht. (m)", "Seis. wt. (kN)"], *rows]), of_stories(), kind=K)
    t("stories-70-negative-height.tsv", grid([head, ["L5", -3.4, 3912.5], *rows[1:]]), kind=K, asks=["/rows/1/1: above zero"])
    t("stories-71-lakh.tsv", grid([["Storey", "Height (m)", "Seismic weight (N)"], *[[n, h, lakh(round(w * 1000))] for n, h, w in rows]]), of_stories(), kind=K)
    t("stories-72-two-weights.tsv", grid([["Story", "Height (m)", "Weight (kN)", "Seismic weight (kN)"], *[[*r, r[-1]] for r in rows]]), kind=K, asks=["/rows/0/[23]: both look like"])
    t("stories-73-basement-upside-down.tsv", grid([head, *[[n, 3.5, 900] for n in ("B3", "B2", "B1", "L1", "L2")]]), [row(q, v, story=n) for n in ("B3", "B2", "B1", "L1", "L2") for q, v in (("h", 3.5), ("w", 900.0))], kind=K, stories=[])
    t("stories-74-en-dash-empty.tsv", grid([[*head, "Mass (t)"], *[[n, H[n], W[n], "\u2013" if n == "L5" else M[n]] for n in NAMES]]), [*of_stories(), *[row("m", M[n], story=n) for n in NAMES[1:]]], kind=K)
    t("stories-75-scale-in-heading.tsv", grid([["Story", "Height (m)", "Weight (10\u00b3 kN)"], *[[n, H[n], round(W[n] / 1000, 7)] for n in NAMES]]), of_stories(), kind=K)


def lakh(value: int) -> str:
    text = str(value)
    head, tail = text[:-3], text[-3:]
    parts = []
    while head:
        parts.insert(0, head[-2:])
        head = head[:-2]
    return ",".join([*parts, tail])


def forces_of_granary() -> None:
    K = "forces"
    t = table
    head = ["Case", "Story", "Force (kN)", "Shear (kN)"]
    rows = [[c, n, F[c][n], V[c][n]] for c in F for n in NAMES]
    once = [[c if n == "L5" else "", n, F[c][n], V[c][n]] for c in F for n in NAMES]
    t("forces-01-plain.tsv", grid([head, *rows]), of_forces(), kind=K)
    t("forces-02-case-once.csv", grid([head, *once], ";"), of_forces(), kind=K)
    blocks = [r for c in F for r in ([f"Load case: {c}", "", ""], ["Story", "Force (kN)", "Shear (kN)"], *[[n, F[c][n], V[c][n]] for n in NAMES], ["", "", ""])]
    t("forces-03-blocks-with-titles.csv", grid(blocks, ";"), of_forces(), kind=K)
    t("forces-04-lines-between.tsv", grid([["Story", "Force (kN)", "Shear (kN)"], *[r for c in F for r in ([c, "", ""], *[[n, F[c][n], V[c][n]] for n in NAMES])]]), of_forces(), kind=K)
    t("forces-05-wide-groups.tsv", grid([["", "Static X", "", "Static Y", ""], ["Story", "Force (kN)", "Shear (kN)", "Force (kN)", "Shear (kN)"], *[[n, F["Static X"][n], V["Static X"][n], F["Static Y"][n], V["Static Y"][n]] for n in NAMES]]), of_forces(), kind=K)
    t("forces-06-wide-one-row.tsv", grid([["Story", "Force Static X (kN)", "Force Static Y (kN)"], *[[n, F["Static X"][n], F["Static Y"][n]] for n in NAMES]]), of_forces("F"), kind=K)
    t("forces-07-wide-title.tsv", grid([["Story shears (kN)", "", ""], ["Story", "Static X", "Static Y"], *[[n, V["Static X"][n], V["Static Y"][n]] for n in NAMES]]), of_forces("V_story"), kind=K)
    t("forces-08-wide-units-row.tsv", grid([["Story shears", "", ""], ["Story", "Static X", "Static Y"], ["", "kN", "kN"], *[[n, V["Static X"][n], V["Static Y"][n]] for n in NAMES]]), of_forces("V_story"), kind=K)
    t("forces-09-three-heading-rows.tsv", grid([["", "Static", "", "", ""], ["", "X", "", "Y", ""], ["Story", "Force (kN)", "Shear (kN)", "Force (kN)", "Shear (kN)"], *[[n, F["Static X"][n], V["Static X"][n], F["Static Y"][n], V["Static Y"][n]] for n in NAMES]]), of_forces(), kind=K)
    both = [["Case", "Story", "F_x (kN)", "F_y (kN)"], *[[c, n, F[c][n] if c[-1] == "X" else 0.4, F[c][n] if c[-1] == "Y" else 0.6] for c in F for n in NAMES]]
    t("forces-10-along-both-axes.tsv", grid(both), of_forces("F"), kind=K)
    t("forces-11-block-totals.tsv", grid([head, *[r for c in F for r in (*[[c, n, F[c][n], V[c][n]] for n in NAMES], ["Total", "", sum(F[c].values()), ""])]]), of_forces(), kind=K)
    t("forces-12-base-row.tsv", grid([head, *[r for c in F for r in (*[[c, n, F[c][n], V[c][n]] for n in NAMES], [c, "Base", 0, 0])]]), of_forces(), kind=K)
    t("forces-13-direction-column.tsv", grid([["Case", "Direction", *head[1:]], *[[f"Dyn {1 if r[0][-1] == 'X' else 2}", r[0][-1], *r[1:]] for r in rows]]), of_forces(named=lambda c: f"Dyn {1 if c[-1] == 'X' else 2}"), kind=K)
    t("forces-14-no-direction.tsv", grid([head, *[[f"Dyn {1 if r[0][-1] == 'X' else 2}", *r[1:]] for r in rows]]), of_forces(named=lambda c: f"Dyn {1 if c[-1] == 'X' else 2}"), kind=K, asks=["/rows/\\d+/0: direction of case"], answers={"cases": {"Dyn 1": "X", "Dyn 2": "Y"}})
    t("forces-15-max-is-no-axis.tsv", grid([head, *[[f"max {i}", *r[1:]] for i, r in enumerate(rows[:5])]]), kind=K, asks=["/rows/\\d+/0: direction of case"])
    t("forces-16-kips.tsv", grid([["Case", "Story", "Story force (kip)", "Story shear (kip)"], *[[c, n, f"{f / 4.4482216152605:.9f}", f"{v / 4.4482216152605:.9f}"] for c, n, f, v in rows]]), of_forces(), kind=K)
    t("forces-17-meganewton.tsv", grid([["Case", "Story", "Force (MN)", "Shear (MN)"], *[[c, n, f / 1000, round(v / 1000, 7)] for c, n, f, v in rows]]), of_forces(), kind=K)
    up = [[c, n, "Max", F[c][n], V[c][n]] for c in F for n in NAMES]
    down = [[c, n, "Min", -F[c][n], -V[c][n]] for c in F for n in NAMES]
    t("forces-18-max-and-min.tsv", grid([["Case", "Story", "Envelope", "Force (kN)", "Shear (kN)"], *[r for pair in zip(up, down, strict=True) for r in pair]]), of_forces(), kind=K)
    t("forces-19-title-names-case.tsv", grid([["Lateral forces, case Static X", "", ""], head[1:], *[r[1:] for r in rows[:5]]]), of_forces(cases=["Static X"]), kind=K)
    t("forces-20-sheet-names-case.xlsx", book(*[(c, [head[1:], *[r[1:] for r in rows if r[0] == c]]) for c in F]), of_forces(), kind=K, tables=2, cases=[{"name": "Static X", "kind": "static", "direction": "X"}, {"name": "Static Y", "kind": "static", "direction": "Y"}])
    t("forces-21-german.csv", grid([["Lastfall", "Geschoss", "Horizontalkraft (kN)", "Querkraft (kN)"], *[[c, n, comma(f), comma(v)] for c, n, f, v in rows]], ";"), of_forces(), kind=K)
    t("forces-22-below-zero.tsv", grid([head, *[[c, n, f"({f})", f"\u2212{v}"] for c, n, f, v in rows]]), [[*r[:-1], -r[-1]] for r in of_forces()], kind=K)
    t("forces-23-sign-behind.tsv", grid([head, *[[c, n, f"{f}-", f"\u2013{v}"] for c, n, f, v in rows]]), [[*r[:-1], -r[-1]] for r in of_forces()], kind=K)
    t("forces-24-fixed-width.txt", fixed([["Case", "Story", "Force (kN)", "Shear (kN)"], *rows], 12, 12), of_forces(), kind=K)

    def merged(made: Workbook) -> None:
        made.active.merge_cells("A2:A6")
        made.active.merge_cells("A7:A11")

    t("forces-25-merged-cases.xlsx", book([head, *once], change=merged), of_forces(), kind=K)
    t("forces-26-story-first.tsv", grid([["Story", "Case", "Force (kN)", "Shear (kN)"], *[[n, c, F[c][n], V[c][n]] for n in NAMES for c in F]]), of_forces(), kind=K)
    t("forces-27-story-once.tsv", grid([["Story", "Case", "Force (kN)", "Shear (kN)"], *[[n if c[-1] == "X" else "", c, F[c][n], V[c][n]] for n in NAMES for c in F]]), of_forces(), kind=K)
    t("forces-28-twice.tsv", grid([head, *rows[:5], [*rows[0][:2], 999.0, 999.0]]), kind=K, asks=["/rows/6/1: is in row"])
    t("forces-29-unknown-story.tsv", grid([head, [*rows[0][:1], "Tank", 1.0, 1.0], *rows[1:5]]), kind=K, asks=["/rows/1/1: Tank"])
    t("forces-30-two-forces.tsv", grid([["Case", "Story", "Force (kN)", "Lateral force (kN)"], *[[c, n, f, f] for c, n, f, v in rows]]), kind=K, asks=["/rows/0/[23]: both look like"])
    t("forces-31-level-words.tsv", grid([["Load case", "Floor level", "Lateral force F_x, kN", "Storey shear V_x, kN"], *[r for r in rows if r[0] == "Static X"]]), of_forces(cases=["Static X"]), kind=K)
    t("forces-32-overturning.tsv", grid([["Case", "Story", "Shear (kN)", "Overturning moment (kN\u00b7m)"], *[[c, n, V[c][n], 10 * V[c][n]] for c in F for n in NAMES]]), [*of_forces("V_story"), *[row("M_story", 10 * V[c][n], story=n, case=c, d=c[-1]) for c in F for n in NAMES]], kind=K)
    t("forces-33-vertical-y.tsv", grid([["Y is vertical", "", "", ""], ["Case", "Story", "F_x (kN)", "F_z (kN)"], *[[c, n, F[c][n] if c[-1] == "X" else 0.4, F[c][n] if c[-1] == "Y" else 0.6] for c in F for n in NAMES]]), kind=K, asks=["/(table|rows/\\d/\\d|rows/\\d+/\\d): Y is vertical"])
    t("forces-34-comma-unquoted.csv", "Case,Story,Force (kN),Shear (kN)\nStatic X,L5,1,812.4,2,812.4\nStatic X,L4,640.1,3,452.5\n", kind=K, asks=["/rows/\\d/[45]: more cells"])
    t("forces-35-several-blocks-in-sheet.xlsx", book([["Static X", None, None], ["Story", "Force (kN)", "Shear (kN)"], *[[n, F["Static X"][n], V["Static X"][n]] for n in NAMES], [], ["Static Y"], ["Story", "Force (kN)", "Shear (kN)"], *[[n, F["Static Y"][n], V["Static Y"][n]] for n in NAMES]]), of_forces(), kind=K)
    t("forces-36-note-below.tsv", grid([head, *rows, ["", "", "", ""], ["Forces at the centre of mass, without accidental torsion", "", "", ""]]), of_forces(), kind=K)
    t("forces-37-no-case-named.tsv", grid([["Story", "Force (kN)", "Shear (kN)"], *[r[1:] for r in rows[:5]]]), of_forces(cases=["Static X"]), kind=K, asks=["/table: case"], answers={"case": "Static X"})
    t("forces-38-axes-no-case.tsv", grid([["Story", "V_x (kN)", "V_y (kN)"], *[[n, V["Static X"][n], V["Static Y"][n]] for n in NAMES]]), kind=K, asks=["/table: case"])


def drifts_of_granary() -> None:
    K = "drifts"
    t = table
    head = ["Case", "Direction", "Story", "Drift at end 1 (mm)", "Drift at end 2 (mm)"]
    rows = [[c, c[-1], n, D1[c][n], D2[c][n]] for c in D1 for n in NAMES]
    t("drifts-01-plain.tsv", grid([head, *rows]), of_drifts(), kind=K)
    t("drifts-02-ratios.tsv", grid([["Case", "Direction", "Story", "Drift ratio at end 1", "Drift ratio at end 2"], ["", "", "", "-", "-"], *[[c, d, n, f"{a / 1000 / H[n]:.10f}", f"{b / 1000 / H[n]:.10f}"] for c, d, n, a, b in rows]]), of_drifts(), kind=K)
    t("drifts-03-percent.tsv", grid([["Case", "Direction", "Story", "Drift end 1 (%)", "Drift end 2 (%)"], *[[c, d, n, f"{a / 10 / H[n]:.9f}", f"{b / 10 / H[n]:.9f}"] for c, d, n, a, b in rows]]), of_drifts(), kind=K)
    t("drifts-04-per-mille.tsv", grid([["Case", "Direction", "Story", "Drift end 1 (\u2030)", "Drift end 2 (\u2030)"], *[[c, d, n, f"{a / H[n]:.9f}", f"{b / H[n]:.9f}"] for c, d, n, a, b in rows]]), of_drifts(), kind=K)
    t("drifts-05-one-over.tsv", grid([["Case", "Direction", "Story", "Max. drift ratio"], *[["Static X", "X", n, f"1/{100 * (i + 3)}"] for i, n in enumerate(NAMES)]]), [row("drift_max", H[n] / (100 * (i + 3)), story=n, case="Static X", d="X") for i, n in enumerate(NAMES)], kind=K)
    mean = {c: {n: round((D1[c][n] + D2[c][n]) / 2, 4) for n in NAMES} for c in D1}
    t("drifts-06-greatest-mean.tsv", grid([["Case", "Direction", "Story", "Greatest drift (mm)", "Mean drift (mm)"], *[[c, d, n, D2[c][n], mean[c][n]] for c, d, n, *_ in rows]]), of_drifts("drift_max", "drift_avg"), kind=K)
    t("drifts-07-max-avg.tsv", grid([["Load case", "Dir.", "Storey", "\u0394max [mm]", "\u0394avg [mm]"], *[[c, d, n, D2[c][n], mean[c][n]] for c, d, n, *_ in rows]]), of_drifts("drift_max", "drift_avg"), kind=K)
    t("drifts-08-inter-storey.tsv", grid([["Case", "Direction", "Storey", "Maximum inter-storey drift (mm)", "Average inter-storey drift (mm)"], *[[c, d, n, D2[c][n], mean[c][n]] for c, d, n, *_ in rows]]), of_drifts("drift_max", "drift_avg"), kind=K)
    t("drifts-09-title-case-direction.tsv", grid([["C.4 Story drifts, direction Y, case Static Y", "", "", ""], ["Story", "h (m)", "Drift 1 (mm)", "Drift 2 (mm)"], *[[n, H[n], D1["Static Y"][n], D2["Static Y"][n]] for n in NAMES]]), of_drifts(cases=["Static Y"]), kind=K)
    t("drifts-10-no-case.tsv", grid([["Story", "Height (m)", "Drift at end 1 (mm)", "Drift at end 2 (mm)"], *[[n, H[n], D1["Static Y"][n], D2["Static Y"][n]] for n in NAMES]]), of_drifts(cases=["Static Y"]), kind=K, asks=["/table: case"], answers={"case": "Static Y"})
    t("drifts-11-direction-in-case.tsv", grid([["Case", *head[2:]], *[[c, n, a, b] for c, d, n, a, b in rows]]), of_drifts(), kind=K)
    t("drifts-12-no-direction.tsv", grid([["Case", *head[2:]], *[["Wind and sway", n, a, b] for c, d, n, a, b in rows[:5]]]), kind=K, asks=["/rows/\\d+/0: direction of case"])
    t(
        "drifts-13-wide-direction.tsv",
        grid([["Case", "Story", "X", "", "Y", ""], ["", "", "Drift at end 1 (mm)", "Drift at end 2 (mm)", "Drift at end 1 (mm)", "Drift at end 2 (mm)"], *[["Both", n, D1["Static X"][n], D2["Static X"][n], D1["Static Y"][n], D2["Static Y"][n]] for n in NAMES]]),
        [[*r[:2], "Both", *r[3:]] for r in of_drifts()],
        kind=K,
    )
    t("drifts-14-wide-case.tsv", grid([["Story", "Static X", "", "Static Y", ""], ["", "Drift at end 1 (mm)", "Drift at end 2 (mm)", "Drift at end 1 (mm)", "Drift at end 2 (mm)"], *[[n, D1["Static X"][n], D2["Static X"][n], D1["Static Y"][n], D2["Static Y"][n]] for n in NAMES]]), of_drifts(), kind=K)
    t("drifts-15-ends-in-rows.tsv", grid([["Case", "Direction", "Story", "End", "Drift (mm)"], *[r for c, d, n, a, b in rows for r in ([c, d, n, 1, a], [c, d, n, 2, b])]]), of_drifts(), kind=K)
    t("drifts-16-which-drift.tsv", grid([["Case", "Direction", "Story", "Drift (mm)"], *[r[:4] for r in rows]]), [["drift_single", *v[1:]] for v in of_drifts("drift_end_1")], kind=K)
    t("drifts-17-base-row.tsv", grid([head, *[r for c in D1 for r in (*[x for x in rows if x[0] == c], [c, c[-1], "Base", 0, 0])]]), of_drifts(), kind=K)
    t("drifts-18-with-limit.tsv", grid([[*head, "Allowable (mm)", "Check"], *[[*r, 0.02 * H[r[2]] * 1000, "OK"] for r in rows]]), of_drifts(), kind=K)
    t("drifts-19-inches.tsv", grid([["Case", "Direction", "Story", "Drift at end 1 (in.)", "Drift at end 2 (in.)"], *[[c, d, n, f"{a / 25.4:.9f}", f"{b / 25.4:.9f}"] for c, d, n, a, b in rows]]), of_drifts(), kind=K)
    t("drifts-20-vertical-y.tsv", grid([["Axes: Y vertical", "", "", "", ""], ["Case", "Direction", "Story", "Drift at end 1 (mm)", "Drift at end 2 (mm)"], *[[c, "X" if d == "X" else "Z", n, a, b] for c, d, n, a, b in rows]]), kind=K, asks=["/(table|rows/\\d+/\\d): (Y is vertical|not a direction)"])
    t("drifts-21-thousandths.tsv", grid([["Case", "Direction", "Story", "Drift end 1 (x10\u207b\u00b3)", "Drift end 2 (x10\u207b\u00b3)"], *[[c, d, n, f"{a / H[n]:.9f}", f"{b / H[n]:.9f}"] for c, d, n, a, b in rows]]), of_drifts(), kind=K)
    t("drifts-22-directions-spelled.tsv", grid([head, *[[c, f"{d}-dir", n, a, b] for c, d, n, a, b in rows]]), of_drifts(), kind=K)
    t("drifts-23-north-south.tsv", grid([head, *[["Static", "N-S" if d == "Y" else "E-W", n, a, b] for c, d, n, a, b in rows]]), kind=K, asks=["/rows/\\d+/1: not a direction"])
    t("drifts-24-german.csv", grid([["Lastfall", "Richtung", "Geschoss", "Stockwerksverschiebung Ende 1 (mm)", "Stockwerksverschiebung Ende 2 (mm)"], *[[c, d, n, comma(a), comma(b)] for c, d, n, a, b in rows]], ";"), of_drifts(), kind=K)
    t("drifts-25-unit-missing.tsv", grid([["Case", "Direction", "Story", "Drift at end 1", "Drift at end 2"], *rows]), of_drifts(), kind=K, asks=["/rows/0/[34]: the unit"], answers={"units": {"drift_end_1": "mm", "drift_end_2": "mm"}})
    t("drifts-26-ratio-without-unit.tsv", grid([["Case", "Direction", "Story", "Drift ratio end 1", "Drift ratio end 2"], *[[c, d, n, f"{a / 1000 / H[n]:.10f}", f"{b / 1000 / H[n]:.10f}"] for c, d, n, a, b in rows]]), of_drifts(), kind=K)
    t("drifts-27-blocks.xlsx", book([x for c in D1 for x in ([f"Story drifts, {c}"], ["Story", "Drift at end 1 (mm)", "Drift at end 2 (mm)"], *[[n, D1[c][n], D2[c][n]] for n in NAMES], [])]), of_drifts(), kind=K)
    t("drifts-28-fixed-width.txt", "Story drifts\n\n" + fixed([["Case", "Dir", "Story", "Drift end 1 (mm)", "Drift end 2 (mm)"], *rows], 20, 12), of_drifts(), kind=K)
    t("drifts-29-max-over-mean.tsv", grid([["Case", "Direction", "Story", "Max drift (mm)", "Avg drift (mm)", "Max/Avg"], *[[c, d, n, D2[c][n], mean[c][n], f"{D2[c][n] / mean[c][n]:.3f}"] for c, d, n, *_ in rows]]), of_drifts("drift_max", "drift_avg"), kind=K)
    t("drifts-30-comma.csv", grid([head, *[[c, d, n, comma(a), comma(b)] for c, d, n, a, b in rows]], ";"), of_drifts(), kind=K)


def displacements_of_granary() -> None:
    K = "displacements"
    t = table
    head = ["Case", "Direction", "Story", "Displacement at end 1 (mm)", "Displacement at end 2 (mm)"]
    rows = [[c, c[-1], n, U1[c][n], U2[c][n]] for c in U1 for n in NAMES]
    t("displacements-01-plain.tsv", grid([head, *rows]), of_displacements(), kind=K)
    t("displacements-02-centimetres.csv", grid([["Load case", "Direction", "Level", "Displ. end 1 (cm)", "Displ. end 2 (cm)"], *[[c, d, n, comma(round(a / 10, 6)), comma(round(b / 10, 6))] for c, d, n, a, b in rows]], ";"), of_displacements(), kind=K)
    t("displacements-03-greatest.tsv", grid([["Case", "Direction", "Story", "Max. displacement (mm)"], *[[c, d, n, b] for c, d, n, a, b in rows]]), of_displacements("displacement_max"), kind=K)
    t("displacements-04-base-row.tsv", grid([head, *[r for c in U1 for r in (*[x for x in rows if x[0] == c], [c, c[-1], "Base", "0.00", "0.00"])]]), of_displacements(), kind=K)
    t("displacements-05-centre.tsv", grid([["Case", "Direction", "Story", "Displacement at the centre of mass (mm)"], *[r[:4] for r in rows]]), [["displacement_centre", *r[1:]] for r in of_displacements("displacement_end_1")], kind=K)
    t(
        "displacements-06-wide.tsv",
        grid([["", "Static X", "", "Static Y", ""], ["Story", "Displacement end 1 (mm)", "Displacement end 2 (mm)", "Displacement end 1 (mm)", "Displacement end 2 (mm)"], *[[n, U1["Static X"][n], U2["Static X"][n], U1["Static Y"][n], U2["Static Y"][n]] for n in NAMES]]),
        of_displacements(),
        kind=K,
    )
    t("displacements-07-case-lines.tsv", grid([["Story", "Displacement at end 1 (mm)", "Displacement at end 2 (mm)"], *[r for c in U1 for r in ([f"Case: {c}", "", ""], *[[n, U1[c][n], U2[c][n]] for n in NAMES])]]), of_displacements(), kind=K)
    t("displacements-08-deflection.tsv", grid([["Case", "Direction", "Floor", "Deflection end 1 (mm)", "Deflection end 2 (mm)"], *rows]), of_displacements(), kind=K)
    t("displacements-09-french.csv", grid([["Cas de charge", "Direction", "Étage", "Déplacement bout 1 (mm)", "Déplacement bout 2 (mm)"], *[[c, d, n, comma(a), comma(b)] for c, d, n, a, b in rows]], ";"), of_displacements(), kind=K)
    t("displacements-10-metres-or-not.tsv", grid([["Case", "Direction", "Story", "Displacement at end 1", "Displacement at end 2"], *rows]), kind=K, asks=["/rows/0/[34]: the unit"])


def modes_of_granary() -> None:
    K = "modes"
    t = table
    shares = [[i, m[0], m[1], m[2]] for i, m in enumerate(MODES, 1)]
    t("modes-01-plain.tsv", grid([["Mode", "Period (s)", "Share X (%)", "Share Y (%)"], *shares]), of_modes(), kind=K)
    t("modes-02-ratios.tsv", grid([["Mode", "Period (s)", "Mass ratio X (-)", "Mass ratio Y (-)"], *[[i, T, f"{x / 100:.5f}", f"{y / 100:.5f}"] for i, T, x, y in shares]]), of_modes(), kind=K)
    t("modes-03-two-rows.tsv", grid([["Mode", "Period", "Mass participation (%)", "", "Cumulative (%)", ""], ["", "(s)", "X", "Y", "X", "Y"], *[[i, T, x, y, SUMS[i - 1][0], SUMS[i - 1][1]] for i, T, x, y in shares]]), of_modes(sums="XY"), kind=K)
    t("modes-04-frequency.tsv", grid([["Mode", "Frequency (Hz)", "X (%)", "Y (%)"], *[[i, f"{1 / T:.9f}", x, y] for i, T, x, y in shares]]), [*[row("f_mode", 1 / m[0], point=i) for i, m in enumerate(MODES)], *of_modes(T=False)], kind=K)
    t("modes-05-circular.tsv", grid([["Mode", "ω (rad/s)", "X (%)", "Y (%)"], *[[i, f"{2 * 3.141592653589793 / T:.9f}", x, y] for i, T, x, y in shares]]), [*[row("f_mode", 1 / m[0], point=i) for i, m in enumerate(MODES)], *of_modes(T=False)], kind=K)
    t("modes-06-total.tsv", grid([["Mode", "Period (s)", "Share X (%)", "Share Y (%)"], *shares, ["Sum", "", SUMS[-1][0], SUMS[-1][1]]]), of_modes(), kind=K)
    t("modes-07-running-only.tsv", grid([["Mode", "T (s)", "Sum X (%)", "Sum Y (%)"], *[[i, m[0], *SUMS[i - 1][:2]] for i, m in enumerate(MODES, 1)]]), of_modes(shares="", sums="XY"), kind=K)
    t("modes-08-brackets.tsv", grid([["Mode", "Period (s)", "Mass X (%)", "Mass Y (%)", "Mass X (cumulative) (%)", "Mass Y (cumulative) (%)"], *[[*s, *SUMS[s[0] - 1][:2]] for s in shares]]), of_modes(sums="XY"), kind=K)
    t("modes-09-factors-beside.tsv", grid([["Mode", "Period (s)", "Participation factor", "", "Mass share (%)", ""], ["", "", "X", "Y", "X", "Y"], *[[i, T, 1.31, 0.02, x, y] for i, T, x, y in shares]]), of_modes(), kind=K)
    t("modes-10-vertical-beside.tsv", grid([["Mode", "Period (s)", "X (%)", "Y (%)", "Z (%)"], *[[*s, 0.3] for s in shares]]), of_modes(), kind=K)
    t("modes-11-torsion.tsv", grid([["Mode", "Period (s)", "X (%)", "Y (%)", "RZ (%)"], *[[*s, m[3]] for s, m in zip(shares, MODES, strict=True)]]), of_modes(shares="X Y RZ"), kind=K)
    t("modes-12-named.tsv", grid([["Mode no.", "Period, s", "Effective mass X, %", "Effective mass Y, %"], *[[f"Mode {s[0]}", *s[1:]] for s in shares]]), of_modes(), kind=K)
    t("modes-13-dashes.tsv", grid([["Mode", "Period (s)", "X (%)", "Y (%)"], *[[i, T, x or "-", y or "-"] for i, T, x, y in shares]]), [r for r in of_modes() if not (r[0] == "mass_ratio" and r[-1] == 0)], kind=K)

    def percent(made: Workbook) -> None:
        for cells in made.active["C2:D7"]:
            for cell in cells:
                cell.number_format = "0.0%"

    t("modes-14-percent-format.xlsx", book([["Mode", "Period (s)", "Mass X", "Mass Y"], *[[i, T, x / 100, y / 100] for i, T, x, y in shares]], change=percent), of_modes(), kind=K)
    t("modes-15-percent-twice.xlsx", book([["Mode", "Period (s)", "Mass X (%)", "Mass Y (%)"], *[[i, T, x / 100, y / 100] for i, T, x, y in shares]], change=percent), of_modes(), kind=K)
    t("modes-16-comma.csv", grid([["Mode", "Période (s)", "Masse X (%)", "Masse Y (%)"], *[[i, comma(T), comma(x), comma(y)] for i, T, x, y in shares]], ";"), of_modes(), kind=K)
    t("modes-17-modal-mass-in-t.tsv", grid([["Mode", "Period (s)", "Effective mass X (t)", "Effective mass Y (t)"], *[[i, T, 24.4 * x, 24.4 * y] for i, T, x, y in shares]]), kind=K, asks=["/rows/0/[23]: not a unit"])
    t("modes-18-side-by-side.tsv", grid([["Mode", "Period (s)", "Mode", "Period (s)"], *[[i, MODES[i - 1][0], i + 3, MODES[i + 2][0]] for i in (1, 2, 3)]]), of_modes(shares=""), kind=K)
    t("modes-19-across.tsv", grid([["Mode", *range(1, 7)], ["Period (s)", *[m[0] for m in MODES]], ["Share X (%)", *[m[1] for m in MODES]], ["Share Y (%)", *[m[2] for m in MODES]]]), of_modes(), kind=K)
    t("modes-20-shares-add-up.tsv", grid([["Mode", "Period (s)", "Share X", "Share Y"], *shares]), of_modes(), kind=K)
    t("modes-28-shares-without-unit.tsv", grid([["Mode", "Period (s)", "Share X", "Share Y"], *shares[3:]]), [r for r in of_modes() if r[4] >= 3], kind=K, asks=["/rows/0/[23]: the unit"], answers={"units": {"mass_ratio_X": "%", "mass_ratio_Y": "%"}})
    t("modes-21-sigma.tsv", grid([["Mode", "T (s)", "M_x (%)", "M_y (%)", "ΣM_x (%)", "ΣM_y (%)"], *[[*s, *SUMS[s[0] - 1][:2]] for s in shares]]), of_modes(sums="XY"), kind=K)
    t("modes-22-milliseconds.tsv", grid([["Mode", "Period (ms)", "X (%)", "Y (%)"], *[[i, round(T * 1000), x, y] for i, T, x, y in shares]]), of_modes(), kind=K)
    t("modes-23-direction-words.tsv", grid([["Mode", "Period (sec)", "Mass participation X-direction (%)", "Mass participation Y-direction (%)"], *shares]), of_modes(), kind=K)
    t("modes-24-long-form.tsv", grid([["Mode", "Period (s)", "Direction", "Mass share (%)"], *[r for i, T, x, y in shares for r in ([i, T, "X", x], ["", "", "Y", y])]]), of_modes(), kind=K)
    t("modes-25-spanish.csv", grid([["Modo", "Periodo (s)", "Masa participante X (%)", "Masa participante Y (%)", "Masa acumulada X (%)", "Masa acumulada Y (%)"], *[[i, comma(T), comma(x), comma(y), comma(SUMS[i - 1][0]), comma(SUMS[i - 1][1])] for i, T, x, y in shares]], ";"), of_modes(sums="XY"), kind=K)
    t("modes-26-twice.tsv", grid([["Mode", "Period (s)", "X (%)", "Y (%)"], *shares[:3], shares[1]]), kind=K, asks=["/rows/4/0: is in row"])
    t("modes-27-over-one.tsv", grid([["Mode", "Period (s)", "X (-)", "Y (-)"], *shares]), of_modes(), kind=K, asks=["/rows/0/[23]: out of proportion"], answers={"units": {"mass_ratio_X": "%", "mass_ratio_Y": "%"}})


def spectra_of_granary() -> None:
    K = "spectrum"
    t = table
    t("spectrum-01-plain.tsv", grid([["T (s)", "Sa (g)"], *POINTS]), of_points(), kind=K)
    t("spectrum-02-metric.csv", grid([["Period (s)", "Spectral acceleration (m/s²)"], *[[comma(T), comma(round(a * 9.80665, 8))] for T, a in POINTS]], ";"), of_points(), kind=K)
    t("spectrum-03-percent-g.tsv", grid([["T (s)", "Sa (%g)"], *[[T, round(a * 100, 6)] for T, a in POINTS]]), of_points(), kind=K)
    pairs = [[*POINTS[i], *POINTS[i + 4]] for i in range(4)]
    t("spectrum-04-side-by-side.tsv", grid([["T (s)", "Sa (g)", "T (s)", "Sa (g)"], *pairs]), of_points(), kind=K)
    t("spectrum-05-two-fit.tsv", grid([["T (s)", "Sa (g)", "Acceleration (g)"], *[[T, a, 1.5 * a] for T, a in POINTS]]), kind=K, asks=["/rows/0/[12]: both look like"])
    t("spectrum-06-design-and-greatest.tsv", grid([["T (s)", "Sa (MCE) (g)", "Sa (design) (g)"], *[[T, 1.5 * a, a] for T, a in POINTS]]), of_points(), kind=K)
    t("spectrum-07-falling-periods.tsv", grid([["T (s)", "Sa (g)"], *reversed(POINTS)]), kind=K, asks=["/rows/\\d/0: rise"])
    t("spectrum-08-title-units.tsv", grid([["Design spectrum, T in s, Sa in g", ""], ["T", "Sa"], *POINTS]), of_points(), kind=K)
    t("spectrum-09-milliseconds.tsv", grid([["Period (ms)", "Sa (g)"], *[[round(T * 1000), a] for T, a in POINTS]]), of_points(), kind=K)
    t("spectrum-10-exponents.csv", grid([["T (s)", "Sa (g)"], *[[f"{T:.3E}", f"{a:.4E}"] for T, a in POINTS]], ","), of_points(), kind=K)
    t("spectrum-11-exponents-comma.csv", grid([["T (s)", "Sa (g)"], *[[comma(f"{T:.3E}"), comma(f"{a:.4E}")] for T, a in POINTS]], ";"), of_points(), kind=K)
    t("spectrum-13-fixed-width.txt", "Design spectrum, 5 % damping\n\n" + fixed([["T (s)", "Sa (g)"], *[[f"{T:.2f}", f"{a:.3f}"] for T, a in POINTS]]), of_points(), kind=K)
    t("spectrum-14-two-spaces.txt", "T(s)  Sa(g)\n" + "".join(f"{T:.2f}  {a:.3f}\n" for T, a in POINTS), of_points(), kind=K)
    t("spectrum-15-blanks.txt", "T(s) Sa(g)\n" + "".join(f"{T:.2f} {a:.3f}\n" for T, a in POINTS), of_points(), kind=K)
    t("spectrum-16-italian.csv", grid([["Periodo (s)", "Accelerazione spettrale (g)"], *[[comma(T), comma(a)] for T, a in POINTS]], ";"), of_points(), kind=K)
    t("spectrum-17-cells.tsv", grid([["T", "Sa"], *[[f"{T} s", f"{a}g"] for T, a in POINTS]]), of_points(), kind=K)
    t("spectrum-18-no-unit.tsv", grid([["T (s)", "Sa"], *POINTS]), of_points(), kind=K, asks=["/rows/0/1: the unit"], answers={"units": {"S_a": "g"}})
    t("spectrum-19-book-comma-text.xlsx", book([["T (s)", "Sa (g)"], *[[comma(T), comma(a)] for T, a in POINTS]]), of_points(), kind=K)
    t("spectrum-20-numbered.tsv", grid([["Point", "T (s)", "Sa (g)"], *[[i, *p] for i, p in enumerate(POINTS, 1)]]), of_points(), kind=K)


def parameters_of_granary() -> None:
    K = "parameters"
    t = table

    def p(quantity: str, value: Any, d: str = "") -> Row:
        return row(quantity, value, d=d)

    both = [["T_a", 0.62, 0.62, "s"], ["C_s", 0.0957, 0.1067, ""], ["V", 2295.0, 2558.6, "kN"]]
    truth = [p(q, v, d) for q, x, y, _ in both for d, v in (("X", x), ("Y", y))]
    t("parameters-01-plain.tsv", grid([["Item", "Value", "X", "Y", "Unit"], ["S_DS", 0.733, "", "", "g"], *[[q, "", x, y, u] for q, x, y, u in both]]), [p("S_DS", 0.733), *truth], kind=K)
    t("parameters-02-axis-in-name.tsv", grid([["Parameter", "Value", "Unit"], *[[f"{q} {d}", v, u] for q, x, y, u in both for d, v in (("X", x), ("Y", y))]]), truth, kind=K)
    t("parameters-03-equations.txt", "S_DS = 0.733 g\nR_X = 6\nR_Y = 6\nT_a X = 0.62 s\nT_a Y = 0.62 s\n", [p("S_DS", 0.733), p("R", 6, "X"), p("R", 6, "Y"), p("T_a", 0.62, "X"), p("T_a", 0.62, "Y")], kind=K)
    t("parameters-04-colons.txt", "S_DS: 0.733 g\nS_D1: 0.55 g\nR X: 6\nR Y: 6\n", [p("S_DS", 0.733), p("S_D1", 0.55), p("R", 6, "X"), p("R", 6, "Y")], kind=K)
    t("parameters-05-unit-in-name.tsv", grid([["Item", "X", "Y"], ["Base shear V (kN)", 2295.0, 2558.6], ["T_a (s)", 0.62, 0.62], ["C_s", 0.0957, 0.1067]]), truth, kind=K)
    t("parameters-06-unit-in-cell.tsv", grid([["Item", "X", "Y"], ["V", "2295.0 kN", "2558.6 kN"], ["T_a", "0.62 s", "0.62 s"], ["C_s", 0.0957, 0.1067]]), truth, kind=K)
    t("parameters-07-subscripts.tsv", grid([["Symbol", "X", "Y", "Unit"], ["Tₐ", 0.62, 0.62, "s"], ["Cₛ", 0.0957, 0.1067, "-"], ["V", 2295.0, 2558.6, "kN"]]), truth, kind=K)
    t("parameters-08-unknown-item.tsv", grid([["Item", "Value", "X", "Y", "Unit"], ["Architect", "Oriel & Sons", "", "", ""], *[[q, "", x, y, u] for q, x, y, u in both]]), truth, kind=K, marks=["/rows/1/0: not a known parameter"])
    t("parameters-09-no-direction.tsv", grid([["Item", "Value", "Unit"], ["S_DS", 0.733, "g"], ["T_a", 0.62, "s"]]), [p("S_DS", 0.733), p("T_a", 0.62, "X"), p("T_a", 0.62, "Y")], kind=K, asks=["/rows/2/0: direction"], answers={"both": True})
    t("parameters-10-kips.tsv", grid([["Item", "X", "Y", "Units"], ["V", f"{2295.0 / 4.4482216152605:.9f}", f"{2558.6 / 4.4482216152605:.9f}", "kips"]]), truth[-2:], kind=K)
    t("parameters-11-modal-is-not-static.tsv", grid([["Item", "X", "Y", "Unit"], ["Base shear (modal)", 1836.0, 2046.9, "kN"]]), [p("V_dynamic", 1836.0, "X"), p("V_dynamic", 2046.9, "Y")], kind=K)
    t("parameters-12-period-of-the-modes.tsv", grid([["Item", "X", "Y", "Unit"], ["T1 (from the modes)", 0.934, 0.871, "s"]]), [p("T_analysis", 0.934, "X"), p("T_analysis", 0.871, "Y")], kind=K)
    t("parameters-13-twice.tsv", grid([["Item", "X", "Y", "Unit"], ["V", 2295.0, 2558.6, "kN"], ["Base shear", 2295.0, 2558.6, "kN"]]), kind=K, asks=["/rows/2/0: is in row"])
    t("parameters-14-words.tsv", grid([["Item", "Value"], ["Site class", "D"], ["Diaphragms", "Rigid"], ["Combination of modes", "CQC"]]), [p("site_class", "D"), p("diaphragms", "rigid"), p("combined_by", "CQC")], kind=K)
    t("parameters-15-percent.tsv", grid([["Item", "Value"], ["Accidental eccentricity", "5 %"], ["Scaling share", "100 %"]]), [p("eccentricity", 0.05), p("scaling_share", 1.0, "X"), p("scaling_share", 1.0, "Y")], kind=K)
    t("parameters-16-comma.csv", grid([["Item", "X", "Y", "Unit"], *[[q, comma(x), comma(y), u] for q, x, y, u in both]], ";"), truth, kind=K)
    t("parameters-17-across.tsv", grid([["Direction", "T_a (s)", "C_s", "V (kN)"], ["X", 0.62, 0.0957, 2295.0], ["Y", 0.62, 0.1067, 2558.6]]), truth, kind=K)
    t("parameters-18-north-south.tsv", grid([["Item", "N-S", "E-W", "Unit"], *[[q, x, y, u] for q, x, y, u in both]]), truth, kind=K, asks=["/table: values"], answers={"columns": {"name": 0, "value_X": 1, "value_Y": 2, "unit": 3}})
    t("parameters-19-direction-words.tsv", grid([["Item", "X-direction", "Y-direction", "Unit"], *both]), truth, kind=K)
    t("parameters-20-bars.txt", "\n".join("| " + " | ".join(map(str, r)) + " |" for r in [["Item", "X", "Y", "Unit"], ["---"] * 4, *both]) + "\n", truth, kind=K)
    t(
        "parameters-21-eurocode.tsv",
        grid([["Symbol", "Value", "X", "Y", "Unit"], ["a_gR", 0.18, "", "", "g"], ["γ_I", 1.2, "", "", ""], ["q", "", 3.9, 3.9, ""], ["F_b", "", 2295.0, 2558.6, "kN"]]),
        [p("a_gR", 0.18), p("gamma_I", 1.2), p("q", 3.9, "X"), p("q", 3.9, "Y"), p("V", 2295.0, "X"), p("V", 2558.6, "Y")],
        kind=K,
        edition="en1998-1",
    )
    t(
        "parameters-22-indian.tsv",
        grid([["Symbol", "Value", "X", "Y", "Unit"], ["Z", 0.24, "", "", ""], ["I", 1.5, "", "", ""], ["R", "", 5, 5, ""], ["A_h", "", 0.06, 0.06, ""], ["V_B", "", 2295.0, 2558.6, "kN"]]),
        [p("Z", 0.24), p("I", 1.5), p("R", 5, "X"), p("R", 5, "Y"), p("coefficient", 0.06, "X"), p("coefficient", 0.06, "Y"), p("V", 2295.0, "X"), p("V", 2558.6, "Y")],
        kind=K,
        edition="is1893-2016",
    )
    t("parameters-23-unit-unknown.tsv", grid([["Item", "X", "Y", "Unit"], ["V", 2295.0, 2558.6, "stone"]]), kind=K, asks=["/rows/1/3: not a unit"])
    t("parameters-24-unit-missing.tsv", grid([["Item", "X", "Y"], ["V", 2295.0, 2558.6]]), kind=K, asks=["/rows/1/0: unit"])
    t(
        "parameters-25-steps.tsv",
        grid([["Item", "X", "Y", "Unit"], ["Dynamic base shear before scaling", 1836.0, 2046.9, "kN"], ["Scale factor", 1.25, 1.25, ""], ["Dynamic base shear after scaling", 2295.0, 2558.6, "kN"]]),
        [p(q, v, d) for q, x, y in (("V_dynamic", 1836.0, 2046.9), ("factor_used", 1.25, 1.25), ("V_scaled", 2295.0, 2558.6)) for d, v in (("X", x), ("Y", y))],
        kind=K,
    )
    t("parameters-26-grouped.tsv", grid([["Item", "Value", "", "Unit"], ["", "X", "Y", ""], *both]), truth, kind=K)
    t("parameters-27-two-in-a-cell.tsv", grid([["Item", "Value", "Unit"], ["V X", "2295.0 / 2558.6", "kN"]]), kind=K, asks=["/rows/1/1: is not a number"])
    t("parameters-28-remarks.tsv", grid([["Item", "X", "Y", "Unit", "Clause"], ["Ground motion", "", "", "", ""], *[[*b, "12.8"] for b in both]]), truth, kind=K, marks=["/rows/1/0: not a known parameter"])


def reactions_of_granary() -> None:
    K = "reactions"
    t = table
    head = ["Case", "Force X (kN)", "Force Y (kN)", "Force Z (kN)", "Moment X (kN m)", "Moment Y (kN m)", "Moment Z (kN m)"]
    rows = [[c, *v] for c, v in REACTIONS.items()]
    t("reactions-01-plain.tsv", grid([head, *rows]), of_reactions(), kind=K)
    t("reactions-02-symbols.tsv", grid([["Load case", "F_x", "F_y", "F_z", "M_x", "M_y", "M_z"], ["", "kN", "kN", "kN", "kN-m", "kN-m", "kN-m"], *rows]), of_reactions(), kind=K)
    t("reactions-03-groups.tsv", grid([["Case", "Force (kN)", "", "", "Moment (kN m)", "", ""], ["", "X", "Y", "Z", "X", "Y", "Z"], *rows]), of_reactions(), kind=K)
    t("reactions-04-spaces.csv", grid([head, *[[r[0], *[comma(f"{v:,.1f}".replace(",", " ")) for v in r[1:]]] for r in rows]], ";"), of_reactions(), kind=K)
    t("reactions-05-across.tsv", grid([["", *REACTIONS], *[[h, *[r[i] for r in rows]] for i, h in enumerate(head[1:], 1)]]), of_reactions(), kind=K)
    t("reactions-06-vertical-y.tsv", grid([["Note: Y is up", *[""] * 6], head, *rows]), kind=K, asks=["/(table|rows/\\d/\\d): Y is vertical"])
    t("reactions-07-twice.tsv", grid([head, *rows, rows[0]]), kind=K, asks=["/rows/4/0: is in row"])
    t("reactions-08-units-note.tsv", grid([["Base reactions [kN, m]", *[""] * 6], ["Case", "Force X", "Force Y", "Force Z", "Moment X", "Moment Y", "Moment Z"], *rows]), of_reactions(), kind=K)
    t("reactions-09-italian.csv", grid([["Caso di carico", "Forza X (kN)", "Forza Y (kN)", "Forza Z (kN)"], *[[r[0], *map(comma, r[1:4])] for r in rows]], ";"), of_reactions("X", "Y", "Z"), kind=K)
    t(
        "reactions-10-max-min.tsv",
        grid([["Case", "Value", *head[1:3]], *[r for c in ("Static X", "Static Y") for r in ([c, "max", *[abs(v) for v in REACTIONS[c][:2]]], [c, "min", *[-abs(v) for v in REACTIONS[c][:2]]])]]),
        [row(f"reaction_{a}", abs(REACTIONS[c][i]), case=c) for c in ("Static X", "Static Y") for i, a in enumerate("XY")],
        kind=K,
    )


def others_of_granary() -> None:
    t = table
    head = ["Case", "Kind", "Direction", "Eccentricity"]
    t("cases-01-plain.tsv", grid([head, ["Static X", "static", "X", "+5 %"], ["Modal Y", "modal", "Y", "0"]]), [], kind="cases")
    t("cases-02-words.csv", grid([["Load case", "Type", "Dir", "Ecc"], ["EX", "Response spectrum", "X", "0.05"], ["D", "Dead", "", ""]], ";"), [], kind="cases")
    t("cases-03-unknown-kind.tsv", grid([head, ["Static X", "sideways", "X", "0"]]), kind="cases", asks=["/rows/1/1: is not recognised"])
    t("combinations-01-terms.tsv", grid([["Combination", "Terms"], ["C1", "1.2 D + 1.0 L + 1.0 EX + 0.3 EY"], ["C2", "0.9 D + 1.0 EY"]]), [row("combination_terms", "1.2 D + 1.0 L + 1.0 EX + 0.3 EY", case="C1"), row("combination_terms", "0.9 D + 1.0 EY", case="C2")], kind="combinations")
    t("combinations-02-long.tsv", grid([["Combination", "Case", "Factor"], ["C1", "D", 1.2], ["", "EX", "1.0"], ["C2", "D", 0.9], ["", "EY", -1.0]]), [row("combination_terms", "1.2 D + 1.0 EX", case="C1"), row("combination_terms", "0.9 D - 1.0 EY", case="C2")], kind="combinations")
    t("combinations-03-short-words.tsv", grid([["Comb.", "Load case", "Load factor"], ["C1", "D", 1.2], ["C1", "EX", "1.0"]]), [row("combination_terms", "1.2 D + 1.0 EX", case="C1")], kind="combinations")
    t("combinations-04-across.tsv", grid([["Combination", "D", "L", "EX", "EY"], ["C1", 1.2, 1.0, 1.0, 0.3], ["C2", 0.9, "", "", 1.0]]), [row("combination_terms", "1.2 D + 1.0 L + 1.0 EX + 0.3 EY", case="C1"), row("combination_terms", "0.9 D + 1.0 EY", case="C2")], kind="combinations")
    shapes = [(i, n, round(0.2 * i + 0.1 * k, 3), round(0.05 * k, 3)) for i in (1, 2) for k, n in enumerate(NAMES)]
    truth = [row("mode_u", v, story=n, d=d, point=i - 1) for i, n, x, y in shapes for d, v in (("X", x), ("Y", y))]
    t("shapes-01-plain.tsv", grid([["Mode", "Story", "Movement X (m)", "Movement Y (m)"], *shapes]), truth, kind="shapes")
    t("shapes-02-once.tsv", grid([["Mode", "Story", "Movement X (m)", "Movement Y (m)"], *[[i if n == "L5" else "", n, x, y] for i, n, x, y in shapes]]), truth, kind="shapes")
    wide = [[n, *[v for i in (1, 2) for (j, m, x, y) in shapes if (j, m) == (i, n) for v in (x, y)]] for n in NAMES]
    t("shapes-03-wide.tsv", grid([["", "Mode 1", "", "Mode 2", ""], ["Story", "Movement X (m)", "Movement Y (m)", "Movement X (m)", "Movement Y (m)"], *wide]), truth, kind="shapes")
    t("shapes-04-mode-lines.tsv", grid([["Story", "Movement X (m)", "Movement Y (m)"], *[r for i in (1, 2) for r in ([f"Mode {i}", "", ""], *[[n, x, y] for j, n, x, y in shapes if j == i])]]), truth, kind="shapes")
    ax = {n: 1.0 + 0.01 * k for k, n in enumerate(NAMES)}
    t("by-story-01-amplification.tsv", grid([["Story", "A_x X", "A_x Y"], *[[n, v, v] for n, v in ax.items()]]), [row("A_x", v, story=n, d=d) for n, v in ax.items() for d in "XY"], kind="by_story")
    t("by-story-02-theta.tsv", grid([["Storey", "θ_x", "θ_y"], *[[n, 0.02, 0.03] for n in NAMES]]), [row("theta", v, story=n, d=d) for n in NAMES for d, v in (("X", 0.02), ("Y", 0.03))], kind="by_story")
    t("by-story-03-stiffness.tsv", grid([["Story", "Stiffness X (kN/mm)", "Stiffness Y (kN/mm)"], *[[n, 210.5, 188.0] for n in NAMES]]), [row("story_stiffness", v, story=n, d=d) for n in NAMES for d, v in (("X", 210500.0), ("Y", 188000.0))], kind="by_story")
    t("by-story-04-words.tsv", grid([["Story", "Stability coefficient in X", "Stability coefficient in Y"], *[[n, 0.02, 0.03] for n in NAMES]]), [row("theta", v, story=n, d=d) for n in NAMES for d, v in (("X", 0.02), ("Y", 0.03))], kind="by_story")
    make_up = [["Story", "Load", "Kind", "Amount (kN)", "Share"], *[r for n in NAMES for r in ([n, "Slab and beams", "dead", 4200.0, 1.0], ["", "Grain", "storage", 1800.0, 0.25])]]
    truth = [r for n in NAMES for r in (row("load_amount", 4200.0, story=n, case="Slab and beams"), row("load_share", 1.0, story=n, case="Slab and beams"), row("load_amount", 1800.0, story=n, case="Grain"), row("load_share", 0.25, story=n, case="Grain"))]
    truth += [row("load_kind", "dead", case="Slab and beams"), row("load_kind", "storage", case="Grain")]
    t("make-up-01-plain.tsv", grid(make_up), truth, kind="make_up")
    t("make-up-02-percent.tsv", grid([[*make_up[0][:-1], "Share (%)"], *[[*r[:-1], 100 * r[-1]] for r in make_up[1:]]]), truth, kind="make_up")
    t("make-up-03-totals.tsv", grid([make_up[0], *[r for i in range(1, 11, 2) for r in (make_up[i], make_up[i + 1], ["Total", "", "", 6000.0, ""])]]), truth, kind="make_up")
    t("make-up-04-level-names.tsv", grid([make_up[0], *[[r[0].replace("L", "Level "), *r[1:]] for r in make_up[1:]]]), truth, kind="make_up")
    t("log-01-lines.txt", "Message\nMode 7 did not converge\nSolution finished\n", [row("log_line", "Mode 7 did not converge", point=0), row("log_line", "Solution finished", point=1)], kind="log")
    t("none-01-minutes.tsv", grid([["Attended", "Firm"], ["I. Vane", "Oriel & Sons"], ["P. Marl", "Hesper Water"]]), kind="parameters", asks=["/table: "])


def several_of_granary() -> None:
    """Files of several tables, and pages."""
    t = table
    stories = [["Story", "Height (m)", "Weight (kN)"], *story_rows(H, W)]
    forces = [["Case", "Story", "Force (kN)", "Shear (kN)"], *[[c, n, F[c][n], V[c][n]] for c in F for n in NAMES]]
    modes = [["Mode", "Period (s)", "X (%)", "Y (%)"], *[[i, m[0], m[1], m[2]] for i, m in enumerate(MODES, 1)]]
    t("several-01-one-sheet.xlsx", book([["1 Floors"], *stories, [], ["2 Forces"], *forces]), [*of_stories(), *of_forces()], kind="stories forces", tables=2)
    t("several-02-sheets.xlsx", book(("Floors", stories), ("Forces", forces), ("Modes", modes)), [*of_stories(), *of_forces(), *of_modes()], kind="stories forces modes", tables=3)
    t("several-03-text.csv", "Floors\n" + grid(stories, ";") + "\nModes\n" + grid(modes, ";"), [*of_stories(), *of_modes()], kind="stories modes", tables=2)
    beside = [[*(stories[i] if i < len(stories) else ["", "", ""]), "", *(modes[i] if i < len(modes) else [""] * 4)] for i in range(max(len(stories), len(modes)))]
    t("several-04-side-by-side.xlsx", book(beside), [*of_stories(), *of_modes()], kind="stories modes", tables=2)
    t("several-05-notes-sheet.xlsx", book(("Notes", [["Prepared by Oriel & Sons"], ["Rev. B"]]), ("Floors", stories)), of_stories(), kind="stories", tables=2)

    def page(title: str, rows: Sequence[Sequence[Any]], ruled: bool = True) -> str:
        border = "border: 0.5pt solid black;" if ruled else ""
        cells = "".join("<tr>" + "".join(f"<td>{'' if c is None else c}</td>" for c in r) + "</tr>" for r in rows)
        return (
            f"<section style='page-break-after: always'><h3>{title}</h3><p>What follows was found for the "
            f"granary.</p><table style='border-collapse: collapse; font-size: 9pt'><style>.r td {{ {border} }} td {{ padding: 1pt 9pt }}</style><tbody class='{'r' if ruled else ''}'>{cells}</tbody></table><p>Signed at Aldermouth.</p></section>"
        )

    def pdf(*pages: str) -> bytes:
        style = "<style>@page { size: A4 landscape; margin: 12mm }</style>"
        return bytes(HTML(string=style + "".join(pages)).write_pdf())

    t("pages-01-ruled.pdf", pdf(page("Floors", stories)), of_stories(), kind="stories")
    t("pages-02-columns.pdf", pdf(page("Floors", stories, False)), of_stories(), kind="stories")
    t("pages-03-three.pdf", pdf(page("Floors", stories), page("Forces", forces), page("Modes", modes)), [*of_stories(), *of_forces(), *of_modes()], kind="stories forces modes", tables=3)
    t("pages-04-goes-on.pdf", pdf(page("Forces", forces[:6]), page("Forces, continued", [forces[0], *forces[6:]])), of_forces(), kind="forces", tables=2)
    t("pages-05-case-in-title.pdf", pdf(*[page(f"Story forces, case {c}", [["Story", "Force (kN)", "Shear (kN)"], *[[n, F[c][n], V[c][n]] for n in NAMES]]) for c in F]), of_forces(), kind="forces", tables=2)
