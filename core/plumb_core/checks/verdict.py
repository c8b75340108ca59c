"""Verdicts of checks, and where deviations start."""

from __future__ import annotations

from enum import StrEnum


class Verdict(StrEnum):
    """What a check comes to."""

    AGREES = "agrees"
    DIFFERS = "differs"
    BREACHES = "breaches"
    """exceeds a limit of the code"""
    QUESTION = "question"
    """a statement that needs an explanation"""
    NOTE = "note"
    GAP = "gap"
    """a required statement is missing"""
    OPEN = "open"
    """an input is missing on our side"""


class DeviationRole(StrEnum):
    """Where a deviation starts."""

    ORIGIN = "origin"
    INHERITED = "inherited"
