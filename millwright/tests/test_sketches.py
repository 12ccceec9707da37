"""Sketches: each stays inside its frame, follows the figures of its line, and says what it shows."""

import re
import unittest
from collections.abc import Iterator

from hypothesis import given
from hypothesis import strategies as st

from millwright.plan.compose import scopes
from millwright.plan.families.register import FAMILIES
from millwright.sketch import common, discs, jaws, proofs, tyres
from millwright.sketch.shapes import Sketch

from .work import Work

PLACE = re.compile(r"[ML](-?[\d.]+) (-?[\d.]+)")
COUNTS = st.one_of(st.none(), st.integers(2, 24))
SHOWN = {
    "jaw, straight": {"mount.element", "couple.gap"},
    "jaw, in shear with spacer": {"couple.collar", "couple.first_half"},
    "steel grid": {"couple.cover"},
    "gear": {"couple.close"},
    "disc, single pack": {"mount.pack", "couple.assemble"},
    "disc, three-part": {"couple.numbers", "couple.draw_driver_end"},
    "disc, drop-out spacer": {"couple.screws_in", "couple.squeeze", "couple.lift_in"},
    "composite tube": {"receive.strip"},
    "tyre": {"couple.tyre", "couple.metal"},
    "tyre on flywheel": {"mount.loose.driven", "couple.metal"},
    "claw with elastomer blocks": {"couple.blocks"},
    "rigid": {"couple.bolts"},
}


def of_every_step() -> Iterator[tuple[str, Sketch]]:
    """Every sketch of every family, in every scope."""
    for name, family in FAMILIES.items():
        for scope in scopes(family.facts):
            for now in Work(family=name, held=("tapered bore", "tapered bush"), scope=scope).route().steps:
                if now.step.sketch:
                    yield f"{name}, {scope.value}: {now.step.key}", now.step.sketch(now.job)


class SketchTest(unittest.TestCase):
    """Drawn for the line it is on."""

    def inside(self, sketch: Sketch, where: object = "") -> None:
        """Nothing leaves the frame, and there is something to read."""
        self.assertTrue(sketch.title and sketch.paths and sketch.labels, where)
        points = [(float(x), float(y)) for path in sketch.paths for x, y in PLACE.findall(path.d)]
        points += [(label.x, label.y) for label in sketch.labels]
        points += [(label.to.x, label.to.y) for label in sketch.labels if label.to]
        points += [at for one in sketch.dimensions for at in ((one.x1, one.y1), (one.x2, one.y2))]
        for x, y in points:
            self.assertTrue(0 <= x <= sketch.width and 0 <= y <= sketch.height, (where, sketch.title, x, y))

    def test_every_family_shows_what_words_do_not(self) -> None:
        shown: dict[str, set[str]] = {}
        for where, sketch in of_every_step():
            self.inside(sketch, where)
            name, _, rest = where.rpartition(", ")
            shown.setdefault(name, set()).add(rest.split(": ")[1])
        for name, steps in SHOWN.items():
            self.assertLessEqual(steps, shown[name], name)
        self.assertIn("off.pop.driver", shown["gear"])
        self.assertIn("mount.hub.driven", shown["gear"])

    @given(COUNTS, COUNTS)
    def test_whatever_the_counts_it_stays_inside(self, one: int | None, other: int | None) -> None:
        for sketch in (discs.pack_holes(one, other), common.bush(one), common.tube_holes(one), jaws.collar(one)):
            self.inside(sketch)
        self.inside(proofs.seated(["hub", "spacer"] * (one or 2)))

    def test_figures_and_counts_are_those_of_the_card(self) -> None:
        work = Work(family="tyre", card={"split_gap_max_mm": 3.7, "ring_clear_mm": 0.25})
        now = work.route().find("couple.tyre")
        assert now is not None
        assert now.step.sketch is not None
        bead = now.step.sketch(now.job)
        self.assertEqual([str(d.words) for d in bead.dimensions], ["at most 3.7 mm"])
        self.assertIn("at least 0.25 mm free", [str(label.words) for label in bead.labels])
        without = tyres.bead(None, None)
        self.assertEqual(without.dimensions, ())
        for bolts in (3, 4, 6):
            holes = [path for path in discs.pack_holes(bolts, bolts).paths if path.ink == "solid"]
            self.assertEqual(len(holes), bolts)
            self.assertIn(f"{bolts} of them", " ".join(str(label.words) for label in discs.pack_holes(bolts, bolts).labels))

    def test_marks_say_whether_they_agree(self) -> None:
        for read, said in (
            (("7", " 7", "7"), "they agree"),
            (("7", "8", "7"), "they differ"),
            ((), "one line over all of them"),
        ):
            sketch = common.marks(("hub", "pack", "spacer"), read)
            self.inside(sketch)
            self.assertEqual(str(sketch.labels[0].words), said)
