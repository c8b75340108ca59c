"""A finding counts its changes."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("findings", "0003_ids_of_kind_key_and_place")]

    operations = [
        migrations.AddField(model_name="finding", name="revision", field=models.PositiveIntegerField(default=1))
    ]
