"""IS 1893 (Part 1):2016."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from plumb_core.editions import is1893_2002
from plumb_core.editions.edition import Choice
from plumb_core.editions.is1893_2016 import ground, lateral, response, tables, weight
from plumb_core.rules import Rule, rule_set

_RULES = rule_set(*ground.RULES, *lateral.RULES, *weight.RULES, *response.RULES)


def rules(choices: Mapping[str, Any]) -> dict[str, Rule]:
    """The rule set; `amendments` [], [1] or [1, 2] (2 builds on 1).

    An own spectrum where `site_specific` is given.
    """
    chosen = _RULES | rule_set(*ground.OF_STUDY) if choices.get("site_specific") is not None else _RULES
    return chosen | rule_set(response.vertical_irregularities_amended) if choices.get("amendments") else chosen


EDITION = replace(
    is1893_2002.EDITION,
    id="is1893-2016",
    title="IS 1893 (Part 1):2016",
    short="IS 1893:2016",
    year=2016,
    rank=80,
    rules=rules,
    inputs=(*is1893_2002.EDITION.inputs, "walls"),
    choices={"amendments": Choice("Amendments that hold", ((), (1,), (1, 2)))},
    parts=("offset",),
    options={**is1893_2002.EDITION.options, "use": tuple(tables.TABLE_8)},
    period_types=tuple(tables.PERIOD),
    words={
        **is1893_2002.EDITION.words,
        "use": {**is1893_2002.EDITION.words["use"], "over_200_persons": "more than 200 persons"},
    },
    walls_with=("rc_walls",),
    systems=tables.SYSTEMS,
    definitions={
        **is1893_2002.EDITION.definitions,
        "use": "Table 8",
        "lateral_system": "Table 9",
        "R": "Table 9",
        "period_type": "rows of 7.6.2",
    },
    longest_period=None,
)
