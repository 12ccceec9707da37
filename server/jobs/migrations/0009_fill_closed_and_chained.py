"""What stands gets its links; a job whose closing signature is there is closed; of two open jobs on a line the newest stays."""

from typing import Any

from django.db import migrations
from django.db.models import Q

CLOSING = "close.sign"
TWO_OPEN = "Two jobs were open on this line; the newest one goes on."


def fill_in(apps: Any, schema_editor: Any) -> None:
    """The triggers step aside for this one column, in this one transaction."""
    from server.jobs.chain import link_without_person as link
    from server.journal.digest import START

    jobs, entries, signatures = (apps.get_model("jobs", name) for name in ("Job", "Entry", "Signature"))
    with schema_editor.connection.cursor() as cursor:
        for table, trigger in (("entry", "entry"), ("signature", "signature")):
            cursor.execute(f"ALTER TABLE jobs_{table} DISABLE TRIGGER {trigger}_append_only")
        for job in jobs.objects.all().iterator():
            before = START
            rows = [*entries.objects.filter(job=job), *signatures.objects.filter(job=job)]
            for row in sorted(rows, key=lambda row: row.number):
                before = link(before, row)
                cursor.execute(f"UPDATE {row._meta.db_table} SET chain = %s WHERE id = %s", [before, row.id])  # noqa: S608
            closing = signatures.objects.filter(job=job, step=CLOSING, kind="hold").order_by("number").first()
            if closing is not None:
                jobs.objects.filter(pk=job.pk).update(closed_at=closing.at)
        for job in jobs.objects.filter(closed_at__isnull=True).order_by("-number"):
            newer = jobs.objects.filter(Q(line=job.line_id), closed_at__isnull=True, number__gt=job.number)
            if newer.exists():
                jobs.objects.filter(pk=job.pk).update(
                    closed_at=job.started_at, cancelled_by="Young Anvil", cancelled_because=TWO_OPEN
                )
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
        for table, trigger in (("entry", "entry"), ("signature", "signature")):
            cursor.execute(f"ALTER TABLE jobs_{table} ENABLE TRIGGER {trigger}_append_only")


class Migration(migrations.Migration):
    dependencies = [("jobs", "0008_closed_and_chained")]

    operations = [migrations.RunPython(fill_in, migrations.RunPython.noop)]
