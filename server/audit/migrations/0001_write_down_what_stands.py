"""What stood before there was a journal is written into it, and lines and sizes get how they stand."""

from typing import Any

from django.db import migrations

KINDS = (
    ("jobs", "Job", "site_id", "started_at"),
    ("reports", "IssuedRecord", "job__site_id", "at"),
    ("plant", "LineLook", "line__site_id", "entered_at"),
    ("keep", "Postponement", "line__site_id", "at"),
    ("plant", "LineChange", "line__site_id", "at"),
    ("catalogue", "CatalogueChange", "of__site_id", "at"),
)
AT_A_TIME = 1_000
CHANGES_LATER = frozenset({"closed_at", "cancelled_by", "cancelled_because", "taken_over_at", "last_number", "head", "head_at"})


def fill_in(apps: Any, schema_editor: Any) -> None:
    """Row by row in the order of their days, a thousand a line. Nothing is changed in them."""
    from django.utils import timezone

    from server.journal.digest import digest_of_row
    from server.journal.write import link

    lines, sites = apps.get_model("journal", "JournalLine"), apps.get_model("accounts", "Site")
    for site in sites.objects.all():
        number, before = site.journal_number, site.journal_head
        for app, name, of, order in KINDS:
            model = apps.get_model(app, name)
            without = CHANGES_LATER if name == "Job" else frozenset()
            rows = list(model.objects.filter(**{of: site.pk}).order_by(order, "pk"))
            for start in range(0, len(rows), AT_A_TIME):
                number += 1
                some = {str(row.pk): digest_of_row(row, without=without) for row in rows[start : start + AT_A_TIME]}
                line = lines(site=site, number=number, what=f"{app}.{name.lower()}", rows=some, at=timezone.now())
                line.chain = before = link(before, line)
                line.save(force_insert=True)
    with schema_editor.connection.cursor() as cursor:
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")


class Migration(migrations.Migration):
    initial = True
    dependencies = [
        ("journal", "0001_initial"),
        ("jobs", "0019_head_of_the_chain"),
        ("plant", "0004_how_it_stands"),
        ("catalogue", "0003_how_it_stands"),
        ("keep", "0001_initial"),
        ("reports", "0001_initial"),
    ]

    operations = [migrations.RunPython(fill_in, migrations.RunPython.noop)]
