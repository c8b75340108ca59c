"""Nothing is moved into an accepted submission either: the triggers look at both sides of an update."""

from django.db import migrations

OF_SUBMISSION = """
CREATE OR REPLACE FUNCTION plumb_refuse_if_accepted() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
    belongs_to bigint[];
BEGIN
    IF TG_TABLE_NAME = 'submissions_submission' THEN
        belongs_to := ARRAY[OLD.id];
    ELSIF TG_OP = 'INSERT' THEN
        belongs_to := ARRAY[NEW.submission_id];
    ELSIF TG_OP = 'UPDATE' THEN
        belongs_to := ARRAY[OLD.submission_id, NEW.submission_id];
    ELSE
        belongs_to := ARRAY[OLD.submission_id];
    END IF;
    IF EXISTS (SELECT 1 FROM submissions_submission WHERE id = ANY (belongs_to) AND status = 'accepted') THEN
        RAISE EXCEPTION 'an accepted submission can''t be changed' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    IF TG_OP = 'DELETE' THEN
        RETURN OLD;
    END IF;
    RETURN NEW;
END $$;
"""
OF_TABLES = """
CREATE OR REPLACE FUNCTION plumb_refuse_tables_of_accepted() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
    of_exhibits bigint[];
BEGIN
    IF TG_OP = 'INSERT' THEN
        of_exhibits := ARRAY[NEW.exhibit_id];
    ELSIF TG_OP = 'UPDATE' THEN
        of_exhibits := ARRAY[OLD.exhibit_id, NEW.exhibit_id];
    ELSE
        of_exhibits := ARRAY[OLD.exhibit_id];
    END IF;
    IF EXISTS (
        SELECT 1 FROM submissions_exhibit e JOIN submissions_submission s ON s.id = e.submission_id
        WHERE s.status = 'accepted' AND e.id = ANY (of_exhibits)
    ) THEN
        RAISE EXCEPTION 'an accepted submission can''t be changed' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    IF TG_OP = 'DELETE' THEN
        RETURN OLD;
    END IF;
    RETURN NEW;
END $$;
"""
OF_CLAIMS = """
CREATE TRIGGER accepted_is_for_good_update_into AFTER UPDATE ON submissions_claim
    REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION plumb_refuse_claims_of_accepted();
"""


class Migration(migrations.Migration):
    dependencies = [("submissions", "0010_profiles_of_tables")]
    operations = [
        migrations.RunSQL(OF_SUBMISSION, migrations.RunSQL.noop),
        migrations.RunSQL(OF_TABLES, migrations.RunSQL.noop),
        migrations.RunSQL(OF_CLAIMS, "DROP TRIGGER accepted_is_for_good_update_into ON submissions_claim"),
    ]
