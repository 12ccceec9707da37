"""The whole blower job on a line of one's own, by clicks and keys, to the signed record and its PDF."""

import json
import re
from pathlib import Path

from playwright.sync_api import expect

from millwright.plan.steps import Step
from server.accounts.models import Membership
from server.instruments.models import Wrench
from server.jobs.models import Job
from server.plant.models import Line

from .base import FACE, IN_LINE, RIM, BrowserTestCase, sign, tap

CLOCK = {0: "12 o’clock", 90: "3 o’clock", 180: "6 o’clock", 270: "9 o’clock"}


class WholeJobTest(BrowserTestCase):
    """From lock-out to the closed record."""

    starts_on_the_floor = True

    def prepare(self) -> None:
        line = self.job.line
        self.own = Line.objects.create(site=line.site, name="Steep aeration blower 3", spec=line.spec, values=line.values)

    def test_from_lock_out_to_the_signed_record(self) -> None:
        page = self.page
        page.get_by_role("searchbox").fill("blower 3")
        page.get_by_role("button", name=re.compile("Open Steep aeration blower 3")).click()
        page.get_by_label("What is to be done").fill("New coupling")
        page.get_by_role("button", name="Start a job").click()
        expect(page.get_by_role("heading", name="Read the documents and dress for the job")).to_be_visible()
        job = Job.objects.get(line=self.own)
        for step in self.steps(job):
            expect(page.get_by_role("heading", level=2, name=step.title, exact=True)).to_be_visible()
            self.do(step.key, job)
            self.leave(step.key)
        soft, align = (entry.inputs["feet"] for entry in job.entries.filter(kind="move"))
        self.assertEqual([(f["name"], f["shim_mm"], f["shim_planned_mm"]) for f in soft], [("motor tail, 3 side", 0.2, 0.18)])
        self.assertEqual([f["name"] for f in align], ["motor drive end, 9 side", "motor drive end, 3 side", "motor tail"])
        self.assertEqual((align[1]["shim_mm"], align[1]["shim_planned_mm"]), (0.5, align[0]["shim_planned_mm"]))
        self.assertAlmostEqual(align[0]["shim_mm"], align[0]["shim_planned_mm"], delta=0.005)
        self.close_as_lead(job)
        page.goto(f"{self.live_server_url}/jobs/{job.pk}/record")
        expect(page.get_by_text("Signed and closed.")).to_be_visible()
        expect(page.get_by_text("as found").first).to_be_visible()
        with page.expect_download() as download:
            page.get_by_role("link", name="PDF").click()
        self.assertEqual(Path(download.value.path()).read_bytes()[:5], b"%PDF-")
        with page.expect_download() as download:
            page.get_by_role("link", name="Job as JSON").click()
        written = json.loads(Path(download.value.path()).read_text())
        self.assertEqual((written["format"], written["version"]), ("young-anvil job", 3))
        self.assertTrue(job.stand().closed)

    def steps(self, job: Job) -> list[Step]:
        """Every step in working order, but the lead's last one."""
        return [now.step for now in job.stand().steps if now.step.key != "close.sign" and not now.step.optional]

    def do(self, key: str, job: Job) -> None:
        """One step as its user does it."""
        page = self.page
        special = getattr(self, "do_" + key.replace(".", "_"), None)
        family = getattr(self, "do_" + ".".join(key.split(".")[:2]).replace(".", "_"), None)
        if special is not None:
            special(job)
        elif family is not None:
            family(job)
        else:
            self.sheet()
            self.enter()
        if key in ("safe.try", "close.hand"):
            sign(page, "millwright")
        if key == "couple.align":
            self.lead_signs(key, job)

    def leave(self, key: str) -> None:
        """On to what comes next, where saving did not go on by itself."""
        if self.goes_on:
            self.page.wait_for_url(lambda url: not url.endswith("/" + key))
        else:
            self.page.get_by_role("button", name=re.compile("^(Next|See)")).click()

    def sheet(self) -> None:
        """Everything ticked, everything ok, the first choice, words where words are wanted."""
        page = self.page
        for tick in page.get_by_role("checkbox").all():
            tap(tick)
        for group in page.locator("[data-bench] [role=radiogroup]").all():
            tap(group.get_by_role("radio").first)
        for cell in page.locator("[data-bench] input[type=text]:not([data-cell])").all():
            if not cell.input_value():
                cell.fill("T-1")
        for cell in page.locator("[data-bench] input[type=date]").all():
            cell.fill("2027-03-31")
        for cell in page.locator("[data-bench] input[data-cell]").all():
            cell.fill("20")

    def enter(self) -> None:
        """The main button; it says whether it goes on."""
        main = self.page.locator("[data-enter-goes-here]")
        self.goes_on = main.inner_text() == "Save and go on"
        main.click()

    def save(self) -> None:
        """Save, and look at it."""
        self.goes_on = False
        self.page.get_by_role("button", name="Save", exact=True).click()

    def do_receive_tools(self, job: Job) -> None:
        """The wrench by a touch: the register knows until when it holds."""
        self.sheet()
        self.page.get_by_role("button", name="Wrench 3").click()
        expect(self.page.get_by_label("Torque wrench number")).to_have_value("Wrench 3")
        until = Wrench.objects.get(name="Wrench 3").calibrated_until
        assert until is not None
        expect(self.page.get_by_label("Wrench calibrated until")).to_have_value(until.isoformat())
        self.enter()

    def do_receive_like(self, job: Job) -> None:
        """Series and size as registered."""
        self.page.get_by_label("Series marked on the parts").fill("Brackwater Plover")
        self.page.get_by_label("Size marked").fill("firkin")
        tap(self.page.get_by_role("checkbox"))
        self.enter()

    def do_receive_element(self, job: Job) -> None:
        """As it is marked, its figure typed with its scale."""
        self.page.get_by_label("Hardness marked on it").fill("92")
        tap(self.page.get_by_role("radio", name="shore A"))
        self.page.get_by_label("Colour as seen").fill("grey-green")
        tap(self.page.get_by_role("radio", name="solid centre"))
        self.enter()

    def do_prepare_distance(self, job: Job) -> None:
        """Wider apart than the element."""
        self.page.get_by_label("Distance between the shaft ends").fill("1 1/4 in")
        self.enter()

    def do_prepare_fit(self, job: Job) -> None:
        """Micrometer readings at the stations."""
        self.page.get_by_label("shaft at shaft end, across 12-6").fill("48.011")
        self.page.get_by_label("bore at shaft end, across 12-6").fill("48.029")
        expect(self.verdict()).to_have_text("Slip fit.")
        self.enter()

    def do_prepare_key(self, job: Job) -> None:
        """Key and both keyways."""
        for label, text in {
            "Key width": "14",
            "Key height": "9",
            "Key length": "60",
            "Shaft keyway, width": "14.01",
            "Shaft keyway, depth at the side": "5.4",
            "Hub keyway, width": "14.03",
            "Hub keyway, depth at the side": "3.8",
        }.items():
            self.page.get_by_label(f"{label}, mm").fill(text)
        expect(self.verdict()).to_have_text("The key has room.")
        self.enter()

    def do_mount_hub(self, job: Job) -> None:
        """Flush."""
        self.page.get_by_label("Stand-out of the shaft end from the hub face").fill("0")
        for tick in self.page.get_by_role("checkbox").all():
            tap(tick)
        self.enter()

    def do_mount_screw(self, job: Job) -> None:
        """One click."""
        self.page.get_by_role("button", name="Bolt 1: clicked at 25").click()
        self.enter()

    do_couple_screw = do_mount_screw

    def do_set_soft(self, job: Job) -> None:
        """One foot is soft, felt at its corners, shimmed; then every foot stands."""
        page = self.page
        for side, rise in {"drive end, 9": "0.02", "drive end, 3": "0.01", "tail, 9": "0.02", "tail, 3": "0.18"}.items():
            page.get_by_label(f"Rise, motor {side} side").fill(rise)
        expect(self.verdict()).to_have_text("Soft foot: motor tail, 3 side.")
        for corner in ("near, 9", "near, 3", "far, 3", "far, 9"):
            page.get_by_label(f"{corner} o’clock side").fill("0.18")
        expect(page.get_by_role("img", name="motor tail, 3 side parallel: 0.18 under it")).to_be_visible()
        self.enter()
        page.get_by_role("button", name="Record the shims").click()
        under = page.get_by_label("motor tail, 3 side, shim")
        self.assertEqual((under.input_value(), page.get_by_text("planned").all_inner_texts()), ("0.18", ["planned +0.18"]))
        under.fill("0.20")
        page.get_by_role("button", name="Save the shims").click()
        expect(page.get_by_text("Since this was read, a foot was shimmed: read it again.")).to_be_visible()
        self.every_foot_stands()

    def every_foot_stands(self) -> None:
        """Slackened one at a time, none rises."""
        for side in ("drive end, 9", "drive end, 3", "tail, 9", "tail, 3"):
            self.page.get_by_label(f"Rise, motor {side} side").fill("0.02")
        expect(self.verdict()).to_have_text("All feet OK.")
        self.enter()

    def do_set_gap(self, job: Job) -> None:
        """Four readings inside the band."""
        self.fill_ring("Gap", dict.fromkeys(RIM, "30.2"))
        expect(self.verdict()).to_have_text("Within tolerance.")
        self.enter()

    do_couple_gap = do_set_gap

    def do_couple_gap_again(self, job: Job) -> None:
        """The screw shifted nothing."""
        self.page.get_by_label("Gap, at one place").fill("30.2")
        self.enter()

    def do_set_straightedge(self, job: Job) -> None:
        """No light under the edge."""
        self.fill_ring("Feeler", dict.fromkeys(RIM, "0"))
        self.enter()

    def do_set_align(self, job: Job) -> None:
        """Found over; moved; everything read again; in line."""
        self.fill_ring("Rim", RIM)
        self.open_set_up()
        self.page.get_by_label("Rim: bracket sag at 6").fill("-0.02")
        self.fill_ring("Face", FACE)
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        self.enter()
        expect(self.page.get_by_text("Entered so far")).to_be_visible()
        self.page.get_by_role("button", name="Record the move").click()
        shim = self.page.get_by_label("motor drive end, shim")
        self.assertGreater(float(shim.input_value()), 0.4)
        self.page.get_by_role("button", name="A shim for each foot").first.click()
        self.page.get_by_label("motor drive end, 3 side, shim").fill("0.5")
        self.page.get_by_role("button", name="Save the move").click()
        expect(self.page.get_by_text("Since this was read, the machines were moved: read it again.")).to_be_visible()
        self.goto_step("set.straightedge", job=job)
        expect(self.verdict()).to_have_text("Within tolerance.")  # a first figure: dials were read since
        self.goto_step("set.gap", job=job)
        expect(self.page.get_by_text("Since this was read, the machines were moved: read it again.")).to_be_visible()
        self.fill_ring("Gap", dict.fromkeys(RIM, "30.2"))
        self.save()
        expect(self.page.get_by_role("button", name=re.compile("^Next"))).to_be_visible()
        self.goto_step("set.align", job=job)
        self.in_line()
        self.save()
        expect(self.page.get_by_text("As found")).to_be_visible()
        self.page.get_by_role("button", name="Next: Check for soft foot: motor").click()  # shims lie under them now
        self.every_foot_stands()

    def do_couple_align(self, job: Job) -> None:
        """In line."""
        self.in_line()
        self.enter()

    def in_line(self) -> None:
        """Both dials."""
        self.fill_ring("Rim", IN_LINE)
        self.fill_ring("Face", IN_LINE)
        expect(self.verdict()).to_have_text("Within both limits.")

    def do_couple_feet(self, job: Job) -> None:
        """Crosswise in three passes, by the space bar and once by hand."""
        expect(self.page.get_by_role("button", name="Bolt 1, next")).to_be_visible()
        self.page.get_by_role("button", name="Bolt 1, next").click()
        for _ in range(11):
            self.page.get_by_role("button", name=re.compile("clicked at")).click()
        expect(self.verdict()).to_have_text("Every bolt is pulled.")
        self.enter()

    def do_close_start(self, job: Job) -> None:
        """Smooth."""
        self.sheet()
        self.enter()

    def do_close_hand(self, job: Job) -> None:
        """Nothing is typed."""
        self.goes_on = False
        expect(self.page.get_by_text("Every step is done, the ledger is closed, everything is final.")).to_be_visible()

    def lead_signs(self, key: str, job: Job) -> None:
        """The lead, on a device of their own; the millwright's shows it."""
        page = self.open_page("lead")
        self.goto_step(key, page, job)
        sign(page, "lead")
        expect(page.get_by_text("Signed by Ansa Pellwright")).to_be_visible()

    def close_as_lead(self, job: Job) -> None:
        """The last signature."""
        self.assertEqual(Membership.objects.get(user__username="lead").role, "lead")
        self.lead_signs("close.sign", job)
