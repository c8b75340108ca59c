"""Problems with input, as values: where, what was wrong, what to do."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Problem:
    """One thing that is wrong with an input.

    path is a JSON pointer into the document that was submitted (RFC 6901).
    """

    path: str
    message: str
    remedy: str

    def as_json(self) -> dict[str, str]:
        """Return the problem with path, message and remedy."""
        return {"path": self.path, "message": self.message, "remedy": self.remedy}


class InputRefused(ValueError):
    """The document cannot be used; `problems` names everything that is wrong with it."""

    def __init__(self, problems: Iterable[Problem]):
        self.problems = tuple(problems)
        super().__init__("; ".join(f"{p.path}: {p.message}" for p in self.problems))


class MissingInput(LookupError):
    """A rule requires a quantity that nobody has given and no rule of the edition computes.

    direction, case : set by the resolver where a rule raises it without one
    """

    def __init__(self, name: str, direction: str | None = None, case: str | None = None):
        self.name = name
        self.direction = direction
        self.case = case
        super().__init__(f"{name}{'.' + direction if direction else ''} is not given")


class RuleRefused(ValueError):
    """A rule cannot be applied to a value that the code excludes.

    name : the quantity to correct.  direction : of the evaluation that refused, set by the resolver.
    """

    direction: str | None = None

    def __init__(self, name: str, message: str, remedy: str):
        self.name = name
        self.message = message
        self.remedy = remedy
        super().__init__(message)
