"""Load cases with their roles."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("submissions", "0002_tables_of_its_own")]

    operations = [
        migrations.CreateModel(
            name="Case",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("name", models.CharField(max_length=60)),
                ("kind", models.CharField(max_length=20, null=True)),
                ("direction", models.CharField(max_length=2, null=True)),
                ("eccentricity", models.FloatField(null=True)),
                ("step", models.CharField(max_length=10, null=True)),
                ("factor", models.FloatField(null=True)),
                ("level", models.CharField(max_length=10, null=True)),
                (
                    "submission",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE, related_name="cases", to="submissions.submission"
                    ),
                ),
            ],
            options={"ordering": ["id"]},
        ),
        migrations.AddConstraint(
            model_name="case",
            constraint=models.UniqueConstraint(fields=("submission", "name"), name="a_case_once"),
        ),
    ]
