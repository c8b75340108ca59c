from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("reviews", "0002_what_cannot_be_changed")]

    operations = [migrations.RenameField("briefrevision", "brief", "document")]
