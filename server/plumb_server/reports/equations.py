"""Equations of derivations as pictures for the report."""

from __future__ import annotations

import base64
import re
from functools import lru_cache
from typing import Any

from plumb_core.checks.wording import figures
from plumb_core.quantities import QUANTITIES
from plumb_core.rules import written


def number(value: Any) -> str:
    """A value as TeX shows it."""
    if isinstance(value, bool):
        return r"\text{yes}" if value else r"\text{no}"
    if isinstance(value, (int, float)):
        return figures(float(value))
    if isinstance(value, str):
        return r"\text{" + value.replace("_", r"\_") + "}"
    return r"\ldots"


def symbolic(step: dict[str, Any]) -> str:
    """The rule's equation in symbols, as TeX."""
    return written(step["tex"], lambda name: QUANTITIES[name].tex) if step["tex"] else ""


def without_shorthands(tex: str) -> str:
    """An equation without what the writers of pictures and of office documents do not know: small fractions, cases."""
    return re.sub(
        r"\\begin\{cases\}(.*?)\\end\{cases\}",
        r"\\left\\{\\begin{matrix}\1\\end{matrix}\\right.",
        tex.replace(r"\tfrac", r"\frac"),
        flags=re.S,
    )


@lru_cache(maxsize=512)
def picture(tex: str) -> str:
    """An equation as an SVG data address, with its height in points."""
    # with its fonts it takes a while to import, which no process needs to begin
    import ziamath

    plain = without_shorthands(tex)
    svg = ziamath.Latex(plain, size=13).svg()  # type: ignore[attr-defined]
    return "data:image/svg+xml;base64," + base64.b64encode(svg.encode()).decode()
