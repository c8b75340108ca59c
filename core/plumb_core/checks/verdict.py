"""Verdicts of checks, and where deviations start."""

from __future__ import annotations

from enum import StrEnum


class Verdict(StrEnum):
    """What a check comes to."""

    AGREES = "agrees"
    DIFFERS = "differs"
    BREACHES = "breaches"
    """a limit of the code"""
    QUESTION = "question"
    """something is there and doubtful"""
    NOTE = "note"
    GAP = "gap"
    """something that has to be stated is not"""
    OPEN = "open"
    """our side lacks what it takes"""


class Role(StrEnum):
    """Where a deviation starts."""

    ORIGIN = "origin"
    INHERITED = "inherited"
