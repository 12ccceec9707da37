"""Where the journal of a site ends."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("accounts", "0004_failed_sign_in_session")]

    operations = [
        migrations.AddField(
            "site",
            "journal_head",
            models.CharField(default="0" * 64, help_text="and the hash of that line", max_length=64),
        ),
        migrations.AddField(
            "site", "journal_number", models.PositiveIntegerField(default=0, help_text="the last line of its journal")
        ),
    ]
