"""Findings rest on submissions of the app of submissions; the column stays as it is."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("findings", "0001_initial"), ("submissions", "0001_from_reviews")]

    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.AlterField(
                    model_name="finding",
                    name="submission",
                    field=models.ForeignKey(
                        null=True,
                        on_delete=django.db.models.deletion.PROTECT,
                        related_name="findings",
                        to="submissions.submission",
                    ),
                )
            ]
        )
    ]
