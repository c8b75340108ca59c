"""From files to a submission: which kind each table is, how the last one like it was read, what is claimed already.

The server asks `read_in` for one table at a time, as a reviewer accepts them; `read_submission` takes a whole
submission.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import partial
from typing import Annotated, Any, Literal

from pydantic import Field

from plumb_core.digits import half_unit
from plumb_core.documents.base import CaseName, Part
from plumb_core.documents.brief import Brief
from plumb_core.documents.reading import read
from plumb_core.documents.recheck import RecheckDocument
from plumb_core.documents.submission import Claim, LoadCase, OpenPart, Submission
from plumb_core.editions import EDITIONS, Edition
from plumb_core.errors import InputRefused, Problem
from plumb_core.intake import doubts
from plumb_core.intake.cells import AnswerOption, CellProblem
from plumb_core.intake.collector import paused
from plumb_core.intake.columns import HEADING_ROWS, Reading, likely_kinds
from plumb_core.intake.layout.tables import arranged
from plumb_core.intake.numbers import readings
from plumb_core.intake.reading import ANY_KIND, kind_of, read_table
from plumb_core.intake.sheets import Sheet, read_file
from plumb_core.intake.tables import table_kinds
from plumb_core.intake.tables.kind import Building, TableRead
from plumb_core.quantities import QUANTITIES

Identity = tuple[str, str | None, str | None, int | None, str]
"""(quantity, direction, story, point, case): what a submission states once."""


@dataclass(frozen=True)
class Remembered:
    """How a table was read before: its kind, its row of headings, its reading, and the lines over it."""

    kind: str
    heading: tuple[str, ...]
    reading: Reading
    notes: tuple[str, ...] = ()


@dataclass(frozen=True)
class EarlierTables:
    """What is known when a table is read.

    Attributes
    ----------
    edition : of the review
    building : the stories, their heights and the load cases that rows may refer to, as far as they are known
    remembered : how earlier tables of the review were read, the newest first
    stated : texts that a table repeats on each page, with their values
    """

    edition: Edition | None = None
    building: Building = field(default_factory=Building)
    remembered: Sequence[Remembered] = ()
    stated: Mapping[Identity, str] = field(default_factory=dict)


REPEATED_QUANTITIES = ("load_kind", "load_category", "load_occupancy")
"""Quantities that every part of a long table says again."""


def identity(claim: Claim) -> Identity:
    """What a claim is a statement of."""
    return claim.quantity, claim.direction, claim.story, claim.point, claim.case


def heading_of(sheet: Sheet, header_row: int | None) -> tuple[str, ...]:
    """The row of headings of a sheet; empty for one without."""
    return tuple(c.text for c in sheet.rows[header_row]) if header_row is not None else ()


def remembered_reading(sheet: Sheet, kind: str, remembered: Iterable[Remembered]) -> Reading | None:
    """How the last table of this kind with the same headings was read; None for new headings.

    What was settled about its title is settled for one with the same title.
    """
    headings = [tuple(c.text for c in row) for row in sheet.rows[:HEADING_ROWS]]
    for table in remembered:
        if table.kind == kind and table.heading and table.heading in headings:
            alike = doubts.like_titles(table.notes) == doubts.like_titles(sheet.notes)
            settled = [c for c in table.reading.confirmed if alike and c in doubts.TABLE_WIDE]
            return replace(table.reading, header_row=headings.index(table.heading), confirmed=settled)
    return None


def read_in(sheet: Sheet, file: str, known: EarlierTables, kind: str = "", given: Reading | None = None) -> TableRead:
    """Read one sheet as a table of a kind ('' = whatever it looks like).

    What the reviewer has not set is proposed as in the last similar table; what the table says itself comes first.
    Raises InputRefused for a kind that is not
    there.
    """
    kinds = table_kinds()
    if kind and kind not in kinds:
        raise InputRefused([Problem("/kind", f"{kind!r} is not a kind of table", f"Use one of: {', '.join(kinds)}.")])
    chosen = kind or kind_of(sheet) or ANY_KIND
    unclear = not kind and not kind_of(sheet)
    proposed = remembered_reading(sheet, chosen, known.remembered)
    table = read_table(sheet, chosen, given, file=file, known=known.building, edition=known.edition, proposed=proposed)
    if unclear and table.held_up:
        table.problems = [_which_kind(sheet)]
    if known.stated:
        # the same said again is no second statement; something else is one
        table.claims = [c for c in table.claims if known.stated.get(identity(c)) != c.value]
    return table


def _which_kind(sheet: Sheet) -> CellProblem:
    """Return the question what a table is, with the kinds that its headings fit best first."""
    kinds = table_kinds()
    likely = likely_kinds(sheet, {k.id: k.columns for k in kinds.values()})
    choices = tuple(AnswerOption(kinds[k].title, {"kind": k}) for k in likely)
    words = "it is not clear what this table is"
    return CellProblem(None, None, words, "Choose its kind, or exclude it.", "table", choices)


# a whole submission


class ReadingAnswer(Part):
    """The reviewer's answers to the questions of the tables of a kind."""

    header_row: Annotated[int, Field(ge=0)] | None = None
    columns: dict[str, Annotated[int, Field(ge=0)]] = Field(default_factory=dict)
    units: dict[str, str] = Field(default_factory=dict)
    cases: dict[CaseName, Literal["X", "Y"]] = Field(default_factory=dict)
    order: Literal["", "bottom_up", "top_down"] = ""
    both: bool = False
    numbers: Literal["", "point", "comma"] = ""
    stories: dict[str, str] = Field(default_factory=dict)
    case: str = ""
    left_out: list[Annotated[int, Field(ge=0)]] = Field(default_factory=list)
    taken_in: list[Annotated[int, Field(ge=0)]] = Field(default_factory=list)
    confirmed: list[str] = Field(default_factory=list)


class TableAnswer(ReadingAnswer):
    """The reviewer's answers to the questions of one table.

    file, sheet : where it is; the sheet need not be named where the file has one
    table : its number on the sheet, from 1
    kind : of the table, where it is another one than it looks like.
    """

    file: str
    sheet: str = ""
    table: Annotated[int, Field(ge=1)] | None = None
    kind: str = ""


class Answers(Part):
    """The reviewer's answers: how the tables of each kind are to be read, and the roles of load cases.

    What tables state themselves comes first where several are of a kind.
    """

    tables: dict[str, ReadingAnswer] = Field(default_factory=dict)
    cases: list[LoadCase] = Field(default_factory=list)


class AnswersByTable(Part):
    """The reviewer's answers: how each table is to be read, and the roles of load cases."""

    tables: list[TableAnswer]
    cases: list[LoadCase] = Field(default_factory=list)


OF_ONE_TABLE = ("header_row", "columns", "case", "left_out", "taken_in", "confirmed")
"""Parts of an answer that mean something for one table only."""


class _Given:
    """The answers for each table of a submission."""

    def __init__(self, answers: Answers | AnswersByTable, sheets: Sequence[tuple[str, Sheet]]):
        numbers: Counter[tuple[str, str]] = Counter()
        places: list[tuple[str, str, int]] = []
        for file, sheet in sheets:
            numbers[file, sheet.name] += 1
            places.append((file, sheet.name, numbers[file, sheet.name]))
        self.kinds = Counter(kind_of(sheet) or ANY_KIND for _, sheet in sheets)
        self.by_kind = answers.tables if isinstance(answers, Answers) else {}
        self.by_table: dict[int, TableAnswer] = {}
        problems: list[Problem] = []
        for i, answer in enumerate(answers.tables if isinstance(answers, AnswersByTable) else ()):
            found = [
                k
                for k, (file, name, number) in enumerate(places)
                if file == answer.file and answer.sheet in ("", name) and answer.table in (None, number)
            ]
            if len(found) == 1:
                self.by_table[found[0]] = answer
                continue
            words = (
                f"{len(found)} tables of the submission are meant" if found else "no table of the submission is meant"
            )
            remedy = "Name file, sheet and number of the table, as in the line that states its questions."
            problems.append(Problem(f"/tables/{i}", words, remedy))
        for kind, entry in self.by_kind.items():
            several = [name for name in OF_ONE_TABLE if getattr(entry, name) not in (None, "", [], {})]
            if self.kinds[kind] > 1 and several:
                words = f"{self.kinds[kind]} tables are of the kind {kind!r}, and this is about one of them"
                remedy = "Answer by table: a list of answers, each with file and table."
                problems.append(Problem(f"/tables/{kind}/{several[0]}", words, remedy))
        if problems:
            raise InputRefused(problems)

    def kind(self, i: int, sheet: Sheet) -> str:
        """Kind of a table: as answered, or as it looks."""
        answer = self.by_table.get(i)
        return (answer.kind if answer else "") or kind_of(sheet)

    def reading(self, i: int, kind: str, stated: Callable[[], TableRead]) -> Reading | None:
        """The answer for a table; of one for its kind, what the table does not state itself.

        stated : gives the table as it is read without an answer
        """
        answer = self.by_table.get(i)
        if answer is not None:
            return Reading(**{k: v for k, v in vars(answer).items() if k in ReadingAnswer.model_fields})
        entry = self.by_kind.get(kind)
        if entry is None:
            return None
        reading = Reading(**vars(entry))
        if self.kinds[kind] < 2:
            return reading
        alone = stated()
        unclear = any("how the numbers are written" in p.message for p in alone.problems)
        return replace(
            reading,
            units={c: u for c, u in reading.units.items() if c not in alone.reading.units},
            numbers=reading.numbers if unclear else "",
            order=alone.reading.order or reading.order,
        )


@dataclass
class TableTaken:
    """A table of a submission, with its questions, and with marks on values that were read.

    unused : headings of columns of numbers that are not used
    open : whether something of it is not read before a question is answered
    """

    file: str
    sheet: str
    kind: str
    values: int
    questions: list[Problem] = field(default_factory=list)
    marks: list[Problem] = field(default_factory=list)
    page: int | None = None
    unused: list[str] = field(default_factory=list)
    open: bool = False

    def as_json(self, number: int) -> dict[str, Any]:
        """As `plumb intake` states it; `table` is its number in the file, from 1."""
        return {
            "file": self.file,
            "sheet": self.sheet,
            "page": self.page,
            "table": number,
            "kind": self.kind,
            "values": self.values,
            "unused": self.unused,
            "questions": [q.as_json() for q in (*self.questions, *self.marks)],
        }


@dataclass
class SubmissionRead:
    """A submission made of files, and what became of each table."""

    document: RecheckDocument
    tables: list[TableTaken]

    @property
    def complete(self) -> bool:
        """Whether no question is left."""
        return not any(t.open for t in self.tables)


@paused()
def read_submission(
    brief: Brief,
    files: Iterable[tuple[str, bytes]],
    answers: Answers | AnswersByTable | None = None,
    label: str = "S0",
) -> SubmissionRead:
    """Read a submission; a row, column or table with a question stays open, never guessed.

    Parameters
    ----------
    brief : of the review
    files : (name, contents) of each
    answers : the reviewer's answers to what was open before

    Raises
    ------
    SheetRefused : for a file that cannot be read as tables
    """
    answered = answers or Answers()
    sheets = [(name, sheet) for name, data in files for sheet in arranged(read_file(data, name)) if sheet.rows]
    tabled = {name for name, sheet in sheets if sheet.kind}
    # a sheet of words beside tables is a note and nothing to ask about
    sheets = [
        (n, s) for n, s in sheets if s.kind or n not in tabled or any(readings(c.text) for r in s.rows for c in r)
    ]
    given = _Given(answered, sheets)
    stories = [s.name for s in brief.stories]
    heights = {s.name: s.height for s in brief.stories}
    weights = {s.name: s.weight for s in brief.stories if s.weight}
    claims: list[Claim] = []
    cases: dict[str, LoadCase] = {c.name: c for c in answered.cases}
    used: dict[int, TableTaken] = {}
    remembered: list[Remembered] = []
    open_parts: list[OpenPart] = []
    headings: dict[int, set[str]] = {}
    stated: dict[Identity, Claim] = {}
    words: dict[Identity, str] = {}
    turns = sorted(range(len(sheets)), key=lambda i: turn_of(sheets[i][1]))
    for i in turns:
        file, sheet = sheets[i]
        kind = given.kind(i, sheet)
        known = EarlierTables(EDITIONS[brief.edition], Building(stories, heights, cases, weights), remembered, words)
        reading = given.reading(i, kind or ANY_KIND, partial(read_in, sheet, file, known, kind))
        table = read_in(sheet, file, known, kind, reading)
        questions = [_question(sheet, p) for p in table.problems if p.extent != "nothing"]
        marks = [_question(sheet, p) for p in table.problems if p.extent == "nothing"]
        repeated = _repeated(table, stated)
        questions += repeated.questions
        held_up = repeated.whole or table.held_up
        used[i] = TableTaken(
            file,
            sheet.name,
            table.kind,
            0 if held_up else len(table.claims),
            questions,
            marks,
            sheet.page,
            [*table.unused.values()],
            bool(repeated.questions) or any(p.leaves_open for p in table.problems),
        )
        parts = open_parts_of(file, sheet, table)
        for question in repeated.questions:
            rows = [] if repeated.whole else sorted({c.source.row or 0 for c in repeated.differing})
            parts.append(OpenPart(**place_of(file, sheet, table), rows=rows, question=question.message))
        open_parts += parts
        head = heading_of(sheet, table.reading.header_row)
        headings[i] = {head[c] for c in table.reading.columns.values() if c < len(head)}
        if held_up:
            continue
        claims += table.claims
        if i != turns[-1]:
            stated |= {identity(c): c for c in table.claims}
        words |= {identity(c): str(c.value) for c in table.claims if c.quantity in REPEATED_QUANTITIES}
        cases |= {c.name: with_role(cases.get(c.name), c) for c in table.cases}
        stories = stories or table.stories
        heights = heights or {c.story: float(c.value) for c in table.claims if c.quantity == "h" and c.story}
        heading = heading_of(sheet, table.reading.header_row)
        remembered.insert(0, Remembered(table.kind, heading, table.reading, sheet.notes))
    for i, entry in used.items():
        # columns of a table beside this one are used
        beside = [k for k in headings if k != i and sheets[k][0] == entry.file and sheets[k][1].name == entry.sheet]
        entry.unused = [h for h in entry.unused if not any(h in headings[k] for k in beside)]
    submission = Submission(label=label, cases=list(cases.values()), claims=claims)
    document = RecheckDocument(brief=brief, submission=submission, open=open_parts)
    return SubmissionRead(document, [used[i] for i in range(len(sheets))])


@dataclass
class _Repeated:
    """Values of a table that another table of the submission states too.

    whole : whether the table has nothing else.  differing : claims whose other statement has another value.
    """

    questions: list[Problem] = field(default_factory=list)
    whole: bool = False
    differing: list[Claim] = field(default_factory=list)


def _repeated(table: TableRead, stated: Mapping[Identity, Claim]) -> _Repeated:
    """Take the values that are stated elsewhere from a table; those with another value are asked about."""
    pairs = [(c, before) for c in table.claims if (before := stated.get(identity(c)))] if stated else []
    if not pairs:
        return _Repeated()
    differing = [(c, before) for c, before in pairs if not _same_value(c, before)]
    whole = len(pairs) == len(table.claims)
    if not whole:
        again = {id(c) for c, _ in pairs}
        table.claims = [c for c in table.claims if id(c) not in again]
    if not differing and not whole:
        return _Repeated()
    claim, before = (differing or pairs)[0]
    place = ", ".join(x for x in (before.source.file, before.source.sheet, f"row {before.source.row}") if x)
    what = " ".join(x for x in (QUANTITIES[claim.quantity].meaning.lower(), claim.story, claim.direction) if x)
    of_case = f" in case {claim.case}" if claim.case else ""
    more = f" (and {len(differing) - 1} more values)" if len(differing) > 1 else ""
    here = f"{claim.text} {claim.unit}".strip()
    there = f"{before.text} {before.unit}".strip()
    how = (
        f"{here} here and {there} in {place}{more}" if differing else f"the same as in {place}, like all of this table"
    )
    words = f"the {what}{of_case} is already stated: {how}"
    return _Repeated([Problem("/table", words, "Exclude one of the two.")], whole, [c for c, _ in differing])


def _same_value(one: Claim, other: Claim) -> bool:
    """Whether two statements have one value, within the digits of the coarser one."""
    if isinstance(one.value, str) or isinstance(other.value, str):
        return one.value == other.value
    digits = max(half_unit(one.text) * one.scale, half_unit(other.text) * other.scale)
    return abs(float(one.value) - float(other.value)) <= digits * (1 + 1e-9) + 1e-9 * abs(float(one.value))


def place_of(file: str, sheet: Sheet, table: TableRead) -> dict[str, Any]:
    """File, sheet, page and kind of a table, and the quantities that it can state."""
    kind = table_kinds().get(table.kind)
    return {
        "file": file,
        "sheet": sheet.name,
        "page": sheet.page,
        "table": sheet.part,
        "kind": table.kind if table.kind != ANY_KIND else "",
        "quantities": sorted({c.quantity for c in kind.columns if c.quantity}) if kind is not None else [],
    }


def open_parts_of(file: str, sheet: Sheet, table: TableRead) -> list[OpenPart]:
    """What is not read of a table: all of it, columns of it, or rows of it, each with its question."""
    place = place_of(file, sheet, table)
    if table.held_up:
        question = next(p.message for p in table.problems if p.holds_up)
        return [OpenPart(**place, question=question)]
    columns = {c.name: c for c in table_kinds()[table.kind].columns}
    at = {index: columns[name] for name, index in table.reading.columns.items() if name in columns}
    parts = [
        OpenPart(**place | {"quantities": [at[c].quantity]}, question=problem.message)
        for problem in table.problems
        if problem.extent == "column"
        for c in (problem.column, *problem.columns)
        if c in at
    ]
    rows: dict[str, list[int]] = {}
    for problem in table.problems:
        if problem.extent in ("row", "skip"):
            concerned = [sheet.place(r, 0)[0] + 1 for r in (problem.row, *problem.rows) if r is not None]
            rows.setdefault(problem.message, []).extend(concerned)
    kind = {"kind": table.kind}
    return [
        *parts,
        *(OpenPart(**place | kind, rows=sorted(set(numbers)), question=words) for words, numbers in rows.items()),
    ]


def turn_of(sheet: Sheet) -> int:
    """Tables that others refer to come first: that of stories, then that of cases."""
    return {"stories": 0, "cases": 1}.get(kind_of(sheet), 2)


def with_role(known: LoadCase | None, reported: LoadCase) -> LoadCase:
    """A role with what another source describes it; what is known stays."""
    if known is None:
        return reported
    more = {k: v for k, v in vars(reported).items() if getattr(known, k) is None and v is not None}
    return known.model_copy(update=more) if more else known


def _question(sheet: Sheet, problem: CellProblem) -> Problem:
    """A problem at its place on the sheet as it was submitted."""
    path = "/table"
    if problem.row is not None:
        row, column = sheet.place(problem.row, problem.column or 0)
        path = f"/rows/{row}/{column if problem.column is not None else None}"
    return Problem(path, problem.message, problem.remedy)


def read_answers(document: Mapping[str, Any]) -> Answers | AnswersByTable:
    """The reviewer's answers from a document; raises InputRefused naming every problem."""
    by_table = isinstance(document, Mapping) and isinstance(document.get("tables"), list)
    return read(AnswersByTable, document) if by_table else read(Answers, document)
