"""Pictures of a recheck for print: the plumb line, the spectrum, values by story that deviate, and what sways them.

Drawn as SVG in the palette of the screens: theirs hollow, ours solid.
"""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Sequence
from typing import Any, NamedTuple
from xml.sax.saxutils import escape

from plumb_core.quantities import STAGES

INK, QUIET, LINE, BAND = "#1d2b2c", "#55635f", "#c8d0ca", "#dae6e0"
OURS, THEIRS, OFF, LIMIT = "#0f5f5f", "#9c4f24", "#b8860b", "#96312a"
OUT = ("differs", "breaches")
REACH = 10.0
"""Largest offset of the plumb line, in its own units (web/src/sheet/layout.ts draws the same)."""


class Picture(NamedTuple):
    """A drawing with its caption; width and height in points."""

    caption: str
    svg: str
    width: float
    height: float


def _svg(width: float, height: float, parts: Iterable[str]) -> str:
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}pt" height="{height}pt" '
        f'viewBox="0 0 {width} {height}" font-family="Report Sans, DejaVu Sans, sans-serif">{"".join(parts)}</svg>'
    )


def _text(x: float, y: float, text: str, size: float = 7.5, anchor: str = "start", colour: str = INK) -> str:
    return (
        f'<text x="{x:.1f}" y="{y:.1f}" font-size="{size}" text-anchor="{anchor}" fill="{colour}">{escape(text)}</text>'
    )


def _line(x1: float, y1: float, x2: float, y2: float, colour: str = INK, width: float = 0.7, dash: str = "") -> str:
    dashed = f' stroke-dasharray="{dash}"' if dash else ""
    return (
        f'<line x1="{x1:.1f}" y1="{y1:.1f}" x2="{x2:.1f}" y2="{y2:.1f}" stroke="{colour}" '
        f'stroke-width="{width}"{dashed}/>'
    )


def offset(multiples: float) -> float:
    """Offset of a deviation from the line, by multiples of its tolerance: linear up to 3, logarithmic beyond."""
    size = abs(multiples)
    far = size if size <= 3 else 3 + 2 * math.log(size / 3)
    return math.copysign(min(far, REACH), multiples)


def _mark(check: dict[str, Any], x: float, y: float) -> str:
    if check["verdict"] == "breaches":
        return f'<rect x="{x - 3:.1f}" y="{y - 3:.1f}" width="6" height="6" fill="{LIMIT}"/>'
    fill = "#ffffff" if check["role"] == "inherited" else OFF
    return f'<path d="M{x:.1f} {y - 4:.1f}l4 4-4 4-4-4z" fill="{fill}" stroke="{OFF}" stroke-width="0.9"/>'


MOST_ROWS = 48


def plumb_line(checks: Sequence[dict[str, Any]]) -> Picture | None:
    """Every value out of plumb on the line, by stage; None where none is."""
    out = [c for c in checks if c["verdict"] in OUT and c["role"] is not None]
    if not out:
        return None
    shown = [c for c in out if c["role"] == "origin" or c["verdict"] == "breaches"]
    shown += [c for c in out if c not in shown][: max(0, MOST_ROWS - len(shown))]
    turn = {c["id"]: i for i, c in enumerate(checks)}
    shown = sorted(shown[:MOST_ROWS], key=lambda c: (STAGES.index(c["stage"]), turn[c["id"]]))
    width, row, middle, unit = 490.0, 10.5, 330.0, 15.0
    top = 14.0
    height = top + row * len(shown) + 12
    parts = [
        f'<rect x="{middle - unit}" y="{top}" width="{2 * unit}" height="{row * len(shown)}" fill="{BAND}"/>',
        _line(middle, top, middle, height - 10, INK, 1.4),
        f'<path d="M{middle - 4} {height - 11}h8l-4 9z" fill="{INK}"/>',
        _text(middle, 9, "± tolerance", 6.5, "middle", QUIET),
    ]
    for multiple in (-100, -10, 10, 100):
        x = middle + offset(multiple) * unit
        parts += [
            _line(x, top, x, height - 12, LINE, 0.5, "1 2"),
            _text(x, 9, f"{abs(multiple)}×", 6.5, "middle", QUIET),
        ]
    before = ""
    for i, check in enumerate(shown):
        y = top + row * (i + 0.5)
        if check["stage"] != before:
            before = check["stage"]
            parts += [
                _line(0, y - row / 2, width, y - row / 2, LINE, 0.5),
                _text(0, y + 2.5, before.capitalize(), 7.5),
            ]
        x = middle + offset(check["multiples"] or 0.0) * unit
        colour = LIMIT if check["verdict"] == "breaches" else OFF
        dash = "2 2" if check["role"] == "inherited" else ""
        parts += [
            _text(170, y + 2.5, check["label"], 7.5, "end"),
            _line(middle, y, x, y, colour, 1.0, dash),
            _mark(check, x, y),
        ]
    more = f"; {len(out) - len(shown)} more inherited values are not drawn" if len(out) > len(shown) else ""
    caption = (
        "Values out of plumb: the offset is the deviation in multiples of the tolerance; filled marks are origins, "
        f"hollow ones inherited, squares limits that are not met{more}"
    )
    return Picture(caption, _svg(width, height, parts), width, height)


class _Axes:
    """A plot of points with two axes from zero."""

    def __init__(self, width: float, height: float, most_x: float, most_y: float):
        self.width, self.height = width, height
        self.left, self.bottom, self.right, self.top = 46.0, 24.0, 10.0, 10.0
        self.most_x, self.most_y = most_x or 1.0, most_y or 1.0

    def x(self, value: float) -> float:
        return self.left + value / self.most_x * (self.width - self.left - self.right)

    def y(self, value: float) -> float:
        return self.height - self.bottom - value / self.most_y * (self.height - self.bottom - self.top)

    def frame(self, name_x: str, name_y: str, names: Sequence[tuple[float, str]] = ()) -> list[str]:
        parts = []
        for mark in marks(self.most_x):
            parts += [
                _line(self.x(mark), self.top, self.x(mark), self.height - self.bottom, LINE, 0.4),
                _text(self.x(mark), self.height - self.bottom + 9, f"{mark:g}", 6.5, "middle", QUIET),
            ]
        for mark, name in names or [(m, f"{m:g}") for m in marks(self.most_y)]:
            parts += [
                _line(self.left, self.y(mark), self.width - self.right, self.y(mark), LINE, 0.4),
                _text(self.left - 3, self.y(mark) + 2, name, 6.5, "end", QUIET),
            ]
        parts += [
            _line(self.left, self.height - self.bottom, self.width - self.right, self.height - self.bottom),
            _line(self.left, self.top, self.left, self.height - self.bottom),
            _text(self.width - self.right, self.height - 4, name_x, 7, "end", QUIET),
            _text(2, 8, name_y, 7, "start", QUIET),
        ]
        return parts

    def points(self, xs: Sequence[float], ys: Sequence[float]) -> str:
        return " ".join(f"{self.x(a):.1f},{self.y(b):.1f}" for a, b in zip(xs, ys, strict=True))


def marks(most: float, count: int = 4) -> list[float]:
    """Round marks of an axis from zero to `most`."""
    raw = most / count
    power = 10.0 ** math.floor(math.log10(raw))
    step = next(f * power for f in (1, 2, 5, 10) if f * power >= raw * (1 - 1e-9))
    return [i * step for i in range(int(most / step + 1e-9) + 1)]


def spectrum(result: dict[str, Any]) -> Picture | None:
    """The submitted points of the spectrum over the recomputed ones; None where none are submitted."""
    values = {v["id"]: v["value"] for v in result["values"]}
    periods = values.get("T_points")
    points = [c for c in result["checks"] if c["quantity"] == "S_a" and c["point"] is not None and c["theirs"]]
    points = [c for c in points if periods and c["point"] < len(periods) and c["independent"]]
    if not points or periods is None:
        return None
    T = [float(periods[c["point"]]) for c in points]
    theirs = [float(c["theirs"]["value"]) for c in points]
    ours = [float(c["independent"]["value"]) for c in points]
    axes = _Axes(490.0, 190.0, max(T), 1.05 * max(*theirs, *ours))
    parts = axes.frame("T (s)", f"S_a ({points[0]['unit']})")
    parts.append(f'<polyline points="{axes.points(T, ours)}" fill="none" stroke="{OURS}" stroke-width="1.5"/>')
    for a, b, check in zip(T, theirs, points, strict=True):
        colour = OFF if check["verdict"] in OUT else THEIRS
        parts.append(
            f'<circle cx="{axes.x(a):.1f}" cy="{axes.y(b):.1f}" r="2.6" fill="#ffffff" stroke="{colour}" '
            'stroke-width="1.1"/>'
        )
    caption = "Design spectrum: recomputed (line) and submitted (circles; ochre where they differ)"
    return Picture(caption, _svg(axes.width, axes.height, parts), axes.width, axes.height)


MOST_LOGS = 12


def story_logs(result: dict[str, Any]) -> list[Picture]:
    """Values by story of which some deviate: submitted against recomputed, over the stories."""
    stories = result["stories"]
    groups: dict[tuple[str, str, str, str], list[dict[str, Any]]] = defaultdict(list)
    for check in result["checks"]:
        if check["story"] in stories and check["theirs"] and not isinstance(check["theirs"]["value"], str):
            key = (check["quantity"], check["direction"] or "", check["case"], check["kind"])
            groups[key].append(check)
    out = [g for g in groups.values() if len(g) > 1 and any(c["verdict"] in OUT for c in g)]
    out.sort(key=lambda g: -sum(c["role"] == "origin" for c in g))
    return [_story_log(group, stories) for group in out[:MOST_LOGS]]


def _story_log(group: list[dict[str, Any]], stories: Sequence[str]) -> Picture:
    level = {name: i + 1 for i, name in enumerate(stories)}
    rows = []
    for check in sorted(group, key=lambda c: level[c["story"]]):
        ours = check["carried"] if check["role"] == "origin" and check["carried"] else check["independent"]
        rows.append((level[check["story"]], check, ours or check["carried"]))
    values = [abs(float(c["theirs"]["value"])) for _, c, _ in rows]
    values += [abs(float(o["value"])) for _, _, o in rows if o and not isinstance(o["value"], str)]
    values += [abs(float(c["limit"]["value"])) for _, c, _ in rows if c["limit"]]
    axes = _Axes(235.0, 40.0 + 13.0 * len(stories), 1.08 * max(values, default=1.0), len(stories) + 0.6)
    unit = group[0]["unit"].replace("*", " ")
    shown = [(i + 1.0, name) for i, name in enumerate(stories)]
    step = max(1, len(shown) // 16)
    parts = axes.frame(unit, "", shown[::step])
    drawn = [(y, float(o["value"])) for y, _, o in rows if o and not isinstance(o["value"], str)]
    if drawn:
        line = axes.points([abs(v) for _, v in drawn], [float(y) for y, _ in drawn])
        parts.append(f'<polyline points="{line}" fill="none" stroke="{OURS}" stroke-width="1.4"/>')
    limits = [(y, abs(float(c["limit"]["value"]))) for y, c, _ in rows if c["limit"]]
    if limits:
        line = axes.points([v for _, v in limits], [float(y) for y, _ in limits])
        parts.append(
            f'<polyline points="{line}" fill="none" stroke="{LIMIT}" stroke-width="1" stroke-dasharray="4 2"/>'
        )
    for y, check, _ in rows:
        colour = LIMIT if check["verdict"] == "breaches" else OFF if check["verdict"] in OUT else THEIRS
        x = axes.x(abs(float(check["theirs"]["value"])))
        parts.append(
            f'<circle cx="{x:.1f}" cy="{axes.y(y):.1f}" r="2.6" fill="#ffffff" stroke="{colour}" stroke-width="1.1"/>'
        )
    first = group[0]
    where = " ".join(p for p in (first["direction"], first["case"]) if p)
    limit = "; dashed: limit" if limits else ""
    return Picture(
        f"{first['meaning']} {where}".strip() + limit, _svg(axes.width, axes.height, parts), axes.width, axes.height
    )


MOST_BARS = 12


def sensitivity(variants: Sequence[dict[str, Any]]) -> Picture | None:
    """What each doubtful input moves, by its greatest effect; None where nothing moves."""
    bars = []
    for variant in variants:
        most = max(variant["values"], key=lambda v: abs(v["change"]), default=None)
        if most is not None and most["change"]:
            words = f"{variant['input']}: {variant['before']} to {variant['after']}"
            bars.append((words, f"{most['symbol']} {most['direction']}", float(most["change"])))
    bars = sorted(bars, key=lambda b: -abs(b[2]))[:MOST_BARS]
    if not bars:
        return None
    width, row, left = 490.0, 13.0, 270.0
    unit = (width - left - 60) / 2 / max(abs(change) for *_, change in bars)
    middle = left + (width - left) / 2
    height = row * len(bars) + 6
    parts = [_line(middle, 0, middle, height, INK, 0.8)]
    for i, (words, symbol, change) in enumerate(bars):
        y = row * (i + 0.5) + 3
        x = min(middle, middle + change * unit)
        anchor, at = ("start", middle + change * unit + 3) if change > 0 else ("end", middle + change * unit - 3)
        parts += [
            _text(0, y + 2.5, words[:64], 7.5),
            f'<rect x="{x:.1f}" y="{y - 4:.1f}" width="{abs(change * unit):.1f}" height="8" fill="{OURS}"/>',
            _text(at, y + 2.5, f"{symbol} {100 * change:+.1f} %".replace("-", "−"), 7, anchor, QUIET),
        ]
    return Picture("Greatest effect of each doubtful input", _svg(width, height, parts), width, height)
