"""Slips of the seismic weight: loads missing, counted twice, or with another share."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

import numpy as np

from plumb_core.causes.slip import Attempt, Place, slip

IMPOSED = ("live", "storage", "roof live")
Stories = Sequence[Sequence[Mapping[str, Any]]]


def _stories(place: Place) -> Stories | None:
    """The loads of the brief by story with what is counted of each; None where the weight has no loads."""
    shares = place.arguments.get("w_shares") if place.key.name == "w" else None
    return shares if isinstance(shares, list) else None


def _total(stories: Stories, counted: Any) -> np.ndarray[Any, np.dtype[np.float64]]:
    return np.array([sum(counted(i, load) for load in story) for i, story in enumerate(stories)], dtype=float)


@slip("share of the imposed load")
def imposed(place: Place) -> Iterator[Attempt]:
    """Live load counted with no share, as a whole, or with the share of another use."""
    stories = _stories(place)
    if stories is None or not any(load["kind"] in IMPOSED for story in stories for load in story):
        return
    for share in (0.0, 0.2, 0.25, 0.3, 0.5, 0.8, 1.0):

        def counted(_: int, load: Mapping[str, Any], share: float = share) -> float:
            return float(share * load["amount"] if load["kind"] in IMPOSED else load["counted"])

        words = f"{share:.0%} of the imposed load counted"
        yield Attempt(f"imposed {share}", _total(stories, counted), words, "S35", 4.0, {"share": share})


@slip("imposed load on the roof")
def roof(place: Place) -> Iterator[Attempt]:
    """The imposed load of the roof is counted as that of a floor."""
    stories = _stories(place)
    if stories is None:
        return
    shares = {
        load["counted"] / load["amount"]
        for story in stories[:-1]
        for load in story
        if load["kind"] in IMPOSED and load["amount"] and load["counted"]
    }
    for share in sorted(shares):

        def counted(i: int, load: Mapping[str, Any], share: float = share) -> float:
            at_top = i == len(stories) - 1 and load["kind"] in IMPOSED
            return float(share * load["amount"] if at_top else load["counted"])

        yield Attempt(
            "roof", _total(stories, counted), "imposed load of the roof counted", "S35", 4.0, {"share": share}
        )


CODES = {"dead": "S33", "partition": "S37", "snow": "S37", "equipment": "S37", "landscaping": "S37"}


@slip("a load missing or twice")
def load_missing(place: Place) -> Iterator[Attempt]:
    """All loads of a kind, or one of them by name, are missing, or counted twice."""
    stories = _stories(place)
    if stories is None:
        return
    kinds = sorted({load["kind"] for story in stories for load in story})
    names = sorted({load["name"] for story in stories for load in story if load.get("name")})
    for part, value in [*(("kind", k) for k in kinds), *(("name", n) for n in names)]:
        for times, words in ((0.0, "missing"), (2.0, "counted twice")):

            def counted(
                _: int, load: Mapping[str, Any], times: float = times, part: str = part, v: str = value
            ) -> float:
                return float(load["counted"] * (times if load.get(part) == v else 1.0))

            code = "S33" if times == 2.0 else CODES.get(value if part == "kind" else "", "S35")
            code = "S34" if times == 0.0 and value == "dead" else code
            yield Attempt(
                f"{part} {value} {words}",
                _total(stories, counted),
                f"load {value} {words}",
                code,
                5.0,
                {"load": value},
                only_deviating=True,
            )
