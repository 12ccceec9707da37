"""The lines of the demo site, before anybody has touched them."""

import json
from typing import get_args
from unittest import TestCase

from millwright.line import Family, LineSpec
from millwright.model import read_json
from millwright.plan.compose import values_of_connection, values_of_family
from millwright.plan.families.register import FAMILIES
from millwright.power import torque_nm
from server.demo.build import registered


class DemoLinesTest(TestCase):
    """One of every family, and a whole job can be done on each."""

    def test_every_family_has_a_line_whose_card_lacks_nothing_and_whose_coupling_carries_its_machine(self) -> None:
        lines = {name: (read_json(LineSpec, json.dumps(spec)), card) for name, (spec, card) in registered().items()}
        self.assertEqual({spec.coupling.family for spec, _ in lines.values()}, set(get_args(Family)))
        for name, (spec, card) in lines.items():
            if FAMILIES[spec.coupling.family].facts.hangs:
                continue
            held = (spec.coupling.driver_hub.connection, spec.coupling.driven_hub.connection)
            asked = {*values_of_family(spec.coupling.family), *(key for way in held for key in values_of_connection(way))}
            with self.subTest(name):
                self.assertEqual(asked - set(card), set())
                power = spec.driver.power_kw
                assert power is not None
                service = torque_nm(power, spec.speed_rpm) * card["service_factor"].value
                self.assertLess(service, card["rated_torque_nm"].value)
                self.assertLess(spec.speed_rpm, card["top_speed_rpm"].value)
                if "gap_nominal_mm" in card:  # both machines stand clear of what lies between their shafts
                    feet = [foot.from_coupling_mm for side in (spec.driver, spec.driven) for foot in side.feet]
                    self.assertGreater(min(feet), card["gap_nominal_mm"].value / 2)
