"""Text of scanned pages, read by Tesseract: words with their places and the confidence with which they were read."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

RESOLUTION = 200.0
"""Dots per inch that a page is drawn with."""
LARGEST = 4000.0
"""Dots of the longer side of a page at most."""
SURE = 0.8
"""Confidence from which a number is used without a question."""
APART = 0.85
"""Of the height of the letters: words that are further apart are in different columns."""


@dataclass(frozen=True, slots=True)
class ScannedWords:
    """Words without a gap between them.

    Attributes
    ----------
    text : of the words
    left, top, right, bottom : their place on the page, pt
    confidence : of the word that was read with the least, 0 to 1
    """

    text: str
    left: float
    top: float
    right: float
    bottom: float
    confidence: float


def is_there() -> bool:
    """Whether Tesseract is installed."""
    return shutil.which("tesseract") is not None


def scanned_words(page: Any) -> list[ScannedWords]:
    """Words of a page of a PDF that is an image, from the top; empty where Tesseract is not installed.

    Parameters
    ----------
    page : of pdfplumber
    """
    if not is_there():
        return []
    # imported here: few files are scanned
    import pytesseract  # type: ignore[import-untyped]  # it has no types

    resolution = min(RESOLUTION, LARGEST * 72.0 / max(float(page.width), float(page.height), 1.0))
    picture = page.to_image(resolution=resolution).original
    # sparse text: rules of tables are no obstacle
    read = pytesseract.image_to_data(picture, config="--psm 11", output_type=pytesseract.Output.DICT)
    return sorted(_joined(list(_words(read, 72.0 / resolution))), key=lambda w: (w.top, w.left))


def _words(read: dict[str, list[Any]], scale: float) -> Iterator[ScannedWords]:
    columns = ("text", "left", "top", "width", "height", "conf")
    for text, left, top, width, height, confidence in zip(*(read[c] for c in columns), strict=True):
        plain = str(text).strip().strip("|")
        if plain and float(confidence) >= 0:
            x, y = left * scale, top * scale
            yield ScannedWords(plain, x, y, x + width * scale, y + height * scale, float(confidence) / 100.0)


def _joined(words: list[ScannedWords]) -> list[ScannedWords]:
    """Words of one line that are no further apart than words are, as one."""
    joined: list[ScannedWords] = []
    for word in sorted(words, key=lambda w: w.left):
        height = word.bottom - word.top
        before = next(
            (
                i
                for i, w in enumerate(joined)
                if abs((w.top + w.bottom) - (word.top + word.bottom)) < height
                and -height < word.left - w.right < APART * max(height, w.bottom - w.top)
            ),
            None,
        )
        if before is None:
            joined.append(word)
            continue
        w = joined[before]
        joined[before] = ScannedWords(
            f"{w.text} {word.text}",
            w.left,
            min(w.top, word.top),
            word.right,
            max(w.bottom, word.bottom),
            min(w.confidence, word.confidence),
        )
    return joined
