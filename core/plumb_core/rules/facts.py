"""Facts: conditions that checks depend on, each resolved once from everything that is known of it.

A fact is found by our own computation, declared in the brief, stated by the submission, or assumed, in this order of
precedence.  Where a found and a declared value contradict each other, the safer of the two is used.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from plumb_core.rules.values import Key

Source = Literal["found", "declared", "submitted", "assumed"]
SOURCES: tuple[Source, ...] = ("found", "declared", "submitted", "assumed")
"""Order of precedence."""


@dataclass(frozen=True, slots=True)
class Stated:
    """A value of a fact and its source.

    Attributes
    ----------
    value : as rules use it
    source : where it comes from
    where : place and value behind it, in words
    """

    value: Any
    source: Source
    where: str = ""


@dataclass(frozen=True, slots=True)
class Fact:
    """A condition that checks depend on.

    Attributes
    ----------
    key : of the quantity
    value, source, where : the value that is used
    contradicted_by : a found, declared or submitted value that differs from it; None where none does
    clause : that defines it
    changes : what depends on the contradiction, in words
    """

    key: Key
    value: Any
    source: Source
    where: str = ""
    contradicted_by: Stated | None = None
    clause: str = ""
    changes: str = ""


def _true_is_safer(one: Any, other: Any) -> Any:
    return bool(one) or bool(other)


def _false_is_safer(one: Any, other: Any) -> Any:
    return bool(one) and bool(other)


def _greater_is_safer(one: Any, other: Any) -> Any:
    return max(one, other)


def _all_present(one: Mapping[str, bool], other: Mapping[str, bool]) -> dict[str, bool]:
    """Every type of irregularity that either of the two has."""
    return {name: bool(one.get(name)) or bool(other.get(name)) for name in (*other, *one)}


SAFER: Mapping[str, Callable[[Any, Any], Any]] = {
    "torsion_irregular": _true_is_safer,
    "irregularities": _all_present,
    "regular": _false_is_safer,
    "regular_in_plan": _false_is_safer,
    "regular_in_elevation": _false_is_safer,
    "p_delta_included": _false_is_safer,
    "site_spectrum": _false_is_safer,
    "shared_columns": _true_is_safer,
    "infills": _true_is_safer,
    "rho": _greater_is_safer,
}
"""Which of a found and a declared value is used where they contradict each other, by quantity.

Otherwise the found one.
"""


def resolved(
    key: Key,
    *,
    found: Any = None,
    declared: Any = None,
    submitted: Any = None,
    assumed: Any = None,
    where: Mapping[str, str] | None = None,
    clause: str = "",
    changes: str = "",
) -> Fact | None:
    """The fact of a key from the values that are known of it; None where none is.

    Parameters
    ----------
    found, declared, submitted, assumed : values by source
    where : place and value behind each source, in words
    clause, changes : of the fact
    """
    values: dict[Source, Any] = {"found": found, "declared": declared, "submitted": submitted, "assumed": assumed}
    known = [Stated(values[s], s, (where or {}).get(s, "")) for s in SOURCES if values[s] is not None]
    if not known:
        return None
    used, *others = known
    against = next((o for o in others if o.source != "assumed" and o.value != used.value), None)
    if against is not None and (used.source, against.source) == ("found", "declared"):
        safer = SAFER.get(key.name, lambda one, other: one)(used.value, against.value)
        if safer == against.value:
            used, against = against, used
        else:
            used = Stated(safer, "found", used.where)
    return Fact(key, used.value, used.source, used.where, against, clause, changes)
