"""Shaft, bore, key and run-out: what the readings say, against sums made another way."""

import json
import math
import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from millwright.benches.register import as_dict, evaluate_json

A_MICRON = 0.001
SIZES = st.lists(st.floats(49, 51).map(lambda x: round(x, 3)), min_size=1, max_size=8)


def ask(bench: str, **given_: Any) -> dict[str, Any]:
    """The bench's answer."""
    return as_dict(evaluate_json(bench, json.dumps(given_)))


def places(*what: tuple[str, str]) -> list[dict[str, str]]:
    """Stations and directions of a micrometer."""
    return [{"station": station, "across": across} for station, across in what]


class FitTest(unittest.TestCase):
    """Every shaft reading meets every bore reading."""

    @settings(max_examples=60)
    @given(SIZES, SIZES)
    def test_the_range_holds_every_pair_and_touches_both_ends(self, shaft: list[float], bore: list[float]) -> None:
        found = ask("fit", shaft_mm=shaft, bore_mm=bore)
        pairs = [s - b for s in shaft for b in bore]
        self.assertAlmostEqual(found["interference_min_mm"], min(pairs), delta=1e-9)
        self.assertAlmostEqual(found["interference_max_mm"], max(pairs), delta=1e-9)

    def test_names_the_fit_by_what_overlaps(self) -> None:
        rows = {
            "clearance": ([48.010], [48.020]),
            "interference": ([48.030], [48.020]),
            "transition": ([48.010, 48.030], [48.020]),
        }
        found = {name: ask("fit", shaft_mm=s, bore_mm=b)["kind"] for name, (s, b) in rows.items()}
        self.assertEqual(found, {name: name for name in rows})

    def test_tells_oval_from_taper_by_where_it_was_measured(self) -> None:
        ends = [(s, a) for s in ("machine side", "shaft end") for a in ("12-6", "3-9")]
        oval = ask("fit", shaft_mm=[48.05, 48.01, 48.05, 48.01], shaft_at=places(*ends), bore_mm=[48.0])
        self.assertAlmostEqual(oval["shaft_shape"]["oval_mm"], 0.04, delta=A_MICRON)
        self.assertIn("The shaft is oval by 0.040 mm.", " ".join(oval["advice"]))
        tapered = ask("fit", shaft_mm=[48.05, 48.05, 48.01, 48.01], shaft_at=places(*ends), bore_mm=[48.0])
        self.assertAlmostEqual(tapered["shaft_shape"]["taper_mm"], 0.04, delta=A_MICRON)
        self.assertIn("bigger at the machine side", " ".join(tapered["advice"]))

    def test_without_places_neither_is_claimed(self) -> None:
        shape = ask("fit", shaft_mm=[48.05, 48.01], bore_mm=[48.0])["shaft_shape"]
        self.assertEqual(shape, {"oval_mm": None, "taper_mm": None})

    def test_too_loose_is_refused_and_too_tight_is_heated_reworked_or_refused(self) -> None:
        wanted = {"min_mm": -0.045, "max_mm": -0.005, "source": "trial sheet"}
        loose = ask("fit", shaft_mm=[48.0], bore_mm=[48.06], required=wanted)
        tight = ask("fit", shaft_mm=[48.06], bore_mm=[48.0], required=wanted)
        self.assertEqual((loose["verdict"], tight["verdict"]), ("over", "over"))
        self.assertIn("looser than specified by 0.015 mm", loose["advice"][0])
        self.assertIn("then heat, rework the bore or reject the hub", tight["advice"][0])
        self.assertTrue(all(c["source"] == "trial sheet" for c in tight["checks"]))


class KeyTest(unittest.TestCase):
    """Key and keyways, drawn out point by point."""

    @settings(max_examples=60)
    @given(st.floats(30, 120), st.floats(0.15, 0.3), st.floats(3, 8), st.floats(2, 5), st.floats(8, 12))
    def test_room_on_top_is_the_height_between_floor_and_roof_less_the_key(
        self, shaft: float, share: float, down: float, up: float, height: float
    ) -> None:
        width = shaft * share
        found = ask(
            "key",
            shaft_diameter_mm=shaft,
            key={"width_mm": width, "height_mm": height, "length_mm": 50},
            shaft_keyway={"width_mm": width, "depth_mm": down},
            hub_keyway={"width_mm": width, "depth_mm": up, "length_mm": 50},
        )
        # Both depths start where the wall of the keyway meets the shaft's surface: they simply add.
        self.assertAlmostEqual(found["top_clearance_mm"], down + up - height, delta=1e-6)

    def test_a_key_too_high_too_wide_or_too_loose_is_said(self) -> None:
        common = {
            "shaft_diameter_mm": 50,
            "shaft_keyway": {"width_mm": 14.0, "depth_mm": 5.5},
            "hub_keyway": {"width_mm": 14.1, "depth_mm": 3.8, "length_mm": 60},
        }
        high = ask("key", key={"width_mm": 14, "height_mm": 10, "length_mm": 60}, **common)
        wide = ask("key", key={"width_mm": 14.05, "height_mm": 9, "length_mm": 60}, **common)
        self.assertEqual(high["verdict"], "over")
        self.assertIn("too high", " ".join(high["advice"][:2]))
        self.assertIn("0.050 mm wider than the shaft's keyway. Do not drive it in", " ".join(wide["advice"]))
        loose = ask("key", key={"width_mm": 13.9, "height_mm": 9, "length_mm": 58}, **common)
        self.assertIn("0.100 mm of play in the shaft's keyway", " ".join(loose["advice"]))
        self.assertIn("2.00 mm shorter than the hub", " ".join(loose["advice"]))


class RunoutTest(unittest.TestCase):
    """Total reading, off centre and oval, from parts whose shape is known."""

    @settings(max_examples=60)
    @given(st.floats(0, 0.2), st.floats(0, 359), st.floats(0, 0.1), st.floats(0, 179))
    def test_takes_an_off_centre_oval_part_apart_again(self, off: float, high: float, oval: float, long: float) -> None:
        def reads(clock: float) -> float:
            return off * math.cos(math.radians(clock - high)) + oval * math.cos(2 * math.radians(clock - long))

        readings = [{"clock": c, "value_mm": reads(c)} for c in range(0, 360, 45)]
        found = ask("runout", readings=readings, limit_mm=1.0)
        self.assertAlmostEqual(found["eccentricity_mm"], off, delta=1e-6)
        self.assertAlmostEqual(found["oval_mm"], oval, delta=1e-6)

    def test_four_places_cannot_tell_oval_and_say_nothing_of_it(self) -> None:
        readings = [{"clock": c, "value_mm": v} for c, v in ((0, 0.0), (90, 0.02), (180, 0.0), (270, 0.02))]
        found = ask("runout", readings=readings, limit_mm=0.05)
        self.assertIsNone(found["oval_mm"])
        self.assertEqual((found["total_mm"], found["verdict"]), (0.02, "inside"))

    def test_more_oval_than_off_centre_is_not_cured_by_turning(self) -> None:
        readings = [{"clock": c, "value_mm": 0.1 * math.cos(2 * math.radians(c))} for c in range(0, 360, 45)]
        found = ask("runout", readings=readings, limit_mm=0.05)
        self.assertEqual(found["verdict"], "over")
        self.assertIn("turning the hub will not cure it", found["advice"][-1])
