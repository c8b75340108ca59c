"""The code editions that this engine holds, by id."""

from __future__ import annotations

from plumb_core.editions import (
    as1170_4,
    asce7_05,
    asce7_10,
    asce7_16,
    asce7_22,
    custom,
    en1998_1,
    is1893_2002,
    is1893_2016,
    ubc97,
)
from plumb_core.editions.edition import Edition

__all__ = ["EDITIONS", "Edition"]

EDITIONS: dict[str, Edition] = {
    m.EDITION.id: m.EDITION
    for m in (asce7_05, asce7_10, asce7_16, asce7_22, ubc97, en1998_1, is1893_2002, is1893_2016, as1170_4, custom)
}
