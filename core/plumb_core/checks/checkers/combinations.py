"""Load combinations, read from their terms, against those that the edition requires."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check
from plumb_core.checks.context import Context
from plumb_core.checks.registry import checker
from plumb_core.checks.verdict import Verdict
from plumb_core.checks.wording import figures
from plumb_core.documents.submission import Claim, LoadCase
from plumb_core.rules import Key

DEAD, SEISMIC = ("D", "G", "DL"), ("Q_E", "E_h", "A_Ed", "EL", "E_u")
LIVE, SNOW = ("L", "IL", "Q"), ("S",)
"""What the editions call permanent load, the horizontal seismic action, imposed load and snow."""
TOGETHER = (0.25, 0.40)
"""Share of one direction that belongs to the whole of the other: 30 %, with what people round it to."""
NEAR = 0.02
_TERM = re.compile(r"\s*([+\-\u2212])?\s*(\d+(?:[.,]\d+)?|\.\d+)?\s*[*x\u00d7\u00b7]?\s*")


@dataclass(frozen=True)
class Terms:
    """A combination, read.

    Attributes
    ----------
    name, claim : its own, and its place
    factors : by name of the case or load
    dead, vertical : greatest factor of permanent loads; whether a vertical action is in it
    live : greatest factor of imposed loads; 0 where there is none
    beside : kinds of load beside them: live, snow
    along : factor of the seismic action along X and Y, with its sign
    """

    name: str
    claim: Claim
    factors: Mapping[str, float]
    dead: float
    vertical: bool
    live: float
    beside: frozenset[str]
    along: Mapping[str, float]


def terms_of(text: str, cases: Mapping[str, LoadCase]) -> dict[str, float] | None:
    """Factors by name of "1.2 D + 1.0 L - EX"; None where it cannot be read.

    Names of cases may hold spaces and signs: of the known ones the longest that fits is taken.
    """
    factors: dict[str, float] = {}
    known = sorted(cases, key=len, reverse=True)
    at = 0
    while at < len(text):
        head = _TERM.match(text, at)
        assert head is not None  # every part of it is optional
        rest = text[head.end() :]
        if not rest.strip():
            return None if head.group(1) or head.group(2) else factors or None
        name = next((c for c in known if rest.lower().startswith(c.lower()) and _ends(rest[len(c) :])), None)
        if name is None:
            word = re.match(r"[A-Za-z_][\w.']*(?:\s+(?!x\b)[A-Za-z]\w*)*", rest)
            if word is None:
                return None
            name = word.group(0).strip()
        if at and not head.group(1):
            return None
        value = float((head.group(2) or "1").replace(",", "."))
        factors[name] = factors.get(name, 0.0) + (-value if head.group(1) in ("-", "\u2212") else value)
        at = head.end() + len(name)
        while at < len(text) and text[at] == " ":
            at += 1
    return factors or None


def _ends(rest: str) -> bool:
    return not rest or not (rest[0].isalnum() or rest[0] in "_'")


def action_of(name: str, cases: Mapping[str, LoadCase]) -> str:
    """What a term is: X, Y or Z for the seismic action along an axis, `dead`, `live`, or ''."""
    role = cases.get(name)
    if role is not None and role.kind in ("static", "modal", "time_history") and role.direction in ("X", "Y", "Z"):
        return str(role.direction)
    plain = name.lower().replace("_", "").replace(" ", "")
    if re.fullmatch(r"(e|q|eq|rs|spec|seismic|eh|qe|ae|static|modal)[xyz][+\-]?\w?", plain):
        return next(c.upper() for c in plain if c in "xyz")
    if re.fullmatch(r"ev|ez|qv", plain):
        return "Z"
    if re.fullmatch(r"(d|dl|g|gk|dead|sw|sdl|sd|superdead|selfweight)\w?", plain):
        return "dead"
    if re.fullmatch(r"(l|ll|il|q|qk|live|imposed|l0)\w?", plain):
        return "live"
    return "snow" if re.fullmatch(r"(s|sn|snow|sk)\d?", plain) else ""


def _read(context: Context) -> tuple[list[Terms], list[Claim]]:
    """The combinations with the seismic action, and those that cannot be read."""
    seismic, unread = [], []
    cases = context.claims.cases
    for key, of_key in context.results.values.items():
        if key.name != "combination_terms" or key.case is None:
            continue
        claim = of_key.single[0]
        others = {n: c for n, c in cases.items() if n != key.case}
        factors = terms_of(str(claim.value), others)
        if factors is None:
            unread.append(claim)
            continue
        acts = {name: action_of(name, others) for name in factors}
        along = dict.fromkeys(DIRECTIONS, 0.0)
        for name, factor in factors.items():
            if acts[name] in along and abs(factor) > abs(along[acts[name]]):
                along[acts[name]] = factor
        if any(along.values()):
            dead = max((f for n, f in factors.items() if acts[n] == "dead"), default=0.0)
            adjacent = frozenset(acts[n] for n, factor in factors.items() if factor > 0) & {"live", "snow"}
            live = max((f for n, f in factors.items() if acts[n] == "live"), default=0.0)
            seismic.append(Terms(key.case, claim, factors, dead, "Z" in acts.values(), live, adjacent, along))
    return seismic, unread


@checker("combination")
def combinations(context: Context) -> Iterator[Check]:
    """What the edition requires of the combinations: there, or missing (S86)."""
    stated = sum(k.name == "combination_terms" for k in context.results.values)
    if not stated:
        return
    seismic, unread = _read(context)
    for claim in unread:
        yield _question(
            context,
            claim.case,
            f"the terms of combination {claim.case} cannot be read: {claim.value}",
            claim,
            place="terms",
        )
    made = (
        []
        if context.claims.awaits("combination_terms")
        else [
            *_directions(context, seismic),
            *_required(context, seismic),
            *_overstrength(context, seismic),
            *_companion_loads(context, seismic),
            *_signs(context, seismic),
        ]
    )
    if made:
        yield from made
    if seismic:
        key, first = Key("load_combinations"), seismic[0]
        yield Check(
            "combination",
            key,
            "load combinations",
            first.claim,
            place="all",
            verdict=Verdict.NOTE if any(c.verdict is Verdict.QUESTION for c in made) else Verdict.AGREES,
            level=2,
            note=f"{stated} combinations are listed, {len(seismic)} of them with the seismic action",
            covers=tuple(k for k in context.results.values if k.name == "combination_terms"),
        )


def _question(
    context: Context, label: str, note: str, claim: Claim | None = None, place: str = "", slip: str = ""
) -> Check:
    rule = context.independent.rules.get("load_combinations")
    return Check(
        "combination",
        Key("load_combinations"),
        f"combination {label}",
        claim,
        place=place,
        verdict=Verdict.QUESTION,
        level=2,
        clause=rule.clause if rule else "",
        note=note,
        slip=slip,
    )


def _directions(context: Context, seismic: list[Terms]) -> Iterator[Check]:
    """100 % of each direction with 30 % of the other, where the edition requires both (S86)."""
    if "directions_together" not in context.independent.rules:
        return
    why = str(context.independent.get("directions_together") or "")
    by = context.claims.by_key.get(Key("directions_by"))
    if not why or (by is not None and by.single and str(by.single[0].value) == "SRSS"):
        return
    missing = [d for d in DIRECTIONS if not any(_with_other(t, d) for t in seismic)]
    if missing and why.startswith("open: "):
        yield _question(
            context,
            "100 % + 30 %",
            f"are there {why.removeprefix('open: ')}? They require 1.0 of one direction with 0.3 of the other, "
            f"which no "
            f"combination has for {' and '.join(missing)}; declare it in the brief",
            place="directions",
            slip="S86",
        )
    elif missing:
        expected = ", ".join(f"1.0 {d} with 0.3 {_other(d)}" for d in missing)
        yield _question(
            context, "100 % + 30 %", f"no combination has {expected}: {why}", place="directions", slip="S86"
        )


def _other(direction: str) -> str:
    return "Y" if direction == "X" else "X"


def _with_other(terms: Terms, direction: str) -> bool:
    """Whether a combination has the whole of a direction with at least 30 % of the other.

    1.0 X + 0.3 Y is none for Y.
    """
    main, other = abs(terms.along[direction]), abs(terms.along[_other(direction)])
    return main > 0 and TOGETHER[0] * main <= other <= main * (1.0 + NEAR)


def _required(context: Context, seismic: list[Terms]) -> Iterator[Check]:
    """Permanent load and seismic action of every required combination, in each direction."""
    if "load_combinations" not in context.independent.rules:
        return
    families: dict[str, list[tuple[str, float, float, str]]] = {}
    for direction in DIRECTIONS:
        for each in _listed(context, direction):
            if not _is_overstrength(context, each):
                dead, action = _factor(each, DEAD), _factor(each, SEISMIC)
                # sets that are next to each other (for concrete, for steel) are stated by their clause
                families.setdefault(each["name"].split(" ")[0], []).append((each["name"], dead, action, direction))
    wholes = [[a for a in requested if not any(_has(t, *a[1:]) for t in seismic)] for requested in families.values()]
    alternatives = len(families) > 1 and len({len(f) for f in families.values()}) > 0 and _has_companion(families)
    missing = min(wholes, key=len) if alternatives else [m for complete in wholes for m in complete]
    for name, dead, action, direction in dict.fromkeys(missing):
        words = f"{figures(dead)} of the permanent load with {figures(action)} of the seismic action along {direction}"
        yield _question(
            context,
            f"{name} {direction}",
            f"no combination has {words} ({name})",
            place=f"{name} {direction}",
            slip="S86",
        )


def _is_overstrength(context: Context, combination: Mapping[str, Any]) -> bool:
    """Whether a combination has the overstrength factor: required only of elements that the code names."""
    return any(word in combination["name"] for word in context.edition.overstrength)


def _listed(context: Context, direction: str) -> list[Any]:
    """The edition's combinations in a direction; empty where its inputs do not reach that far."""
    return list(context.independent.get("load_combinations", direction) or [])


def _follows(context: Context) -> list[str]:
    """What follows from the irregularities that the brief declares, in plan and in height."""
    words: list[str] = []
    for name, direction in (("regularity_consequences", None), *(("vertical_consequences", d) for d in DIRECTIONS)):
        words += context.independent.get(name, direction) or []
    return words


def _overstrength(context: Context, seismic: list[Terms]) -> Iterator[Check]:
    """Where an irregularity requires the overstrength, a combination with it in each direction (S86)."""
    why = next((words for words in _follows(context) if "Omega_0" in words and "elements" in words), "")
    if not why:
        return
    for direction in DIRECTIONS:
        requested = [_factor(each, SEISMIC) for each in _listed(context, direction) if _is_overstrength(context, each)]
        if requested and not any(abs(t.along[direction]) >= min(requested) * (1 - NEAR) for t in seismic):
            words = f"no combination has {figures(min(requested))} of the seismic action along {direction}: {why}"
            yield _question(context, f"overstrength {direction}", words, place=f"overstrength {direction}", slip="S86")


def _companion_loads(context: Context, seismic: list[Terms]) -> Iterator[Check]:
    """Imposed load and snow, where the edition's combinations take them and the building has any (S86)."""
    kinds = {load.kind for story in context.brief.stories for load in story.loads or ()}
    claimed = {str(c.value) for k, v in context.results.values.items() if k.name == "load_kind" for c in v.single}
    for word, kind, names, known, verdict in (
        ("imposed load", "live", LIVE, {"live", "storage"}, Verdict.QUESTION),
        # 0.15 to 0.2 of the snow rarely decides
        ("snow", "snow", SNOW, {"snow"}, Verdict.NOTE),
    ):
        present = (kinds | claimed) & known
        requested = any(_factor(each, names) > 0 for d in DIRECTIONS for each in _listed(context, d))
        if present and requested and seismic and not any(kind in t.beside for t in seismic):
            words = f"no combination has the {word} together with the seismic action"
            yield replace(_question(context, word, words, place=word, slip="S86"), verdict=verdict)
    yield from _live_factors(context, seismic)


def _live_factors(context: Context, seismic: list[Terms]) -> Iterator[Check]:
    """Factors of the imposed load below those of the edition, where a combination has one (S86).

    The least that the edition has for any kind of imposed load that the building has: psi_2 by category of use, 0.5
    of live
    load where ASCE 7 permits it.
    """
    for terms in seismic:
        if not terms.live:
            continue
        required = [
            factor
            for d in DIRECTIONS
            for each in _listed(context, d)
            if not _is_overstrength(context, each) and abs(_factor(each, DEAD) - terms.dead) <= _tolerance(each)
            for factor in _live_of(context, each)
        ]
        if required and terms.live < min(required) * (1.0 - NEAR) - 0.005:
            words = (
                f"combination {terms.name} has {figures(terms.live)} of the imposed load; at least "
                f"{figures(min(required))} is "
                "required"
            )
            yield _question(context, f"{terms.name} imposed load", words, terms.claim, place="live factor", slip="S86")
            return


def _tolerance(combination: Mapping[str, Any]) -> float:
    return NEAR * max(_factor(combination, DEAD), 1.0) + 0.005


def _live_of(context: Context, combination: Mapping[str, Any]) -> list[float]:
    """Factors of imposed load that a combination of the edition may have in this building."""
    categories = {load.category for story in context.brief.stories for load in story.loads or () if load.category}
    categories |= {str(c.value) for k, v in context.results.values.items() if k.name == "load_category" for c in v.all}
    factors = {}
    for name, factor in combination["factors"].items():
        kind, _, category = name.partition(" ")
        if kind in LIVE and (not category or not categories or category in categories) and factor > 0:
            factors[name] = float(factor)
    least = context.edition.least_live_factor
    return list(factors.values()) if least is None else [min(f, least) for f in factors.values()]


def _has_companion(families: Mapping[str, list[Any]]) -> bool:
    """Whether the sets are next to each other: the clauses end alike (one for concrete, one for steel)."""
    return (
        len({clause.rsplit(".", 1)[0] for clause in families}) == 1
        and len(families) == 2
        and all("." in clause and clause.count(".") >= 3 for clause in families)
    )


def _factor(combination: Mapping[str, Any], names: tuple[str, ...]) -> float:
    factors = combination["factors"]
    return max((float(f) for n, f in factors.items() if n.partition(" ")[0] in names), default=0.0)


def _has(terms: Terms, dead: float, action: float, direction: str) -> bool:
    """Whether a combination has this factor on the permanent load and at least this factor on the action."""
    enough = abs(terms.along[direction]) >= action * (1 - NEAR)
    # a vertical case of its own replaces what the permanent load is raised or lowered by
    base = abs(terms.dead - dead) <= NEAR * max(dead, 1.0) + 0.005
    return enough and (base or (terms.vertical and any(abs(terms.dead - b) <= 0.015 for b in (1.2, 0.9, 1.0))))


def _signs(context: Context, seismic: list[Terms]) -> Iterator[Check]:
    """Static forces act both ways; results of combined modes have no sign."""
    cases = context.claims.cases
    for direction in DIRECTIONS:
        signs = {
            factor > 0
            for t in seismic
            for name, factor in t.factors.items()
            if (role := cases.get(name)) is not None
            and role.kind == "static"
            and role.direction == direction
            and factor
            and (role.factor is None or role.factor > 0)
        }
        if len(signs) == 1:
            way = "against" if True in signs else "along"
            yield _question(
                context,
                f"±{direction}",
                f"no combination has the static forces {way} the direction {direction}",
                place=f"sign {direction}",
                slip="S86",
            )
