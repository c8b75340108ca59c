"""`python -m plumb_core.engine`: writes the digest of the engine's rules and numbers to `engine.digest`.

The digest is that of the syntax trees: it changes with the code, the numbers and the texts of results, and not with
comments, docstrings or the layout of a file.  A test fails while the file is out of date.
"""

from __future__ import annotations

import ast
import hashlib
from pathlib import Path

HERE = Path(__file__).parent
FILE = HERE / "engine.digest"


def digest(folder: Path = HERE) -> str:
    """Return the digest of all modules below a folder, ten hexadecimal digits."""
    found = hashlib.sha256()
    for source in sorted(folder.rglob("*.py")):
        found.update(source.relative_to(folder).as_posix().encode())
        found.update(ast.dump(_without_docstrings(ast.parse(source.read_text()))).encode())
    return found.hexdigest()[:10]


def _without_docstrings(tree: ast.Module) -> ast.Module:
    for node in ast.walk(tree):
        body = getattr(node, "body", None)
        if isinstance(body, list):
            node.body = [part for part in body if not _is_text(part)]  # type: ignore[attr-defined]
    return tree


def _is_text(node: ast.AST) -> bool:
    """Whether a statement is a text alone: a docstring, of a module, class, function or constant."""
    return isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant) and isinstance(node.value.value, str)


if __name__ == "__main__":
    FILE.write_text(digest() + "\n")
