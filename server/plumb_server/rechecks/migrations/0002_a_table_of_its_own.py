"""The table takes the app's name."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("rechecks", "0001_from_reviews"), ("reviews", "0004_submissions_and_rechecks_leave")]

    operations = [migrations.AlterModelTable(name="recheck", table=None)]
