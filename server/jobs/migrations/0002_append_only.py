"""Entries and signatures are facts: the database itself refuses to change or delete them."""

from django.db import migrations

REFUSE = """
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION '% is append-only: a correction is a new row beside the old', TG_TABLE_NAME
        USING ERRCODE = 'integrity_constraint_violation';
END $$;
CREATE TRIGGER entry_append_only BEFORE UPDATE OR DELETE ON jobs_entry FOR EACH ROW EXECUTE FUNCTION refuse_change();
CREATE TRIGGER signature_append_only BEFORE UPDATE OR DELETE ON jobs_signature
    FOR EACH ROW EXECUTE FUNCTION refuse_change();
"""
ALLOW = """
DROP TRIGGER entry_append_only ON jobs_entry;
DROP TRIGGER signature_append_only ON jobs_signature;
DROP FUNCTION refuse_change();
"""


class Migration(migrations.Migration):
    dependencies = [("jobs", "0001_initial")]
    operations = [migrations.RunSQL(REFUSE, ALLOW)]
