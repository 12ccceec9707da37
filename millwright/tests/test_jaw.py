"""Jaw couplings: the element is looked at once, as it comes, and what reaches into its opening before a hub is fixed."""

import unittest

from millwright.card.values import Source, Value
from millwright.job.entry import EntryKind
from millwright.verdict import Verdict

from .work import Work


class ElementTest(unittest.TestCase):
    """Its centre, its hardness, the room in its opening."""

    def test_an_elements_opening_has_room_for_the_thicker_of_the_two_shafts(self) -> None:
        thin, thick = ({"drawn_as": "motor", "shaft_diameter_mm": mm, "foot_bolts": 4} for mm in (38, 48))
        feet = [{"name": "front", "from_coupling_mm": 300}, {"name": "rear", "from_coupling_mm": 586}]
        for one, other in ((thin, thick), (thick, thin)):
            driver = {"name": "Motor", "feet": feet, **one}
            work = Work(
                driver=driver,
                driven={"name": "Blower", "feet": [], **other},
                card={"element_opening_mm": 56.0, "open_centre_rpm": 3000.0},
            )
            work.until("receive.element")
            work.enter("receive.element", {**work.fill("receive.element"), "centre": "open centre"})
            work.until("prepare.distance")
            work.enter("prepare.distance", {"distance_mm": 20.0})
            self.assertEqual(work.next(), "prepare.opening")
            # 28 round the axis, the thicker shaft with its key takes 24 + 4, the thinner one 19 + 4
            read = work.judged(work.enter("prepare.opening", {"key_driver_mm": 4.0, "key_driven_mm": 4.0}))["checks"]
            self.assertEqual(sorted(c["value"] for c in read if c["name"].startswith("room round")), [0.0, 5.0])
            self.assertEqual(work.state("prepare.opening"), "over")

    def test_a_key_that_was_not_measured_leaves_the_opening_undone(self) -> None:
        work = Work(card={"element_opening_mm": 56.0, "open_centre_rpm": 3000.0})
        work.until("receive.element")
        work.enter("receive.element", {**work.fill("receive.element"), "centre": "open centre"})
        work.until("prepare.distance")
        work.enter("prepare.distance", {"distance_mm": 20.0})
        self.assertEqual(work.enter("prepare.opening", {"key_driver_mm": 0.0}).verdict, Verdict.INCOMPLETE)
        work.enter("prepare.distance", {"distance_mm": 40.0})
        self.assertIsNone(work.route().find("prepare.opening"), "the shafts keep clear of it")

    def test_an_open_centre_element_above_its_speed_is_over_as_it_is_received(self) -> None:
        work = Work()
        work.until("receive.element")
        opened = {**work.fill("receive.element"), "centre": "open centre"}
        self.assertEqual(work.enter("receive.element", opened).verdict, Verdict.OVER)
        work.enter("receive.element", work.fill("receive.element"))
        work.until("prepare.distance")
        self.assertEqual(work.enter("prepare.distance", {"distance_mm": 20.0}).verdict, Verdict.OVER)
        work.enter("prepare.distance", {"distance_mm": 40.0})
        work.enter("receive.element", {**work.fill("receive.element"), "centre": "solid centre"})
        self.assertEqual(work.state("prepare.distance"), "stale")

    def test_an_open_centre_without_its_speed_limit_is_not_done_and_says_where_to_look(self) -> None:
        work = Work()
        del work.card["open_centre_rpm"]
        work.until("receive.element")
        opened = {**work.fill("receive.element"), "centre": "open centre"}
        read = work.enter("receive.element", opened)
        self.assertEqual((read.verdict, work.state("receive.element")), (Verdict.INCOMPLETE, "incomplete"))
        self.assertIn("on the value card", " ".join(work.judged(read)["advice"]))
        put = {"value": 1800.0, "source": {"kind": "sample", "document": "Trial sheet"}}
        work.enter("receive.element", {"key": "open_centre_rpm", "value": put}, EntryKind.VALUE)
        self.assertEqual(work.state("receive.element"), "stale")
        self.assertEqual(work.enter("receive.element", opened).verdict, Verdict.CLOSE)

    def test_a_hardness_is_a_figure_with_its_scale_and_held_against_the_one_ordered(self) -> None:
        work = Work()
        source = Source(kind="drawing", document="D-7")
        work.card["element_material"] = Value(value=0, means="95 shore A", source=source)
        work.until("receive.element")
        marked = work.fill("receive.element")
        for hardness, scale, verdict in (
            (95.0, "shore A", "inside"),
            (92.0, "shore A", "over"),
            (64.0, "shore D", "over"),
            (None, "shore A", "incomplete"),
        ):
            with self.subTest(hardness=hardness):
                read = work.enter("receive.element", {**marked, "hardness": hardness, "scale": scale})
                self.assertEqual(work.judged(read)["verdict"].replace("not judged", "inside"), verdict)

    def test_one_without_a_mark_is_not_the_one_that_was_ordered(self) -> None:
        work = Work()
        work.card["element_material"] = Value(value=0, means="92 shore A", source=Source(kind="drawing", document="D-7"))
        work.until("receive.element")
        unmarked = {**work.fill("receive.element"), "hardness": None, "scale": "none marked"}
        self.assertEqual(work.enter("receive.element", unmarked).verdict, Verdict.OVER)
        bare = Work()
        bare.until("receive.element")
        bare.enter("receive.element", unmarked)
        self.assertEqual(bare.state("receive.element"), "done")

    def test_another_element_is_measured_anew_where_shafts_reach_into_it(self) -> None:
        work = Work(card={"element_opening_mm": 60.0, "open_centre_rpm": 3000.0})
        work.until("receive.element")
        opened = {**work.fill("receive.element"), "centre": "open centre"}
        work.enter("receive.element", opened)
        work.until("prepare.distance")
        work.enter("prepare.distance", {"distance_mm": 20.0})
        work.enter("prepare.opening", {"key_driver_mm": 2.0, "key_driven_mm": 2.0})
        self.assertEqual(work.state("prepare.opening"), "done")
        work.enter("receive.element", opened)
        self.assertEqual([work.state(f"prepare.{step}") for step in ("distance", "opening")], ["stale", "stale"])
