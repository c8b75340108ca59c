"""Members: their ends, sections, releases and masses."""

from __future__ import annotations

from plumb_core.intake.columns import Column
from plumb_core.intake.model_tables.kind import ModelTableKind

ACTS = {
    "tension": "tension_only",
    "tension only": "tension_only",
    "tension-only": "tension_only",
    "both": "both",
    "tension and compression": "both",
}


KIND = ModelTableKind(
    "members",
    "members",
    (
        Column("id", "member", r"member|element|bar|id|name|label", None, True),
        Column("i", "node at the start", r"i|nodei|start|startnode|from|firstnode", None, True),
        Column("j", "node at the end", r"j|nodej|end|endnode|to|secondnode", None, True),
        Column("section", "section", r"section|sectionname|profile", None, True),
        Column("material", "material", r"material|materialname", None),
        Column("roll", "roll", r"roll|rotation|angle|beta", "degree"),
        Column("group", "group", r"group|type|kind|use", None),
        Column("release_i", "released at the start", r"(released?|releases?)(i|start|atstart|ati)", None),
        Column("release_j", "released at the end", r"(released?|releases?)(j|end|atend|atj)", None),
        Column("axial", "acts in (tension, both)", r"axial|acts|actsin", None, words=ACTS),
        Column("line_mass", "mass on it", r"linemass|mass|massperlength|masson(it)?", "t/m"),
    ),
    rank=20,
    dofs=("release_i", "release_j"),
)
