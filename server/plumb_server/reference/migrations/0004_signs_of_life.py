"""When a run last gave a sign of life."""

import django.utils.timezone
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("reference", "0003_kinds_name_cases")]

    operations = [
        migrations.AddField(
            model_name="run",
            name="seen_at",
            field=models.DateTimeField(auto_now=True, default=django.utils.timezone.now),
            preserve_default=False,
        )
    ]
