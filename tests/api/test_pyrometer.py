"""The stand-in pyrometer: what it posts through the documented door, and what it says where it cannot."""

import random
import unittest
from contextlib import redirect_stdout
from io import StringIO

from django.test import LiveServerTestCase

from millwright.rig.hot_hub import HotHub, Pyrometer
from scripts.gateway import Gateway
from scripts.pyrometer import find_run, follow
from tests.site import PASSWORD, build_two_sites, job_of

HALF_A_DEGREE = 0.5


class PyrometerTest(LiveServerTestCase):
    """The device against a server that answers."""

    def test_it_follows_the_run_from_heater_to_shaft_and_its_readings_move_the_prediction(self) -> None:
        build_two_sites()
        fan = job_of("Kiln fan A")
        gateway = Gateway(self.live_server_url, "millwright", PASSWORD)
        before = fan.entries.count()
        with redirect_stdout(StringIO()) as printed:
            follow(gateway, "Kiln fan A", every_s=0, readings=2)
        self.assertIn("on the heater", printed.getvalue())
        posted = list(fan.entries.order_by("number"))[before:]
        self.assertEqual([e.inputs["event"] for e in posted], ["hub temperature"] * 2)
        _, step = find_run(gateway, "Kiln fan A")
        self.assertEqual(step["heat_run"]["hub_c"], posted[-1].inputs["hub_c"])
        with self.assertRaises(SystemExit) as said:
            find_run(gateway, "Yeast pump")
        self.assertEqual(str(said.exception), "Yeast pump has no open job.")


class HotHubTest(unittest.TestCase):
    """The simulated hub and what reads it."""

    hub = HotHub(ambient_c=20, heater_c=250, heating_tau_s=600, cooling_tau_s=900)

    def test_it_warms_toward_the_heater_and_cools_toward_the_air_and_passes_neither(self) -> None:
        warm = [self.hub.on_the_heater_c(t) for t in range(0, 6000, 60)]
        self.assertEqual(warm, sorted(warm))
        self.assertTrue(all(20 <= c < 250 for c in warm))
        cool = [self.hub.off_the_heater_c(200, t) for t in range(0, 9000, 60)]
        self.assertEqual(cool, sorted(cool, reverse=True))
        self.assertTrue(all(20 < c <= 200 for c in cool))

    def test_a_pyrometer_is_right_on_average_and_shows_whole_degrees(self) -> None:
        chance = random.Random(7)
        shown = [Pyrometer().read_c(150.3, chance) for _ in range(400)]
        self.assertAlmostEqual(sum(shown) / len(shown), 150.3, delta=HALF_A_DEGREE)
        self.assertTrue(all(c == round(c) for c in shown))
