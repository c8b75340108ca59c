"""Submissions: exhibits byte for byte, the tables that were read from them, their claims and load cases."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Any, ClassVar

from django.conf import settings
from django.db import connection, models
from django.db.models import Q
from plumb_core.documents import submission as core

from plumb_server.hashing import input_hash
from plumb_server.reviews.models import Review
from plumb_server.reviews.numbers import NumberedFromZeroQuerySet
from plumb_server.web.problems import Conflict


class SubmissionQuerySet(NumberedFromZeroQuerySet):
    serializer: ClassVar[Callable[..., Any]]
    """Set by the app once models and serializers are loaded."""

    def draft(self) -> Submission | None:
        """The one that is being accepted, if one is."""
        return self.filter(status=Submission.Status.DRAFT).first()

    def reported(self) -> list[dict[str, Any]]:
        """As the API describes them, with exhibits, tables and cases."""
        # exhibits and tables of a submission, and its cases, in a query each
        tables = ClaimTable.objects.order_by("id")
        reported = self.prefetch_related(
            "exhibits__reading", "cases", models.Prefetch("exhibits__tables", queryset=tables)
        )
        return list(self.serializer(reported, many=True).data)

    def latest_with_values(self) -> Submission | None:
        """The latest that holds values, else the latest."""
        return self.filter(exhibits__tables__count__gt=0).first() or self.first()


UNREAD = "none of its tables has been accepted yet"
"""Question of a file that was submitted and not read."""


class Submission(models.Model):
    """One revision submitted; immutable once accepted (a trigger of the database sees to it)."""

    class Status(models.TextChoices):
        DRAFT = "draft"
        ACCEPTED = "accepted"

    review = models.ForeignKey(Review, on_delete=models.CASCADE, related_name="submissions")
    number = models.PositiveIntegerField()
    status = models.CharField(max_length=10, choices=Status, default=Status.DRAFT)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    accepted_at = models.DateTimeField(null=True)

    objects = SubmissionQuerySet.as_manager()

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["review", "number"], name="submission_numbers")]

    @property
    def label(self) -> str:
        return f"S{self.number}"

    def require_open(self) -> None:
        """Refuse a change of a submission that is accepted."""
        if self.status == Submission.Status.ACCEPTED:
            raise Conflict(f"{self.label} is accepted and cannot be changed", "Open the next submission.")

    def heights(self) -> dict[str, float]:
        """Heights of the stories that its own table lists, m, bottom to top."""
        return dict(self.claims.filter(quantity="h").order_by("id").values_list("story", "number"))

    def state(self) -> dict[str, Any]:
        """What states whether its claims or cases are others now: claims come and belong to their tables."""
        tables = ClaimTable.objects.filter(exhibit__submission=self).values_list("pk", flat=True)
        return {
            "submission": self.pk,
            "tables": list(tables),
            "cases": [case.as_document() for case in self.cases.all()],
            "unread": self.unread(),
        }

    def unread(self) -> list[str]:
        """Names of the exhibits that hold tables of which none is accepted yet, and of those that are being read."""
        waiting = Q(reading__status__in=(ExhibitReading.Status.QUEUED, ExhibitReading.Status.READING))
        found = Q(reading__status=ExhibitReading.Status.READ) & ~Q(reading__tables=[])
        exhibits = self.exhibits.filter(waiting | found, tables__isnull=True)
        return list(exhibits.values_list("name", flat=True))

    def open_parts(self) -> list[core.OpenPart]:
        """What was submitted and is not read yet: files, and rows and columns of accepted tables."""
        parts = [core.OpenPart(file=name, question=UNREAD) for name in self.unread()]
        tables = ClaimTable.objects.filter(exhibit__submission=self).values_list("open_parts", flat=True)
        return [*parts, *(core.OpenPart.model_validate(part) for parts_of in tables for part in parts_of)]

    def as_document(self) -> dict[str, Any]:
        """As the core's recheck document has it."""
        return {
            "label": self.label,
            "cases": [case.as_document() for case in self.cases.all()],
            "claims": self.claims.as_documents(),
        }


class Exhibit(models.Model):
    """A file or pasted block of a submission; its bytes lie in the storage of exhibits, named by their SHA-256."""

    submission = models.ForeignKey(Submission, on_delete=models.CASCADE, related_name="exhibits")
    name = models.CharField(max_length=200)
    size = models.PositiveIntegerField()
    sha256 = models.CharField(max_length=64)
    pasted = models.BooleanField(default=False)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, null=True, related_name="exhibits")
    """who uploaded it; not known for exhibits of earlier versions"""
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["submission", "sha256"], name="an_exhibit_once")]


class ExhibitReading(models.Model):
    """How far the reading of an exhibit is, and what came of it; what was read is stored beside the exhibit's bytes."""

    class Status(models.TextChoices):
        QUEUED = "queued"
        READING = "reading"
        READ = "read"
        REFUSED = "refused"
        STOPPED = "stopped"

    exhibit = models.OneToOneField(Exhibit, on_delete=models.CASCADE, related_name="reading", primary_key=True)
    status = models.CharField(max_length=10, choices=Status, default=Status.QUEUED)
    share = models.FloatField(default=0.0)
    phase = models.CharField(max_length=60, blank=True)
    attempts = models.PositiveIntegerField(default=0)
    message = models.CharField(max_length=300, blank=True)
    remedy = models.CharField(max_length=300, blank=True)
    tables = models.JSONField(default=list)
    """what states the tables from one another"""
    pages = models.PositiveIntegerField(default=0)
    regions = models.JSONField(default=dict)
    """places on pages that the reviewer pointed at, by their label"""

    @property
    def open(self) -> bool:
        """Whether it waits or runs."""
        return self.status in (ExhibitReading.Status.QUEUED, ExhibitReading.Status.READING)


class ClaimTable(models.Model):
    """A table that was read from an exhibit and accepted: how it was read, and the claims it gave."""

    exhibit = models.ForeignKey(Exhibit, on_delete=models.CASCADE, related_name="tables")
    kind = models.CharField(max_length=20)
    sheet = models.CharField(max_length=120)
    reading = models.JSONField()
    """how the core read it, with its row of headings and the lines over it"""
    count = models.PositiveIntegerField(default=0)
    """of its claims, which never change"""
    open_parts = models.JSONField(default=list)
    """rows and columns that are not read, each with its question, as the core's documents have them"""
    created_at = models.DateTimeField(auto_now_add=True)

    OF_SHEET = ("heading", "notes")
    """parts of `reading` that are of the sheet, not answers"""

    class Meta:
        ordering = ["id"]


class ReadingProfile(models.Model):
    """How the tables of a firm were read, under a name; only ever a proposal."""

    name = models.CharField(max_length=80)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="profiles")
    tables = models.JSONField(default=list)
    """as the core's profiles have them"""
    revision = models.PositiveIntegerField(default=1)
    updated_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["name", "id"]
        constraints = [models.UniqueConstraint(fields=["author", "name"], name="a_profile_once")]


MAX_TEXT = 500
"""Characters of a claim's text: the terms of a combination, a line of a run log."""


def _text(claim: core.Claim) -> str:
    """What was written, or the value where it represents something that is not a number as written."""
    return str(claim.value) if isinstance(claim.value, str) else claim.text or str(claim.value)


class ClaimQuerySet(models.QuerySet[Any]):
    COLUMNS = (
        "quantity",
        "direction",
        "story",
        "point",
        "case",
        "number",
        "text",
        "unit",
        "scale",
        "row",
        "column",
        "table__sheet",
        "table__exhibit__name",
    )

    def copy_in(self, rows: Iterable[tuple[Any, ...]]) -> None:
        """Save rows in the order of `Claim.WRITTEN`, all of them or none.

        By COPY, as a table may have 100,000 values.
        """
        columns = [connection.ops.quote_name(self.model._meta.get_field(name).column) for name in Claim.WRITTEN]
        table = connection.ops.quote_name(self.model._meta.db_table)
        with (
            connection.wrap_database_errors,
            connection.cursor() as cursor,
            cursor.copy(f"COPY {table} ({', '.join(columns)}) FROM STDIN") as copy,
        ):
            for row in rows:
                copy.write_row(row)

    def as_core(self) -> tuple[list[core.Claim], str]:
        """As the core's model, not checked again, for they were when they were accepted.

        And the hash of what they say.
        """
        rows = list(self.order_by("id").values_list(*self.COLUMNS))
        sources: dict[tuple[Any, ...], core.Source] = {}

        def source(file: str, sheet: str, row: int | None, column: str) -> core.Source:
            # a row of a table says many things
            place = (file, sheet, row, column)
            if (known := sources.get(place)) is None:
                known = sources[place] = core.Source.made_of(file=file, sheet=sheet, row=row, column=column)
            return known

        claims = [
            core.Claim.made_of(
                quantity=quantity,
                direction=direction or None,
                story=story or None,
                point=point,
                case=case,
                value=text if number is None else number,
                text=text,
                unit=unit,
                scale=scale,
                source=source(file, sheet, row, column),
            )
            for quantity, direction, story, point, case, number, text, unit, scale, row, column, sheet, file in rows
        ]
        return claims, input_hash(rows)

    def as_documents(self) -> list[dict[str, Any]]:
        """As the core's documents have them; read as plain rows, without the exhibits' contents."""
        return [
            {
                "quantity": quantity,
                "direction": direction or None,
                "story": story or None,
                "point": point,
                "case": case,
                "value": text if number is None else number,
                "text": text,
                "unit": unit,
                "scale": scale,
                "source": {"file": file, "sheet": sheet, "row": row, "column": column},
            }
            for quantity, direction, story, point, case, number, text, unit, scale, row, column, sheet, file in (
                self.order_by("id").values_list(*self.COLUMNS)
            )
        ]


class Claim(models.Model):
    """One submitted value with its provenance; fields as in the core's documents."""

    table = models.ForeignKey(ClaimTable, on_delete=models.CASCADE, related_name="claims")
    submission = models.ForeignKey(Submission, on_delete=models.CASCADE, related_name="claims")
    quantity = models.CharField(max_length=30)
    direction = models.CharField(max_length=1, blank=True)
    story = models.CharField(max_length=60, blank=True)
    point = models.IntegerField(null=True)
    case = models.CharField(max_length=60, blank=True)
    number = models.FloatField(null=True)
    text = models.CharField(max_length=MAX_TEXT)
    unit = models.CharField(max_length=20, blank=True)
    scale = models.FloatField(default=1.0)
    row = models.PositiveIntegerField(null=True)
    column = models.CharField(max_length=4, blank=True)

    objects = ClaimQuerySet.as_manager()

    class Meta:
        ordering = ["id"]
        constraints = [
            models.UniqueConstraint(
                fields=["submission", "quantity", "direction", "story", "point", "case"],
                name="a_value_is_claimed_once",
                nulls_distinct=False,
            )
        ]

    WRITTEN = (
        "table_id",
        "submission_id",
        "quantity",
        "direction",
        "story",
        "point",
        "case",
        "number",
        "text",
        "unit",
        "scale",
        "row",
        "column",
    )

    @staticmethod
    def row_of(table: ClaimTable, submission: Submission, claim: core.Claim) -> tuple[Any, ...]:
        """The core's claim as a row of the database, in the order of WRITTEN."""
        return (
            table.pk,
            submission.pk,
            claim.quantity,
            claim.direction or "",
            claim.story or "",
            claim.point,
            claim.case,
            None if isinstance(claim.value, str) else claim.value,
            _text(claim),
            claim.unit,
            claim.scale,
            claim.source.row,
            claim.source.column[:4],
        )


class Case(models.Model):
    """A load case that a submission names, with its role; what is not known of it is null."""

    submission = models.ForeignKey(Submission, on_delete=models.CASCADE, related_name="cases")
    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=20, null=True)
    direction = models.CharField(max_length=2, null=True)
    eccentricity = models.FloatField(null=True)
    step = models.CharField(max_length=10, null=True)
    factor = models.FloatField(null=True)
    level = models.CharField(max_length=10, null=True)
    revision = models.PositiveIntegerField(default=1)
    """counts its changes: each states which one it is based on"""
    submitted = models.JSONField(null=True)
    """the role that an accepted submission has, where the reviewer gave the case another one"""

    ROLE = ("kind", "direction", "eccentricity", "step", "factor", "level")

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["submission", "name"], name="a_case_once")]

    @classmethod
    def of(cls, submission: Submission, case: core.LoadCase) -> Case:
        """The core's case as a row, not saved yet."""
        # of an import it is not known which role was submitted
        own: dict[str, Any] = {"submitted": {}} if case.by_reviewer else {}
        return cls(submission=submission, name=case.name, **own, **{part: getattr(case, part) for part in cls.ROLE})

    @property
    def role(self) -> dict[str, Any]:
        """What is known of its role."""
        return {part: value for part in self.ROLE if (value := getattr(self, part)) is not None}

    @property
    def by_reviewer(self) -> bool:
        """Whether its role is the reviewer's, and not that of the accepted submission."""
        return self.submitted is not None and self.submitted != self.role

    def as_core(self) -> core.LoadCase:
        """As the core's model."""
        return core.LoadCase.model_validate(self.as_document())

    def as_document(self) -> dict[str, Any]:
        """As the core's documents have it."""
        return {"name": self.name, **({"by_reviewer": True} if self.by_reviewer else {}), **self.role}
