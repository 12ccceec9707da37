"""Each entry keeps what it answered. Those that stand get what the route asks today, marked as filled in afterwards."""

import json
from typing import Any

from django.db import migrations, models

AFTERWARDS = "filled in afterwards, from the route as it was then"


def fill_in(apps: Any, schema_editor: Any) -> None:
    """The trigger that keeps entries from being changed steps aside for this one column, in this one transaction."""
    from millwright.line import LineSpec
    from millwright.job.asked import asked_of
    from millwright.job.entry import Entry, EntryKind
    from millwright.job.stand import stand
    from millwright.roles import Role
    from millwright.scope import Scope
    from millwright.card.values import Value
    from millwright.verdict import Verdict

    jobs, entries = apps.get_model("jobs", "Job"), apps.get_model("jobs", "Entry")
    with schema_editor.connection.cursor() as cursor:
        cursor.execute("ALTER TABLE jobs_entry DISABLE TRIGGER entry_append_only")
        for job in jobs.objects.all().iterator():
            rows = list(entries.objects.filter(job=job).order_by("number"))
            card = {key: Value.model_validate(value) for key, value in job.card.items()}
            known = [
                Entry(
                    id=str(e.id),
                    number=e.number,
                    step=e.step,
                    kind=EntryKind(e.kind),
                    inputs=e.inputs,
                    verdict=Verdict(e.result["verdict"]) if e.result else None,
                    by=e.by,
                    role=Role(e.role),
                    at=e.at,
                )
                for e in rows
            ]
            route = stand(LineSpec.model_validate(job.spec), card, known, [], Scope(job.scope))
            for entry in rows:
                now = route.find(entry.step)
                asked = {**(asked_of(now.step) if now else {}), "note": AFTERWARDS}
                cursor.execute("UPDATE jobs_entry SET asked = %s WHERE id = %s", [json.dumps(asked), entry.id])
        cursor.execute("ALTER TABLE jobs_entry ENABLE TRIGGER entry_append_only")


class Migration(migrations.Migration):
    dependencies = [("jobs", "0005_jobs_that_mount_nothing")]

    operations = [
        migrations.AddField(
            model_name="entry",
            name="asked",
            field=models.JSONField(
                default=dict, help_text="millwright.route.asked: what it answered, as it was asked then"
            ),
        ),
        migrations.RunPython(fill_in, migrations.RunPython.noop),
    ]
