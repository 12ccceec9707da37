"""Jobs of upkeep, what they are there to do, and the edition of the steps that every job has: kept as they were started."""

from django.db import migrations, models

SCOPES = [
    "fit it",
    "take it off and fit it",
    "take it off",
    "change the element",
    "fit a backstop",
    "align it",
    "check it",
    "do what is due",
]
REFUSE = """
CREATE OR REPLACE FUNCTION refuse_job_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF (NEW.id, NEW.site_id, NEW.line_id, NEW.number, NEW.title, NEW.scope, NEW.procedure, NEW.spec, NEW.card, NEW.started_by,
        NEW.started_at, NEW.read_in, NEW.edition, NEW.tasks)
       IS DISTINCT FROM
       (OLD.id, OLD.site_id, OLD.line_id, OLD.number, OLD.title, OLD.scope, OLD.procedure, OLD.spec, OLD.card, OLD.started_by,
        OLD.started_at, OLD.read_in, OLD.edition, OLD.tasks)
    THEN
        RAISE EXCEPTION 'a job keeps what it was started with' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    IF OLD.closed_at IS NOT NULL THEN
        RAISE EXCEPTION 'a closed job stays closed' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    RETURN NEW;
END $$;
"""


class Migration(migrations.Migration):
    dependencies = [("jobs", "0017_a_slip")]

    operations = [
        migrations.AddField("job", "edition", models.PositiveSmallIntegerField(default=1, help_text="of the steps that jobs of every family have")),
        migrations.AddField("job", "tasks", models.JSONField(default=list, help_text="millwright.route.steps.Task: what a job of upkeep is there to do")),
        migrations.RemoveConstraint(model_name="job", name="job_scope_known"),
        migrations.AddConstraint(
            model_name="job",
            constraint=models.CheckConstraint(condition=models.Q(("scope__in", SCOPES)), name="job_scope_known"),
        ),
        migrations.RunSQL(REFUSE, migrations.RunSQL.noop),
    ]
