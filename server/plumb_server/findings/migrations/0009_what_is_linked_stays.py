"""What was linked to a finding stays as it was, and what is attached to an issued one; the database sees to it."""

from django.db import migrations

FORWARD = """
CREATE TRIGGER linked_is_for_good BEFORE UPDATE OR DELETE ON findings_furthercheck
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_change();
CREATE FUNCTION plumb_refuse_if_attached() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF TG_OP = 'UPDATE' OR EXISTS (
        SELECT 1 FROM findings_finding f WHERE f.id = OLD.finding_id AND f.issued_at IS NOT NULL
    ) THEN
        RAISE EXCEPTION 'what is attached stays as it is' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    RETURN OLD;
END $$;
CREATE TRIGGER attached_is_for_good BEFORE UPDATE OR DELETE ON findings_attachment
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_if_attached();
""" + "".join(
    f"CREATE TRIGGER never_emptied BEFORE TRUNCATE ON {table} "
    "FOR EACH STATEMENT EXECUTE FUNCTION plumb_refuse_change();\n"
    for table in ("findings_furthercheck", "findings_attachment")
)
BACKWARD = """
DROP TRIGGER never_emptied ON findings_furthercheck;
DROP TRIGGER never_emptied ON findings_attachment;
DROP TRIGGER attached_is_for_good ON findings_attachment;
DROP FUNCTION plumb_refuse_if_attached();
DROP TRIGGER linked_is_for_good ON findings_furthercheck;
"""


class Migration(migrations.Migration):
    dependencies = [("findings", "0008_at_work"), ("reports", "0003_what_is_issued_stays")]
    operations = [migrations.RunSQL(FORWARD, BACKWARD)]
