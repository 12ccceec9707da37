"""A value that stands is the lead's to change, wherever it stands; what others change of it waits."""

import json
from typing import Any

from django.core.management import call_command
from django.test import TestCase

from server.catalogue.models import CouplingSize, ValueRequest
from server.jobs.models import Job
from server.plant.models import Line
from tests.site import Member, build_two_sites

KEY = "gap_nominal_mm"
WHY = "issue C of the sheet"


class AskedOfTheLeadTest(TestCase):
    """From the card of a line, from the catalogue, from a file."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def changed(self, line: Line, reason: str = "", **values: Any) -> dict[str, Any]:
        """A line as it is sent, one of its values doubled."""
        _, whole = Member("lead").ask("GET", f"/api/lines/{line.pk}")
        card = {**whole["values"], KEY: {**whole["values"][KEY], "value": whole["values"][KEY]["value"] * 2, "typed": ""}}
        card |= values
        return {"name": whole["name"], "version": whole["version"], "spec": whole["spec"], "values": card, "reason": reason}

    def figure(self, line: Line) -> float:
        return float(Line.objects.get(pk=line.pk).values[KEY]["value"])

    def test_a_millwrights_change_on_a_line_waits_and_the_rest_is_saved(self) -> None:
        line, millwright, lead = self.job.line, Member("millwright"), Member("lead")
        was, path = self.figure(line), f"/api/lines/{line.pk}"
        status, said = millwright.ask("PUT", path, self.changed(line))
        self.assertEqual((status, said["errors"][0]["path"]), (422, "reason"))
        status, shown = millwright.ask("PUT", path, {**self.changed(line, WHY), "name": "Blower 2 of the steeps"})
        self.assertEqual((status, shown["name"]), (200, "Blower 2 of the steeps"))
        self.assertEqual((self.figure(line), shown["values"][KEY]["value"]), (was, was))
        [asked] = shown["requests"]
        self.assertEqual((asked["reason"], asked["by"]), (WHY, "Jorun Thornquist"))
        self.assertEqual(len(asked["changes"]), 1)
        door = f"{path}/requests/{asked['id']}"
        self.assertEqual(millwright.ask("POST", door, {"accept": True})[0], 403)
        self.assertEqual(Member("stranger").ask("POST", door, {"accept": True})[0], 404)
        status, shown = lead.ask("POST", door, {"accept": True})
        self.assertEqual((status, self.figure(line), shown["requests"]), (200, was * 2, []))
        self.assertEqual(lead.ask("POST", door, {"accept": True})[0], 409)
        _, changes = lead.ask("GET", f"{path}/changes")
        self.assertIn(WHY, changes[0]["because"])
        self.assertIn("asked by Jorun Thornquist", changes[0]["because"])
        call_command("verify", verbosity=0)

    def test_what_the_lead_leaves_stays_and_a_value_taken_away_is_a_change_as_well(self) -> None:
        line, millwright, lead = self.job.line, Member("millwright"), Member("lead")
        was, path = self.figure(line), f"/api/lines/{line.pk}"
        gone = self.changed(line, WHY)
        del gone["values"][KEY]
        _, shown = millwright.ask("PUT", path, gone)
        self.assertEqual(self.figure(line), was)
        lead.ask("POST", f"{path}/requests/{shown['requests'][0]['id']}", {"accept": False})
        self.assertEqual(self.figure(line), was)
        self.assertFalse(ValueRequest.objects.waiting().exists())

    def test_the_lead_changes_it_with_a_reason_and_the_next_job_says_so_on_its_front(self) -> None:
        line, lead = self.job.line, Member("lead")
        path = f"/api/lines/{line.pk}"
        self.assertEqual(lead.ask("PUT", path, self.changed(line))[1]["errors"][0]["path"], "reason")
        was = self.figure(line)
        self.assertEqual(lead.ask("PUT", path, self.changed(line, WHY))[0], 200)
        self.assertEqual(self.figure(line), was * 2)
        lead.ask("POST", f"/api/jobs/{self.job.pk}/cancel", {"reason": "parts"})
        _, job = lead.ask("POST", f"/api/jobs/of-line/{line.pk}", {"title": "Anew"})
        _, record = lead.ask("GET", f"/api/records/{job['id']}")
        told = [one for one in record["front"]["deviations"] if one["said"] == "changed before this job"]
        self.assertEqual([(one["by"], one["reason"]) for one in told], [("Ansa Pellwright", WHY)])

    def test_a_value_that_is_missing_is_anybodys_who_keeps_lines(self) -> None:
        line = self.job.line
        whole = self.changed(line)
        whole["values"][KEY] = Line.objects.get(pk=line.pk).values[KEY]
        new = {"value": 4.0, "means": "", "source": {"kind": "drawing", "document": "D-1"}}
        missing = next(key for key in ("wear_limit_mm", "twist_limit_mm", "round_days") if key not in whole["values"])
        whole["values"][missing] = new
        status, shown = Member("millwright").ask("PUT", f"/api/lines/{line.pk}", whole)
        self.assertEqual((status, shown["requests"]), (200, []), shown)
        self.assertIn(missing, shown["values"])

    def test_from_the_catalogue_and_from_its_file_it_waits_too(self) -> None:
        size = next(one for one in CouplingSize.objects.all() if KEY in one.values)
        millwright, lead = Member("millwright"), Member("lead")
        was = size.values[KEY]["value"]
        body = json.loads(size.as_core.model_dump_json())
        body["values"][KEY] |= {"value": was * 2, "typed": ""}
        self.assertEqual(millwright.ask("PUT", "/api/couplings/sizes", body)[0], 422)
        status, shown = millwright.ask("PUT", f"/api/couplings/sizes?reason={WHY}", body)
        self.assertEqual((status, shown["values"][KEY]["value"]), (200, was))
        held = {"format": "young-anvil catalogue", "version": 1, "sizes": [body]}
        self.assertEqual(millwright.ask("POST", "/api/couplings/file", held)[0], 200)
        size.refresh_from_db()
        self.assertEqual(size.values[KEY]["value"], was)
        _, asked = lead.ask("GET", "/api/couplings/requests")
        self.assertEqual([(one["series"], one["size"]) for one in asked], [(size.series, size.size)] * 2)
        self.assertEqual(millwright.ask("POST", f"/api/couplings/requests/{asked[0]['id']}", {"accept": True})[0], 403)
        self.assertEqual(lead.ask("POST", f"/api/couplings/requests/{asked[0]['id']}", {"accept": True})[0], 204)
        size.refresh_from_db()
        self.assertEqual(size.values[KEY]["value"], was * 2)
        call_command("verify", verbosity=0)

    def test_from_the_card_of_a_job_nobody_but_the_lead_changes_it(self) -> None:
        value = {**self.job.card[KEY], "value": 99.0}
        status, said = Member("millwright").enter(
            self.job, "set.gap", {"key": KEY, "value": value, "reason": WHY}, kind="value"
        )
        self.assertEqual(status, 409)
        self.assertIn("The lead changes a value that is on the card", said["errors"][0]["message"])
