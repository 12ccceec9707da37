"""Columns of JSON are read by a faster library; the database holds them as it did."""

from django.db import migrations, models

from server.web.fast_json import FastDecoder


class Migration(migrations.Migration):
    dependencies = [("jobs", "0020_of_these_days")]

    operations = [
        migrations.AlterField(
            "job", "tasks", models.JSONField(default=list, help_text="what a job of upkeep is there to do")
        ),
        migrations.AlterField(
            "entry",
            "asked",
            models.JSONField(
                decoder=FastDecoder, default=dict, help_text="what it answered, as it was asked then"
            ),
        ),
        migrations.AlterField("entry", "inputs", models.JSONField(decoder=FastDecoder)),
        migrations.AlterField("entry", "result", models.JSONField(decoder=FastDecoder, null=True)),
        migrations.AlterField(
            "entry",
            "typed",
            models.JSONField(decoder=FastDecoder, default=dict, help_text="path into the inputs → what was typed there"),
        ),
    ]
