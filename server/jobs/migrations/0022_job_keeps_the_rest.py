"""A job keeps whatever is not said to change: a column that is added later is kept without being named here."""

from django.db import migrations

STAYS = """
CREATE OR REPLACE FUNCTION refuse_job_change() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
    was jobs_job%ROWTYPE := OLD;
BEGIN
    was.closed_at := NEW.closed_at;
    was.cancelled_by := NEW.cancelled_by;
    was.cancelled_because := NEW.cancelled_because;
    was.taken_over_at := NEW.taken_over_at;
    was.last_number := NEW.last_number;
    was.head := NEW.head;
    was.head_at := NEW.head_at;
    IF was IS DISTINCT FROM NEW THEN
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
"""


class Migration(migrations.Migration):
    dependencies = [("jobs", "0021_read_faster")]

    operations = [migrations.RunSQL(STAYS, migrations.RunSQL.noop)]
