"""The audit trail can't be edited, and neither can what belongs to an accepted submission; the database sees to it."""

from django.db import migrations

FORWARD = """
CREATE FUNCTION plumb_refuse() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'the audit trail can''t be changed' USING ERRCODE = 'integrity_constraint_violation';
END $$;
CREATE TRIGGER audit_is_for_good BEFORE UPDATE OR DELETE ON reviews_auditentry
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse();

CREATE FUNCTION plumb_refuse_if_accepted() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
    belongs_to bigint;
BEGIN
    IF TG_TABLE_NAME = 'reviews_submission' THEN
        belongs_to := OLD.id;
    ELSIF TG_OP = 'INSERT' THEN
        belongs_to := NEW.submission_id;
    ELSE
        belongs_to := OLD.submission_id;
    END IF;
    IF EXISTS (SELECT 1 FROM reviews_submission WHERE id = belongs_to AND status = 'accepted') THEN
        RAISE EXCEPTION 'an accepted submission can''t be changed' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    IF TG_OP = 'DELETE' THEN
        RETURN OLD;
    END IF;
    RETURN NEW;
END $$;
CREATE TRIGGER accepted_is_for_good BEFORE UPDATE OR DELETE ON reviews_submission
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_if_accepted();
CREATE TRIGGER accepted_is_for_good BEFORE INSERT OR UPDATE OR DELETE ON reviews_exhibit
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_if_accepted();
CREATE TRIGGER accepted_is_for_good BEFORE INSERT OR UPDATE OR DELETE ON reviews_claim
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_if_accepted();
"""
BACKWARD = """
DROP TRIGGER accepted_is_for_good ON reviews_claim;
DROP TRIGGER accepted_is_for_good ON reviews_exhibit;
DROP TRIGGER accepted_is_for_good ON reviews_submission;
DROP TRIGGER audit_is_for_good ON reviews_auditentry;
DROP FUNCTION plumb_refuse_if_accepted();
DROP FUNCTION plumb_refuse();
"""


class Migration(migrations.Migration):
    dependencies = [("reviews", "0001_initial")]
    operations = [migrations.RunSQL(FORWARD, BACKWARD)]
