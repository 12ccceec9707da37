"""What a line has been through, as a page, a file and a count over the site; its label."""

import csv
import io
import re
from datetime import date, timedelta
from uuid import uuid4

from django.utils import timezone

from millwright.scope import Scope
from server.accounts.models import Membership
from server.jobs.actions.start_job import start_job
from server.jobs.before import left_before
from server.jobs.models import Job
from server.keep.history.labels import label_svg
from server.plant.models import Line, LineLook
from tests.site import Member

from .demo_site import CRUSHER, DRUM, YEAST, DemoTest, line_of


class LabelTest(DemoTest):
    def test_the_code_on_the_guard_is_the_address_of_the_line(self) -> None:
        import segno

        line = line_of(CRUSHER)
        drawn = self.lead.get(f"/api/labels/{line.pk}.svg").content.decode()
        address = re.search(r"https?://[^<\s]+", drawn.split("<title>")[1])
        assert address is not None
        self.assertTrue(address[0].endswith(f"/lines/{line.pk}"))
        out = io.BytesIO()
        segno.make(address[0], error="q", micro=False).save(out, kind="svg", border=4)
        code = re.search(r' d="([^"]+)"', out.getvalue().decode())
        assert code is not None
        self.assertIn(code[1], drawn)
        self.assertEqual(Member("stranger").get(f"/api/labels/{line.pk}.svg").status_code, 404)

    def test_a_name_is_written_as_it_is_and_as_long_as_there_is_room(self) -> None:
        line = line_of(CRUSHER)
        line.name = "<b>Crusher</b> " + "of the old malt floor by the river " * 4
        drawn = label_svg(line, "https://here/lines/1")
        self.assertNotIn("<b>", drawn)
        self.assertIn("…", drawn)
        self.assertTrue(self.lead.get("/api/labels/sheet.pdf").content.startswith(b"%PDF"))


class HistoryTest(DemoTest):
    def test_a_line_is_told_with_its_trend_its_sets_and_how_it_was_left(self) -> None:
        history = self.lead.get(f"/api/history/{line_of(CRUSHER).pk}").json()
        changed, fitted = history["jobs"]
        self.assertEqual([(p["way"], p["number"]) for p in changed["parts"]], [("out", "lot 31"), ("in", "lot 44")])
        self.assertEqual(fitted["parts"][0]["number"], "lot 31")
        wear = next(one for one in history["series"] if one["key"] == "wear")
        # Invented at 0.19 mm a month, 0.05 mm of scatter, read to a tenth: 4 mm after 640 days.
        begun = date.fromisoformat(changed["closed"][:10])
        reached = wear["trend"]["reached"]
        self.assertLessEqual(reached["earliest"], (begun + timedelta(days=640)).isoformat())
        self.assertGreaterEqual(reached["latest"], (begun + timedelta(days=640)).isoformat())
        self.assertIn("<svg", history["as_left"]["drawing"])
        self.assertEqual(Member("stranger").get(f"/api/history/{line_of(CRUSHER).pk}").status_code, 404)

    def test_a_jump_is_told_and_nothing_is_fitted_across_it(self) -> None:
        history = self.lead.get(f"/api/history/{line_of(YEAST).pk}").json()
        trend = next(one for one in history["series"] if one["key"] == "vibration")["trend"]
        self.assertAlmostEqual(trend["jump"]["by"], 1.5, delta=0.3)
        self.assertGreaterEqual(trend["trend"][0]["at"], trend["jump"]["before"])

    def test_the_history_goes_out_as_csv_that_no_spreadsheet_works_out(self) -> None:
        line = line_of(DRUM)
        LineLook.objects.create(
            id=uuid4(), line=line, at=timezone.now(), note="=1+1", by="x", role="lead", entered_at=timezone.now()
        )
        answer = self.lead.get(f"/api/history/{line.pk}/csv")
        rows = list(csv.DictReader(io.StringIO(answer.content.decode())))
        greases = [row for row in rows if row["what"] == "grease"]
        self.assertEqual([row["reason"] for row in greases][-2:], ["lubrication", "lubrication"])
        self.assertIn("'=1+1", [row["left"] for row in rows])

    def test_the_history_of_all_lines_is_written_in_the_queue_and_says_how_far_it_is(self) -> None:
        with self.captureOnCommitCallbacks(execute=True):
            status, asked = self.lead.ask("POST", "/api/exports")
        self.assertEqual((status, asked["ready"], asked["done"]), (201, False, 0))
        now = self.lead.get(f"/api/exports/{asked['id']}").json()
        self.assertEqual((now["ready"], now["done"]), (True, Line.objects.filter(site__name="Quillmere Maltings").count()))
        rows = list(csv.reader(io.StringIO(self.lead.get(f"/api/exports/{asked['id']}/file").content.decode())))
        self.assertEqual([row for row in rows if row[0] == "line"], rows[:1])
        self.assertTrue({CRUSHER, DRUM, YEAST} <= {row[0] for row in rows})
        self.assertEqual(Member("stranger").get(f"/api/exports/{asked['id']}").status_code, 404)

    def test_what_repeats_on_the_site_is_counted(self) -> None:
        told = self.lead.get("/api/reasons?months=24").json()
        self.assertEqual([(one["name"], one["jobs"]) for one in told["returning"]], [(DRUM, 2)])
        self.assertEqual(
            told["jobs"],
            Job.objects.counted()
            .filter(site__name="Quillmere Maltings", closed_at__gte=timezone.now() - timedelta(days=730))
            .count(),
        )
        self.assertEqual({one["reason"]: one["jobs"] for one in told["reasons"]}["lubrication"], 2)
        self.assertEqual([(one["name"], one["moved"]) for one in told["wandered"]], [(YEAST, True)])
        self.assertEqual(Member("stranger").get("/api/reasons").json()["jobs"], 0)

    def test_the_job_that_changes_the_element_reads_the_old_set_s_life(self) -> None:
        lead = Membership.objects.get(user__username="lead")
        job = start_job(line_of(CRUSHER), by=lead, title="New set", now=timezone.now(), scope=Scope.ELEMENT)
        step = next(now.step for now in job.stand_after([], left_before(job)).steps if now.step.key == "off.old")
        said = step.form.fields[0].detail
        changed = Job.objects.counted().get(line__name=CRUSHER, scope=Scope.ELEMENT).closed_at
        assert changed is not None
        ran = (timezone.now() - changed).days
        self.assertIn(f"{ran} days", said)
        self.assertRegex(said, r"worn 2\.\d\d mm \(0\.\d\d\d in\) at the mark")
