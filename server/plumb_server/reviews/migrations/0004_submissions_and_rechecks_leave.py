"""What has apps of its own leaves the app of reviews; its tables stay in the database."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [
        ("reviews", "0003_a_state_holds_a_document"),
        ("submissions", "0001_from_reviews"),
        ("rechecks", "0001_from_reviews"),
        ("findings", "0002_submissions_have_an_app"),
    ]

    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.DeleteModel(name="Claim"),
                migrations.DeleteModel(name="ClaimTable"),
                migrations.DeleteModel(name="Exhibit"),
                migrations.DeleteModel(name="Submission"),
                migrations.DeleteModel(name="Recheck"),
            ]
        )
    ]
