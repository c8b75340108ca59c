from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("reference", "0001_initial")]

    operations = [migrations.RenameField("modelrevision", "model", "document")]
