"""Steps that go hole by hole, done as their bench says."""

from typing import Any

from millwright.plan.hints import GreaseHints
from millwright.plan.steps import BenchForm
from millwright.rig.hand import followed as step_by_step

GREASE = {"routine": "low in, high out", "product": "Brackwater coupling grease", "batch": "7"}


def followed(form: BenchForm) -> dict[str, Any] | None:
    """What was entered in such a step; None where it is another bench."""
    match form.bench:
        case "fitted":
            return step_by_step("fitted", dict(form.preset))
        case "grease" if isinstance(form.suggest, GreaseHints):
            wanted = {"product": form.preset["wanted_product"]} if "wanted_product" in form.preset else {}
            grams = {"grams": form.preset["wanted_grams"]} if "wanted_grams" in form.preset else {}
            return step_by_step("grease", {"holes": form.suggest.holes, **GREASE, **wanted, **grams, **form.preset})
        case _:
            return None
