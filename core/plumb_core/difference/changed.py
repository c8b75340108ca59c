"""Submitted values that are others although no finding requires it, and those that came or went."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence, Set

from plumb_core.checks.claims import theirs
from plumb_core.difference.states import Pair, Place, Submitted, place_of_check, place_of_claim
from plumb_core.difference.written import another, relative, text, written
from plumb_core.documents.differences import CameAndWent, ComparedValue
from plumb_core.documents.results import CheckResult, StepResult
from plumb_core.quantities import QUANTITIES, STAGES

RESULTS = ("spectrum", "modes", "lateral", "scaling", "twist", "drift")
"""Stages whose values follow from those of earlier ones."""
NOT_REQUIRED = "no finding requires it"
MAY_FOLLOW = "no finding names it; it may follow from a value that was required to change"


def changed(pair: Pair, spoken_of: Set[str], required: Set[str]) -> list[ComparedValue]:
    """Submitted values that are others, of which no deviation and no finding speaks, checked or not.

    What follows from a value that was required to change was required with it.
    """
    sides = (pair.before, pair.after)
    claims = [{place_of_claim(c): c for c in side.claims} for side in sides]
    of_places = [_by_place(side.checks) for side in sides]
    origins = [pair.was[name] for name in required if name in pair.was]
    follows = _following(pair.after.steps, {check["step"] for check in origins})
    first = min((_turn(check["stage"]) for check in origins), default=len(STAGES))
    found = []
    for place, other in claims[1].items():
        was = claims[0].get(place)
        if was is None or not another(written(was), written(other)):
            continue
        of_place = [of_side.get(place) for of_side in of_places]
        if any(c is not None and (c["id"] in spoken_of or c["step"] in follows) for c in of_place):
            continue
        check = next((c for c in of_place if c is not None), None)
        found.append(
            ComparedValue(
                check="" if check is None else check["id"],
                label=_label(place) if check is None else check["label"],
                finding=None,
                before=text(was.text or was.value, was.unit, was.quantity),
                after=text(other.text or other.value, other.unit, other.quantity),
                was="" if of_place[0] is None else of_place[0]["verdict"],
                now="" if of_place[1] is None else of_place[1]["verdict"],
                moved=relative(theirs(was), theirs(other)),
                why=MAY_FOLLOW if (stage := _stage(place, check)) in RESULTS and _turn(stage) > first else NOT_REQUIRED,
            )
        )
    # what cannot follow from anything that was required comes first
    return sorted(found, key=lambda each: each["why"] != NOT_REQUIRED)


def came_and_went(pair: Pair) -> CameAndWent:
    """Values that only one of the two states, by quantity and direction, with how many they are."""
    before, after = pair.stated
    return {"came": _counted(after, before, pair.before), "went": _counted(before, after, pair.after)}


def _counted(there: Mapping[str, set[Place]], elsewhere: Mapping[str, set[Place]], other: Submitted) -> list[str]:
    """Values of one side that the other one does not state; what is not read yet may state them."""
    counts = Counter(
        _label((name, place[1], None, None, ""))
        for name, places in there.items()
        if not other.awaits(name)
        for place in places - elsewhere.get(name, set())
    )
    return [f"{label}: {n} value{'s' if n > 1 else ''}" for label, n in sorted(counts.items())]


def _stage(place: Place, check: CheckResult | None) -> str:
    return check["stage"] if check is not None else QUANTITIES[place[0]].stage if place[0] in QUANTITIES else ""


def _turn(stage: str) -> int:
    """The place of a stage among the stages."""
    return STAGES.index(stage) if stage in STAGES else len(STAGES)


def _by_place(checks: Iterable[CheckResult]) -> dict[Place, CheckResult]:
    """The check of each submitted value; where there are several, the one of the value itself."""
    found: dict[Place, CheckResult] = {}
    for check in checks:
        if check["theirs"] is not None and (check["kind"] == "value" or place_of_check(check) not in found):
            found[place_of_check(check)] = check
    return found


def _following(steps: Sequence[StepResult], required: Set[str]) -> set[str]:
    """Ids of the steps that rest on one of the required ones; inputs stand before what rests on them."""
    following = set(required)
    for step in steps:
        if not following.isdisjoint(step["inputs"]):
            following.add(step["id"])
    return following


def _label(place: Place) -> str:
    name, *where = place
    symbol = QUANTITIES[name].symbol if name in QUANTITIES else name
    return " ".join(str(part) for part in (symbol, *where) if part not in (None, ""))
