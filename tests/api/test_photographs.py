"""Photographs: opened and written anew, append-only, in the chain, on paper and in the file."""

import base64
import io
import json
from typing import Any
from uuid import uuid4

from django.db import IntegrityError, connection, transaction
from django.test import TestCase
from PIL import Image

from server.audit.jobs import verify_jobs
from server.jobs.models import Job, Photograph
from server.jobs.photographs import LONGEST_SIDE, MOST_A_JOB, MOST_SENT
from server.reports.pdf import record_pdf
from tests.forger import made_to_fit
from tests.in_words import in_words
from tests.site import Member, build_two_sites, is_whole

STEP = "set.gap"
TURNED = 0x0112  # where a camera notes which way up it was held
MAKER = 0x010F


def picture(width: int, height: int, format: str = "JPEG", **more: Any) -> str:
    """A picture as a device sends it: left half dark, right half light."""
    made = Image.new("RGB", (width, height), (230, 230, 230))
    made.paste((20, 32, 43), (0, 0, width // 2, height))
    written = io.BytesIO()
    made.save(written, format, **more)
    return base64.b64encode(written.getvalue()).decode()


class PhotographTest(TestCase):
    """On the open blower job."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def setUp(self) -> None:
        self.member = Member("millwright")
        self.path = f"/api/jobs/{self.job.pk}"

    def enter(self, image: str, caption: str = "marks in line", id: str = "") -> tuple[int, Any]:
        """As a device does."""
        body = {"id": id or str(uuid4()), "step": STEP, "kind": "photograph", "inputs": {"caption": caption}, "image": image}
        return self.member.ask("POST", f"{self.path}/entries", body)

    def kept(self, entry: str) -> Image.Image:
        """As it is given out."""
        answer = self.member.get(f"{self.path}/photographs/{entry}")
        self.assertEqual((answer.status_code, answer.headers["Content-Type"]), (200, "image/jpeg"))
        return Image.open(io.BytesIO(answer.content))

    def test_it_is_made_small_and_upright_and_forgets_what_the_camera_noted(self) -> None:
        exif = Image.Exif()
        exif[TURNED], exif[MAKER] = 6, "Somebody"  # held upright: what was left is on top
        status, entry = self.enter(picture(2400, 1200, exif=exif))
        self.assertEqual(status, 201, entry)
        kept = self.kept(entry["id"])
        self.assertEqual((kept.format, kept.size), ("JPEG", (LONGEST_SIDE // 2, LONGEST_SIDE)))
        self.assertEqual(dict(kept.getexif()), {})
        points = kept.convert("L").load()
        assert points is not None
        self.assertEqual([points[400, 100] < 60, points[400, 1500] > 200], [True, True])  # type: ignore[operator]
        self.assertEqual((entry["inputs"]["width"], entry["inputs"]["caption"]), (LONGEST_SIDE // 2, "marks in line"))

    def test_png_and_webp_are_read_and_kept_as_jpeg(self) -> None:
        for format in ("PNG", "WEBP"):
            status, entry = self.enter(picture(40, 30, format))
            self.assertEqual((status, self.kept(entry["id"]).format), (201, "JPEG"))

    def test_what_is_no_picture_is_refused_in_words(self) -> None:
        bomb = picture(9000, 9000, "PNG")
        cases = {
            "": "no picture",
            "not base64!": "no picture",
            "÷": "no picture",
            base64.b64encode(b"%PDF-1.7 ...").decode(): "no picture",
            picture(40, 30, "GIF"): "no picture",
            picture(400, 300)[:600]: "no picture",
            bomb: "million points",
            "A" * (MOST_SENT + 4): "",
        }
        for image, words in cases.items():
            status, said = self.enter(image)
            self.assertEqual((status, said["errors"][0]["path"]), (422, "image"))
            self.assertIn(words, said["errors"][0]["message"])
        self.assertEqual(Photograph.objects.count(), 0)

    def test_sent_twice_it_is_one_and_another_under_its_id_is_refused(self) -> None:
        id, image = str(uuid4()), picture(40, 30)
        self.assertEqual([self.enter(image, id=id)[0] for _ in range(2)], [201, 201])
        self.assertEqual(self.enter(picture(50, 30), id=id)[0], 409)
        self.assertEqual(Photograph.objects.count(), 1)

    def test_a_job_holds_so_many(self) -> None:
        for _ in range(MOST_A_JOB):
            self.assertEqual(self.enter(picture(4, 4))[0], 201)
        status, said = self.enter(picture(4, 4))
        self.assertEqual((status, str(MOST_A_JOB) in said["errors"][0]["message"]), (409, True))

    def test_it_belongs_to_its_site_and_its_job(self) -> None:
        _, entry = self.enter(picture(40, 30))
        self.assertEqual(Member("stranger").get(f"{self.path}/photographs/{entry['id']}").status_code, 404)
        other = Job.objects.exclude(pk=self.job.pk).filter(site=self.job.site)[0]
        self.assertEqual(self.member.get(f"/api/jobs/{other.pk}/photographs/{entry['id']}").status_code, 404)

    def test_it_is_never_changed_and_where_it_was_it_shows(self) -> None:
        _, entry = self.enter(picture(40, 30))
        with self.assertRaises(IntegrityError), transaction.atomic():
            Photograph.objects.update(content=b"another")
        self.assertTrue(is_whole(self.job))
        with connection.cursor() as cursor:  # behind the app and its triggers
            cursor.execute("SET session_replication_role = replica")
            cursor.execute("UPDATE jobs_photograph SET content = %s", [base64.b64decode(picture(41, 30))])
            cursor.execute("SET session_replication_role = origin")
        wrong = [str(one) for _, found in verify_jobs(pk=self.job.pk) for one in found]
        self.assertEqual(len(wrong), 1)
        self.assertIn(f"number {entry['number']}: it is not what was entered", wrong[0])

    def test_it_stands_on_paper_and_goes_through_the_file(self) -> None:
        before = len(record_pdf(self.job))
        _, entry = self.enter(picture(1200, 900))
        job = Job.objects.get(pk=self.job.pk)
        self.assertGreater(len(record_pdf(job)), before + 1_000)
        _, record = self.member.ask("GET", f"/api/records/{job.pk}")
        shown = next(r for step in record["steps"] for r in step["readings"] if r["id"] == entry["id"])
        self.assertEqual([in_words(f["value"]) for f in shown["figures"]], ["marks in line"])
        written = self.member.get(f"/api/records/{job.pk}/json").json()
        written["id"] = str(uuid4())
        for row in [*written["entries"], *written["signatures"]]:
            new = str(uuid4())
            written = json.loads(json.dumps(written).replace(row["id"], new))
        other = next(e for e in written["entries"] if e["kind"] == "photograph")
        swapped = json.loads(json.dumps(written))
        next(e for e in swapped["entries"] if e["kind"] == "photograph")["image"] = picture(40, 30)
        for given in (written, swapped):
            given["line"] = "Read in from elsewhere"
        lead = Member("lead")
        status, said = lead.ask("POST", "/api/records", made_to_fit(swapped))
        self.assertEqual((status, said["errors"][0]["message"]), (422, "This is not the picture that was entered."))
        nameless = {**json.loads(json.dumps(written)), "version": 1}
        next(e for e in nameless["entries"] if e["kind"] == "photograph")["inputs"] = {}
        self.assertEqual(lead.ask("POST", "/api/records", nameless)[0], 422)
        status, said = lead.ask("POST", "/api/records", made_to_fit(written))
        self.assertEqual(status, 201, said)
        ours = bytes(Photograph.objects.get(pk=entry["id"]).content)
        self.assertEqual(bytes(Photograph.objects.get(pk=other["id"]).content), ours)
