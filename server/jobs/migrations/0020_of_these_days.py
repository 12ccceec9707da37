"""Nothing is entered or signed before 1990. What stands there from before is left as it is: it can be read all the same."""

from datetime import UTC, datetime

from django.contrib.postgres.operations import AddConstraintNotValid
from django.db import migrations, models

EARLIEST = datetime(1990, 1, 1, tzinfo=UTC)


class Migration(migrations.Migration):
    dependencies = [("jobs", "0019_head_of_the_chain")]

    operations = [
        AddConstraintNotValid(
            model, models.CheckConstraint(condition=models.Q((f"{at}__gte", EARLIEST)), name=f"{model}_of_these_days")
        )
        for model, at in (("job", "started_at"), ("entry", "at"), ("signature", "at"))
    ]
