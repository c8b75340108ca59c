"""Symbols in the report's texts."""

from __future__ import annotations

import re

from django import template
from django.utils.html import conditional_escape
from django.utils.safestring import SafeString, mark_safe

register = template.Library()

# not part of a longer word or of a file name
_SYMBOL = re.compile(r"(?<![\w.-])(Σ?[^\W\d_]{1,3})_([^\W_]{1,8}(?:,[^\W_])?)(?![\w-])(?!\.\w)")


@register.filter
def symbols(text: object) -> SafeString:
    """Set the index of symbols such as S_DS or S_a(T) as a subscript; the rest is escaped and unchanged."""
    text = conditional_escape(str(text)).replace("&lt;=", "≤").replace("&gt;=", "≥")
    return mark_safe(_SYMBOL.sub(r"\1<sub>\2</sub>", text))
