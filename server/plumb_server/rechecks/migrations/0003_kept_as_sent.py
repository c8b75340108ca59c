"""Answers are kept as the compressed bytes that are sent, and found by the state they were asked of."""

import gzip
import json

from django.db import migrations, models


def pack(document):
    return gzip.compress(json.dumps(document, ensure_ascii=False).encode(), compresslevel=1, mtime=0)


def to_bytes(apps, schema_editor):
    for recheck in apps.get_model("rechecks", "Recheck").objects.iterator(chunk_size=10):
        steps = recheck.result.pop("steps")
        parts = ("id", "value", "source")
        recheck.sheet_gz = pack(recheck.result | {"values": [{p: s[p] for p in parts} for s in steps["independent"]]})
        recheck.steps_gz = pack(steps)
        recheck.save(update_fields=["sheet_gz", "steps_gz"])


def to_json(apps, schema_editor):
    for recheck in apps.get_model("rechecks", "Recheck").objects.iterator(chunk_size=10):
        sheet = json.loads(gzip.decompress(recheck.sheet_gz))
        del sheet["values"]
        recheck.result = sheet | {"steps": json.loads(gzip.decompress(recheck.steps_gz))}
        recheck.save(update_fields=["result"])


class Migration(migrations.Migration):
    # rows are changed and then their columns, which one transaction of PostgreSQL doesn't allow
    atomic = False
    dependencies = [("rechecks", "0002_a_table_of_its_own")]

    operations = [
        migrations.AddField("recheck", "state", models.CharField(max_length=64, default="", db_index=True)),
        migrations.AddField("recheck", "sheet_gz", models.BinaryField(default=b"")),
        migrations.AddField("recheck", "steps_gz", models.BinaryField(default=b"")),
        migrations.AlterField("recheck", "result", models.JSONField(null=True)),
        migrations.RunPython(to_bytes, to_json, atomic=True),
        migrations.RemoveField("recheck", "result"),
        migrations.AlterField("recheck", "sheet_gz", models.BinaryField()),
        migrations.AlterField("recheck", "steps_gz", models.BinaryField()),
    ]
