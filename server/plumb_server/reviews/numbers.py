"""Things of a review that are numbered in their order: submissions, findings, reports."""

from __future__ import annotations

from typing import Any

from django.db import models


class NumberedQuerySet(models.QuerySet[Any]):
    """A query set of things with a `number`."""

    FIRST = 1

    def next_number(self) -> int:
        """The number that the next one gets; the review's row has to be locked, so that it is given out once."""
        highest = self.aggregate(highest=models.Max("number"))["highest"]
        return self.FIRST if highest is None else int(highest) + 1


class NumberedFromZeroQuerySet(NumberedQuerySet):
    """Submissions count from S0."""

    FIRST = 0
