"""The weight make-up: the loads of each story, and the share of each that counts as seismic weight."""

from __future__ import annotations

from collections.abc import Hashable

from plumb_core.documents.submission import Claim
from plumb_core.intake.columns import Column, is_safe_name, normal
from plumb_core.intake.tables.kind import ClaimReader, Rows, TableKind
from plumb_core.intake.tables.stories import STORY

KINDS = {
    "dead": "dead selfweight ownweight superimposeddead superdead permanent g sdl finishes finish screed ceiling "
    "ceilings services cladding facade structure slab",
    "live": "live imposed variable q",
    "storage": "storage warehouse",
    "roof_live": "rooflive roof imposedonroof",
    "partition": "partition partitions",
    "equipment": "equipment permanentequipment machinery plant",
    "snow": "snow",
    "landscaping": "landscaping soil planting",
}
"""Kind of load -> what tables call it, as `normal` leaves it."""
_BY_WORD = {word: kind for kind, words in KINDS.items() for word in (normal(kind), *words.split())}


def rows(reader: ClaimReader, numbers: list[int]) -> Rows:
    """Claims of each load of each story; the story is often written only in the first row of its block."""
    claims: list[Claim] = []
    story = ""
    kinds: dict[str, str] = {}
    reported: set[tuple[str, str]] = set()
    seen: dict[Hashable, int] = {}
    for row in numbers:
        written = reader.text(row, "story")
        if written:
            story = reader.matched_story(row, written) or ""
            if not story:
                continue
        load = reader.text(row, "load") or reader.text(row, "kind")
        if not story or not is_safe_name(load):
            words = "the story is missing" if not story else "the load is missing"
            reader.problem(
                row, reader.columns["story" if not story else "load"], words, "Name both the story and the load."
            )
            continue
        if reader.repeats(seen, (story, load), row, "load", f"load {load!r} of story {story!r}"):
            continue
        kind = _kind(reader, row, load)
        if kind and kinds.setdefault(load, kind) != kind:
            words = f"{load!r} is {kinds[load]} in another row"
            reader.problem(row, reader.columns.get("kind", 0), words, "Give loads of two kinds two names.")
        claims += _of_row(reader, row, story, load)
        claims += [
            c
            for c in _texts(reader, row, load, kind)
            if (c.quantity, load) not in reported and not reported.add((c.quantity, load))  # type: ignore[func-returns-value]
        ]
    return Rows(claims)


def _kind(reader: ClaimReader, row: int, load: str) -> str:
    """The kind of a load, by its column or by its name; '' with the problem noted."""
    written = reader.text(row, "kind")
    kind = _BY_WORD.get(normal(written)) or _BY_WORD.get(normal(written).removesuffix("load"))
    if kind is None and not written:
        kind = _BY_WORD.get(normal(load)) or _BY_WORD.get(normal(load).removesuffix("load"))
    if kind is None:
        index = reader.columns.get("kind", reader.columns["load"])
        words = f"{(written or load)[:40]!r} is not a kind of load"
        reader.problem(row, index, words, f"Use one of: {', '.join(k.replace('_', ' ') for k in KINDS)}.")
    return kind or ""


def _of_row(reader: ClaimReader, row: int, story: str, load: str) -> list[Claim]:
    claims = []
    for column in reader.stated:
        unit = reader.units.get(column.name)
        if unit is None or column.unit is None or not reader.text(row, column.name):
            continue
        number = reader.number(row, column.name)
        if number is None:
            continue
        claim = reader.claim(row, column.name, column.quantity, number, unit, story=story, case=load)
        claims.append(claim)
    amounts = {c.quantity for c in claims}
    if "load_amount" not in amounts and not {"load_intensity", "load_area"} <= amounts:
        index = reader.columns.get("load_amount", reader.columns["load"])
        reader.problem(
            row, index, f"the amount of {load!r} is missing", "Give an amount, or an intensity and an area; 0 for none."
        )
    return claims


def _texts(reader: ClaimReader, row: int, load: str, kind: str) -> list[Claim]:
    column = "kind" if "kind" in reader.columns else "load"
    reported = [("load_kind", kind, column)] if kind else []
    reported += [
        (q, text, c)
        for q, c in (("load_category", "category"), ("load_occupancy", "occupancy"))
        if (text := reader.text(row, c))
    ]
    return [
        Claim(quantity=q, case=load, value=text, text=text, source=reader.source(row, c)) for q, text, c in reported
    ]


KIND = TableKind(
    "make_up",
    "weight make-up",
    (
        Column("story", "story", STORY, required=True),
        Column("load", "load", r"load|loadname|item|component|description", required=True),
        Column("kind", "kind of load", r"kind|type|loadkind|loadtype|nature"),
        Column("load_amount", "amount", r"amount|load?amount|weight|total|force", "kN", False, "load_amount"),
        Column(
            "load_intensity",
            "intensity",
            r"intensity|pressure|unitload|arealoading|areal",
            "kPa",
            False,
            "load_intensity",
        ),
        Column("load_area", "area", r"area|floorarea|loadedarea", "m^2", False, "load_area"),
        Column(
            "load_share",
            "share that counts",
            r"share|counted|fraction|participation|factor",
            "",
            False,
            "load_share",
            plain=True,
        ),
        Column("category", "category of use", r"category|categoryofuse"),
        Column("occupancy", "occupancy of the stories", r"occupancy|occupied"),
    ),
    rows,
    rank=28,
    values="amounts or intensities",
)
