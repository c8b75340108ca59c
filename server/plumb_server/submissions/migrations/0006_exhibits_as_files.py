"""The bytes of exhibits leave their rows for the storage of exhibits; how far their reading is gets a row of its own."""

import django.db.models.deletion
from django.db import migrations, models


def to_files(apps, schema_editor):
    from plumb_server.submissions import contents

    exhibits = apps.get_model("submissions", "Exhibit")
    for pk in list(exhibits.objects.values_list("pk", flat=True)):
        exhibit = exhibits.objects.only("data", "sha256").get(pk=pk)
        if contents.keep(bytes(exhibit.data)) != exhibit.sha256:
            raise RuntimeError(f"exhibit {pk} isn't what its SHA-256 says; restore it before the upgrade")


def from_files(apps, schema_editor):
    from plumb_server.submissions import contents

    exhibits = apps.get_model("submissions", "Exhibit")
    table = exhibits._meta.db_table
    # what is accepted can't be changed; its bytes are put back as they were
    schema_editor.execute(f"ALTER TABLE {table} DISABLE TRIGGER USER")
    for pk, digest in list(exhibits.objects.values_list("pk", "sha256")):
        exhibits.objects.filter(pk=pk).update(data=contents.contents(digest))
    # the constraints that wait for the end of the transaction would hold the table
    schema_editor.execute("SET CONSTRAINTS ALL IMMEDIATE")
    schema_editor.execute(f"ALTER TABLE {table} ENABLE TRIGGER USER")


class Migration(migrations.Migration):
    dependencies = [("submissions", "0005_longer_texts")]

    operations = [
        migrations.AlterField(model_name="exhibit", name="data", field=models.BinaryField(null=True)),
        migrations.RunPython(to_files, from_files),
        migrations.RemoveField(model_name="exhibit", name="data"),
        migrations.CreateModel(
            name="ExhibitReading",
            fields=[
                (
                    "exhibit",
                    models.OneToOneField(
                        on_delete=django.db.models.deletion.CASCADE,
                        primary_key=True,
                        related_name="reading",
                        serialize=False,
                        to="submissions.exhibit",
                    ),
                ),
                (
                    "status",
                    models.CharField(
                        choices=[
                            ("queued", "Queued"),
                            ("reading", "Reading"),
                            ("read", "Read"),
                            ("refused", "Refused"),
                            ("stopped", "Stopped"),
                        ],
                        default="queued",
                        max_length=10,
                    ),
                ),
                ("share", models.FloatField(default=0.0)),
                ("phase", models.CharField(blank=True, max_length=60)),
                ("attempts", models.PositiveIntegerField(default=0)),
                ("message", models.CharField(blank=True, max_length=300)),
                ("remedy", models.CharField(blank=True, max_length=300)),
                ("tables", models.JSONField(default=list)),
                ("pages", models.PositiveIntegerField(default=0)),
                ("regions", models.JSONField(default=dict)),
            ],
        ),
    ]
