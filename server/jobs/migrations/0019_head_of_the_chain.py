"""What a job was started with is its first link, cancelling is a signature, and its row knows where its chain ends."""

import uuid
from typing import Any

from django.db import migrations, models

HASH = "^[0-9a-f]{64}$"
STAYS = """
CREATE OR REPLACE FUNCTION refuse_job_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF (NEW.id, NEW.site_id, NEW.line_id, NEW.number, NEW.title, NEW.scope, NEW.procedure, NEW.spec, NEW.card, NEW.started_by,
        NEW.started_at, NEW.read_in, NEW.edition, NEW.tasks, NEW.unit, NEW.start)
       IS DISTINCT FROM
       (OLD.id, OLD.site_id, OLD.line_id, OLD.number, OLD.title, OLD.scope, OLD.procedure, OLD.spec, OLD.card, OLD.started_by,
        OLD.started_at, OLD.read_in, OLD.edition, OLD.tasks, OLD.unit, OLD.start)
    THEN
        RAISE EXCEPTION 'a job keeps what it was started with' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    IF OLD.closed_at IS NOT NULL AND (NEW.closed_at, NEW.cancelled_by, NEW.cancelled_because)
       IS DISTINCT FROM (OLD.closed_at, OLD.cancelled_by, OLD.cancelled_because)
    THEN
        RAISE EXCEPTION 'a closed job stays closed' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    IF NEW.last_number < OLD.last_number THEN
        RAISE EXCEPTION 'numbers do not run back' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    RETURN NEW;
END $$;
CREATE FUNCTION follow_job() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    UPDATE jobs_job SET last_number = NEW.number, head = NEW.chain, head_at = NEW.at
    WHERE id = NEW.job_id AND last_number = NEW.number - 1;
    IF NOT FOUND THEN
        RAISE EXCEPTION '% is not the next number of this job', NEW.number USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    RETURN NEW;
END $$;
CREATE TRIGGER entry_in_order BEFORE INSERT ON jobs_entry FOR EACH ROW EXECUTE FUNCTION follow_job();
CREATE TRIGGER signature_in_order BEFORE INSERT ON jobs_signature FOR EACH ROW EXECUTE FUNCTION follow_job();
DROP TRIGGER job_told ON jobs_job;
CREATE TRIGGER job_told AFTER UPDATE OF closed_at, cancelled_by, cancelled_because, taken_over_at ON jobs_job
    FOR EACH ROW EXECUTE FUNCTION tell_of_job();
"""
STOOD = """
DROP TRIGGER job_told ON jobs_job;
CREATE TRIGGER job_told AFTER UPDATE ON jobs_job FOR EACH ROW EXECUTE FUNCTION tell_of_job();
DROP TRIGGER signature_in_order ON jobs_signature;
DROP TRIGGER entry_in_order ON jobs_entry;
DROP FUNCTION follow_job();
"""


def fill_in(apps: Any, schema_editor: Any) -> None:
    """A job from before has its first link beside its chain, which began with nothing; a cancelled one gets its signature."""
    from server.jobs.chain import first_link, link

    jobs, entries, signatures = (apps.get_model("jobs", name) for name in ("Job", "Entry", "Signature"))
    with schema_editor.connection.cursor() as cursor:
        cursor.execute("ALTER TABLE jobs_job DISABLE TRIGGER job_stays_as_started")
        cursor.execute("ALTER TABLE jobs_job DISABLE TRIGGER job_told")
    for job in list(jobs.objects.all()):
        job.start = job.head = first_link(job)
        lasts = [rows.objects.filter(job=job).order_by("number").last() for rows in (entries, signatures)]
        for last in sorted((row for row in lasts if row is not None), key=lambda row: row.number):
            job.last_number, job.head, job.head_at = last.number, last.chain, last.at
        if job.cancelled_by:
            cancelled = signatures(
                job=job,
                number=job.last_number + 1,
                kind="cancel",
                step="",
                reason=job.cancelled_because or "not said",
                by=job.cancelled_by,
                role="lead",
                at=max(job.closed_at, job.head_at or job.closed_at),
            )
            cancelled.chain = link(job.head if job.last_number else job.start, cancelled)
            cancelled.save(force_insert=True)
            job.last_number, job.head, job.head_at = cancelled.number, cancelled.chain, cancelled.at
        kept = {"start": job.start, "last_number": job.last_number, "head": job.head, "head_at": job.head_at}
        jobs.objects.filter(pk=job.pk).update(**kept)
    with schema_editor.connection.cursor() as cursor:
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
        cursor.execute("ALTER TABLE jobs_job ENABLE TRIGGER job_stays_as_started")
        cursor.execute("ALTER TABLE jobs_job ENABLE TRIGGER job_told")


class Migration(migrations.Migration):
    dependencies = [("jobs", "0018_upkeep")]

    operations = [
        migrations.AddField(
            "job",
            "taken_over_at",
            models.DateTimeField(help_text="of a job from a file: since when it counts here", null=True),
        ),
        migrations.AlterField(
            "job",
            "read_in",
            models.JSONField(help_text="of a job from a file: server.reports.exchange says what", null=True),
        ),
        migrations.AddField(
            "job",
            "start",
            models.CharField(default="", help_text="hash of what it was started with: the first link", max_length=64),
        ),
        migrations.AddField(
            "job",
            "last_number",
            models.PositiveIntegerField(default=0, help_text="of what was entered and signed; kept by the database"),
        ),
        migrations.AddField(
            "job", "head", models.CharField(default="", help_text="and its hash: a cut tail shows", max_length=64)
        ),
        migrations.AddField("job", "head_at", models.DateTimeField(help_text="and when that was", null=True)),
        *(
            migrations.AddField(
                model,
                "whose",
                models.BigIntegerField(help_text="number of that person where it was entered: it is in the chain", null=True),
            )
            for model in ("entry", "signature")
        ),
        migrations.AlterField("signature", "id", models.UUIDField(default=uuid.uuid4, primary_key=True, serialize=False)),
        migrations.AlterField(
            "signature",
            "step",
            models.CharField(blank=True, help_text="empty where the whole job is meant", max_length=60),
        ),
        migrations.RemoveConstraint("signature", "signature_kind_known"),
        migrations.RemoveConstraint("signature", "signature_authorised_with_a_reason"),
        migrations.AddConstraint(
            "signature",
            models.CheckConstraint(
                condition=models.Q(("kind__in", ["hold", "authorise", "cancel", "take over"])), name="signature_kind_known"
            ),
        ),
        migrations.AddConstraint(
            "signature",
            models.CheckConstraint(
                condition=models.Q(("kind__in", ("hold", "take over")), models.Q(("reason", ""), _negated=True), _connector="OR"),
                name="signature_authorised_with_a_reason",
            ),
        ),
        migrations.RunPython(fill_in, migrations.RunPython.noop),
        migrations.AddConstraint(
            "entry", models.CheckConstraint(condition=models.Q(("chain__regex", HASH)), name="entry_chain_whole")
        ),
        migrations.AddConstraint(
            "signature", models.CheckConstraint(condition=models.Q(("chain__regex", HASH)), name="signature_chain_whole")
        ),
        migrations.RunSQL(STAYS, STOOD),
    ]
