"""Sheets become claims: columns recognised, units found or asked for, every problem marked in its cell."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from plumb_core.documents.base import Direction
from plumb_core.documents.submission import Claim, Source
from plumb_core.editions import EDITIONS, Edition
from plumb_core.intake.sheets import Sheet
from plumb_core.intake.units import UNITS, factor, known_unit, plain_number, uses_decimal_comma
from plumb_core.quantities import QUANTITIES, Kind, Scope


@dataclass(frozen=True, slots=True)
class Column:
    """A column that a kind of table can have; `quantity` for columns of numbers."""

    name: str
    title: str
    headings: str
    """pattern of normalised headings that are taken for it"""
    required: bool = False
    quantity: str | None = None
    positive: bool = False


_SHARE = r"(share|mass|massshare|massratio|effectivemass|effectivemodalmass|modalmass|participation)?"
_RUNNING = r"(sum|runningsum|running|cumulative|cumulativemass|total|Σ)(mass|share)?"

TABLES: dict[str, tuple[Column, ...]] = {
    "parameters": (
        Column("name", "parameter", r"parameter|name|item|symbol|quantity|coefficient", required=True),
        Column("value", "value, no direction or both", r"value|amount|result"),
        Column("value_X", "value in X", r"x|valuex|xdirection|directionx|alongx"),
        Column("value_Y", "value in Y", r"y|valuey|ydirection|directiony|alongy"),
        Column("unit", "unit", r"units?"),
    ),
    "stories": (
        Column("story", "story", r"story|storey|level|floor|storyname", required=True),
        Column("h", "story height", r"(story|storey|floor)?height|hsx|h", True, "h", positive=True),
        Column("w", "seismic weight", r"(story|storey|seismic|floor)?weight|wx|w", False, "w", positive=True),
        Column("m", "mass in the analysis", r"(story|storey|floor|modal)?mass|m", False, "m", positive=True),
    ),
    "forces": (
        Column("case", "case", r"case|loadcase|load|combination|direction", required=True),
        Column("story", "story", r"story|storey|level|floor|storyname", required=True),
        Column("F", "force at the level", r"(lateral|story|storey)?force|fx|fi|f", False, "F"),
        Column("V_story", "story shear", r"(story|storey)?shear|vx|v", False, "V_story"),
        Column(
            "M_story", "overturning at the bottom of the story", r"overturning(moment)?|moment|mx|m", False, "M_story"
        ),
    ),
    "spectrum": (
        Column("T_points", "period", r"period|t", True, "T_points"),
        Column(
            "S_a",
            "spectral acceleration",
            r"sa|spectralacceleration|acceleration|ordinate|designacceleration",
            True,
            "S_a",
        ),
    ),
    "modes": (
        Column("mode", "number of the mode", r"mode|modeno|modenumber|n", required=True),
        Column("T_mode", "period", r"period|t|tn", False, "T_mode", positive=True),
        Column("f_mode", "frequency", r"frequency|f|fn", False, "f_mode", positive=True),
        Column("mass_ratio_X", "share of the mass in X", rf"{_SHARE}(in|along)?x", False, "mass_ratio"),
        Column("mass_ratio_Y", "share of the mass in Y", rf"{_SHARE}(in|along)?y", False, "mass_ratio"),
        Column("mass_ratio_RZ", "share of the inertia about Z", rf"{_SHARE}(about|in)?r?z", False, "mass_ratio_RZ"),
        Column("mass_running_X", "running sum in X", rf"{_RUNNING}(in|along)?x", False, "mass_running"),
        Column("mass_running_Y", "running sum in Y", rf"{_RUNNING}(in|along)?y", False, "mass_running"),
        Column("mass_running_RZ", "running sum about Z", rf"{_RUNNING}(about|in)?r?z", False, "mass_running_RZ"),
    ),
    "shapes": (
        Column("mode", "number of the mode", r"mode|modeno|modenumber|n", required=True),
        Column("story", "story", r"story|storey|level|floor|storyname", required=True),
        Column("mode_u_X", "movement in X", r"(movement|displacement|shape|φ|phi|u)?x", False, "mode_u"),
        Column("mode_u_Y", "movement in Y", r"(movement|displacement|shape|φ|phi|u)?y", False, "mode_u"),
        Column("mode_rz", "rotation about Z", r"(rotation|movement|shape|φ|phi)?(about)?r?z", False, "mode_rz"),
    ),
}

PARAMETER_NAMES: dict[str, str] = {}
"""Names of parameters as they are normalised, and the quantity that each stands for."""

for _quantity, _names in {
    # symbols stand for themselves; these are the words beside them
    "S_S": "ss", "S_1": "s1", "T_L": "tl", "site_class": "siteclass", "F_a": "fa", "F_v": "fv", "S_MS": "sms", "S_M1": "sm1",
    "S_DS": "sds", "S_D1": "sd1", "T_0": "t0", "T_S": "ts", "design_category": "sdc seismicdesigncategory designcategory edc",
    "risk_category": "riskcategory occupancycategory", "I_e": "ie importancefactor", "R": "r responsemodificationcoefficient "
    "responsemodificationfactor responsereductionfactor", "Omega_0": "omega0 ω0 overstrengthfactor",
    "C_d": "cd deflectionamplificationfactor", "rho": "rho ρ redundancyfactor", "h_n": "hn structuralheight buildingheight",
    "C_t": "ct kt", "T_a": "ta approximateperiod", "C_u": "cu", "T_limit": "cuta upperlimitonperiod tmax",
    "T_analysis": "tanalysis analysisperiod periodfromanalysis", "T": "t t1 periodused tused fundamentalperiod",
    "C_s": "cs seismicresponsecoefficient", "coefficient": "v/w vw ah baseshearcoefficient", "W": "w seismicweight effectiveseismicweight",
    "V": "v fb vb baseshear", "k": "k", "F_t": "ft topforce", "lambda_": "lambda λ", "S_a_T": "sdt1 sdt cht1 sag ordinateatt sdatt1 chatt1",
    "zone": "zone seismiczone", "Z": "z zonefactor hazardfactor seismiczonefactor", "soil": "soil soilprofile soilprofiletype soiltype",
    "source_type": "sourcetype", "source_distance_km": "sourcedistance", "N_a": "na", "N_v": "nv", "C_a": "ca", "C_v": "cv", "I": "i",
    "a_gR": "agr", "a_g": "ag", "ground_type": "groundtype", "spectrum_type": "spectrumtype", "S": "s soilfactor", "T_B": "tb",
    "T_C": "tc", "T_D": "td", "beta": "beta β", "importance_class": "importanceclass", "gamma_I": "gammai γi", "q": "q behaviourfactor",
    "k_p": "kp probabilityfactor", "subsoil": "subsoil subsoilclass", "kpZ": "kpz", "importance_level": "importancelevel",
    "mu": "mu μ ductilityfactor structuralductilityfactor", "S_p": "sp structuralperformancefactor",
    "lateral_system": "lateralsystem",
}.items():  # fmt: skip
    PARAMETER_NAMES |= dict.fromkeys(_names.split(), _quantity)

ALSO = {"I_e": ("I", "gamma_I"), "risk_category": ("occupancy_category",), "C_s": ("coefficient",)}
"""Quantities that the same words stand for under editions that don't have the first one."""

MAY_BE_ZERO = {"F_t", "source_distance_km", "beta"}
"""Parameters that are nothing where the code says so; all others are above zero."""

_TEXT_VALUES = {"design_category": ("A", "B", "C", "D", "E", "F", "I", "II", "III")}
"""Allowed texts of quantities that rules give; those of inputs stand with the edition."""
_SAFE_NAME = re.compile(r"[\w .,+\-/()#&°'–]{1,60}")
_TOTAL = re.compile(r"(?i)^(total|sum|Σ|grand total|subtotal)\b")


@dataclass(frozen=True, slots=True)
class CellProblem:
    """A problem at a cell (0-based), a row (column None), a column (row None) or the whole table (both None)."""

    row: int | None
    column: int | None
    message: str
    remedy: str


@dataclass
class Mapping:
    """How a table is read; everything in it can be set by the reviewer.

    columns : column name -> 0-based index.  units : column name -> unit label.  cases : case -> direction.
    order : `bottom_up` or `top_down`, how the stories stand in the table.
    both : values without a direction hold for X and Y.
    """

    header_row: int | None = None
    columns: dict[str, int] = field(default_factory=dict)
    units: dict[str, str] = field(default_factory=dict)
    cases: dict[str, str] = field(default_factory=dict)
    order: str = ""
    both: bool = False


@dataclass
class TableRead:
    """What was made of a table: claims only count where `problems` is empty."""

    kind: str
    mapping: Mapping
    claims: list[Claim]
    problems: list[CellProblem]
    skipped: list[int]
    """rows left out: headings, blank rows, totals"""
    stories: list[str]
    """names of the stories, bottom to top"""


def _normal(text: str) -> str:
    text = re.sub(r"[\[(].*?[\])]", "", text)
    return re.sub(r"[\s_,.\-{}$\\:/]", "", text).lower()


def _heading_unit(text: str) -> str:
    match = re.search(r"[\[(]([^\])]+)[\])]\s*$", text) or re.search(r",\s*([^,]+)$", text)
    return match.group(1).strip() if match else ""


def _recognised(row: Sequence[str], kind: str) -> dict[str, int]:
    found: dict[str, int] = {}
    for index, text in enumerate(row):
        normal = _normal(re.sub(r",\s*[^,]+$", "", text)) if "," in text else _normal(text)
        for column in TABLES[kind]:
            if column.name not in found and re.fullmatch(column.headings, normal):
                found[column.name] = index
                break
    return found


def guess_kind(sheet: Sheet) -> str:
    """The kind of table that recognises the most columns of a sheet's first rows ('' if none does)."""
    best, kind = 0, ""
    for row in sheet.rows[:12]:
        for candidate, columns in TABLES.items():
            found = _recognised([c.text for c in row], candidate)
            if len(found) > best and all(c.name in found for c in columns if c.required):
                best, kind = len(found), candidate
    return kind


def _heading(sheet: Sheet, kind: str) -> tuple[int | None, dict[str, int]]:
    best: tuple[int | None, dict[str, int]] = (None, {})
    for index, row in enumerate(sheet.rows[:12]):
        found = _recognised([c.text for c in row], kind)
        if len(found) > len(best[1]):
            best = (index, found)
    return best if len(best[1]) >= 2 else (None, {})


class _Reader:
    def __init__(self, sheet: Sheet, kind: str, given: Mapping, file: str, known: list[str], edition: Edition | None):
        self.sheet, self.kind, self.file, self.known = sheet, kind, file, known
        self.edition = edition
        self.held = {*edition.rules({}), *edition.inputs} if edition else {*QUANTITIES}
        self.problems: list[CellProblem] = []
        self.skipped: list[int] = []
        header, columns = _heading(sheet, kind)
        self.header = header if given.header_row is None else given.header_row
        self.columns = given.columns or columns
        self.given = given
        self.by_name = {c.name: c for c in TABLES[kind]}
        self.units = dict(given.units)
        self.cases = dict(given.cases)
        self.order = given.order
        texts = [c.text for row in sheet.rows for c in row]
        self.decimal_comma = uses_decimal_comma(texts)

    def problem(self, row: int | None, column: int | None, message: str, remedy: str) -> None:
        self.problems.append(CellProblem(row, column, message, remedy))

    def text(self, row: int, name: str) -> str:
        index = self.columns.get(name)
        return self.sheet.rows[row][index].text if index is not None else ""

    def source(self, row: int, name: str) -> Source:
        index = self.columns[name]
        letter = (chr(64 + index // 26) if index >= 26 else "") + chr(65 + index % 26)
        return Source(file=self.file, sheet=self.sheet.name, row=row + 1, column=letter)

    def check_columns(self) -> None:
        width = len(self.sheet.rows[0]) if self.sheet.rows else 0
        for name, index in self.columns.items():
            if name not in self.by_name or not 0 <= index < width:
                self.problem(
                    None, None, f"there is no column {name!r} at place {index + 1}", "Point at the column again."
                )
        if self.problems:
            return
        for column in TABLES[self.kind]:
            if column.required and column.name not in self.columns:
                self.problem(
                    None,
                    None,
                    f"no column is recognised as {column.title}",
                    f"Point at the column that holds the {column.title}.",
                )
        numbers = [c for c in TABLES[self.kind] if c.quantity and c.name in self.columns]
        if self.kind == "forces" and not numbers:
            self.problem(None, None, "no column of forces, shears or moments is recognised", "Point at one of them.")
        if self.kind in ("modes", "shapes") and not numbers:
            self.problem(None, None, "no column of values is recognised", "Point at the columns that hold them.")
        if self.kind == "parameters" and not {"value", "value_X", "value_Y"} & self.columns.keys():
            self.problem(None, None, "no column of values is recognised", "Point at the column that holds the values.")
        for column in numbers:
            self.find_unit(column)

    def find_unit(self, column: Column) -> None:
        core_unit = QUANTITIES[column.quantity or ""].unit
        index = self.columns[column.name]
        written = self.units.get(column.name) or self.heading_unit(index)
        label = known_unit(written, core_unit) if written else None
        accepted = ", ".join(UNITS[core_unit])
        if label is None:
            self.units.pop(column.name, None)
            message = (
                f"{written!r} is no unit of {column.title}" if written else f"the unit of {column.title} is missing"
            )
            self.problem(self.header, index, message, f"Choose the unit: {accepted}.")
        else:
            self.units[column.name] = label

    def heading_unit(self, index: int) -> str:
        if self.header is None:
            return ""
        unit = _heading_unit(self.sheet.rows[self.header][index].text)
        below = self.header + 1
        if not unit and below < len(self.sheet.rows) and self.is_unit_row(below):
            unit = self.sheet.rows[below][index].text.strip("[]() ")
        return unit

    def is_unit_row(self, row: int) -> bool:
        cells = [c.text.strip("[]() ") for c in self.sheet.rows[row] if c.text]
        return bool(cells) and all(any(known_unit(c, u) for u in UNITS) or c in ("-", "") for c in cells)

    def rows(self) -> list[int]:
        """Rows that hold values; headings (repeated ones too), blank rows and totals are left out."""
        kept = []
        first = self.columns.get("story", self.columns.get("name", 0))
        start = -1 if self.header is None else self.header
        heading = [c.text for c in self.sheet.rows[self.header]] if self.header is not None else None
        for i, row in enumerate(self.sheet.rows):
            texts = [c.text for c in row]
            blank = not any(texts[c] for c in self.columns.values())
            total = any(_TOTAL.match(t) for t in (texts[first], texts[0]))
            unit_row = i == start + 1 and self.header is not None and self.is_unit_row(i)
            if i <= start or blank or texts == heading or total or unit_row:
                self.skipped.append(i)
            else:
                kept.append(i)
        if not kept:
            self.problem(None, None, "there are no values in it", "Paste the table with its rows of values.")
        return kept

    def number(self, row: int, name: str, title: str, *, positive: bool = False) -> tuple[float, str] | None:
        """(number, as plain text) of a cell, or None with the problem noted."""
        index = self.columns[name]
        cell = self.sheet.rows[row][index]
        if cell.formula:
            self.problem(row, index, "this cell holds a formula", "Hand in the value: copy and paste as values.")
            return None
        if not cell.text:
            self.problem(row, index, f"{title} is missing", "Give a number, or leave the whole row out.")
            return None
        plain = plain_number(cell.text, self.decimal_comma)
        if plain is None or abs(float(plain)) == float("inf"):
            self.problem(row, index, f"{cell.text[:40]!r} is no number", "Give a number.")
            return None
        if positive and float(plain) <= 0:
            self.problem(row, index, f"{title} is {plain}; it has to be above zero", "Mend the value.")
            return None
        return float(plain), plain

    def name(self, row: int, column: str, title: str) -> str | None:
        text, index = self.text(row, column), self.columns[column]
        if self.sheet.rows[row][index].formula:
            self.problem(row, index, "this cell holds a formula", "Hand in the value: copy and paste as values.")
        elif not text:
            self.problem(row, index, f"{title} is missing", f"Name the {title}.")
        elif not _SAFE_NAME.fullmatch(text):
            self.problem(
                row,
                index,
                f"{text[:40]!r} can't be a name",
                "Use up to 60 letters, digits, spaces and . , + - / ( ) # &.",
            )
        else:
            return text
        return None

    def claim(self, row: int, column: str, quantity: str, number: tuple[float, str], unit: str, **place: Any) -> Claim:
        scale = factor(unit, QUANTITIES[quantity].unit)
        return Claim(
            quantity=quantity,
            value=number[0] * scale,
            text=number[1],
            unit="" if unit == "-" else unit,
            scale=scale,
            source=self.source(row, column),
            **place,
        )

    # one reader per kind of table

    def stories(self, rows: list[int]) -> tuple[list[Claim], list[str]]:
        claims: list[Claim] = []
        seen: dict[str, int] = {}
        for row in rows:
            story = self.name(row, "story", "story")
            if story in seen:
                self.problem(
                    row,
                    self.columns["story"],
                    f"the name {story!r} stands in row {seen[story] + 1} too",
                    "Give each story a name of its own.",
                )
                story = None
            if story:
                seen[story] = row
            for column in ("h", "w", "m"):
                if column in self.columns:
                    title = self.by_name[column].title
                    number = self.number(row, column, title, positive=True)
                    if number and story and column in self.units:
                        claims.append(self.claim(row, column, column, number, self.units[column], story=story))
        names = list(seen)
        self.order = self.order or _guess_order(names)
        if self.order == "top_down":
            names.reverse()
            claims.reverse()
        return claims, names

    def forces(self, rows: list[int]) -> tuple[list[Claim], list[str]]:
        claims: list[Claim] = []
        case, seen = "", set()
        for row in rows:
            # the case often stands only in the first row of its block
            case = self.text(row, "case") or case
            direction = self.direction_of(row, case)
            story = self.name(row, "story", "story")
            if story and self.known and story not in self.known:
                self.problem(
                    row,
                    self.columns["story"],
                    f"story {story!r} is not among the stories known so far",
                    f"Use one of: {', '.join(self.known)}; or accept the table of stories first.",
                )
                continue
            if story and (case, story) in seen:
                self.problem(
                    row,
                    self.columns["story"],
                    f"story {story!r} stands twice in case {case!r}",
                    "Leave one of the rows out.",
                )
                continue
            seen.add((case, story))
            for column in ("F", "V_story", "M_story"):
                if column in self.columns:
                    number = self.number(row, column, self.by_name[column].title)
                    if number and story and direction and column in self.units:
                        # static results are often signed against the axis; magnitudes are compared
                        positive = (abs(number[0]), number[1].lstrip("+-"))
                        claims.append(
                            self.claim(
                                row,
                                column,
                                column,
                                positive,
                                self.units[column],
                                story=story,
                                direction=direction,
                                case=case,
                            )
                        )
        return claims, []

    def direction_of(self, row: int, case: str) -> str | None:
        index = self.columns["case"]
        if not case or not _SAFE_NAME.fullmatch(case):
            self.problem(
                row,
                index,
                f"{case[:40]!r} can't be the name of a case" if case else "the case is missing",
                "Name the case, such as Static X.",
            )
            return None
        if case not in self.cases:
            letters = {c.upper() for c in re.findall(r"[XYxy]", case)}
            if len(letters) == 1:
                self.cases[case] = letters.pop()
        direction = self.cases.get(case)
        if direction not in ("X", "Y"):
            self.problem(row, index, f"the direction of case {case!r} isn't clear", "Choose X or Y for this case.")
            return None
        return direction

    def spectrum(self, rows: list[int]) -> tuple[list[Claim], list[str]]:
        claims: list[Claim] = []
        last = -1.0
        for point, row in enumerate(rows):
            for column in ("T_points", "S_a"):
                number = self.number(row, column, self.by_name[column].title)
                if number is None or column not in self.units:
                    continue
                if number[0] < 0:
                    self.problem(row, self.columns[column], "it is below zero", "Mend the value.")
                if column == "T_points":
                    if number[0] <= last:
                        self.problem(
                            row,
                            self.columns[column],
                            "the periods have to rise from row to row",
                            "Sort the table by period, without repeats.",
                        )
                    last = number[0]
                claims.append(self.claim(row, column, column, number, self.units[column], point=point))
        return claims, []

    def mode_number(self, row: int) -> int | None:
        """Number of the mode of a row, from 1; the number often stands only in the first row of its block."""
        text, index = self.text(row, "mode"), self.columns["mode"]
        match = re.fullmatch(r"(?i)(?:mode\s*)?(\d{1,4})(?:\.0+)?", text.strip())
        if match and int(match.group(1)) > 0:
            return int(match.group(1))
        self.problem(row, index, f"{text[:40]!r} is no number of a mode", "Number the modes from 1.")
        return None

    def modal_claims(self, row: int, mode: int, **place: Any) -> list[Claim]:
        """Claims of all columns of a row; directions stand in the names of the columns."""
        claims = []
        for name, index in self.columns.items():
            column = self.by_name[name]
            # what a mode table leaves blank isn't stated
            if not column.quantity or name not in self.units or not self.sheet.rows[row][index].text:
                continue
            number = self.number(row, name, column.title, positive=column.positive)
            if number:
                direction = name[-1] if QUANTITIES[column.quantity].scope is Scope.DIRECTION else None
                unit = self.units[name]
                claims.append(
                    self.claim(row, name, column.quantity, number, unit, point=mode - 1, direction=direction, **place)
                )
        return claims

    def modes(self, rows: list[int]) -> tuple[list[Claim], list[str]]:
        claims: list[Claim] = []
        seen: dict[int, int] = {}
        for row in rows:
            mode = self.mode_number(row)
            if mode is None:
                continue
            if mode in seen:
                self.problem(
                    row,
                    self.columns["mode"],
                    f"mode {mode} stands in row {seen[mode] + 1} too",
                    "Leave one of the rows out.",
                )
                continue
            seen[mode] = row
            claims += self.modal_claims(row, mode)
        return claims, []

    def shapes(self, rows: list[int]) -> tuple[list[Claim], list[str]]:
        claims: list[Claim] = []
        seen: set[tuple[int, str]] = set()
        mode: int | None = None
        for row in rows:
            if self.text(row, "mode"):
                mode = self.mode_number(row)
            story = self.name(row, "story", "story")
            if story and self.known and story not in self.known:
                self.problem(row, self.columns["story"], f"story {story!r} is not among the stories known so far",
                             f"Use one of: {', '.join(self.known)}; or accept the table of stories first.")  # fmt: skip
                continue
            if mode is None or story is None:
                continue
            if (mode, story) in seen:
                self.problem(
                    row,
                    self.columns["story"],
                    f"story {story!r} stands twice in mode {mode}",
                    "Leave one of the rows out.",
                )
                continue
            seen.add((mode, story))
            claims += self.modal_claims(row, mode, story=story)
        return claims, []

    def parameters(self, rows: list[int]) -> tuple[list[Claim], list[str]]:
        claims: list[Claim] = []
        seen: set[tuple[str, str | None]] = set()
        for row in rows:
            found = self.parameter(row)
            if found is None:
                continue
            quantity, direction = found
            for column, directions in self.places(row, quantity, direction):
                for d in directions:
                    if (quantity, d) in seen:
                        self.problem(
                            row,
                            self.columns["name"],
                            f"{self.text(row, 'name')} stands twice in the table",
                            "Leave one of the rows out.",
                        )
                        continue
                    seen.add((quantity, d))
                    claim = self.parameter_claim(row, column, quantity, d)
                    if claim:
                        claims.append(claim)
        return claims, []

    def parameter(self, row: int) -> tuple[str, Direction | None] | None:
        """(quantity, direction) that the name in a row stands for."""
        text = self.name(row, "name", "parameter")
        if text is None:
            return None
        normal = _normal(text) or _normal(text.strip("()[]"))
        inside = re.search(r"[\[(]\s*([xXyY])\s*[\])]", text)
        if normal in PARAMETER_NAMES:
            return self.meant(normal), _direction(inside.group(1)) if inside else None
        if normal[-1:] in "xy" and normal[:-1] in PARAMETER_NAMES:
            return self.meant(normal[:-1]), _direction(normal[-1])
        self.problem(
            row,
            self.columns["name"],
            f"{text!r} is no parameter that is known here",
            "Leave the row out, or name it by its symbol in the code, such as S_DS or T_a X.",
        )
        return None

    def meant(self, normal: str) -> str:
        """The quantity that a name stands for under the edition of the review."""
        first = PARAMETER_NAMES[normal]
        return next((q for q in (first, *ALSO.get(first, ())) if q in self.held), first)

    def allowed(self, quantity: str) -> tuple[str, ...]:
        """Texts that a quantity can have; () where any will do."""
        if quantity in _TEXT_VALUES:
            return _TEXT_VALUES[quantity]
        editions = [self.edition] if self.edition else EDITIONS.values()
        found = [
            str(o)
            for e in editions
            for o in (e.systems if quantity == "lateral_system" else e.options.get(quantity, ()))
        ]
        return tuple(dict.fromkeys(found))

    def places(self, row: int, quantity: str, direction: Direction | None) -> list[tuple[str, list[Direction | None]]]:
        """The columns that hold values in this row, with the directions each value is for."""
        index = self.columns["name"]
        axes: tuple[tuple[str, Direction], ...] = (("value_X", "X"), ("value_Y", "Y"))
        by_axis = [(c, d) for c, d in axes if c in self.columns and self.text(row, c)]
        if QUANTITIES[quantity].scope is Scope.BUILDING:
            if direction or (by_axis and not self.text(row, "value")):
                self.problem(
                    row,
                    index,
                    f"{QUANTITIES[quantity].symbol} has no direction",
                    "Give one value for the building, in the column of values.",
                )
                return []
            return [("value", [None])] if "value" in self.columns else []
        if by_axis and not direction:
            return [(c, [d]) for c, d in by_axis]
        if direction:
            return [("value", [direction])] if "value" in self.columns else []
        if self.given.both and "value" in self.columns:
            return [("value", ["X", "Y"])]
        self.problem(
            row,
            index,
            f"the direction of {QUANTITIES[quantity].symbol} isn't given",
            f"Write {QUANTITIES[quantity].symbol} X and {QUANTITIES[quantity].symbol} Y, use columns X and Y, "
            "or say that values without a direction hold for both.",
        )
        return []

    def parameter_claim(self, row: int, column: str, quantity: str, direction: Direction | None) -> Claim | None:
        known = QUANTITIES[quantity]
        if known.kind is Kind.TEXT:
            written = self.text(row, column).strip()
            allowed = self.allowed(quantity)
            plain = _normal(re.sub(r"(?i)^class ", "", written))
            text = next((a for a in allowed if _normal(a) == plain), "" if allowed else written[:60])
            if not text:
                self.problem(
                    row,
                    self.columns[column],
                    f"{written[:40]!r} is no {known.meaning.lower()}",
                    f"Use one of: {', '.join(allowed)}." if allowed else "Write it down.",
                )
                return None
            return Claim(quantity=quantity, direction=direction, value=text, text=text, source=self.source(row, column))
        number = self.number(row, column, known.symbol, positive=quantity not in MAY_BE_ZERO)
        written = self.text(row, "unit")
        unit = known_unit(written or "-", known.unit)
        if unit is None:
            place = self.columns.get("unit", self.columns["name"])
            message = (
                f"{written!r} is no unit of {known.symbol}" if written else f"the unit of {known.symbol} is missing"
            )
            self.problem(row, place, message, f"Give one of: {', '.join(UNITS[known.unit])}.")
            return None
        return self.claim(row, column, quantity, number, unit, direction=direction) if number else None


def _direction(letter: str) -> Direction:
    return "X" if letter in "xX" else "Y"


def _guess_order(names: list[str]) -> str:
    """`top_down` where the numbers in the names fall, as most tables of stories stand, else `bottom_up`."""
    numbers = [int(m.group(1)) for m in (re.search(r"(\d+)\D*$", n) for n in names) if m]
    return "top_down" if len(numbers) > 1 and numbers[0] > numbers[-1] else "bottom_up"


def read_table(
    sheet: Sheet,
    kind: str,
    mapping: Mapping | None = None,
    *,
    file: str = "",
    known_stories: Sequence[str] = (),
    edition: Edition | None = None,
) -> TableRead:
    """Read a sheet as a table of a kind.

    Parameters
    ----------
    sheet : the cells
    kind : a key of TABLES
    mapping : what the reviewer has set; the rest is recognised
    file : name of the exhibit, for the provenance of the claims
    known_stories : names that rows of forces may refer to; empty if no stories are known yet
    edition : of the review; names and texts that editions use for different things are read as it has them
    """
    reader = _Reader(sheet, kind, mapping or Mapping(), file, list(known_stories), edition)
    reader.check_columns()
    claims: list[Claim] = []
    stories: list[str] = []
    if all(p.row is not None for p in reader.problems):
        rows = reader.rows()
        claims, stories = getattr(reader, kind)(rows)
    used = Mapping(reader.header, reader.columns, reader.units, reader.cases, reader.order, reader.given.both)
    return TableRead(kind, used, claims, list(dict.fromkeys(reader.problems)), reader.skipped, stories)
