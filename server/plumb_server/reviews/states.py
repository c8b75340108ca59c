"""A document kept in states (a brief, the reference model): each change is a new state, and so is an undo."""

from __future__ import annotations

from typing import Any, TypeVar

from plumb_server.accounts.models import User
from plumb_server.reviews.conflicts import changes_since
from plumb_server.reviews.models import Review, State
from plumb_server.web.problems import Conflict, PreconditionFailed

S = TypeVar("S", bound=State)


def next_state(kind: type[S], review: Review, author: User, document: Any, based_on: int, what: str) -> S | None:
    """The state after a change, None where nothing changed; refused where somebody else changed it meanwhile.

    based_on : number of the state that was changed, 0 where there was none.  what : the document's name in a message.
    The review's row has to be locked, so that numbers are given out once.
    """
    current = kind._default_manager.filter(review=review).first()
    number = current.number if current else 0
    _require(review, number, based_on, what)
    if current is not None and document == current.document:
        return None
    return kind._default_manager.create(
        review=review, number=number + 1, document=document, undo_to=number or None, author=author
    )


def _require(review: Review, number: int, based_on: int, what: str) -> None:
    if number != based_on:
        raise PreconditionFailed(
            changes_since(review, f"the {what}", action__startswith=f"{what} change", detail__number__gt=based_on)
        )


def undone(kind: type[S], review: Review, author: User, based_on: int, what: str) -> tuple[S, int]:
    """The state that restores the previous one the last change that is not undone yet, and the number of that one.

    based_on : number of the state whose change is undone; refused where it is another by now
    """
    states = kind._default_manager.filter(review=review)
    current = states.first()
    _require(review, current.number if current else 0, based_on, what)
    if current is None or current.undo_to is None:
        raise Conflict(f"there is no change of the {what} to undo", "Nothing needs to be done.")
    before = states.get(number=current.undo_to)
    state = kind._default_manager.create(
        review=review, number=current.number + 1, document=before.document, undo_to=before.undo_to, author=author
    )
    return state, before.number
