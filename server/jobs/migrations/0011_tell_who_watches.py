"""Whoever has a job open is told of what is entered, signed, closed or cancelled, once it is committed."""

from django.db import migrations

TELL = """
CREATE FUNCTION tell_of_job() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF TG_TABLE_NAME = 'jobs_job' THEN
        PERFORM pg_notify('anvil', json_build_object('job', NEW.id, 'number', NULL)::text);
    ELSE
        PERFORM pg_notify('anvil', json_build_object('job', NEW.job_id, 'number', NEW.number)::text);
    END IF;
    RETURN NULL;
END $$;
CREATE TRIGGER entry_told AFTER INSERT ON jobs_entry FOR EACH ROW EXECUTE FUNCTION tell_of_job();
CREATE TRIGGER signature_told AFTER INSERT ON jobs_signature FOR EACH ROW EXECUTE FUNCTION tell_of_job();
CREATE TRIGGER job_told AFTER UPDATE ON jobs_job FOR EACH ROW EXECUTE FUNCTION tell_of_job();
"""
SILENT = """
DROP TRIGGER entry_told ON jobs_entry;
DROP TRIGGER signature_told ON jobs_signature;
DROP TRIGGER job_told ON jobs_job;
DROP FUNCTION tell_of_job();
"""


class Migration(migrations.Migration):
    dependencies = [("jobs", "0010_job_stays_as_started")]
    operations = [migrations.RunSQL(TELL, SILENT)]
