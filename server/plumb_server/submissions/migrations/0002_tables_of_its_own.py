"""The tables take the app's name; the trigger that keeps accepted submissions follows them."""

from django.db import migrations

FUNCTION = """
CREATE OR REPLACE FUNCTION plumb_refuse_if_accepted() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
    belongs_to bigint;
BEGIN
    IF TG_TABLE_NAME = '{table}' THEN
        belongs_to := OLD.id;
    ELSIF TG_OP = 'INSERT' THEN
        belongs_to := NEW.submission_id;
    ELSE
        belongs_to := OLD.submission_id;
    END IF;
    IF EXISTS (SELECT 1 FROM {table} WHERE id = belongs_to AND status = 'accepted') THEN
        RAISE EXCEPTION 'an accepted submission can''t be changed' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    IF TG_OP = 'DELETE' THEN
        RETURN OLD;
    END IF;
    RETURN NEW;
END $$;
"""


class Migration(migrations.Migration):
    dependencies = [
        ("submissions", "0001_from_reviews"),
        ("reviews", "0004_submissions_and_rechecks_leave"),
    ]

    operations = [
        migrations.AlterModelTable(name="submission", table=None),
        migrations.AlterModelTable(name="exhibit", table=None),
        migrations.AlterModelTable(name="claimtable", table=None),
        migrations.AlterModelTable(name="claim", table=None),
        migrations.RunSQL(
            FUNCTION.format(table="submissions_submission"), FUNCTION.format(table="reviews_submission")
        ),
        migrations.RenameField(model_name="claimtable", old_name="mapping", new_name="reading"),
    ]
