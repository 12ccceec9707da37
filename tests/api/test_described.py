"""The written description tells the truth: what is answered has the shapes the client is typed by."""

import json
from typing import Any

import jsonschema_rs
from django.conf import settings
from django.test import TestCase

from server.jobs.models import Job
from tests.site import Member, build_two_sites

DESCRIPTION = json.loads((settings.ROOT / "docs" / "openapi.json").read_text())


def shaped(name: str) -> jsonschema_rs.Draft202012Validator:
    """Whether something has a shape of the description."""
    return jsonschema_rs.Draft202012Validator(
        {"$ref": f"#/components/schemas/{name}", "components": DESCRIPTION["components"]}
    )


def faults(name: str, given: Any) -> list[str]:
    """What of it does not have that shape."""
    return [f"{list(error.instance_path)}: {error.message[:200]}" for error in shaped(name).iter_errors(given)]


class DescribedTest(TestCase):
    """On every job of the demo, as its page is given it."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def test_every_entry_and_every_form_is_exactly_one_of_the_described(self) -> None:
        benches, kinds = set(), set()
        for job in Job.objects.filter(site__name="Quillmere Maltings"):
            _, shown = Member("lead").ask("GET", f"/api/jobs/{job.pk}")
            for entry in shown["entries"]:
                self.assertEqual(faults("EntryOut", entry), [], entry["step"])
                benches.add(entry["bench"])
                kinds.add(entry["kind"])
            for step in shown["steps"]:
                self.assertEqual(faults("FormOut", step["form"]), [], step["key"])
        self.assertLessEqual({"alignment", "gap", "tighten", "heat", "sheet"}, benches)
        self.assertLessEqual({"reading", "move", "event"}, kinds)

    def test_a_misspelt_key_is_not_of_the_shape(self) -> None:
        reading = {"id": "0b7e4a0e-3f8b-4a56-9d6e-2f8f3c1f6a01", "step": "set.gap", "kind": "reading"}
        gap = {"readings": [{"clock": 0, "value_mm": 3.0}], "diameter_mm": 160.0}
        self.assertTrue(shaped("GapGiven").is_valid(gap))
        self.assertFalse(shaped("GapGiven").is_valid({**gap, "diametre_mm": 160.0}))
        self.assertTrue(shaped("EntryIn").is_valid({**reading, "inputs": gap}))
        self.assertFalse(shaped("EntryIn").is_valid({**reading, "kind": "move", "inputs": gap}))
        self.assertTrue(shaped("EntryIn").is_valid({**reading, "kind": "note", "inputs": {"text": "dry"}}))
        self.assertFalse(shaped("EntryIn").is_valid({**reading, "kind": "note", "inputs": {"words": "dry"}}))
