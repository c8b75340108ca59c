"""Symbols in the report's texts."""

from __future__ import annotations

import re

from django import template
from django.utils.html import conditional_escape
from django.utils.safestring import SafeString, mark_safe

register = template.Library()

_SYMBOL = re.compile(r"(?<![\w.])([^\W\d_]{1,2}|MCE)_(\w{1,4})(?![\w.]*\.\w)(?!\w)")


@register.filter
def symbols(text: object) -> SafeString:
    """Set the index of symbols such as S_DS low; everything else stays as it is (and is escaped)."""
    return mark_safe(_SYMBOL.sub(r"\1<sub>\2</sub>", conditional_escape(str(text))))
