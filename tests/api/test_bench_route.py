"""One route for all benches, and its written description."""

import json
import tempfile
from pathlib import Path

from django.conf import settings
from django.core.management import call_command
from django.test import TestCase

from millwright.benches.register import BENCHES
from tests.site import Member, build_two_sites


class BenchRouteTest(TestCase):
    """The screen and the shell never disagree."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def test_answers_for_every_bench_and_refuses_in_one_shape(self) -> None:
        member = Member("apprentice")
        for name in BENCHES:
            status, said = member.ask("POST", f"/api/benches/{name}", {})
            self.assertEqual(status, 422, name)
            self.assertTrue(all(set(error) == {"path", "message"} for error in said["errors"]))
        status, said = member.ask("POST", "/api/benches/anvil", {})
        self.assertEqual((status, said["errors"][0]["path"]), (422, "bench"))
        self.assertEqual(member.ask("GET", "/api/nowhere")[0], 404)

    def test_the_written_description_is_that_of_the_code(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "openapi.json"
            call_command("write_openapi", path)
            fresh = json.loads(path.read_text())
        self.assertEqual(fresh, json.loads((settings.ROOT / "docs" / "openapi.json").read_text()))
        for bench in BENCHES.values():
            self.assertIn(bench.input.__name__, fresh["components"]["schemas"])
