"""Tables count their claims; claims of an accepted submission are kept by one look for each statement, not for each row.

A table of 100,000 claims was looked at 100,000 times. What is accepted can't be emptied at once either.
"""

from django.db import migrations, models

COUNT = """
UPDATE submissions_claimtable t SET count = (SELECT count(*) FROM submissions_claim c WHERE c.table_id = t.id);
"""

FORWARD = """
DROP TRIGGER accepted_is_for_good ON submissions_claim;

CREATE FUNCTION plumb_refuse_claims_of_accepted() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF EXISTS (
        SELECT 1 FROM submissions_submission s
        WHERE s.status = 'accepted' AND s.id IN (SELECT DISTINCT submission_id FROM changed)
    ) THEN
        RAISE EXCEPTION 'an accepted submission can''t be changed' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    RETURN NULL;
END $$;
CREATE TRIGGER accepted_is_for_good_insert AFTER INSERT ON submissions_claim
    REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION plumb_refuse_claims_of_accepted();
CREATE TRIGGER accepted_is_for_good_update AFTER UPDATE ON submissions_claim
    REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION plumb_refuse_claims_of_accepted();
CREATE TRIGGER accepted_is_for_good_delete AFTER DELETE ON submissions_claim
    REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION plumb_refuse_claims_of_accepted();

CREATE FUNCTION plumb_refuse_tables_of_accepted() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF EXISTS (
        SELECT 1 FROM submissions_exhibit e JOIN submissions_submission s ON s.id = e.submission_id
        WHERE s.status = 'accepted' AND e.id = COALESCE(OLD.exhibit_id, NEW.exhibit_id)
    ) THEN
        RAISE EXCEPTION 'an accepted submission can''t be changed' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    IF TG_OP = 'DELETE' THEN
        RETURN OLD;
    END IF;
    RETURN NEW;
END $$;
CREATE TRIGGER accepted_is_for_good BEFORE INSERT OR UPDATE OR DELETE ON submissions_claimtable
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_tables_of_accepted();
"""
BACKWARD = """
DROP TRIGGER accepted_is_for_good ON submissions_claimtable;
DROP FUNCTION plumb_refuse_tables_of_accepted();
DROP TRIGGER accepted_is_for_good_insert ON submissions_claim;
DROP TRIGGER accepted_is_for_good_update ON submissions_claim;
DROP TRIGGER accepted_is_for_good_delete ON submissions_claim;
DROP FUNCTION plumb_refuse_claims_of_accepted();
CREATE TRIGGER accepted_is_for_good BEFORE INSERT OR UPDATE OR DELETE ON submissions_claim
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_if_accepted();
"""


class Migration(migrations.Migration):
    dependencies = [("submissions", "0007_case_revision_exhibit_author")]

    operations = [
        migrations.AddField("claimtable", "count", models.PositiveIntegerField(default=0)),
        migrations.RunSQL(COUNT, migrations.RunSQL.noop),
        migrations.RunSQL(FORWARD, BACKWARD),
    ]
