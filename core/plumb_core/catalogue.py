"""What this engine holds, as JSON: its editions with what each takes, its systems, its kinds of requests."""

from __future__ import annotations

from typing import Any, Literal

from plumb_core.derivation import plain
from plumb_core.documents import listings
from plumb_core.documents.brief import Site, System
from plumb_core.documents.requests import KINDS
from plumb_core.editions import EDITIONS
from plumb_core.editions.edition import Edition
from plumb_core.inputs import OF_BUILDING
from plumb_core.quantities import GEOMETRY, QUANTITIES, Kind, Quantity, Scope

_PARTS: dict[str, Literal["site", "occupancy", "system"]] = {"occupancy": "occupancy", "system": "system"}
Form = Literal["number", "text", "flag", "yes_no", "data"]
_FORMS: dict[Kind, Form] = {Kind.NUMBER: "number", Kind.TEXT: "text", Kind.DATA: "data"}


def _form(quantity: Quantity) -> Form:
    """How an input is entered; "yes_no" is a declaration that may be left open."""
    if quantity.kind is Kind.FLAG:
        stated = {**Site.model_fields, **System.model_fields}.get(quantity.name)
        return "yes_no" if stated is not None and stated.default is None else "flag"
    return _FORMS[quantity.kind]


def _input(name: str, edition: Edition, ruled: frozenset[str]) -> listings.EditionInput:
    quantity = QUANTITIES[name]
    options: tuple[Any, ...] = edition.options.get(name, ())
    if name == "period_type":
        options = edition.period_types
    if name == "T_a_formula":
        options = edition.formulas
    return {
        "name": name,
        # the structure type is at the top of a brief, though its quantity belongs to drift; the rest is of the site
        "part": "brief" if name == "structure_type" else _PARTS.get(quantity.part, "site"),
        "per_direction": quantity.scope is Scope.DIRECTION and name not in OF_BUILDING,
        "symbol": quantity.symbol,
        "symbol_tex": quantity.tex,
        "meaning": quantity.meaning,
        "unit": quantity.unit,
        "form": "choice" if options else _form(quantity),
        "options": list(options),
        "option_words": [edition.words.get(name, {}).get(o, str(o)) for o in options],
        # where it is not given, a rule of the edition gives it
        "computed": name in ruled,
        # the same whichever edition: entered once, with the building
        "shared": name in GEOMETRY,
    }


def editions() -> list[listings.ListedEdition]:
    """The editions of this engine.

    Id, title, year, request kinds, inputs, structure types, systems, choices and permissions.
    """
    listed: list[listings.ListedEdition] = []
    for e in EDITIONS.values():
        ruled = frozenset(e.rules({}))
        listed.append(
            {
                "id": e.id,
                "title": e.title,
                "short": e.short,
                "year": e.year,
                "supports": list(KINDS),
                "period_types": list(e.period_types),
                "formulas": list(e.formulas),
                "walls_with": list(e.walls_with),
                "choices": [
                    {"name": name, "words": c.words, "sets": [list(s) for s in c.sets], "standing": list(c.standing)}
                    for name, c in e.choices.items()
                ],
                # they lower a force; off unless declared
                "permissions": [{"name": name, "words": words} for name, words in e.permissions.items()],
                "parts": list(e.parts),
                "soil_input": e.soil[0],
                "corner_periods": list(e.corner_periods),
                "longest_period": e.longest_period,
                "inputs": [_input(name, e, ruled) for name in e.inputs],
                "systems": [
                    {
                        "id": name,
                        "title": s.title,
                        "factors": dict(s.factors),
                        "heights": {group: plain(h) for group, h in s.heights.items()},
                    }
                    for name, s in e.systems.items()
                ],
            }
        )
    return listed
