"""Equations of derivations as OMML, the mathematics of office documents: by way of MathML.

Only what the rules of the editions use is turned; anything else stands as its text.
"""

from __future__ import annotations

from functools import lru_cache
from xml.etree import ElementTree as ET

from latex2mathml.converter import convert

from plumb_server.reports.equations import without_shorthands

M = "http://schemas.openxmlformats.org/officeDocument/2006/math"
_SPACE = "{http://www.w3.org/1998/Math/MathML}"


def _m(name: str, *children: ET.Element) -> ET.Element:
    made = ET.Element(f"{{{M}}}{name}")
    made.extend(children)
    return made


def _run(text: str, *, upright: bool = False) -> ET.Element:
    run = _m("r")
    if upright:
        style = _m("sty")
        style.set(f"{{{M}}}val", "p")
        run.append(_m("rPr", style))
    content = _m("t")
    content.text = text
    content.set("{http://www.w3.org/XML/1998/namespace}space", "preserve")
    run.append(content)
    return run


def _part(name: str, node: ET.Element) -> ET.Element:
    return _m(name, *_turned(node))


def _turned(node: ET.Element) -> list[ET.Element]:
    """A node of MathML as elements of OMML."""
    tag, children = node.tag.removeprefix(_SPACE), list(node)
    text = (node.text or "").strip()
    match tag:
        case "mfrac":
            return [_m("f", _part("num", children[0]), _part("den", children[1]))]
        case "msub" | "munder":
            return [_m("sSub", _part("e", children[0]), _part("sub", children[1]))]
        case "msup" | "mover":
            return [_m("sSup", _part("e", children[0]), _part("sup", children[1]))]
        case "msubsup" | "munderover":
            return [_m("sSubSup", _part("e", children[0]), _part("sub", children[1]), _part("sup", children[2]))]
        case "msqrt":
            hidden = _m("degHide")
            hidden.set(f"{{{M}}}val", "1")
            return [_m("rad", _m("radPr", hidden), _m("deg"), _m("e", *_all(children)))]
        case "mroot":
            return [_m("rad", _part("deg", children[1]), _part("e", children[0]))]
        case "mtable":
            rows = [_m("mr", *(_m("e", *_all(list(cell))) for cell in row)) for row in children]
            return [_m("m", *rows)]
        case "mtext":
            return [_run(node.text or "", upright=True)] if node.text else []
        case "mi" | "mn" | "mo":
            # a name of several letters, as max, stands upright
            return [_run(text, upright=tag == "mn" or len(text) > 1)] if text else []
        case "mspace":
            return [_run(" ")]
        case _:
            return _all(children) or ([_run(text)] if text else [])


def _all(children: list[ET.Element]) -> list[ET.Element]:
    return [made for child in children for made in _turned(child)]


@lru_cache(maxsize=512)
def omml(tex: str) -> str:
    """An equation in TeX as the XML of an `oMath`."""
    ET.register_namespace("m", M)
    # of a rule of ours, not of a stranger
    return ET.tostring(_m("oMath", *_turned(ET.fromstring(convert(without_shorthands(tex))))), encoding="unicode")
