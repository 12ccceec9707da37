"""What is known of each family, against a table written down beside it."""

import unittest

from millwright.plan.families.register import FAMILIES

from .work import circles

# Sample practice, family by family: crosswise and alternate in three passes, or half, full and full again round and round.
CROSSWISE = ("star", (0.5, 0.75, 1.0))
ALTERNATE = ("alternate", (0.5, 0.75, 1.0))
LIGHT_FIRST = ("star", (0.25, 0.5, 0.75, 1.0))
HALF_TURNS = ("star", "half turns")  # a bead creeps out where one side is pulled down
ROUND = ("circle", (0.5, 1.0, 1.0))
ONCE = ("circle", (1.0,))
SCHEMES = {
    "jaw, in shear with spacer": CROSSWISE,
    "steel grid": CROSSWISE,
    "gear": CROSSWISE,
    "disc, single pack": ALTERNATE,  # from flange to flange
    "disc, three-part": ROUND,
    "disc, drop-out spacer": LIGHT_FIRST,
    "composite tube": CROSSWISE,
    "tyre": HALF_TURNS,
    "tyre on flywheel": HALF_TURNS,
    "claw with elastomer blocks": CROSSWISE,
    "rigid": CROSSWISE,
    "magnetic drive": CROSSWISE,
    "screw-conveyor drive": CROSSWISE,
    "shaft-mounted reducer": ONCE,
}


class BoltsTest(unittest.TestCase):
    """How the bolts of each family are pulled."""

    def test_every_family_is_pulled_in_its_own_order_and_passes(self) -> None:
        found = {
            name: {(circle.order, circle.passes) for circle in circles(name)}
            for name, family in FAMILIES.items()
            if family.facts.circles
        }
        self.assertEqual(found, {name: {scheme} for name, scheme in SCHEMES.items()})
