"""A second signature stays as it was given; the database sees to it."""

from django.db import migrations

FORWARD = """
CREATE TRIGGER signed_is_for_good BEFORE UPDATE OR DELETE ON reports_countersignature
    FOR EACH ROW EXECUTE FUNCTION plumb_refuse_change();
CREATE TRIGGER never_emptied BEFORE TRUNCATE ON reports_countersignature
    FOR EACH STATEMENT EXECUTE FUNCTION plumb_refuse_change();
"""
BACKWARD = """
DROP TRIGGER never_emptied ON reports_countersignature;
DROP TRIGGER signed_is_for_good ON reports_countersignature;
"""


class Migration(migrations.Migration):
    dependencies = [("reports", "0004_plans_and_formats"), ("findings", "0006_what_is_issued_stays")]
    operations = [migrations.RunSQL(FORWARD, BACKWARD)]
