"""One open job a line; what a job was started with is not changed; entries and signatures are not emptied."""

from django.db import migrations, models

REFUSE = """
CREATE FUNCTION refuse_job_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF (NEW.id, NEW.site_id, NEW.line_id, NEW.number, NEW.title, NEW.scope, NEW.procedure, NEW.spec, NEW.card, NEW.started_by,
        NEW.started_at, NEW.read_in)
       IS DISTINCT FROM
       (OLD.id, OLD.site_id, OLD.line_id, OLD.number, OLD.title, OLD.scope, OLD.procedure, OLD.spec, OLD.card, OLD.started_by,
        OLD.started_at, OLD.read_in)
    THEN
        RAISE EXCEPTION 'a job keeps what it was started with' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    IF OLD.closed_at IS NOT NULL THEN
        RAISE EXCEPTION 'a closed job stays closed' USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    RETURN NEW;
END $$;
CREATE TRIGGER job_stays_as_started BEFORE UPDATE ON jobs_job FOR EACH ROW EXECUTE FUNCTION refuse_job_change();
CREATE FUNCTION refuse_emptying() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF current_setting('anvil.may_empty', true) IS DISTINCT FROM 'tests' THEN
        RAISE EXCEPTION '% is append-only: it is not emptied', TG_TABLE_NAME USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    RETURN NULL;
END $$;
CREATE TRIGGER entry_not_emptied BEFORE TRUNCATE ON jobs_entry FOR EACH STATEMENT EXECUTE FUNCTION refuse_emptying();
CREATE TRIGGER signature_not_emptied BEFORE TRUNCATE ON jobs_signature FOR EACH STATEMENT EXECUTE FUNCTION refuse_emptying();
"""
ALLOW = """
DROP TRIGGER job_stays_as_started ON jobs_job;
DROP FUNCTION refuse_job_change();
DROP TRIGGER entry_not_emptied ON jobs_entry;
DROP TRIGGER signature_not_emptied ON jobs_signature;
DROP FUNCTION refuse_emptying();
"""


class Migration(migrations.Migration):
    dependencies = [("jobs", "0009_fill_closed_and_chained")]

    operations = [
        migrations.AddConstraint(
            model_name="job",
            constraint=models.UniqueConstraint(
                condition=models.Q(("closed_at__isnull", True)), fields=("line",), name="job_open_once_a_line"
            ),
        ),
        migrations.RunSQL(REFUSE, ALLOW),
    ]
