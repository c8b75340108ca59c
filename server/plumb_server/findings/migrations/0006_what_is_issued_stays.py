"""What was issued stays as it was, and what was written stays written; the database sees to it."""

from django.db import migrations

FORWARD = """
CREATE FUNCTION plumb_refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'what was written stays as it is' USING ERRCODE = 'integrity_constraint_violation';
END $$;
CREATE TRIGGER written_is_for_good BEFORE UPDATE OR DELETE ON findings_message
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_change();

CREATE FUNCTION plumb_refuse_if_issued() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF OLD.status IN ('issued', 'answered', 'settled') THEN
        IF TG_OP = 'DELETE' THEN
            RAISE EXCEPTION 'an issued finding stays' USING ERRCODE = 'integrity_constraint_violation';
        END IF;
        IF (OLD.review_id, OLD.number, OLD.severity, OLD.title, OLD.clause, OLD.text, OLD.checks, OLD.evidence,
            OLD.submission_id, OLD.author_id, OLD.created_at)
            IS DISTINCT FROM
           (NEW.review_id, NEW.number, NEW.severity, NEW.title, NEW.clause, NEW.text, NEW.checks, NEW.evidence,
            NEW.submission_id, NEW.author_id, NEW.created_at) THEN
            RAISE EXCEPTION 'an issued finding stays as it is' USING ERRCODE = 'integrity_constraint_violation';
        END IF;
    END IF;
    IF TG_OP = 'DELETE' THEN
        RETURN OLD;
    END IF;
    RETURN NEW;
END $$;
CREATE TRIGGER issued_is_for_good BEFORE UPDATE OR DELETE ON findings_finding
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_if_issued();
"""
BACKWARD = """
DROP TRIGGER issued_is_for_good ON findings_finding;
DROP FUNCTION plumb_refuse_if_issued();
DROP TRIGGER written_is_for_good ON findings_message;
DROP FUNCTION plumb_refuse_change();
"""


class Migration(migrations.Migration):
    dependencies = [("findings", "0005_finding_origin")]
    operations = [migrations.RunSQL(FORWARD, BACKWARD)]
