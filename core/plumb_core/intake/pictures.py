"""Pictures of tables, such as screenshots: each becomes a page, which is then read as a scanned one is."""

from __future__ import annotations

import io

from plumb_core.intake.pdf import PdfRefused

MAX_PIXELS = 40_000_000
"""Of a picture; a larger one is refused before it is unpacked."""
SCREEN = 96.0
"""Dots per inch of a picture that does not state its own."""

_PNG, _JPEG = b"\x89PNG\r\n\x1a\n", b"\xff\xd8\xff"
_ENDS = {_PNG: b"IEND", _JPEG: b"\xff\xd9"}
"""What stands at the end of a whole picture: a process may have told the library to accept parts of them."""


def is_picture(data: bytes) -> bool:
    """Whether a file is a PNG or JPEG picture."""
    return data.startswith((_PNG, _JPEG))


def as_page(data: bytes) -> bytes:
    """A picture as a PDF of one page; any other file as it is.

    Parameters
    ----------
    data : bytes of a file

    Raises
    ------
    PdfRefused
        for a picture that is damaged or larger than MAX_PIXELS
    """
    if not is_picture(data):
        return data
    damaged = PdfRefused("the picture is damaged", "Save it again as PNG.")
    if not any(data.startswith(begin) and end in data[-4096:] for begin, end in _ENDS.items()):
        raise damaged
    # imported here: few exhibits are pictures
    from PIL import Image

    try:
        with Image.open(io.BytesIO(data), formats=("PNG", "JPEG")) as picture:
            if picture.width * picture.height > MAX_PIXELS:
                words = f"the picture has {picture.width} x {picture.height} dots; at most {MAX_PIXELS:,} are read"
                raise PdfRefused(words, "Cut out the table and upload that.")
            stated = float(picture.info.get("dpi", (SCREEN, SCREEN))[0])
            plain = picture.convert("RGBA")
            # what is transparent is shown on white
            ground = Image.new("RGB", plain.size, "white")
            ground.paste(plain, mask=plain.getchannel("A"))
    except (OSError, SyntaxError, ValueError, Image.DecompressionBombError) as error:
        if isinstance(error, PdfRefused):
            raise
        raise damaged from None
    page = io.BytesIO()
    ground.save(page, "PDF", resolution=stated if 50.0 <= stated <= 1200.0 else SCREEN)
    return page.getvalue()
