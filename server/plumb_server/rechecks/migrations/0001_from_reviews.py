"""Rechecks get an app of their own; the table of the database stays as it is here."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    initial = True
    dependencies = [("reviews", "0003_a_state_holds_a_document")]

    state_operations = [
        migrations.CreateModel(
            name="Recheck",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("input_hash", models.CharField(max_length=64)),
                ("engine", models.CharField(max_length=20)),
                ("result", models.JSONField()),
                ("at", models.DateTimeField(auto_now_add=True)),
                ("review", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="rechecks", to="reviews.review")),
            ],
            options={"db_table": "reviews_recheck"},
        ),
        migrations.AddConstraint(
            model_name="recheck",
            constraint=models.UniqueConstraint(fields=("review", "input_hash"), name="a_question_once"),
        ),
    ]
    operations = [migrations.SeparateDatabaseAndState(state_operations=state_operations)]
