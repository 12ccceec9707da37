"""The door for instruments: lines taken once, refused whole, one device at a time; and the stand-in laser through it."""

import json
import random
from contextlib import redirect_stdout
from io import StringIO
from typing import Any

from django.test import LiveServerTestCase, TestCase

from millwright.benches.register import as_dict, evaluate_json
from scripts.gateway import Gateway
from scripts.laser import AS_FOUND, Pair, sweep_once
from server.demo import blower
from server.jobs.models import Job
from tests.site import PASSWORD, Member, build_two_sites

NEAR_MM = 0.02  # what the stand-in's scatter leaves of an offset


def line(seq: int, **more: Any) -> str:
    """One line of a device."""
    return json.dumps({"device": "Laser 1", "seq": seq, "plane": 0, "clock": 10.0 * seq, "value_mm": 0.1, **more})


class StreamTest(TestCase):
    """What an instrument may send."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def send(self, *lines: str, step: str = "set.align", who: str = "millwright") -> tuple[int, Any]:
        """Lines to the blower's job."""
        answer = Member(who).generic(
            "POST", f"/api/jobs/{self.job.pk}/streams/{step}", "\n".join(lines), "application/x-ndjson"
        )
        return answer.status_code, answer.json() if answer.content else None

    def test_lines_are_taken_once_and_brought_from_where_one_left_off(self) -> None:
        self.assertEqual(self.send(line(1), line(2)), (201, {"taken": 2, "repeated": 0}))
        self.assertEqual(self.send(line(2), line(3)), (201, {"taken": 1, "repeated": 1}))
        member, door = Member("apprentice"), f"/api/jobs/{self.job.pk}/streams/set.align"
        _, got = member.ask("GET", door)
        self.assertEqual([r["clock"] for r in got["readings"]], [10, 20, 30])
        _, later = member.ask("GET", f"{door}?after={got['readings'][1]['id']}")
        self.assertEqual([r["clock"] for r in later["readings"]], [30])
        self.assertEqual(member.ask("DELETE", door)[0], 204)
        self.assertEqual(member.ask("GET", door)[1]["readings"], [])

    def test_what_cannot_be_read_refuses_all_of_it_and_names_its_line(self) -> None:
        for lines, path in (
            ((line(1), line(2, clock="noon")), "lines.1.clock"),
            ((line(1), line(2, plane=2)), "lines.1.plane"),
            ((line(1), "oops"), "lines.1"),
            ((line(1), line(2, device="Laser 2")), "lines"),
            (("",), "lines"),
        ):
            with self.subTest(path):
                status, said = self.send(*lines)
                self.assertEqual((status, said["errors"][0]["path"]), (422, path))
        self.assertEqual(self.job.stream.count(), 0)

    def test_a_second_device_waits_a_wrong_step_is_refused_and_strangers_see_nothing(self) -> None:
        self.send(line(1))
        status, said = self.send(line(1, device="Laser 2"))
        self.assertEqual((status, "Laser 1 is sending" in said["errors"][0]["message"]), (409, True))
        self.assertEqual(self.send(line(1), step="set.gap")[0], 422)
        self.assertEqual(self.send(line(9), who="stranger")[0], 404)


class LaserTest(LiveServerTestCase):
    """The stand-in against a server that answers."""

    def test_its_sweep_comes_back_as_the_shafts_it_was_made_of_and_follows_a_move(self) -> None:
        job = build_two_sites()
        gateway = Gateway(self.live_server_url, "millwright", PASSWORD)
        for v, h in ((AS_FOUND.offset_v_mm, AS_FOUND.offset_h_mm), (AS_FOUND.offset_v_mm + 0.1, AS_FOUND.offset_h_mm)):
            job.stream.all().delete()
            pair = Pair(chance=random.Random(2))
            with redirect_stdout(StringIO()):
                self.assertEqual(sweep_once(gateway, job.line.name, pair, 180.0, 40, 0.0), 80)
            dials = [
                {
                    "kind": "rim",
                    "bracket_on": plane.on,
                    "x_mm": plane.x_mm,
                    "readings": list(job.stream.filter(plane=i).values("clock", "value_mm")),
                }
                for i, plane in enumerate(pair.planes)
            ]
            given = {"dials": dials, "stationary_feet": [], "movable_feet": [{"name": "tail", "x_mm": 400.0}]}
            found = as_dict(evaluate_json("alignment", json.dumps(given)))
            self.assertAlmostEqual(found["offset_v_mm"], v, delta=NEAR_MM)
            self.assertAlmostEqual(found["offset_h_mm"], h, delta=NEAR_MM)
            up = [{"name": foot["name"], "shim_mm": 0.1, "slide_mm": 0.0} for foot in blower.MOVE["feet"]]
            self.assertEqual(Member("millwright").enter(job, "set.align", {"feet": up}, "move")[0], 201)
