"""Submissions, exhibits, tables and claims get an app of their own; the tables of the database stay as they are here."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):
    initial = True
    dependencies = [("reviews", "0003_a_state_holds_a_document"), migrations.swappable_dependency(settings.AUTH_USER_MODEL)]

    state_operations = [
        migrations.CreateModel(
            name="Submission",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("number", models.PositiveIntegerField()),
                ("status", models.CharField(choices=[("draft", "Draft"), ("accepted", "Accepted")], default="draft", max_length=10)),
                ("created_at", models.DateTimeField(auto_now_add=True)),
                ("accepted_at", models.DateTimeField(null=True)),
                ("author", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL)),
                ("review", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="submissions", to="reviews.review")),
            ],
            options={"ordering": ["-number"], "db_table": "reviews_submission"},
        ),
        migrations.CreateModel(
            name="Exhibit",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("name", models.CharField(max_length=200)),
                ("data", models.BinaryField()),
                ("size", models.PositiveIntegerField()),
                ("sha256", models.CharField(max_length=64)),
                ("pasted", models.BooleanField(default=False)),
                ("created_at", models.DateTimeField(auto_now_add=True)),
                ("submission", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="exhibits", to="submissions.submission")),
            ],
            options={"ordering": ["id"], "db_table": "reviews_exhibit"},
        ),
        migrations.CreateModel(
            name="ClaimTable",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("kind", models.CharField(max_length=20)),
                ("sheet", models.CharField(max_length=120)),
                ("mapping", models.JSONField()),
                ("created_at", models.DateTimeField(auto_now_add=True)),
                ("exhibit", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="tables", to="submissions.exhibit")),
            ],
            options={"ordering": ["id"], "db_table": "reviews_claimtable"},
        ),
        migrations.CreateModel(
            name="Claim",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("quantity", models.CharField(max_length=30)),
                ("direction", models.CharField(blank=True, max_length=1)),
                ("story", models.CharField(blank=True, max_length=60)),
                ("point", models.IntegerField(null=True)),
                ("case", models.CharField(blank=True, max_length=60)),
                ("number", models.FloatField(null=True)),
                ("text", models.CharField(max_length=60)),
                ("unit", models.CharField(blank=True, max_length=20)),
                ("scale", models.FloatField(default=1.0)),
                ("row", models.PositiveIntegerField(null=True)),
                ("column", models.CharField(blank=True, max_length=4)),
                ("table", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="claims", to="submissions.claimtable")),
                ("submission", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="claims", to="submissions.submission")),
            ],
            options={"ordering": ["id"], "db_table": "reviews_claim"},
        ),
        migrations.AddConstraint(
            model_name="submission",
            constraint=models.UniqueConstraint(fields=("review", "number"), name="submission_numbers"),
        ),
        migrations.AddConstraint(
            model_name="exhibit",
            constraint=models.UniqueConstraint(fields=("submission", "sha256"), name="an_exhibit_once"),
        ),
        migrations.AddConstraint(
            model_name="claim",
            constraint=models.UniqueConstraint(
                fields=("submission", "quantity", "direction", "story", "point", "case"),
                name="a_value_is_claimed_once",
                nulls_distinct=False,
            ),
        ),
    ]
    operations = [migrations.SeparateDatabaseAndState(state_operations=state_operations)]
