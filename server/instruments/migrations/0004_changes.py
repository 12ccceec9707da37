"""What becomes of an instrument is a history: appended, never changed."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("accounts", "0005_journal"),
        ("instruments", "0003_register"),
        ("jobs", "0002_append_only"),
    ]

    operations = [
        migrations.CreateModel(
            name="InstrumentChange",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("kind", models.CharField(max_length=20)),
                ("name", models.CharField(max_length=60)),
                ("what", models.CharField(max_length=200)),
                ("stands", models.CharField(help_text="hash of the instrument as it stands since", max_length=64)),
                ("by", models.CharField(max_length=150)),
                ("role", models.CharField(max_length=12)),
                ("at", models.DateTimeField()),
                (
                    "site",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT,
                        related_name="instrument_changes",
                        to="accounts.site",
                    ),
                ),
            ],
            options={
                "ordering": ["-id"],
                "indexes": [models.Index(fields=["site", "kind", "name"], name="instrument_changes")],
            },
        ),
        migrations.RunSQL(
            "CREATE TRIGGER instrument_change_append_only BEFORE UPDATE OR DELETE ON instruments_instrumentchange"
            " FOR EACH ROW EXECUTE FUNCTION refuse_change()",
            "DROP TRIGGER instrument_change_append_only ON instruments_instrumentchange",
        ),
    ]
