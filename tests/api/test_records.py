"""Records as structure, PDF, JSON and CSV; jobs and readings read in."""

import hashlib
import json
import re
import subprocess
import tempfile
from pathlib import Path
from typing import Any
from unittest import mock
from uuid import uuid4

from django.conf import settings
from django.db import connection, transaction
from django.test import TestCase

from server.demo import blower
from server.jobs.chain import verify
from server.jobs.models import Entry, Job, Signature
from server.plant.models import Line
from server.reports.pdf import NotOurs, fonts_only, record_pdf
from tests.in_words import in_words
from tests.site import Member, build_two_sites, job_of

BLOWER, PUMP = "Steep aeration blower 2", "Chilled-water pump 1"


def forget_jobs() -> None:
    """As on another installation, where these jobs were never entered."""
    with connection.cursor() as cursor:
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
        cursor.execute("TRUNCATE jobs_signature, jobs_entry, jobs_job CASCADE")


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
        Job.objects.filter(pk=job.pk).update(unit="in")
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


class ExchangeTest(TestCase):
    """A job as JSON, out and in."""

    open_job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.open_job = build_two_sites()

    def setUp(self) -> None:
        self.lead = Member("lead")

    def read_in(self, content: bytes) -> tuple[int, Any]:
        """Status and answer of an import."""
        answer = self.lead.post("/api/records", content, content_type="application/json")
        return answer.status_code, answer.json()

    def test_a_job_comes_back_without_loss_on_another_installation(self) -> None:
        for closed, line in (
            (True, BLOWER),
            (False, BLOWER),
            (False, "Kiln fan A"),
            (True, PUMP),
        ):
            with self.subTest(closed=closed, line=line), transaction.atomic():
                job = job_of(line, closed=closed)
                _, before = self.lead.ask("GET", f"/api/jobs/{job.pk}")
                written = self.lead.get(f"/api/records/{job.pk}/json").content
                forget_jobs()
                status, after = self.read_in(written)
                self.assertEqual(status, 201)
                for part in ("entries", "signatures", "steps", "card", "ledger"):
                    self.assertEqual(after[part], before[part], part)
                self.assertEqual(self.lead.get(f"/api/records/{job.pk}/json").content, written)
                self.assertEqual(self.read_in(written)[0], 409)
                transaction.set_rollback(True)

    def test_what_was_taken_as_it_is_comes_back_so_and_what_cannot_be_told_comes_back_so(self) -> None:
        for as_it_is in (True, False):
            with self.subTest(as_it_is=as_it_is), transaction.atomic():
                unsure = json.loads(json.dumps(blower.MOVED))
                for dial in unsure["dials"]:  # one reading of each off: four places, one to spare
                    dial["readings"][1]["value_mm"] += 0.06
                self.assertEqual(self.lead.enter(self.open_job, "set.align", unsure, as_it_is=as_it_is)[0], 201)
                _, before = self.lead.ask("GET", f"/api/jobs/{self.open_job.pk}")
                state = next(s["state"] for s in before["steps"] if s["key"] == "set.align")
                self.assertEqual(state, "done" if as_it_is else "cannot tell yet")
                written = json.loads(self.lead.get(f"/api/records/{self.open_job.pk}/json").content)
                forget_jobs()
                self.assertEqual(self.read_in(json.dumps(written).encode())[1]["steps"], before["steps"])
                transaction.set_rollback(True)

    def test_what_cannot_be_told_is_not_called_inside_on_paper(self) -> None:
        unsure = json.loads(json.dumps(blower.MOVED))
        for dial in unsure["dials"]:  # one reading of each off: four places, one to spare
            dial["readings"][1]["value_mm"] += 0.06
        self.assertEqual(self.lead.enter(self.open_job, "set.align", unsure)[0], 201)
        lines = text_of(self.lead.get(f"/api/records/{self.open_job.pk}/pdf").content).splitlines()
        judged = [text for text in lines if text.strip().startswith("running, angle") and "±" in text]
        self.assertRegex(judged[-1], r"\bcannot\b")
        self.assertNotIn("inside", judged[-1])

    def test_only_a_lead_reads_a_job_in(self) -> None:
        written = self.lead.get(f"/api/records/{self.open_job.pk}/json").content
        forget_jobs()
        for who in ("apprentice", "millwright"):
            answer = Member(who).post("/api/records", written, content_type="application/json")
            self.assertEqual(answer.status_code, 403, who)
        self.assertEqual(Job.objects.count(), 0)
        self.assertEqual(self.read_in(written)[0], 201)

    def test_a_foreign_truncated_or_doctored_file_changes_nothing_and_says_why(self) -> None:
        written = json.loads(self.lead.get(f"/api/records/{self.open_job.pk}/json").content)
        forget_jobs()
        doctored = json.loads(json.dumps(written))
        last = max(i for i, e in enumerate(written["entries"]) if e["step"] == "set.align")
        doctored["entries"][last]["result"]["verdict"] = "inside"
        rows = [
            ("cut off", json.dumps(written, indent=1)[:4000].encode(), "line "),
            ("not JSON", b"clock,value_mm\n", "line 1"),
            ("foreign", b'{"format": "something else"}', "format"),
            ("from the future", json.dumps({**written, "version": 9}).encode(), "version"),
            ("a misspelt key", json.dumps({**written, "titel": "x"}).encode(), "titel"),
            ("a verdict that does not follow", json.dumps(doctored).encode(), f"entries.{last}.result"),
            (
                "one number twice",
                json.dumps({**written, "entries": [*written["entries"], written["entries"][0]]}).encode(),
                "entries.",
            ),
        ]
        for why, content, path in rows:
            with self.subTest(why):
                status, said = self.read_in(content)
                self.assertEqual(status, 422)
                self.assertTrue(said["errors"][0]["path"].startswith(path), said["errors"][0])
        self.assertEqual((Job.objects.count(), Entry.objects.count(), Signature.objects.count()), (0, 0, 0))

    def test_a_file_holds_nothing_that_could_not_have_been_entered_or_signed(self) -> None:
        written = json.loads(self.lead.get(f"/api/records/{self.open_job.pk}/json").content)
        closed = json.loads(self.lead.get(f"/api/records/{job_of(BLOWER, closed=True).pk}/json").content)
        forget_jobs()
        last = max(fact["number"] for fact in [*written["entries"], *written["signatures"]])
        now = written["entries"][-1]["at"]
        who = {"by": "Nobody", "role": "apprentice", "at": now}
        plain = {"typed": {}, "asked": {}, "result": None, **who}

        def with_entry(**more: Any) -> dict[str, Any]:
            entry = {"id": str(uuid4()), "number": last + 1, "step": "set.align", **plain, **more}
            return {**written, "entries": [*written["entries"], entry]}

        def with_signature(**more: Any) -> dict[str, Any]:
            signature = {"id": str(uuid4()), "number": last + 1, "entry": None, "reason": "", "kind": "hold", **who, **more}
            return {**written, "signatures": [*written["signatures"], signature]}

        def changed(part: str, i: int, **more: Any) -> dict[str, Any]:
            rows = [{**row, **more} if at == i else row for at, row in enumerate(written[part])]
            return {**written, part: rows}

        value = {"value": 0.9, "means": "offset", "source": {"kind": "drawing", "document": "D-1"}}
        lifted = {"key": "offset_limit_mm", "value": value, "reason": "because"}
        count = len(written["entries"])
        end, until = f"entries.{count}", f"entries.{count - 1}.at"
        rows = [
            ("an empty value", with_entry(kind="value", inputs={}), f"{end}.inputs"),
            ("a limit lifted by an apprentice", with_entry(kind="value", inputs=lifted), end),
            ("a step that is not its turn", with_entry(kind="reading", step="close.guard", inputs={}), end),
            (
                "a hub that gripped before it was hot",
                with_entry(kind="event", inputs={"event": "gripped"}),
                f"entries.{count}",
            ),
            ("a number beyond all bounds", {**written, "number": 2147483647}, "number"),
            ("numbers that are missing", changed("entries", count - 1, number=last + 7), "entries"),
            ("a time in the future", changed("entries", count - 1, at="2050-01-01T00:00:00Z"), until),
            (
                "a time behind its number",
                changed("entries", count - 1, at=written["entries"][0]["at"]),
                f"entries.{count - 1}.at",
            ),
            ("a closing signature on an open route", with_signature(step="close.sign", role="lead"), "signatures."),
            ("a hold signed by an apprentice", changed("signatures", 0, role="apprentice"), "signatures.0"),
            (
                "nothing but a closing signature",
                {**closed, "entries": [], "signatures": [{**closed["signatures"][-1], "number": 1}]},
                "signatures.0",
            ),
        ]
        for why, content, path in rows:
            with self.subTest(why):
                status, said = self.read_in(json.dumps(content).encode())
                self.assertEqual(status, 422, said)
                self.assertTrue(said["errors"][0]["path"].startswith(path), said["errors"][0])
        self.assertEqual(Job.objects.count(), 0)

    def test_who_read_it_in_and_from_where_stands_at_the_head_and_its_ledger_and_results_are_worked_out_here(self) -> None:
        job = job_of("Steep aeration blower 2")
        raw = self.lead.get(f"/api/records/{job.pk}/json").content
        forget_jobs()
        doctored = json.loads(raw)
        doctored["entries"][3]["result"] = {**(doctored["entries"][3]["result"] or {}), "advice": ["All is well."]}
        content = json.dumps(doctored).encode()
        status, shown = self.read_in(content)
        self.assertEqual(status, 201, shown)
        self.assertNotIn("All is well", json.dumps(shown))
        self.assertEqual((shown["read_in"]["by"], shown["read_in"]["site"]), ("Ansa Pellwright", "Quillmere Maltings"))
        self.assertEqual(shown["read_in"]["digest"], hashlib.sha256(content).hexdigest())
        _, record = self.lead.ask("GET", f"/api/records/{shown['id']}")
        self.assertIn("names and times are as the file says", record["read_in"])
        self.assertIsNone(verify(Job.objects.get(pk=shown["id"])))

    def test_a_job_that_cannot_be_read_takes_no_page_down(self) -> None:
        damaged = mock.patch("server.jobs.models.Job.as_spec", new_callable=mock.PropertyMock, side_effect=ValueError)
        with damaged, self.assertLogs("server.jobs.api", "ERROR"):
            status, lines = self.lead.ask("GET", "/api/jobs")
        self.assertEqual(status, 200)
        broken = next(line["job"] for line in lines if line["name"] == BLOWER)
        self.assertEqual((broken["number"], broken["at"]), (self.open_job.number, None))
