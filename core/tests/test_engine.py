"""The version of the engine: it changes with rules and numbers, not with comments."""

from __future__ import annotations

from pathlib import Path

from plumb_core import ENGINE, VERSION, engine


def write(folder: Path, source: str) -> str:
    (folder / "rules.py").write_text(source)
    return engine.digest(folder)


def test_the_digest_is_current() -> None:
    assert engine.FILE.read_text().strip() == engine.digest(), (
        "run python -m plumb_core.engine and commit engine.digest"
    )
    assert f"{VERSION}+{engine.digest()}" == ENGINE


def test_a_number_changes_the_digest_and_a_comment_does_not(tmp_path: Path) -> None:
    source = (
        'LIMIT = 0.02\n"""Table 12.12-1."""\n\n\ndef f(x: float) -> float:\n    """Return it."""\n    return 2 * x\n'
    )
    first = write(tmp_path, source)
    assert write(tmp_path, source.replace("Table 12.12-1.", "Another text.").replace("Return it", "Return x")) == first
    assert write(tmp_path, "# a comment\n" + source.replace("2 * x", "(2 * x)")) == first
    assert write(tmp_path, source.replace("0.02", "0.025")) != first
    assert write(tmp_path, source.replace("2 * x", "x * 2")) != first


def test_the_name_of_a_module_counts(tmp_path: Path) -> None:
    first = write(tmp_path, "A = 1\n")
    (tmp_path / "rules.py").rename(tmp_path / "other.py")
    assert engine.digest(tmp_path) != first
