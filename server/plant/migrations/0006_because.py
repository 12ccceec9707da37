"""Why what stands on a card was changed."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("plant", "0005_looks_that_were_slips")]
    operations = [migrations.AddField("linechange", "because", models.CharField(blank=True, default="", max_length=400), preserve_default=False)]
