"""A change of a line says how the line stands since."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("plant", "0003_rounds")]

    operations = [
        migrations.AddField(
            "linechange",
            "stands",
            models.CharField(default="", help_text="hash of the line as it stands since", max_length=64),
        )
    ]
