"""Problems of a frame's tables that only show across them: references, repeated ids; read off the raw document."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from plumb_core.errors import Problem

_TABLES = {
    "nodes": "node",
    "materials": "material",
    "sections": "section",
    "members": "member",
    "diaphragms": "diaphragm",
}
_REFERENCES = (
    ("members", "i", "nodes"),
    ("members", "j", "nodes"),
    ("members", "section", "sections"),
    ("members", "material", "materials"),
    ("supports", "node", "nodes"),
    ("masses", "node", "nodes"),
    ("floors", "diaphragm", "diaphragms"),
)
MOST = 200
"""Problems of one frame that are named; a table pasted wrong has one in every row."""


def _rows(frame: Mapping[str, Any], table: str) -> list[dict[str, Any]]:
    rows = frame.get(table)
    return [row if isinstance(row, dict) else {} for row in rows] if isinstance(rows, list) else []


def _texts(frame: Mapping[str, Any], table: str, key: str) -> set[str]:
    """What a table names under a key; anything but texts is stated by the table's own check."""
    return {name for row in _rows(frame, table) if isinstance(name := row.get(key), str)}


def _repeated(frame: Mapping[str, Any], prefix: str) -> Iterator[Problem]:
    for table, word in _TABLES.items():
        seen: set[str] = set()
        for k, row in enumerate(_rows(frame, table)):
            name = row.get("id")
            if isinstance(name, str):
                if name in seen:
                    yield Problem(
                        f"{prefix}/{table}/{k}/id",
                        f"two {word}s have the id {name!r}",
                        f"Give each {word} a different id.",
                    )
                seen.add(name)


def _unknown(frame: Mapping[str, Any], prefix: str) -> Iterator[Problem]:
    known = {t: _texts(frame, t, "id") for t in _TABLES}
    for table, key, of in _REFERENCES:
        for k, row in enumerate(_rows(frame, table)):
            name = row.get(key)
            if isinstance(name, str) and name not in known[of]:
                yield Problem(
                    f"{prefix}/{table}/{k}/{key}",
                    f"there is no {_TABLES[of]} {name!r}",
                    f"Correct the id, or add the {_TABLES[of]}.",
                )


def _diaphragms(frame: Mapping[str, Any], prefix: str) -> Iterator[Problem]:
    known = _texts(frame, "nodes", "id")
    used: dict[str, str] = {}
    for k, diaphragm in enumerate(_rows(frame, "diaphragms")):
        nodes = diaphragm.get("nodes")
        for n, node in enumerate(nodes if isinstance(nodes, list) else ()):
            if not isinstance(node, str):
                continue
            path = f"{prefix}/diaphragms/{k}/nodes/{n}"
            if node not in known:
                yield Problem(path, f"there is no node {node!r}", "Correct the id, or add the node.")
            elif node in used:
                yield Problem(
                    path, f"node {node!r} is in diaphragm {used[node]!r} already", "Name it in one diaphragm, once."
                )
            used.setdefault(node, str(diaphragm.get("id")))


def _members(frame: Mapping[str, Any], prefix: str) -> Iterator[Problem]:
    groups = _texts(frame, "members", "group")
    factors = frame.get("stiffness_factors")
    for group in factors if isinstance(factors, dict) else ():
        if group not in groups:
            yield Problem(
                f"{prefix}/stiffness_factors/{group}",
                f"no member is in the group {group!r}",
                "Correct the name, or remove it.",
            )


def problems_of_frame(frame: Any, prefix: str) -> list[Problem]:
    """Every problem across the tables of a frame, up to `MOST`."""
    if not isinstance(frame, dict):
        return []
    problems = []
    for look in (_repeated, _unknown, _diaphragms, _members):
        for problem in look(frame, prefix):
            problems.append(problem)
            if len(problems) == MOST:
                return problems
    return problems
