"""Records as structure, PDF and CSV; readings read in."""

import json
import re
import subprocess
import tempfile
from pathlib import Path
from typing import Any
from unittest import mock

from django.conf import settings
from django.test import TestCase

from server.demo import blower
from server.jobs.models import Job
from server.plant.models import Line
from server.reports.issue import page_of
from server.reports.pdf import NotOurs, fonts_only, record_pdf
from tests.in_words import in_words
from tests.site import Member, as_if_started_with, build_two_sites, job_of

BLOWER, PUMP = "Steep aeration blower 2", "Chilled-water pump 1"


def text_of(pdf: bytes) -> str:
    """What stands on the paper."""
    return read_by("pdftotext", pdf, "-layout")


def read_by(reader: str, pdf: bytes, *how: str) -> str:
    """What a reader of PDFs says of one."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "record.pdf"
        path.write_bytes(pdf)
        out = ["-"] if reader == "pdftotext" else []
        return subprocess.run([reader, *how, path, *out], capture_output=True, text=True, check=True).stdout


class RecordTest(TestCase):
    """What the record shows."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()
        cls.job = job_of(BLOWER, closed=True)

    def test_as_found_every_move_and_as_left_stay(self) -> None:
        _, record = Member("apprentice").ask("GET", f"/api/records/{self.job.pk}")
        align = next(s for s in record["steps"] if s["key"] == "set.align")
        self.assertEqual(
            [(r["label"], r["verdict"]) for r in align["readings"]],
            [("as found", "over"), ("moved", None), ("as left", "inside")],
        )
        self.assertIn(
            ("rim 6 o'clock", "0.6 mm"),
            [(figure["label"], in_words(figure["value"])) for figure in align["readings"][0]["figures"]],
        )
        self.assertTrue(all(check["source"] for r in align["readings"] for check in r["checks"]))
        self.assertTrue(align["readings"][0]["drawing"].startswith("<svg"))
        self.assertTrue(record["closed"])
        self.assertTrue(all(line["sample"] for line in record["card"] if "Brackwater" in line["source"]))

    def test_a_fit_stands_as_a_plus_figure_under_its_word_on_page_and_paper(self) -> None:
        _, record = Member("apprentice").ask("GET", f"/api/records/{self.job.pk}")
        [step] = [s for s in record["steps"] if s["key"] == "prepare.fit.driver"]
        said = {(in_words(c["value"]), in_words(c["limit"])) for c in step["readings"][0]["checks"]}
        limit = "0.005 mm to 0.045 mm clearance"
        self.assertEqual(said, {("0.016 mm clearance", limit), ("0.021 mm clearance", limit)})
        card = {line["title"]: in_words(line["value"]) for line in record["card"]}
        self.assertEqual((card["Min. clearance"], card["Max. clearance"]), ("0.005 mm", "0.045 mm"))
        text = text_of(record_pdf(self.job))
        self.assertIn("mm clearance", text)
        self.assertNotIn("−0.0", text.partition("Measure shaft and bore")[2].partition("Measure and try the key")[0])

    def test_a_name_is_text_on_paper_and_nothing_that_is_obeyed(self) -> None:
        """Stored as nobody can enter it any more: a line break, a quote, and CSS behind it."""
        open_job = job_of(BLOWER)
        mischief = 'Blower"; } .open { display: none } \n@import url(http://127.0.0.1:9/x.css); p { content: "'
        Line.objects.filter(pk=open_job.line_id).update(name=mischief[:80])
        asked: list[str] = []

        def watched(url: str) -> Any:
            asked.append(url)
            return fonts_only(url)

        with mock.patch("server.reports.pdf.fonts_only", watched):
            text = text_of(record_pdf(Job.objects.get(pk=open_job.pk)))
        self.assertIn("This record is open", text)
        self.assertIn('Blower"; } .open { display: none }', text)
        self.assertEqual({Path(url).suffix for url in asked}, {".woff2"})

    def test_it_is_set_in_its_own_type(self) -> None:
        with tempfile.NamedTemporaryFile(suffix=".pdf") as file:
            file.write(record_pdf(self.job))
            file.flush()
            found = subprocess.run(["pdffonts", file.name], capture_output=True, text=True, check=True).stdout
        names = {line.split()[0].partition("+")[2].split("-")[0] for line in found.splitlines()[2:]}
        self.assertEqual(names, {"Barlow", "Spline"})

    def test_a_record_fetches_its_fonts_and_nothing_else(self) -> None:
        outside = (
            "http://127.0.0.1:9/x.css",
            "file:///etc/hostname",
            f"file://{settings.ROOT}/manage.py",
            "data:text/css,p{}",
        )
        beside = f"file://{settings.ROOT}/web/node_modules/@fontsource/../../../.anvil/secret_key"
        for url in (*outside, beside, "file:///tmp/other.woff2"):
            with self.subTest(url), self.assertRaises(NotOurs):
                fonts_only(url)

    def test_the_pdf_holds_readings_limits_sources_and_signatures(self) -> None:
        status, pdf = Member("lead").ask("GET", f"/api/records/{self.job.pk}/pdf")
        self.assertEqual((status, pdf[:5]), (200, b"%PDF-"))
        text = text_of(pdf)
        for words in (
            BLOWER,
            "as found",
            "as left",
            "0.42 mm",
            "Side view",
            "Signed by Ansa Pellwright, lead",
        ):
            self.assertIn(words, text)

    def test_the_first_page_says_what_deviates_and_who_accepted_it_before_anything_else(self) -> None:
        """A job whose alignment the lead accepts, its limit for the gap changed on the way; in inches."""
        job, lead = job_of(BLOWER), Member("lead")
        as_if_started_with(job, unit="in")
        lead.sign(job, "set.align", "authorise", reason="spare blower, an hour a week")
        value = {**job.card["gap_nominal_mm"], "value": 30.5, "typed": "30.5"}
        lead.enter(job, "set.gap", {"key": "gap_nominal_mm", "value": value, "reason": "new issue"}, kind="value")
        front = lead.ask("GET", f"/api/records/{job.pk}")[1]["front"]
        offset, changed = front["deviations"][0], front["deviations"][-1]
        self.assertEqual((offset["step"], offset["said"]), ("Align the motor", "out of tolerance, accepted"))
        self.assertEqual((offset["by"], offset["reason"]), ("Ansa Pellwright", "spare blower, an hour a week"))
        self.assertEqual((changed["said"], changed["reason"]), ("value changed", "new issue"))
        self.assertEqual([s["step"] for s in front["signatures"]][-1], "Align the motor")
        self.assertEqual(
            [(one["number"], one["calibrated"]) for one in front["instruments"]],
            [("Wrench 3", "calibrated until 2027-03-31")],
        )
        pdf = record_pdf(Job.objects.get(pk=job.pk))
        text = text_of(pdf)
        self.assertLess(text.index("Deviations"), text.index("Machines"))
        self.assertLess(text.index("As found and as left"), text.index("Lock out"))
        self.assertIn("0.01269 ±", text)  # 0.322 mm
        self.assertNotRegex(text, r"\d mm\b(?!.*typed)")
        self.assertRegex(read_by("pdfinfo", pdf), r"Tagged: +yes")

    def test_an_ordinary_job_is_two_pages_before_its_log(self) -> None:
        pages = text_of(record_pdf(self.job)).split("\f")
        self.assertIn("\nDeviations and accepted limits\nNone.\n", pages[0])
        self.assertEqual(next(i for i, page in enumerate(pages) if page.lstrip().startswith("Value card")), 2)

    def test_the_pulls_of_a_circle_are_a_table_bolt_by_pass(self) -> None:
        _, record = Member("lead").ask("GET", f"/api/records/{self.job.pk}")
        feet = next(s for s in record["steps"] if s["key"] == "couple.feet")["readings"][-1]
        self.assertEqual(feet["pulls"]["passes"], ["pass 1", "pass 2", "pass 3"])
        self.assertEqual([row["bolt"] for row in feet["pulls"]["rows"]], [f"bolt {n}" for n in range(1, 5)])
        self.assertTrue(all(cell["template"] for row in feet["pulls"]["rows"] for cell in row["cells"]))
        self.assertFalse([f["label"] for f in feet["figures"] if f["label"].startswith("pass")])

    def test_readings_go_out_as_csv_and_come_in_again(self) -> None:
        member, entry = Member("apprentice"), self.job.entries.filter(step="set.align", kind="reading").first()
        _status, text = member.ask("GET", f"/api/records/{self.job.pk}/entries/{entry.pk}/csv?dial=1")
        self.assertEqual(text, b"clock,value_mm\n0.0,0.0\n90.0,0.02\n180.0,0.05\n270.0,0.03\n")
        answer = member.post("/api/benches/readings/read", text, content_type="text/csv")
        self.assertEqual(answer.json()["readings"], entry.inputs["dials"][1]["readings"])

    def test_both_ends_of_a_spacer_are_in_the_record_with_what_was_found_and_left(self) -> None:
        pump, member = job_of(PUMP, closed=True), Member("apprentice")
        _, record = member.ask("GET", f"/api/records/{pump.pk}")
        differ = next(line for line in record["summary"] if line["name"] == "The two ends differ by")
        self.assertEqual([in_words(differ[k]).split()[0] for k in ("found", "value")], ["0.060", "0.020"])
        entry = pump.entries.get(step="couple.closed")
        for dial, key in ((0, "readings"), (1, "other_end")):
            _, text = member.ask("GET", f"/api/records/{pump.pk}/entries/{entry.pk}/csv?dial={dial}")
            answer = member.post("/api/benches/readings/read", text, content_type="text/csv")
            self.assertEqual(answer.json()["readings"], entry.inputs[key])
        swept = next(s for s in record["steps"] if s["key"] == "set.align")["readings"][0]
        self.assertIn(
            ("rim sweep", "33 readings over 240°"),
            [(f["label"].lstrip("12 "), in_words(f["value"])) for f in swept["figures"]],
        )
        # the spacer stands between its planes, 160 mm to either side of the middle
        self.assertEqual(len(re.findall(r'<path[^>]*fill="#fff"', swept["drawing"])), 2 * 3)

    def test_words_over_a_drawing_are_inked_last_and_every_drawing_says_what_it_shows(self) -> None:
        mill = job_of("Roller mill", closed=True)
        _, record = Member("lead").ask("GET", f"/api/records/{mill.pk}")
        drawn = {s["key"]: r for s in record["steps"] for r in s["readings"] if r["drawing"]}
        self.assertLessEqual({"set.align", "couple.align", "couple.cover", "couple.grease"}, set(drawn))
        twice = re.compile(r'<text [^>]*stroke="#fff"[^>]*>([^<]+)</text><text [^>]*fill="#14202B">\1</text>')
        for key, said in (("set.align", "Motor"), ("couple.cover", "upper half"), ("couple.grease", "1: filled, plug in")):
            svg = drawn[key]["drawing"]
            self.assertNotIn("paint-order", svg, "the one who prints does not know it")
            self.assertIn(said, twice.findall(svg))
            self.assertEqual(svg.count('stroke="#fff"'), len(twice.findall(svg)))
        self.assertEqual(drawn["couple.cover"]["drawing_title"], "Marks of lower half, upper half: they agree")

    def test_its_head_says_what_was_proved_on_the_page_the_paper_and_before_it_is_signed(self) -> None:
        closed, open_one = (job_of("Steep aeration blower 2", closed=is_closed) for is_closed in (True, False))
        lead = Member("lead")
        _, record = lead.ask("GET", f"/api/records/{closed.pk}")
        said = {one["what"]: one["stands"] for one in record["front"]["proofs"]}
        self.assertEqual(said["Aligned"], "proven")
        self.assertIn("What was proved", page_of(closed))
        _, shown = lead.ask("GET", f"/api/jobs/{open_one.pk}")
        proofs = {one["what"]: (one["stands"], one["of"]) for one in shown["proofs"]}
        self.assertEqual(proofs["Aligned"], ("not read", ["Read the alignment again, feet torqued"]))
        self.assertEqual(proofs["Hubs fitted"], ("proven", []))

    def test_what_was_counted_and_compared_right_is_in_order_not_not_judged(self) -> None:
        mill = job_of("Roller mill", closed=True)
        _, record = Member("lead").ask("GET", f"/api/records/{mill.pk}")
        cover = next(s for s in record["steps"] if s["key"] == "couple.cover")["readings"][-1]
        self.assertEqual({check["said"] for check in cover["checks"]}, {"in order"})
        _, pdf = Member("lead").ask("GET", f"/api/records/{mill.pk}/pdf")
        self.assertIn("in order", text_of(pdf))

    def test_a_damaged_csv_reads_nothing_and_names_the_line(self) -> None:
        rows = {
            b"clock;value\n0;1\n": "line 1",
            b"clock,value_mm\n0,0.1\n90,oops\n180,0\n": "line 3",
            b"clock,value_mm\n0,nan\n": "line 2",
            b"\xff\xfe\x00": "line 1",
            b"clock,value_mm\n": "line 2",
        }
        for text, line in rows.items():
            answer = Member("apprentice").post("/api/benches/readings/read", text, content_type="text/csv")
            self.assertEqual((answer.status_code, answer.json()["errors"][0]["path"]), (422, line), text)

    def test_what_cannot_be_told_is_not_called_inside_on_paper(self) -> None:
        lead, open_job = Member("lead"), job_of(BLOWER)
        unsure = json.loads(json.dumps(blower.MOVED))
        for dial in unsure["dials"]:  # one reading of each off: four places, one to spare
            dial["readings"][1]["value_mm"] += 0.06
        self.assertEqual(lead.enter(open_job, "set.align", unsure)[0], 201)
        lines = text_of(lead.get(f"/api/records/{open_job.pk}/pdf").content).splitlines()
        judged = [text for text in lines if text.strip().startswith("running, angle") and "±" in text]
        self.assertRegex(judged[-1], r"\bcannot\b")
        self.assertNotIn("inside", judged[-1])
