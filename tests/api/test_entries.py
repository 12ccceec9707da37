"""Entries and signatures: appended once, evaluated here, never changed."""

import json
from typing import Any
from uuid import uuid4

from django.db import IntegrityError, InternalError, connection, transaction
from django.test import TestCase
from django.utils import timezone

from millwright.benches.register import as_dict, evaluate_json
from millwright.errors import UnusableInput
from millwright.meaning import Of
from millwright.scope import Scope
from millwright.tests.work import Work
from server.accounts.models import Membership
from server.demo import blower, lines
from server.jobs.actions.append_entry import _at
from server.jobs.actions.start_job import start_job
from server.jobs.before import left_before
from server.jobs.models import Entry, Job, Signature
from server.plant.actions import save_line
from tests.site import PASSWORD, Member, build_two_sites, job_of
from tests.worked import registered


class EntriesTest(TestCase):
    """What an entry is, and what it is not."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def setUp(self) -> None:
        self.member = Member("millwright")

    def test_the_same_id_sent_twice_is_one_entry(self) -> None:
        body = {"id": str(uuid4()), "step": "set.align", "kind": "reading", "inputs": blower.FOUND}
        path, before = f"/api/jobs/{self.job.pk}/entries", self.job.entries.count()
        first, again = self.member.ask("POST", path, body), self.member.ask("POST", path, body)
        self.assertEqual((first, first[0]), (again, 201))
        self.assertEqual(self.job.entries.count(), before + 1)
        self.assertEqual(self.member.ask("POST", path, {**body, "step": "set.gap"})[0], 409)

    def test_two_people_on_one_step_both_stay_and_the_later_is_current(self) -> None:
        _, first = self.member.enter(self.job, "set.align", blower.FOUND)
        _, second = Member("lead").enter(self.job, "set.align", blower.MOVED)
        _, job = self.member.ask("GET", f"/api/jobs/{self.job.pk}")
        step = next(s for s in job["steps"] if s["key"] == "set.align")
        self.assertEqual((step["current"], step["state"]), (second["id"], "done"))
        self.assertLess({first["id"], second["id"]}, {e["id"] for e in job["entries"]})

    def test_the_verdict_is_the_servers_and_the_limits_are_the_cards(self) -> None:
        kind = {"limits": {"offset_mm": 99.0, "angle_deg": 9.0}, "result": {"verdict": "inside"}}
        status, said = self.member.enter(self.job, "set.align", {**blower.FOUND, **kind})
        self.assertEqual((status, [e["path"] for e in said["errors"]]), (422, ["result"]))
        status, entry = self.member.enter(self.job, "set.align", {**blower.FOUND, "limits": kind["limits"]})
        self.assertEqual((entry["result"]["verdict"], entry["inputs"]["limits"]["offset_mm"]), ("over", 0.4))
        self.assertEqual(entry["result"], as_dict(evaluate_json("alignment", json.dumps(entry["inputs"]))))

    def test_a_sweep_that_was_read_again_is_told_of_and_its_figures_come_when_they_are_asked_for(self) -> None:
        swept = [{"clock": 5.0 * n, "value_mm": 0.0} for n in range(60)]
        laser = [{"kind": "rim", "bracket_on": "stationary", "x_mm": x, "readings": swept} for x in (100.0, -100.0)]
        sweeps = [self.member.enter(self.job, "set.align", {"dials": laser})[1] for _ in range(2)]
        _, job = self.member.ask("GET", f"/api/jobs/{self.job.pk}")
        first, last = (next(e for e in job["entries"] if e["id"] == sweep["id"]) for sweep in sweeps)
        self.assertEqual((first["left_out"], [d["readings"] for d in first["inputs"]["dials"]]), (True, [[], []]))
        self.assertEqual((last["left_out"], len(last["inputs"]["dials"][0]["readings"])), (False, 60))
        typed = next(e for e in job["entries"] if e["step"] == "set.align" and e["label"] == "as found")
        self.assertEqual((typed["left_out"], last["label"]), (False, "as it stands"))
        self.assertTrue(all(dial["readings"] for dial in typed["inputs"]["dials"]))
        status, figures = self.member.ask("GET", f"/api/records/{self.job.pk}/entries/{first['id']}")
        self.assertEqual(status, 200)
        self.assertIn(("1 rim sweep", "60 readings over 295°"), [(f["label"], f["value"]["template"]) for f in figures])
        self.assertEqual(Member("stranger").ask("GET", f"/api/records/{self.job.pk}/entries/{first['id']}")[0], 404)
        self.assertEqual(len(Entry.objects.get(pk=first["id"]).inputs["dials"][0]["readings"]), 60)

    def test_a_name_with_a_dot_in_it_is_found_again_where_something_was_typed_for_it(self) -> None:
        rises = {"growth": {"D.E. foot": 0.0508, "D": 0.0254}}
        feet = [{"name": "D.E. foot", "x_mm": 300.0}, {"name": "D", "x_mm": 500.0}]
        self.assertEqual(_at({**rises, "feet": feet}, "growth.D.E. foot"), 0.0508)
        self.assertEqual(_at({**rises, "feet": feet}, "growth.D"), 0.0254)
        self.assertEqual(_at({**rises, "feet": feet}, "feet.1.x_mm"), 500.0)
        for nowhere in ("growth.E", "feet.2.x_mm", "growth.D.E", "feet.x"):
            with self.assertRaises(UnusableInput):
                _at({**rises, "feet": feet}, nowhere)

    def test_what_was_typed_over_a_figure_of_the_card_is_not_kept_as_if_it_were_that(self) -> None:
        soft = {**blower.FIRST_READINGS["set.soft"], "limit_mm": 5.0}
        status, entry = self.member.enter(self.job, "set.soft", soft, typed={"limit_mm": "5.00", "feet.0.rise_mm": "0.02"})
        self.assertEqual((status, entry["typed"]), (201, {"feet.0.rise_mm": "0.02"}))
        self.assertEqual(entry["inputs"]["limit_mm"], 0.05)

    def test_what_was_typed_is_kept_beside_the_value_and_must_read_as_it(self) -> None:
        found = json.loads(json.dumps(blower.FOUND))
        found["dials"][1]["readings"][2]["value_mm"] = 0.0508
        path = "dials.1.readings.2.value_mm"
        _, entry = self.member.enter(self.job, "set.align", found, typed={path: "2 thou"})
        self.assertEqual((entry["typed"], entry["inputs"]["dials"][1]["readings"][2]["value_mm"]), ({path: "2 thou"}, 0.0508))
        status, said = self.member.enter(self.job, "set.align", found, typed={path: "3 thou"})
        self.assertEqual((status, said["errors"][0]["path"]), (422, path))

    def test_a_blocked_step_takes_nothing_and_says_what_comes_first(self) -> None:
        status, said = self.member.enter(self.job, "couple.gap", blower.FIRST_READINGS["couple.gap"])
        self.assertEqual((status, said["errors"][0]["message"]), (409, "First: Put the element in and close the hubs up"))

    def test_the_database_itself_refuses_to_change_or_delete(self) -> None:
        for model in (Entry, Signature):
            for verb in ("UPDATE {} SET step = 'x'", "DELETE FROM {}"):
                with (
                    self.subTest(f"{verb} {model.__name__}"),
                    self.assertRaises((IntegrityError, InternalError)),
                    transaction.atomic(),
                    connection.cursor() as cursor,
                ):
                    cursor.execute(verb.format(model._meta.db_table))

    def test_a_closed_record_takes_a_note_and_nothing_else(self) -> None:
        closed = job_of("Steep aeration blower 2", closed=True)
        self.assertEqual(self.member.enter(closed, "set.align", blower.FOUND)[0], 409)
        self.assertEqual(self.member.enter(closed, "set.align", {"text": "ran hot in August"}, "note")[0], 201)

    def test_signing_off_with_stale_steps_is_refused_and_names_them(self) -> None:
        lead = Member("lead")
        lead.enter(self.job, "set.align", {"axial_mm": 0.5}, "move")
        status, said = lead.sign(self.job, "set.align")
        self.assertEqual(status, 409)
        self.assertIn("to be read again: Since this was read, the machines were moved", said["errors"][0]["message"])
        status, said = lead.sign(self.job, "close.sign")
        self.assertEqual(status, 409)
        for title in ("Set the gap between the hubs", "Align the motor"):
            self.assertIn(f"{title}: Since this was read, the machines were moved", said["errors"][0]["message"])
        self.assertNotIn("straightedge", said["errors"][0]["message"], "a first figure, once dials were read")

    def test_nobody_signs_a_reading_that_was_replaced_while_they_looked(self) -> None:
        _, seen = self.member.enter(self.job, "safe.try", {"who": "A"})
        self.member.enter(self.job, "safe.try", {"who": "B"})
        body = {"id": str(uuid4()), "step": "safe.try", "kind": "hold", "entry": seen["id"], "password": PASSWORD}
        status, said = self.member.ask("POST", f"/api/jobs/{self.job.pk}/signatures", body)
        self.assertEqual(
            (status, said["errors"][0]["message"]), (409, "Another reading was entered meanwhile. Look at it, then sign.")
        )


class LinesTest(TestCase):
    """Lines of one's own."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def test_a_line_is_created_its_coupling_kept_in_the_catalogue_and_a_job_started(self) -> None:
        member, line = Member("millwright"), self.job.line
        spec = {**line.spec, "coupling": {**line.spec["coupling"], "size": "125"}}
        status, made = member.ask(
            "POST", "/api/lines", {"name": "Steep blower 3", "version": 0, "spec": spec, "values": line.values}
        )
        self.assertEqual(status, 201)
        _, catalogue = member.ask("GET", "/api/couplings")
        self.assertIn("125", [size["size"] for size in catalogue["sizes"]])
        self.assertEqual(member.ask("POST", f"/api/jobs/of-line/{made['id']}", {"title": "First fit"})[0], 201)
        status, _said = member.ask("POST", f"/api/jobs/of-line/{made['id']}", {"title": "Again"})
        self.assertEqual(status, 409)

    def test_two_windows_do_not_overwrite_each_other(self) -> None:
        member, line = Member("lead"), self.job.line
        body = {"name": line.name, "version": line.version, "spec": line.spec, "values": line.values}
        self.assertEqual(member.ask("PUT", f"/api/lines/{line.pk}", body)[0], 200)
        self.assertEqual(member.ask("PUT", f"/api/lines/{line.pk}", body)[0], 409)

    def test_bad_figures_are_named_by_their_place(self) -> None:
        member, line = Member("lead"), self.job.line
        rows: dict[str, dict[str, Any]] = {
            "spec.driver.shaft_diameter_mm": {"driver": {**line.spec["driver"], "shaft_diameter_mm": -48}},
            "spec.speed_rpm": {"speed_rpm": "fast"},
            "spec.movble": {"movble": "driver"},
        }
        for path, change in rows.items():
            body: dict[str, Any] = {"name": "Other", "version": 0, "spec": {**line.spec, **change}, "values": {}}
            status, said = member.ask("POST", "/api/lines", body)
            self.assertEqual((status, [e["path"] for e in said["errors"]]), (422, [path]))

    def test_a_job_takes_a_coupling_off_where_that_is_what_it_is_for(self) -> None:
        lead = Member("lead")
        _, floor = lead.ask("GET", "/api/jobs")
        mill = next(line for line in floor if line["name"] == "Roller mill")
        wanted = {"title": "Grid looked at", "scope": "take it off"}
        status, job = lead.ask("POST", f"/api/jobs/of-line/{mill['id']}", wanted)
        self.assertEqual((status, job["scope"]), (201, "take it off"))
        stages = list(dict.fromkeys(step["stage"] for step in job["steps"]))
        self.assertEqual(stages, ["Lock out", "Take off", "Close out"])
        self.assertEqual([s["key"] for s in job["steps"] if s["optional"]], ["off.align"])
        status, _ = lead.ask("POST", f"/api/jobs/of-line/{mill['id']}", {"title": "x", "scope": "saw it off"})
        self.assertEqual(status, 422)

    def test_a_hub_has_its_own_figure_and_a_limit_its_speeds(self) -> None:
        lead, line = Member("lead"), self.job.line
        paper = {"kind": "sample", "document": "Trial sheet"}
        by_speed = {"value": 0.03, "up_to": [{"rpm": 1500, "value": 0.06}], "source": paper}
        rows: list[tuple[str, dict[str, Any], int, str]] = [
            ("hub_runout_mm", by_speed, 200, ""),
            ("set_screw_torque_nm@driven", {"value": 12, "means": "dry", "source": paper}, 200, ""),
            (
                "set_screw_torque_nm@gearbox",
                {"value": 12, "means": "dry", "source": paper},
                422,
                "values.set_screw_torque_nm@gearbox",
            ),
            ("axial_growth_mm", {**by_speed, "value": 1}, 422, "values.axial_growth_mm.up_to"),
            ("hub_runout_mm", {**by_speed, "up_to": [{"rpm": 900, "value": 50}]}, 422, "values.hub_runout_mm.up_to.0.value"),
        ]
        for key, value, status, path in rows:
            with self.subTest(key=key, status=status):
                line.refresh_from_db()
                body = {"name": line.name, "version": line.version, "spec": line.spec, "values": {**line.values, key: value}}
                got, said = lead.ask("PUT", f"/api/lines/{line.pk}", body)
                self.assertEqual(got, status)
                self.assertEqual([e["path"] for e in said.get("errors", [])], [path] if path else [])

    def test_what_a_job_finds_is_held_against_what_the_last_closed_job_on_its_line_left(self) -> None:
        left = job_of("Chilled-water pump 1", closed=True)
        _, shown = Member("lead").ask("GET", f"/api/jobs/{left.pk}")
        as_left = {e["step"]: e["inputs"] for e in shown["entries"]}
        lead = Membership.objects.get(user__username="lead")
        fresh = save_line(
            by=lead,
            line_id=None,
            version=0,
            name="Other pump",
            spec=left.as_spec,
            values=lines.VALUES["Chilled-water pump 1"],
        )
        for line, expected in ((left.line, as_left["couple.align"]["dials"]), (fresh, None)):
            open_job = Job.objects.which_are(closed=False).filter(line=line).first()
            job = open_job or start_job(line, by=lead, title="Looked at", now=timezone.now(), scope=Scope.CHECK)
            job.scope = Scope.CHECK.value
            kept = left_before(job)
            self.assertEqual(kept.get(Of.ALIGNMENT, {}).get("dials"), expected)
            self.assertEqual(Of.CLOSED_GAP in kept, expected is not None)
        self.assertEqual(left_before(left), {})  # nothing was closed before it

    def test_a_drive_that_hangs_on_its_shaft_is_not_aligned(self) -> None:
        lead = Member("lead")
        hanging = registered("Husk elevator", Work(family="shaft-mounted reducer"))
        status, said = lead.ask("POST", f"/api/jobs/of-line/{hanging.pk}", {"title": "x", "scope": "align it"})
        self.assertEqual((status, said["errors"][0]["path"]), (422, "scope"))
        status, job = lead.ask("POST", f"/api/jobs/of-line/{hanging.pk}", {"title": "x", "scope": "check it"})
        self.assertEqual((status, [s["key"] for s in job["steps"] if s["key"].startswith("found")]), (201, ["found.look"]))
