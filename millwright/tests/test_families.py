"""What is known of each family, against a table written down beside it."""

import unittest

from millwright.coupling.families import FAMILIES

# Sample practice, family by family: crosswise and alternate in three passes, or half, full and full again round and round.
CROSSWISE = ("star", (0.5, 0.75, 1.0))
ALTERNATE = ("alternate", (0.5, 0.75, 1.0))
ROUND = ("circle", (0.5, 1.0, 1.0))
SCHEMES = {
    "jaw, in shear with spacer": CROSSWISE,
    "steel grid": CROSSWISE,
    "gear": CROSSWISE,
    "disc, single pack": ALTERNATE,  # from flange to flange
    "disc, three-part": ROUND,
    "disc, drop-out spacer": CROSSWISE,
    "composite tube": CROSSWISE,
    "tyre": ALTERNATE,
    "tyre on flywheel": ALTERNATE,
    "claw with elastomer blocks": CROSSWISE,
    "rigid": CROSSWISE,
}


class BoltsTest(unittest.TestCase):
    """How the bolts of each family are pulled."""

    def test_every_family_is_pulled_in_its_own_order_and_passes(self) -> None:
        found = {family: (facts.bolts.pattern, facts.bolts.passes) for family, facts in FAMILIES.items() if facts.bolts}
        self.assertEqual(found, SCHEMES)
