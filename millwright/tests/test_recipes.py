"""What docs/recipes.md shows is done as it stands there."""

import re
from datetime import UTC, date, datetime
from pathlib import Path
from typing import Any
from unittest import TestCase, mock

from millwright.benches import register
from millwright.errors import UnusableInput
from millwright.keep import due as kept
from millwright.keep.due_kinds import TASK_OF, DueKind
from millwright.keep.past import PastJob, Read
from millwright.meaning import Meaning, Of
from millwright.plan.compose import every_route
from millwright.plan.families.register import FAMILIES, CouplingFamily
from millwright.scope import Scope

from .by_hand import ByHand
from .dear import dear

PAGE = Path(__file__).parents[2] / "docs" / "recipes.md"


def shown(name: str) -> dict[str, Any]:
    """What the block of that name makes."""
    blocks = re.findall(rf"```python {name}\n(.*?)```", PAGE.read_text(), re.DOTALL)
    made: dict[str, Any] = {"__name__": f"recipe_{name}"}
    exec(compile("\n".join(blocks), f"{PAGE}: {name}", "exec"), made)  # noqa: S102 - a page of our own
    return made


class RecipesTest(TestCase):
    """A stranger who types them in gets what they promise."""

    @dear
    def test_a_family_is_done_from_lock_out_to_the_signed_record_and_taken_off_again(self) -> None:
        made = shown("family")
        hoop = CouplingFamily(facts=made["FACTS"], procedures=made["PROCEDURES"])
        with mock.patch.dict(FAMILIES, {"rigid": hoop}):
            for scope in (Scope.FIT, Scope.REFIT):
                with self.subTest(scope):
                    job = ByHand(unit="mm", family="rigid", scope=scope)
                    job.until(None)
                    self.assertTrue(job.route().closed)
                    done = [now.step.key for now in job.route().steps]
                    self.assertLess(done.index("couple.hoop"), done.index("couple.rim"))
                    self.assertLess(done.index("couple.rim"), done.index("couple.straps"))
                    self.assertFalse([line.what for line in job.route().ledger if line.open])
            every_route()

    def test_a_bench_answers_and_refuses_like_the_others(self) -> None:
        made = shown("bench")
        bench = register.Bench(
            name="standoff", answers="", input=made["StandoffInput"], result=made["StandoffResult"], evaluate=made["evaluate"]
        )
        with mock.patch.dict(register.BENCHES, {"standoff": bench}):
            found = register.evaluate_json("standoff", '{"read_mm": 26.5, "least_mm": 20}')
            self.assertEqual((found.verdict, str(found.says[0])), ("inside", "6.50 mm more than the least."))
            self.assertEqual(register.evaluate_json("standoff", '{"read_mm": 14, "least_mm": 20}').verdict, "over")
            with self.assertRaises(UnusableInput):
                register.evaluate_json("standoff", '{"read_mm": -1, "least_mm": 20}')

    def test_a_rule_says_when_it_is_due_again(self) -> None:
        guards = shown("due")["guards"]
        looked = Read(step="x", at=datetime(2026, 3, 31, tzinfo=UTC), inputs={}, means=(Meaning(of=Of.LOOKED_OVER),))
        job = PastJob(number=4, scope=Scope.CHECK, started=looked.at, closed=looked.at, reads=(looked,))
        with mock.patch.object(kept, "RULES", {DueKind.INSPECTION: guards}):
            line = mock.Mock(tasks=tuple(TASK_OF.values()), postponed=())
            found = kept.due(line, [job], date(2026, 4, 1))
        self.assertEqual([(one.kind, one.on) for one in found], [(DueKind.INSPECTION, date(2027, 3, 31))])
