"""The catalogue of coupling sizes: changed, with its history, and taken out and in as a file."""

import csv
import io
import json
from typing import Any

from django.db import DatabaseError, connection, transaction
from django.test import TestCase

from server.catalogue.models import CatalogueChange, CouplingSize
from tests.site import Member, build_two_sites


class CatalogueTest(TestCase):
    """The demo's catalogue."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def setUp(self) -> None:
        self.lead = Member("lead")

    def out(self, form: str, client: Member | None = None) -> str:
        """The whole catalogue as a file."""
        return (client or self.lead).get(f"/api/couplings/file?form={form}").content.decode()

    def take_in(self, text: str, client: Member | None = None) -> tuple[int, Any]:
        """A file of it, sent as it is."""
        answer = (client or self.lead).post("/api/couplings/file", text, content_type="text/csv")
        return answer.status_code, answer.json()

    def test_what_goes_out_comes_in_the_same_in_both_forms_and_changes_nothing(self) -> None:
        for size in CouplingSize.objects.filter(values__has_key="offset_limit_mm"):
            size.values["offset_limit_mm"]["of_material"] = [{"material": "soft, 80", "value": 0.3}]
            size.save()
        before = list(CouplingSize.objects.values("family", "series", "size", "values"))
        self.assertTrue(any(value.get("up_to") for size in before for value in size["values"].values()))
        self.assertTrue(any(value.get("of_material") for size in before for value in size["values"].values()))
        changes = CatalogueChange.objects.count()
        for form in ("json", "csv"):
            text = self.out(form)
            self.assertEqual(self.take_in(text), (200, {"sizes": 0}), form)
            CouplingSize.objects.exclude(size="firkin").update(values={})
            self.assertEqual(self.take_in(text)[0], 200)
            after = list(CouplingSize.objects.values("family", "series", "size", "values"))
            for was, now in zip(before, after, strict=True):
                for key, value in was["values"].items():
                    kept = now["values"][key]
                    self.assertEqual({**kept, "typed": ""}, {**value, "typed": ""}, (form, key))
        self.assertGreater(CatalogueChange.objects.count(), changes)

    def test_a_file_from_before_is_taken_in_with_clearance_as_plus_figures_and_goes_out_so(self) -> None:
        head, *rows = csv.reader(io.StringIO(self.out("csv")))
        mine = [row for row in rows if row[3] in ("clearance_min_mm", "clearance_max_mm")][:2]
        once = {"clearance_max_mm": "fit_min_mm", "clearance_min_mm": "fit_max_mm"}
        old = io.StringIO()
        writer = csv.writer(old)
        writer.writerow(head)
        for row in mine:
            writer.writerow([row[0], "Brackwater Old", "peg", once[row[3]], f"-{row[4]}", *row[5:]])
        self.assertEqual(self.take_in(old.getvalue()), (200, {"sizes": 1}))
        found = {r[3]: float(r[4]) for r in csv.reader(io.StringIO(self.out("csv"))) if r[1:3] == ["Brackwater Old", "peg"]}
        self.assertEqual(found, {row[3]: float(row[4]) for row in mine})

    def test_a_line_that_is_wrong_is_named_and_nothing_is_taken_in(self) -> None:
        head, *rows = csv.reader(io.StringIO(self.out("csv")))
        gap = next(row for row in rows if row[3] == "gap_nominal_mm")
        for column, text, says in (
            (0, "sprocket", "family"),
            (3, "gap_in_ells", "no such line"),
            (4, "wide", "Enter a number: wide"),
            (4, "9999", "is between"),
            (9, "", "document"),
        ):
            out = io.StringIO()
            fresh = ["rigid", "Brackwater Wren", "pin", *[""] * 9]
            csv.writer(out).writerows([head, fresh, [*gap[:column], text, *gap[column + 1 :]]])
            status, answer = self.take_in(out.getvalue())
            [error] = answer["errors"]
            self.assertEqual((status, error["path"]), (422, "line 3"), text)
            self.assertIn(says, error["message"])
        self.assertFalse(CouplingSize.objects.filter(series="Brackwater Wren").exists())
        self.assertEqual(self.take_in("clock,value_mm\n0,0\n")[0], 422)

    def test_a_size_that_is_changed_says_who_changed_what_and_lines_keep_their_values(self) -> None:
        size = next(s for s in self.lead.get("/api/couplings").json()["sizes"] if "gap_nominal_mm" in s["values"])
        gap = size["values"]["gap_nominal_mm"]
        size["values"]["gap_nominal_mm"] = {**gap, "value": gap["value"] + 1, "typed": ""}
        put = self.lead.put("/api/couplings/sizes?reason=issue C", json.dumps(size), content_type="application/json")
        self.assertEqual(put.status_code, 200, put.content)
        where = f"/api/couplings/changes?series={size['series']}&size={size['size']}"
        latest = self.lead.get(where).json()[0]
        self.assertEqual((latest["by"], latest["role"], latest["because"]), ("Ansa Pellwright", "lead", "issue C"))
        self.assertEqual([one["what"] for one in latest["changes"]], ["Gap between hub faces"])
        self.assertNotEqual(latest["changes"][0]["was"], latest["changes"][0]["now"])
        apprentice = Member("apprentice")
        refused = apprentice.put("/api/couplings/sizes", json.dumps(size), content_type="application/json")
        self.assertEqual((refused.status_code, self.take_in(self.out("csv"), apprentice)[0]), (403, 403))
        with self.assertRaises(DatabaseError), transaction.atomic(), connection.cursor() as cursor:
            cursor.execute("UPDATE catalogue_cataloguechange SET role = 'nobody'")
