"""The client's own units: vitest, started once, each of its tests reported by name."""

import json
import subprocess
from typing import Any

from django.conf import settings
from django.test import SimpleTestCase

WEB = settings.ROOT / "web"
FEWEST = 50  # fewer were found than there ever were: something is not collected any more


class ClientUnitsTest(SimpleTestCase):
    """What TypeScript computes and draws, without a browser."""

    def test_every_unit_of_the_client(self) -> None:
        said = settings.STATE / "vitest.json"
        run = subprocess.run(
            ["node_modules/.bin/vitest", "run", "--reporter=json", f"--outputFile={said}"],
            cwd=WEB,
            capture_output=True,
            text=True,
            check=False,
        )
        self.assertTrue(said.exists(), run.stdout + run.stderr)
        files: list[dict[str, Any]] = json.loads(said.read_text())["testResults"]
        said.unlink()
        tests = [(file["name"].rpartition("/src/")[2], test) for file in files for test in file["assertionResults"]]
        for name, test in tests:
            with self.subTest(f"{name}: {test['fullName']}"):
                self.assertEqual(test["status"], "passed", "\n".join(test["failureMessages"]))
        broken = [file["message"] for file in files if file["status"] == "failed" and not file["assertionResults"]]
        self.assertEqual(broken, [], "a file of units did not load")
        self.assertGreaterEqual(len(tests), FEWEST)
        self.assertEqual(run.returncode, 0, run.stderr)
