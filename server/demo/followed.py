"""Steps that go hole by hole, done as their bench says."""

import json
from typing import Any

from millwright.benches import as_dict, evaluate_json
from millwright.route.hints import GreaseHints
from millwright.route.steps import BenchForm

GREASE = {"routine": "low in, high out", "product": "Brackwater coupling grease", "batch": "7"}


def followed(form: BenchForm) -> dict[str, Any] | None:
    """What was entered in such a step; None where it is another bench."""
    match form.bench:
        case "fitted":
            return _log("fitted", dict(form.preset))
        case "grease" if isinstance(form.suggest, GreaseHints):
            wanted = {"product": form.preset["wanted_product"]} if "wanted_product" in form.preset else {}
            grams = {"grams": form.preset["wanted_grams"]} if "wanted_grams" in form.preset else {}
            return _log("grease", {"holes": form.suggest.holes, **GREASE, **wanted, **grams, **form.preset})
        case _:
            return None


def _log(bench: str, given: dict[str, Any]) -> dict[str, Any]:
    log: list[Any] = []
    while (following := as_dict(evaluate_json(bench, json.dumps({**given, "log": log})))["next"]) is not None:
        log.append(following)
    return {**given, "log": log}
