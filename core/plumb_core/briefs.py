"""A brief under its governing edition and under others: which values hold, and the evaluation over them."""

from __future__ import annotations

from typing import Any

from plumb_core import DIRECTIONS
from plumb_core.documents.brief import Brief, ComparisonEdition, Occupancy, Site, System
from plumb_core.editions import EDITIONS
from plumb_core.errors import InputRefused, Problem
from plumb_core.inputs import edition_rules, inputs_of
from plumb_core.quantities import GEOMETRY
from plumb_core.rules import Evaluation, Key


def _carried_over(brief: Brief, edition: str, of: str) -> dict[str, Any]:
    """Names that mean the same under the governing edition and another, so that their values carry over."""
    ours, theirs = EDITIONS[of].definitions, EDITIONS[edition].definitions
    return {name: True for name, meaning in theirs.items() if ours.get(name) == meaning}


def brief_parts(brief: Brief, edition: str) -> tuple[Site, Occupancy, System]:
    """Site, occupancy and system of the brief under an edition.

    For a comparison edition: its own part of the brief, geometry and measurements from the governing part, and values
    that both editions define the same way.  Nothing else is carried over.
    """
    if edition == brief.edition:
        return brief.site, brief.occupancy, brief.system
    entry = brief.comparisons.get(edition) or ComparisonEdition()
    same = {*GEOMETRY, *_carried_over(brief, edition, brief.edition)}

    def merged(mine: Any, governing: Any) -> Any:
        given = {n: v for n, v in mine if n in mine.model_fields_set and v is not None}
        shared = {n: v for n, v in governing if n in same and v is not None}
        # What is the same under every edition is in the governing part, whatever an earlier one left here
        geometry = {n: v for n, v in shared.items() if n in GEOMETRY}
        return type(mine).model_construct(**{**dict(type(mine)()), **shared, **given, **geometry})

    system = merged(entry.system, brief.system)
    for direction in DIRECTIONS:
        setattr(system, direction, merged(getattr(entry.system, direction), getattr(brief.system, direction)))
    return merged(entry.site, brief.site), merged(entry.occupancy, brief.occupancy), system


def with_governing(brief: Brief, edition: str) -> Brief:
    """The brief with another edition governing; raises InputRefused for one that this engine does not hold.

    What the two define the same way is adopted, what was given under the edition before is kept as a comparison.
    """
    if edition not in EDITIONS:
        raise InputRefused(
            [Problem("/edition", f"edition {edition!r} is not in this engine", f"Use one of: {', '.join(EDITIONS)}.")]
        )
    if edition == brief.edition:
        return brief
    site, occupancy, system = brief_parts(brief, edition)
    mine = brief.comparisons.get(edition)
    before = ComparisonEdition(
        site=brief.site, occupancy=brief.occupancy, system=brief.system, structure_type=brief.structure_type
    )
    return brief.model_copy(
        update={
            "edition": edition,
            "site": site,
            "occupancy": occupancy,
            "system": system,
            "structure_type": mine.structure_type if mine else None,
            "comparison_editions": [
                brief.edition,
                *(e for e in brief.comparison_editions if e not in (edition, brief.edition)),
            ],
            "comparisons": {**{k: v for k, v in brief.comparisons.items() if k != edition}, brief.edition: before},
        }
    )


def brief_evaluation(brief: Brief, edition: str = "") -> Evaluation:
    """Evaluation of a brief over its own inputs.

    edition : a comparison edition, by default the governing one
    """
    site, occupancy, system = brief_parts(brief, edition or brief.edition)
    entry = inputs_of(site, occupancy, system, brief.stories, brief.period)
    part = brief if edition in ("", brief.edition) else brief.comparisons.get(edition)
    if part is not None and part.structure_type is not None:
        entry[Key("structure_type")] = part.structure_type
    return Evaluation(edition_rules(edition or brief.edition, site, system), entry)
