"""Checks that findings rest on are named by kind, key and place; stored evidence says of which kind it is."""

import re

from django.db import migrations
from plumb_core.checks.earlier_ids import present_id

KINDS = (
    (r"gap_", "gap"),
    (r"sum_", "sum"),
    (r"mass_sum\.", "target"),
    (r"missing_mode", "missing_mode"),
    (r"axes_swapped", "axes"),
    (r"unplaced_", "unplaced"),
    (r"m\.", "mass"),
    (r"f_mode", "reciprocal"),
    (r"mass_running", "running_sum"),
    (r"(T_mode|mass_ratio)", "mode"),
)


def _shown(check):
    """The side that was shown: the carried one where the deviation starts here."""
    if check.get("carried") and (check.get("role") == "origin" or not check.get("independent")):
        return "carried"
    return "independent" if check.get("independent") else None


def _today(check):
    if not isinstance(check, dict) or "id" not in check or "kind" in check:
        return check
    earlier = str(check["id"])
    kind = next((k for pattern, k in KINDS if re.match(pattern, earlier)), "value")
    written = (check.get("theirs") or {}).get("text", "")
    derivation = [{**step, "case": step.get("case")} for step in check.get("derivation", [])]
    return {
        **check,
        "id": present_id(earlier, written),
        "kind": kind,
        "shown": _shown(check),
        "rests_on": [present_id(str(i)) for i in check.get("rests_on", [])],
        **({"derivation": derivation} if "derivation" in check else {}),
    }


def name_by_place(apps, schema_editor):
    for finding in apps.get_model("findings", "Finding").objects.all():
        evidence = [_today(check) for check in finding.evidence]
        renamed = {
            str(old["id"]): new["id"]
            for old, new in zip(finding.evidence, evidence, strict=True)
            if isinstance(old, dict) and "id" in old
        }
        finding.checks = [renamed.get(str(i), present_id(str(i))) for i in finding.checks]
        finding.evidence = evidence
        finding.save(update_fields=["checks", "evidence"])


class Migration(migrations.Migration):
    dependencies = [("findings", "0002_submissions_have_an_app")]

    operations = [migrations.RunPython(name_by_place, migrations.RunPython.noop)]
