"""An issued report stays as it was signed, and nothing that is kept for good can be emptied at once."""

from django.db import migrations

FOR_GOOD = (
    "reviews_auditentry",
    "reports_report",
    "findings_message",
    "findings_finding",
    "submissions_submission",
    "submissions_exhibit",
    "submissions_claimtable",
    "submissions_claim",
)

FORWARD = """
CREATE TRIGGER issued_is_for_good BEFORE UPDATE OR DELETE ON reports_report
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_change();
""" + "".join(
    f"CREATE TRIGGER never_emptied BEFORE TRUNCATE ON {table} "
    "FOR EACH STATEMENT EXECUTE FUNCTION plumb_refuse_change();\n"
    for table in FOR_GOOD
)
BACKWARD = "DROP TRIGGER issued_is_for_good ON reports_report;\n" + "".join(
    f"DROP TRIGGER never_emptied ON {table};\n" for table in FOR_GOOD
)


class Migration(migrations.Migration):
    dependencies = [
        ("reports", "0002_printing"),
        ("findings", "0006_what_is_issued_stays"),
        ("submissions", "0008_counts_and_accepted_tables"),
        ("reviews", "0006_review_origin"),
    ]
    operations = [migrations.RunSQL(FORWARD, BACKWARD)]
