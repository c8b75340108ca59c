"""How long a request takes, before it is begun: what takes longer than a request may goes to the queue."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

# s, measured on one core: reading a lateral line; a mode of a story; a value of a ground record at a story
OF_A_LINE = 1e-5
OF_A_MODE = 1.5e-5
OF_A_VALUE = 1e-6
OF_A_DEGREE = 3e-5
"""s for each degree of freedom of a frame, and for each mode of some dozens of them."""
MODES = 30
"""Modes of a frame that cost as much as setting it up."""
ASKED = 3
"""Solutions of its model that a recheck requires: modes, and the response in both directions."""


def _length(value: Any) -> int:
    return len(value) if isinstance(value, list) else 0


def _count(value: Any, default: int) -> int:
    return value if isinstance(value, int) and value > 0 else default


def seconds_of(request: Mapping[str, Any]) -> float:
    """About how long a request to a model, or a recheck with one, takes; it need not have been read yet, s."""
    model, brief = request.get("model"), request.get("brief")
    if isinstance(model, Mapping):
        analysis = model.get("analysis")
        modes = analysis.get("modes") if isinstance(analysis, Mapping) else None
        stories = brief.get("stories") if isinstance(brief, Mapping) else None
        records = model.get("records")
        values = sum(_length(r.get("a")) for r in records if isinstance(r, Mapping)) if isinstance(records, list) else 0
        if model.get("use") != "frame":
            model = {**model, "frame": None}
        return ASKED * _of_model({**model, "stories": stories, "modes": modes}) + _of_values(model, stories, values)
    record, harmonic = request.get("record"), request.get("harmonic")
    values = _length(record.get("a")) if isinstance(record, Mapping) else 0
    if isinstance(harmonic, Mapping):
        values = MOST_OF_HARMONIC
    return _of_model(request) + _of_values(request, request.get("stories"), values)


MOST_OF_HARMONIC = 2_000
"""Values that a harmonic motion is taken to have."""


def _of_model(model: Mapping[str, Any]) -> float:
    frame = model.get("frame")
    if isinstance(frame, Mapping):
        degrees = 6 * _length(frame.get("nodes"))
        return OF_A_DEGREE * degrees * max(1.0, _count(model.get("modes"), MODES) / MODES)
    stories = _length(model.get("stories"))
    # without a number of modes all of them are found
    modes = min(3 * stories, _count(model.get("modes"), 3 * stories))
    lines = _length(model.get("lateral_lines"))
    return OF_A_LINE * lines + (OF_A_MODE * stories * modes if lines else 0.0)


def _of_values(model: Mapping[str, Any], stories: Any, values: int) -> float:
    frame = model.get("frame")
    floors = _length(frame.get("nodes")) / 10 if isinstance(frame, Mapping) else _length(stories)
    return OF_A_VALUE * values * max(1.0, floors)
