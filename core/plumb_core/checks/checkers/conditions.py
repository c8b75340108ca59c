"""Conditions of the building.

Contradicted declarations, what is permitted, irregularities of the brief, conditions of the system.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from plumb_core import DIRECTIONS
from plumb_core.checks.check import Check
from plumb_core.checks.context import Context
from plumb_core.checks.registry import checker
from plumb_core.checks.verdict import DeviationRole, Verdict
from plumb_core.checks.wording import figures
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import Fact, Key


@checker("fact")
def contradictions(context: Context) -> Iterator[Check]:
    """A question at every declaration of the brief that our own computation contradicts."""
    for fact in context.independent.facts.values():
        against = fact.contradicted_by
        if against is None or {fact.source, against.source} != {"found", "declared"}:
            continue
        if fact.key.name == "torsion_irregular":
            # declared by the types of irregularity or by regularity, which are asked about themselves
            continue
        declared, found = (fact.value, against.value) if fact.source == "declared" else (against.value, fact.value)
        quantity = QUANTITIES[fact.key.name]
        where = fact.where or against.where
        yield Check(
            "fact",
            fact.key,
            " ".join(part for part in (quantity.symbol, fact.key.direction) if part),
            verdict=Verdict.QUESTION,
            level=2,
            clause=fact.clause,
            note=f"{quantity.meaning.lower()}{f' in {fact.key.direction}' if fact.key.direction else ''}: "
            f"declared {_said(declared)}, "
            f"found {_said(found)}{f' ({where})' if where else ''}; {_said(fact.value)} is used{_changes(fact)}",
        )


def _said(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, Mapping):
        listed = [f"{'' if there else 'no '}{name.replace('_', ' ')}" for name, there in value.items()]
        return ", ".join(listed) or "nothing"
    return figures(value) if isinstance(value, float) else str(value)


def _changes(fact: Fact) -> str:
    return f": {fact.changes}" if fact.changes else ""


@checker("permission")
def system(context: Context) -> Iterator[Check]:
    """Whether the code permits the lateral system here.

    Its category or zone, its height, the irregularities that are there.
    """
    rule = context.independent.rules.get("system_permission")
    if rule is None:
        return
    for direction in DIRECTIONS:
        words = str(context.independent.get("system_permission", direction) or "")
        refused = "not permitted" in words or words.startswith("too tall") or "is declared exempt" in words
        if not words or not (refused or words.startswith("open")):
            continue
        yield Check(
            "permission",
            Key("system_permission", direction),
            f"system {direction}",
            verdict=Verdict.BREACHES if refused else Verdict.QUESTION,
            role=DeviationRole.ORIGIN if refused else None,
            level=3,
            clause=rule.clause,
            note=(
                f"the lateral system in {direction} is "
                f"{words.removeprefix('open: ')}{'' if '(' in words else f' ({rule.clause})'}"
            ),
            slip="S23",
        )


@checker("irregularity")
def vertical(context: Context) -> Iterator[Check]:
    """Irregularities in height that the brief's own tables show: soft, weak and heavy stories, set-backs."""
    declared = context.independent.inputs.get(Key("irregularities")) or {}
    for direction in DIRECTIONS:
        for found in context.independent.get("vertical_irregularities", direction) or []:
            words = str(found["kind"])
            statement = any(
                there and name.split("_")[-2 if "story" in name else 0] in words for name, there in declared.items()
            )
            tabled = "soft" in words or "weak" in words
            story = context.claims.stories[found["story"]]
            yield Check(
                "irregularity",
                Key("vertical_irregularities", direction),
                f"{words} {direction} {story}",
                place=f"{story}.{words.split()[0]}",
                verdict=Verdict.QUESTION if tabled and not statement else Verdict.NOTE,
                level=3,
                clause=str(found["clause"]),
                note=f"by the tables of the brief {story} has {figures(found['ratio'], 3)} of the story beside "
                f"it in {direction}, the limit "
                f"is {figures(found['limit'], 3)}: {words}{'' if statement else ', which is not declared'}",
            )


@checker("irregularity")
def consequences(context: Context) -> Iterator[Check]:
    """What follows from irregularities and cannot be decided from the brief.

    An extreme weak story in a taller building.
    """
    for direction in DIRECTIONS:
        for words in context.independent.get("vertical_consequences", direction) or []:
            if words.startswith("not more than two stories"):
                yield Check(
                    "irregularity",
                    Key("vertical_consequences", direction),
                    f"weak story {direction}",
                    verdict=Verdict.QUESTION,
                    level=3,
                    clause=context.independent.rules["vertical_consequences"].clause,
                    note=f"extreme weak story in {direction}: {words}",
                )


@checker("system")
def system_conditions(context: Context) -> Iterator[Check]:
    """Conditions of the lateral system and of an open story of infills, one by one."""
    for direction in DIRECTIONS:
        rows = [*(context.independent.get("system_checks", direction) or [])]
        effects = context.independent.get("infill_effects", direction) or {}
        rows += effects.get("conditions", [])
        for number, row in enumerate(rows):
            met = row["met"]
            value = "not stated" if row["value"] is None else figures(row["value"], 3)
            yield Check(
                "system",
                Key("system_checks", direction),
                f"{row['words']} {direction}",
                place=str(number + 1),
                verdict=Verdict.NOTE if met is None else Verdict.AGREES if met else Verdict.BREACHES,
                role=DeviationRole.ORIGIN if met is False else None,
                level=3,
                clause=row["clause"],
                note=f"{row['words']} in {direction}: {value}, the limit is {figures(row['limit'], 3)}",
            )
        for number, words in enumerate(effects.get("words", [])):
            yield Check(
                "system",
                Key("infill_effects", direction),
                f"infills {direction}",
                place=str(number + 1),
                verdict=Verdict.NOTE,
                level=3,
                clause=context.independent.rules["infill_effects"].clause,
                note=words,
            )


@checker("mode_test")
def first_modes(context: Context) -> Iterator[Check]:
    """What the code requires of the first modes, from the submitted table."""
    for number, row in enumerate(context.independent.get("modal_tests") or []):
        if row["met"] is None:
            continue
        value = "" if row["value"] is None else f": {figures(row['value'], 3)}, the limit is {figures(row['limit'], 3)}"
        yield Check(
            "mode_test",
            Key("modal_tests"),
            str(row["words"]),
            place=str(number + 1),
            verdict=Verdict.AGREES if row["met"] else Verdict.QUESTION,
            level=2,
            clause=str(row["clause"]),
            note=f"{row['words']}{value}{'' if row['met'] else ': not met'}",
            slip="" if row["met"] else "S47",
        )
