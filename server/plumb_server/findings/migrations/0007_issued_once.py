"""What was issued once keeps its text for good, also after it was withdrawn; the database sees to it."""

from django.db import migrations, models

KNOWN = """
UPDATE findings_finding f SET issued_at = changed_at
WHERE status IN ('issued', 'answered', 'settled') OR EXISTS (
    SELECT 1 FROM reviews_auditentry a
    WHERE a.review_id = f.review_id AND a.action = 'finding issued' AND (a.detail ->> 'finding') = f.number::text
);
"""

FORWARD = """
DROP TRIGGER issued_is_for_good ON findings_finding;
CREATE OR REPLACE FUNCTION plumb_refuse_if_issued() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF TG_OP <> 'INSERT' AND OLD.issued_at IS NOT NULL THEN
        IF TG_OP = 'DELETE' THEN
            RAISE EXCEPTION 'an issued finding stays' USING ERRCODE = 'integrity_constraint_violation';
        END IF;
        IF NEW.status = 'draft' OR (OLD.review_id, OLD.number, OLD.severity, OLD.title, OLD.clause, OLD.text,
            OLD.checks, OLD.evidence, OLD.submission_id, OLD.author_id, OLD.created_at, OLD.issued_at)
            IS DISTINCT FROM
           (NEW.review_id, NEW.number, NEW.severity, NEW.title, NEW.clause, NEW.text,
            NEW.checks, NEW.evidence, NEW.submission_id, NEW.author_id, NEW.created_at, NEW.issued_at) THEN
            RAISE EXCEPTION 'an issued finding stays as it is' USING ERRCODE = 'integrity_constraint_violation';
        END IF;
    END IF;
    IF TG_OP = 'DELETE' THEN
        RETURN OLD;
    END IF;
    IF NEW.status IN ('issued', 'answered', 'settled') AND NEW.issued_at IS NULL THEN
        NEW.issued_at := now();
    END IF;
    RETURN NEW;
END $$;
CREATE TRIGGER issued_is_for_good BEFORE INSERT OR UPDATE OR DELETE ON findings_finding
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_if_issued();
"""
BACKWARD = """
DROP TRIGGER issued_is_for_good ON findings_finding;
CREATE OR REPLACE FUNCTION plumb_refuse_if_issued() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF OLD.status IN ('issued', 'answered', 'settled') AND TG_OP = 'DELETE' THEN
        RAISE EXCEPTION 'an issued finding stays' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    IF TG_OP = 'DELETE' THEN
        RETURN OLD;
    END IF;
    RETURN NEW;
END $$;
CREATE TRIGGER issued_is_for_good BEFORE UPDATE OR DELETE ON findings_finding
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_if_issued();
"""


class Migration(migrations.Migration):
    dependencies = [("findings", "0006_what_is_issued_stays"), ("reviews", "0008_office_thresholds")]
    operations = [
        migrations.AddField("finding", "issued_at", models.DateTimeField(null=True)),
        migrations.RunSQL(KNOWN, migrations.RunSQL.noop),
        migrations.RunSQL(FORWARD, BACKWARD),
    ]
