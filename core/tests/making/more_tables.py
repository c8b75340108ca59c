"""More tables of the granary, in other words and other layouts."""

from __future__ import annotations

from typing import Any

from openpyxl import Workbook

from tables_of_granary import D1, D2, LEVEL, MODES, NAMES, POINTS, REACTIONS, SUMS, U1, U2, F, H, Row, V, W, book, comma, fixed, grid, of_displacements, of_drifts, of_forces, of_modes, of_points, of_reactions, of_stories, row, story_rows, table


def more_of_granary() -> None:
    stories()
    forces()
    drifts()
    modes_and_spectra()
    parameters()
    titles()


def stories() -> None:
    t = table
    K = "stories"
    head = ["Story", "Height (m)", "Weight (kN)"]
    rows = story_rows(H, W)
    dotted = [[n, comma(h), f"{w:,.1f}".translate(str.maketrans(",.", ".,"))] for n, h, w in rows]
    t("stories-76-dotted-thousands.csv", grid([head, *dotted], ";"), of_stories(), kind=K)
    t("stories-77-dots-told-by-height.csv", grid([["Story", "Height (m)", "Weight (N)"], *[[n, comma(H[n]), f"{round(W[n] * 1000):,}".replace(",", ".")] for n in NAMES]], ";"), of_stories(), kind=K)
    t("stories-78-power-of-ten.tsv", grid([head, *[[n, h, f"{w / 1000:.4f} x 10^3"] for n, h, w in rows]]), of_stories(), kind=K)
    t("stories-79-short-row.csv", "Story;Height (m);Mass (t);Weight (kN)\nL5;3.4;399.0;3912.5\nL4;3.4;4931.5\nL3;3.6;502.9;4931.5\n", kind=K, asks=["/rows/2/[23]: (fewer cells|seismic weight is missing|missing)"])
    t("stories-80-datum.tsv", grid([["Story", "Elevation (m)", "Weight (kN)"], *[[n, round(100 + LEVEL[n], 2), W[n]] for n in NAMES]]), kind=K, asks=["/rows/0/1: base"])
    t("stories-81-datum-with-base.tsv", grid([["Story", "Elevation (m)", "Weight (kN)"], *[[n, f"{100 + LEVEL[n]:.2f}", W[n]] for n in NAMES], ["Base", "100.00", ""]]), of_stories(), kind=K)
    t("stories-82-summary-rows.tsv", grid([head, *rows, ["Max", 4.2, 5213.4], ["Min", 3.4, 3912.5], ["Average", 3.64, 4795.2]]), of_stories(), kind=K)
    t("stories-83-dead-weight-is-none.tsv", grid([["Story", "Height (m)", "Weight (dead) (kN)", "Weight (kN)"], *[[n, H[n], 1.0, W[n]] for n in NAMES]]), of_stories(), kind=K)

    def mega(made: Workbook) -> None:
        for (cell,) in made.active["C2:C6"]:
            cell.number_format = '0.000," MN"'

    t("stories-84-format-mega.xlsx", book([["Story", "Height (m)", "Weight"], *rows], change=mega), of_stories(), kind=K)

    def stays(made: Workbook) -> None:
        made.create_sheet("old").append(["Story", "Height (m)", "Weight (kN)"])
        made["old"].append(["L1", 99.0, 99.0])
        made["old"].sheet_state = "veryHidden"
        made.active.column_dimensions.group("E", "F", hidden=True)
        made.active["E1"], made.active["E2"] = "Mass (t)", 5.0

    t("stories-85-very-hidden.xlsx", book([head, *rows], change=stays), of_stories(), kind=K)
    t("stories-86-index-first.tsv", grid([["#", "Floor", "Floor height (m)", "Floor weight (kN)"], *[[i, *r] for i, r in enumerate(rows, 1)]]), of_stories(), kind=K)
    t("stories-87-static-beside.tsv", grid([["Level", "w_x (kN)", "h_x (m)", "w_x h_x^k", "C_vx", "F_x (kN)", "V_x (kN)"], *[[n, W[n], LEVEL[n], 1.0, 0.2, F["Static X"][n], V["Static X"][n]] for n in NAMES]]), of_stories(), kind="stories forces", tables=2, asks=["/table: case"])
    t("stories-88-weights-and-forces.tsv", grid([["Story", "Height (m)", "Weight (kN)", "Force Static X (kN)", "Shear Static X (kN)"], *[[n, H[n], W[n], F["Static X"][n], V["Static X"][n]] for n in NAMES]]), [*of_stories(), *of_forces(cases=["Static X"])], kind="stories forces", tables=2)
    t("stories-89-upper-case.tsv", grid([["STOREY", "HEIGHT [M]", "WEIGHT [KN]"], *rows]), of_stories(), kind=K)
    t("stories-90-blanks-in-names.tsv", grid([["  Story ", "Height  (m) ", " Weight ( kN )"], *[[f" {n} ", h, w] for n, h, w in rows]]), of_stories(), kind=K)
    t("stories-91-french-thousands.csv", grid([["Niveau", "Hauteur (m)", "Poids (kN)"], *[[n, comma(h), f"{w:,.1f}".replace(",", "\u202f").replace(".", ",")] for n, h, w in rows]], ";"), of_stories(), kind=K)
    t("stories-92-semicolon-quotes.csv", '"Story";"Height (m)";"Weight (kN)"\n' + "".join(f'"{n}";"{comma(h)}";"{comma(w)}"\n' for n, h, w in rows), of_stories(), kind=K)
    t("stories-93-levels-in-heading.tsv", grid([["Level (m)", "Story", "Weight (kN)"], *[[LEVEL[n], n, W[n]] for n in NAMES]]), of_stories(), kind=K)
    t("stories-94-tonnes-force.tsv", grid([["Story", "Height (m)", "Weight (tf)"], *[[n, H[n], f"{W[n] / 9.80665:.9f}"] for n in NAMES]]), of_stories(), kind=K)


def forces() -> None:
    t = table
    K = "forces"
    rows = [[c, n, F[c][n], V[c][n]] for c in F for n in NAMES]
    head = ["Case", "Story", "Force (kN)", "Shear (kN)"]
    t("forces-39-components.tsv", grid([["Case", "Direction", "Story", "Force (kN)"], *[r for c in F for n in NAMES for r in ([c, c[-1], n, F[c][n]], [c, "Y" if c[-1] == "X" else "X", n, 0.3])]]), of_forces("F"), kind=K)
    t("forces-40-brackets.tsv", grid([["Case", "Story", "Force [kN]", "Shear [kN]"], *rows]), of_forces(), kind=K)
    t("forces-41-scaled-or-not.tsv", grid([["Case", "Story", "Force (unscaled) (kN)", "Force (scaled) (kN)"], *rows]), kind=K, asks=["/table: "])
    t("forces-42-symbols.tsv", grid([["Load", "Lvl", "F_i [kN]", "V_i [kN]"], *rows]), of_forces(), kind=K)
    t("forces-43-continued.csv", grid([["Load case: Static X", "", ""], head[1:], *[r[1:] for r in rows[:3]], ["Load case: Static X (continued)", "", ""], head[1:], *[r[1:] for r in rows[3:5]]], ";"), of_forces(cases=["Static X"]), kind=K)
    t("forces-44-story-column-far.tsv", grid([["Force (kN)", "Shear (kN)", "Story", "Case"], *[[f, v, n, c] for c, n, f, v in rows]]), of_forces(), kind=K)
    t("forces-45-french.csv", grid([["Cas de charge", "Niveau", "Effort horizontal (kN)", "Effort tranchant (kN)"], *[[c, n, comma(f), comma(v)] for c, n, f, v in rows]], ";"), of_forces(), kind=K)
    t("forces-46-spanish.csv", grid([["Caso de carga", "Piso", "Fuerza lateral (kN)", "Cortante (kN)"], *[[c, n, comma(f), comma(v)] for c, n, f, v in rows]], ";"), of_forces(), kind=K)
    t("forces-47-per-story-line.tsv", grid([["Case", "Force (kN)", "Shear (kN)"], *[r for n in NAMES for r in ([f"Level {n[1]}", "", ""], *[[c, F[c][n], V[c][n]] for c in F])]]), of_forces(), kind=K)
    three = ["Force (kN)", "Shear (kN)", "Overturning moment (kN m)"]
    t("forces-48-three-in-a-row.tsv", grid([["Story", "Static X", "", "", "Static Y", "", ""], ["", *three, *three], *[[n, *[v for c in F for v in (F[c][n], V[c][n], 10 * V[c][n])]] for n in NAMES]]), [*of_forces(), *[row("M_story", 10 * V[c][n], story=n, case=c, d=c[-1]) for c in F for n in NAMES]], kind=K)
    t("forces-49-max-not-mirrored.tsv", grid([["Case", "Story", "Extreme", "Shear (kN)"], *[r for n in NAMES for r in (["Static X", n, "Max", V["Static X"][n]], ["Static X", n, "Min", -0.7 * V["Static X"][n]])]]), kind=K, asks=["/rows/\\d+/1: is in row"])
    t("forces-50-percent-sign.tsv", grid([["Case", "Story", "Force (kN)"], ["Static X", "L5", "12 %"], ["Static X", "L4", "8 %"]]), kind=K, asks=["/rows/\\d/2: column is in kN"])
    t("forces-51-case-in-second-line.csv", grid([["Aldermouth Granary", "", ""], ["Static X - equivalent static forces", "", ""], ["", "", ""], head[1:], *[r[1:] for r in rows[:5]]], ";"), of_forces(cases=["Static X"]), kind=K)
    t("forces-52-wide-symbols.tsv", grid([["Story", "V_x Static X (kN)", "V_y Static Y (kN)"], *[[n, V["Static X"][n], V["Static Y"][n]] for n in NAMES]]), of_forces("V_story"), kind=K)


def drifts() -> None:
    t = table
    K = "drifts"
    rows = [[c, c[-1], n, D1[c][n], D2[c][n]] for c in D1 for n in NAMES]
    head = ["Case", "Direction", "Story", "Drift at end 1 (mm)", "Drift at end 2 (mm)"]
    t("drifts-31-displacements-beside.tsv", grid([[*head[:3], "Displacement at end 1 (mm)", "Displacement at end 2 (mm)", *head[3:]], *[[c, d, n, U1[c][n], U2[c][n], a, b] for c, d, n, a, b in rows]]), [*of_drifts(), *of_displacements()], kind="drifts displacements", tables=2)
    t("drifts-32-summary-row.tsv", grid([head, *[r for c in D1 for r in (*[x for x in rows if x[0] == c], [c, "", "Max", max(D1[c].values()), max(D2[c].values())])]]), of_drifts(), kind=K)
    t("drifts-33-corners.tsv", grid([["Case", "Direction", "Storey", "Drift corner A (mm)", "Drift corner B (mm)"], *rows]), of_drifts(), kind=K)
    t("drifts-34-relative-displacement.tsv", grid([["Case", "Direction", "Storey", "Relative displacement end 1 (mm)", "Relative displacement end 2 (mm)"], *rows]), of_drifts(), kind=K)
    t("drifts-35-spanish.csv", grid([["Caso", "Dirección", "Piso", "Deriva máxima (mm)"], *[[c, d, n, comma(b)] for c, d, n, a, b in rows]], ";"), of_drifts("drift_max"), kind=K)
    t("drifts-36-bad-direction.tsv", grid([head, *[[c, "Z" if n == "L3" else d, n, a, b] for c, d, n, a, b in rows]]), kind=K, asks=["/rows/\\d+/1: not a direction"])
    t("drifts-37-allowable-first.tsv", grid([["Case", "Direction", "Story", "Allowable drift (mm)", "Max drift (mm)"], *[[c, d, n, 72.0, b] for c, d, n, a, b in rows]]), of_drifts("drift_max"), kind=K)
    t("drifts-38-units-in-cells.tsv", grid([["Case", "Direction", "Story", "Drift at end 1", "Drift at end 2"], *[[c, d, n, f"{a} mm", f"{b / 10:.3f} cm"] for c, d, n, a, b in rows]]), of_drifts(), kind=K)
    t("drifts-39-side-by-side.xlsx", book([["Static X", None, None, None, "Static Y"], [*head[2:], None, *head[2:]], *[[n, D1["Static X"][n], D2["Static X"][n], None, n, D1["Static Y"][n], D2["Static Y"][n]] for n in NAMES]]), of_drifts(), kind=K, tables=2)


def modes_and_spectra() -> None:
    t = table
    K = "modes"
    shares = [[i, m[0], m[1], m[2]] for i, m in enumerate(MODES, 1)]
    t("modes-29-groups-by-direction.tsv", grid([["Mode", "Period (s)", "X", "", "Y", ""], ["", "", "Share (%)", "Sum (%)", "Share (%)", "Sum (%)"], *[[i, T, x, SUMS[i - 1][0], y, SUMS[i - 1][1]] for i, T, x, y in shares]]), of_modes(sums="XY"), kind=K)
    t("modes-30-words.tsv", grid([["Mode Number", "Natural period (s)", "Modal mass participation X (%)", "Modal mass participation Y (%)", "Cumulative modal mass X (%)", "Cumulative modal mass Y (%)"], *[[*s, *SUMS[s[0] - 1][:2]] for s in shares]]), of_modes(sums="XY"), kind=K)
    t("modes-31-rotations.tsv", grid([["Mode", "Period (s)", "X (%)", "Y (%)", "Rotation about Z (%)", "Sum X (%)", "Sum Y (%)", "Sum RZ (%)"], *[[i, m[0], m[1], m[2], m[3], *SUMS[i - 1]] for i, m in enumerate(MODES, 1)]]), of_modes(shares="X Y RZ", sums="X Y RZ"), kind=K)
    t("modes-32-comma-thousandths.csv", grid([["Mode", "Period (s)", "X (%)", "Y (%)"], *[[i, comma(f"{T:.3f}"), comma(f"{x:.3f}"), comma(f"{y:.3f}")] for i, T, x, y in shares]], ";"), of_modes(), kind=K)
    t("modes-33-fixed-width.txt", "Modal properties\n\n" + fixed([["Mode", "Period", "X", "Y"], ["", "(s)", "(%)", "(%)"], *shares]), of_modes(), kind=K)
    t("modes-34-blanks.txt", "Mode T(s) X(%) Y(%)\n" + "".join(" ".join(map(str, s)) + "\n" for s in shares), of_modes(), kind=K)
    t("modes-35-not-a-number.tsv", grid([["Mode", "Period (s)", "X (%)", "Y (%)"], *shares[:2], ["3a", 0.7, 1.1, 0.5]]), kind=K, asks=["/rows/3/0: is not a mode number"])
    K = "spectrum"
    t("spectrum-21-words.tsv", grid([["Period T (sec)", "Design spectral acceleration S_a (g)"], *POINTS]), of_points(), kind=K)
    t("spectrum-22-elastic-beside.tsv", grid([["T (s)", "Sa (elastic) (g)", "Sa (design) (g)"], *[[T, 3 * a, a] for T, a in POINTS]]), of_points(), kind=K)
    t("spectrum-23-across.tsv", grid([["T (s)", *[p[0] for p in POINTS]], ["Sa (g)", *[p[1] for p in POINTS]]]), of_points(), kind=K)
    t("spectrum-24-gal.tsv", grid([["T (s)", "Sa (gal)"], *[[T, round(a * 980.665, 7)] for T, a in POINTS]]), of_points(), kind=K)
    t("spectrum-25-units-row.tsv", grid([["T", "Sa"], ["[s]", "[g]"], *POINTS]), of_points(), kind=K)


def parameters() -> None:
    t = table
    K = "parameters"

    def p(quantity: str, value: Any, d: str = "") -> Row:
        return row(quantity, value, d=d)

    t(
        "parameters-29-words-and-symbols.tsv",
        grid([["Description", "X", "Y", "Unit"], ["Approximate period T_a", 0.62, 0.62, "s"], ["Response modification coefficient R", 6, 6, ""], ["Seismic response coefficient C_s", 0.0957, 0.1067, ""], ["Design base shear V", 2295.0, 2558.6, "kN"]]),
        [p(q, v, d) for q, x, y in (("T_a", 0.62, 0.62), ("R", 6, 6), ("C_s", 0.0957, 0.1067), ("V", 2295.0, 2558.6)) for d, v in (("X", x), ("Y", y))],
        kind=K,
    )
    t("parameters-30-axis-in-brackets.tsv", grid([["Item", "Value", "Unit"], ["Seismic weight W", 23975.9, "kN"], ["V (X)", 2295.0, "kN"], ["V (Y)", 2558.6, "kN"]]), [p("W", 23975.9), p("V", 2295.0, "X"), p("V", 2558.6, "Y")], kind=K)
    t("parameters-31-formula.csv", grid([["Item", "X", "Y", "Unit"], ["V", "=2000+295", 2558.6, "kN"]], ";"), kind=K, asks=["/rows/1/1: formula"])
    t("parameters-32-comma-decides.csv", grid([["Item", "X", "Y", "Unit"], ["V", "2.295", "2.558", "kN"], ["T_a", "0,62", "0,62", "s"]], ";"), [p("V", 2295.0, "X"), p("V", 2558.0, "Y"), p("T_a", 0.62, "X"), p("T_a", 0.62, "Y")], kind=K)
    t("parameters-33-two-units.tsv", grid([["Item", "X", "Y", "Unit"], ["V (MN)", 2295.0, 2558.6, "kN"]]), kind=K, asks=["/rows/1/1: unit is", "/rows/1/2: unit is"])
    t("reactions-11-shears.tsv", grid([["Load case", "Base shear X (kN)", "Base shear Y (kN)"], *[[c, *REACTIONS[c][:2]] for c in REACTIONS]]), of_reactions("X", "Y"), kind="reactions")
    t("reactions-12-units-in-cells.tsv", grid([["Case", "F_x", "F_y"], *[[c, f"{REACTIONS[c][0]} kN", f"{REACTIONS[c][1]} kN"] for c in REACTIONS]]), of_reactions("X", "Y"), kind="reactions")


def titles() -> None:
    """Words over tables that name a case, and such that only look so."""
    t = table
    head = ["Story", "Force (kN)", "Shear (kN)"]
    rows = [[n, F["Static X"][n], V["Static X"][n]] for n in NAMES]
    drifts_head = ["Story", "Drift at end 1 (mm)", "Drift at end 2 (mm)"]
    drift_rows = [[n, D1["Static X"][n], D2["Static X"][n]] for n in NAMES]

    def under(title: str, *body: list[Any]) -> str:
        return grid([[title, "", ""], *body])

    t("forces-53-sentence-with-case.tsv", under("Story forces of the static case with +5 % eccentricity", head, *rows), kind="forces", asks=["/table: case"])
    t("forces-54-block-x.tsv", under("Block X, story forces", head, *rows), kind="forces", asks=["/table: case"])
    cases = [["Case", *head], *[[c, n, F[c][n], V[c][n]] for c in F for n in NAMES]]
    t("forces-55-load-cases-in-title.tsv", grid([["Load cases: see appendix B", "", "", ""], *cases]), of_forces(), kind="forces")
    t("forces-56-title-by-dash.tsv", under("Story forces - Static X", head, *rows), of_forces(cases=["Static X"]), kind="forces")
    t("drifts-40-both-directions-in-title.tsv", under("Story drifts in X and Y direction, case Sway", drifts_head, *drift_rows), kind="drifts", asks=["/rows/\\d+/\\d: direction of case"])
    t("drifts-41-along-in-title.tsv", under("Story drifts along X, case Sway", drifts_head, *drift_rows), of_drifts(cases=["Static X"], named=lambda c: "Sway"), kind="drifts")
    twice = [[c, n, V[c][n], where] for c in F for n in NAMES for where in ("Top", "Bottom")]
    t("forces-57-top-and-bottom.tsv", grid([["Case", "Story", "Shear (kN)", "Location"], *twice]), of_forces("V_story"), kind="forces")
    shares = [[i, m[0], m[1] / 100, m[2] / 100, m[3] / 100] for i, m in enumerate(MODES[:2], 1)]
    t("modes-36-small-twist.tsv", grid([["Mode", "T (sec)", "Share UX", "Share UY", "Share RZ"], *shares]), [r for r in of_modes(shares="X Y RZ") if r[4] < 2], kind="modes")
    items = [["Item", "Symbol", "X", "Y", "Unit"], ["Approximate period", "T_a", 0.62, 0.62, "s"], ["Shear of the base", "V", 2295.0, 2558.6, "kN"]]
    t("parameters-34-names-and-symbols.tsv", grid(items), [row(q, v, d=d) for q, x, y in (("T_a", 0.62, 0.62), ("V", 2295.0, 2558.6)) for d, v in (("X", x), ("Y", y))], kind="parameters")
    t("parameters-35-name-against-symbol.tsv", grid([["Item", "Symbol", "X", "Y", "Unit"], ["Approximate period", "V", 0.62, 0.62, "s"]]), kind="parameters", asks=["/rows/1/1: are different quantities"])
    t("combinations-05-formula.tsv", grid([["Combination", "Formula"], ["C1", "1.2 D + 1.0 EX"]]), [row("combination_terms", "1.2 D + 1.0 EX", case="C1")], kind="combinations")
