"""A look may be a slip, and none is older than 1990."""

from datetime import UTC, datetime

import django.db.models.deletion
from django.conf import settings
from django.contrib.postgres.operations import AddConstraintNotValid
from django.db import migrations, models

EARLIEST = datetime(1990, 1, 1, tzinfo=UTC)


class Migration(migrations.Migration):
    dependencies = [("plant", "0004_how_it_stands"), migrations.swappable_dependency(settings.AUTH_USER_MODEL)]

    operations = [
        migrations.CreateModel(
            name="LookSlip",
            fields=[
                (
                    "look",
                    models.OneToOneField(
                        on_delete=django.db.models.deletion.PROTECT,
                        primary_key=True,
                        related_name="slip",
                        serialize=False,
                        to="plant.linelook",
                    ),
                ),
                ("because", models.CharField(max_length=400)),
                ("by", models.CharField(max_length=150)),
                ("role", models.CharField(max_length=12)),
                ("at", models.DateTimeField()),
                (
                    "person",
                    models.ForeignKey(
                        null=True,
                        on_delete=django.db.models.deletion.PROTECT,
                        related_name="+",
                        to=settings.AUTH_USER_MODEL,
                    ),
                ),
            ],
            options={
                "constraints": [
                    models.CheckConstraint(
                        condition=models.Q(("because", ""), _negated=True), name="look_slip_with_a_reason"
                    )
                ]
            },
        ),
        migrations.RunSQL(
            "CREATE TRIGGER look_slip_append_only BEFORE UPDATE OR DELETE ON plant_lookslip"
            " FOR EACH ROW EXECUTE FUNCTION refuse_change()",
            "DROP TRIGGER look_slip_append_only ON plant_lookslip",
        ),
        AddConstraintNotValid(
            "linelook",
            models.CheckConstraint(condition=models.Q(("at__gte", EARLIEST)), name="look_of_these_days"),
        ),
    ]
