"""The cases that stored claims name, each with the direction of its claims and what its name tells."""

from django.db import migrations
from plumb_core.intake.names import role_of


def cases_of_claims(apps, schema_editor):
    claim, case = apps.get_model("submissions", "Claim"), apps.get_model("submissions", "Case")
    named = claim.objects.exclude(case="").values_list("submission_id", "case", "direction").order_by("id")
    directions = {}
    for submission, name, direction in named:
        directions.setdefault((submission, name), set()).add(direction)
    for (submission, name), own in directions.items():
        role = role_of(name, own.pop() if len(own) == 1 else "")
        case.objects.get_or_create(
            submission_id=submission,
            name=name,
            defaults={"kind": role.kind, "direction": role.direction, "step": role.step},
        )


class Migration(migrations.Migration):
    dependencies = [("submissions", "0003_load_cases")]

    operations = [migrations.RunPython(cases_of_claims, migrations.RunPython.noop)]
