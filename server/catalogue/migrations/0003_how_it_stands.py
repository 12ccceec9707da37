"""A change of a size says how the size stands since."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("catalogue", "0002_catalogue_change")]

    operations = [
        migrations.AddField(
            "cataloguechange",
            "stands",
            models.CharField(default="", help_text="hash of the size as it stands since", max_length=64),
        )
    ]
