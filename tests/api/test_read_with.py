"""What a reading was taken with: the register has the last word, and what it does not know is said."""

from datetime import timedelta
from typing import Any

from django.core.management import call_command
from django.test import TestCase
from django.utils import timezone

from server.instruments.models import Bracket, Gauge, InstrumentChange, Wrench
from server.jobs.models import Entry, Job
from tests.site import Member, build_two_sites

STEP, PULLED = "set.align", "mount.screw"


class ReadWithTest(TestCase):
    """Wrenches by what stands on the bench, everything else by its name beside the reading."""

    job: Job
    late: Wrench

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()
        cls.late = Wrench.objects.create(
            site=cls.job.site,
            name="Wrench 77",
            calibrated_until=timezone.localdate() - timedelta(days=12),
            min_nm=1.0,
            max_nm=1000.0,
            length_mm=400.0,
            kept_by="x",
            kept_at=timezone.now(),
        )

    def pull(self, wrench: dict[str, Any], **more: Any) -> tuple[int, Any]:
        """The bolts as they were pulled, with this wrench."""
        pulled = Entry.objects.filter(job=self.job, step=PULLED, kind="reading").latest("number").inputs
        return Member("apprentice").enter(self.job, PULLED, {**pulled, "wrench": wrench, **more})

    def judged(self, entry: dict[str, Any]) -> tuple[str, list[str]]:
        """The verdict of a pull, and what stands of its wrench."""
        stands = Entry.objects.get(pk=entry["id"])
        return (stands.result or {})["verdict"], [one["said"] for one in stands.asked["instruments"]]

    def test_five_lies_about_a_wrench_come_to_what_the_register_says(self) -> None:
        kept = {"name": "Wrench 77", "min_nm": 1.0, "max_nm": 1000.0, "length_mm": 400.0}
        today = timezone.localdate()
        late = (today - timedelta(days=12)).isoformat()
        lies: tuple[tuple[dict[str, Any], dict[str, Any]], ...] = (
            ({**kept, "calibrated_until": late}, {"pulled_on": today.isoformat()}),
            ({**kept, "calibrated_until": late}, {}),
            ({**kept, "calibrated_until": late}, {"pulled_on": (today - timedelta(days=30)).isoformat()}),
            ({**kept, "calibrated_until": (today + timedelta(days=300)).isoformat()}, {}),
            (kept, {}),
            ({**kept, "name": " wrench-77 "}, {}),
        )
        for wrench, more in lies:
            with self.subTest(wrench=wrench, **more):
                status, entry = self.pull(wrench, **more)
                self.assertEqual(status, 201, entry)
                self.assertEqual(self.judged(entry), ("over", [f"calibrated until {late}"]))

    def test_a_wrench_that_is_laid_out_holds_today_whether_the_register_or_its_label_says_so(self) -> None:
        laid = Entry.objects.filter(job=self.job, step="receive.tools", kind="reading").latest("number").inputs
        day = timezone.localdate()
        gone, far = ((day + timedelta(days=n)).isoformat() for n in (-1, 400))
        holds = Wrench.objects.get(name="Wrench 3")
        assert holds.calibrated_until is not None
        for wrench, until, said in (
            ("W 9", gone, "wrench_until"),
            ("W 9", day.isoformat(), ""),
            ("wrench 77", far, "wrench"),
            ("wrench 3", gone, ""),
        ):
            with self.subTest(wrench=wrench, until=until):
                status, entry = Member("millwright").enter(
                    self.job, "receive.tools", {**laid, "wrench": wrench, "wrench_until": until}
                )
                self.assertEqual([e["path"] for e in entry.get("errors", ())], [said] if said else [])
                self.assertEqual(status, 422 if said else 201)
        left = Entry.objects.filter(job=self.job, step="receive.tools").latest("number").inputs
        self.assertEqual(left["wrench_until"], holds.calibrated_until.isoformat(), "by the register, whatever was typed")

    def test_what_is_not_in_the_register_is_said(self) -> None:
        wrench = {"name": "No Such Wrench", "min_nm": 1.0, "max_nm": 1000.0, "calibrated_until": "2028-01-01"}
        _, entry = self.pull(wrench)
        self.assertEqual(self.judged(entry)[1], ["not in the register"])
        _, record = Member("lead").ask("GET", f"/api/records/{self.job.pk}")
        front = {one["number"]: one["calibrated"] for one in record["front"]["instruments"]}
        self.assertEqual(front["No Such Wrench"], "not in the register")

    def test_a_withdrawn_wrench_is_not_pulled_with_however_it_is_spelt(self) -> None:
        body = {"kind": "torque wrench", "name": "Wrench 77", "reason": "dropped"}
        self.assertEqual(Member("millwright").ask("POST", "/api/instruments/withdraw", body)[0], 200)
        for name in ("Wrench 77", "wrench 77", "WRENCH-77", "Wrench  77"):
            status, said = self.pull({"name": name, "min_nm": 1.0, "max_nm": 1000.0})
            self.assertEqual((status, said["errors"][0]["path"]), (422, "wrench.name"))
            self.assertEqual(said["errors"][0]["message"], "Wrench 77 is withdrawn (dropped). Pull with another one.")

    def test_a_dial_is_named_and_one_out_of_date_or_unknown_reads_nothing(self) -> None:
        today = timezone.localdate()
        said = {"site": self.job.site, "kept_by": "x", "kept_at": timezone.now()}
        Gauge.objects.create(kind="dial", name="D-9", calibrated_until=today + timedelta(days=30), **said)
        Gauge.objects.create(kind="dial", name="D-8", calibrated_until=today - timedelta(days=1), **said)
        Bracket.objects.create(site=self.job.site, name="Long arm", sag_mm=-0.5, measured_by="x", measured_at=timezone.now())
        read = Entry.objects.filter(job=self.job, step=STEP, kind="reading").latest("number").inputs
        member = Member("millwright")
        for kind, name, says in (
            ("dial", "D-8", "ended on"),
            ("dial", "Short stem", "No dial of the register is called Short stem"),
            ("laser", "D-9", "No laser of the register is called D-9"),
            ("bracket", "Long arm", "hangs otherwise by the register"),
        ):
            status, refused = member.enter(self.job, STEP, read, instruments=[{"kind": kind, "name": name}])
            self.assertEqual((status, refused["errors"][0]["path"]), (422, "instruments.0"))
            self.assertIn(says, refused["errors"][0]["message"])
        unsaid = {**read, "dials": [{key: dial[key] for key in dial if key != "sag_mm"} for dial in read["dials"]]}
        status, refused = member.enter(self.job, STEP, unsaid, instruments=[{"kind": "bracket", "name": "Long arm"}])
        self.assertEqual((status, refused["errors"][0]["path"]), (422, "instruments.0"))
        usable = {(one["kind"], one["name"]) for one in member.ask("GET", "/api/instruments/usable")[1]}
        self.assertIn(("dial", "D-9"), usable)
        self.assertFalse({("dial", "D-8"), ("dial", "D-7")} & usable)
        status, entry = member.enter(self.job, STEP, read, instruments=[{"kind": "dial", "name": "d9"}])
        self.assertEqual(status, 201, entry)
        stands = Entry.objects.get(pk=entry["id"])
        self.assertEqual([one["name"] for one in stands.asked["instruments"]], ["D-9"])
        _, record = member.ask("GET", f"/api/records/{self.job.pk}")
        front = {(one["what"], one["number"]): one for one in record["front"]["instruments"]}
        self.assertIn("calibrated until", front["dial", "D-9"]["calibrated"])
        body = {"kind": "dial", "name": "D-9", "reason": "fell"}
        _, register = member.ask("POST", "/api/instruments/withdraw", body)
        used = next(one for one in register["instruments"] if one["name"] == "D-9")
        self.assertEqual([one["job"] for one in used["used_in"]], [str(self.job.pk)])
        self.assertEqual(used["changes"][0]["what"], "withdrawn: fell")
        self.assertEqual(InstrumentChange.objects.filter(name="D-9").count(), 1)
        call_command("verify", verbosity=0)
