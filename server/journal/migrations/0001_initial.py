"""The journal: appended, numbered without a gap, never changed."""

import django.db.models.deletion
from django.db import migrations, models

IN_ORDER = """
CREATE FUNCTION follow_journal() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    UPDATE accounts_site SET journal_number = NEW.number, journal_head = NEW.chain
    WHERE id = NEW.site_id AND journal_number = NEW.number - 1;
    IF NOT FOUND THEN
        RAISE EXCEPTION 'line % is not the next of the journal', NEW.number USING ERRCODE = 'integrity_constraint_violation';
    END IF;
    RETURN NEW;
END $$;
CREATE TRIGGER journal_in_order BEFORE INSERT ON journal_journalline FOR EACH ROW EXECUTE FUNCTION follow_journal();
CREATE TRIGGER journal_append_only BEFORE UPDATE OR DELETE ON journal_journalline FOR EACH ROW EXECUTE FUNCTION refuse_change();
"""
FREE = """
DROP TRIGGER journal_append_only ON journal_journalline;
DROP TRIGGER journal_in_order ON journal_journalline;
DROP FUNCTION follow_journal();
"""


class Migration(migrations.Migration):
    initial = True
    dependencies = [("accounts", "0005_journal"), ("jobs", "0002_append_only")]

    operations = [
        migrations.CreateModel(
            name="JournalLine",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("number", models.PositiveIntegerField()),
                ("what", models.CharField(help_text="app and model of the rows: plant.linelook", max_length=40)),
                ("rows", models.JSONField(help_text="key of a row → its digest")),
                ("chain", models.CharField(help_text="hash of this line and of the one before it", max_length=64)),
                ("at", models.DateTimeField()),
                (
                    "site",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="journal", to="accounts.site"
                    ),
                ),
            ],
            options={
                "ordering": ["site", "number"],
                "constraints": [
                    models.UniqueConstraint(fields=("site", "number"), name="journal_number_once_a_site"),
                    models.CheckConstraint(
                        condition=models.Q(("chain__regex", "^[0-9a-f]{64}$")), name="journal_chain_whole"
                    ),
                ],
            },
        ),
        migrations.RunSQL(IN_ORDER, FREE),
    ]
