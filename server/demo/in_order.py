"""Any step of any line, answered as somebody does whose work comes out well: near the middle of what its card allows."""

from collections.abc import Callable, Mapping
from random import Random
from typing import Any

from millwright.line import SIDES, LineSpec, Side
from millwright.plan.hubs.screw_held import DEVICES
from millwright.plan.hubs.surfaces import DRY
from millwright.plan.steps import BenchForm, SheetForm, Step
from millwright.rig.hand import pulled

from . import blower
from .followed import followed

CLOCKS = (0, 90, 180, 270)
USUAL = {"text": "as its manual has it", "length": 1.0, "number": 20.0}  # where nobody says anything else
STEP_MM = 0.01  # what these instruments read


def in_order(spec: LineSpec, said: Mapping[str, Mapping[str, Any]]) -> Callable[[Step], dict[str, Any]]:
    """Answers for one line. ``said`` - by step, what is written there instead of what is usual."""
    by_friction = any(spec.hub(side).connection in DEVICES for side in SIDES)
    words = {"series": spec.coupling.series, "size": spec.coupling.size, **({"surface": DRY} if by_friction else {})}

    def fill(step: Step) -> dict[str, Any]:
        own = said.get(step.key, {})
        match step.form:
            case SheetForm():
                usual = {field.key: USUAL[field.kind] for field in step.form.fields if field.kind in USUAL and field.required}
                unsaid = {key: value for key, value in usual.items() if key not in blower.WORDS}
                return {**blower.fill(step, {**unsaid, **words}), **own}
            case BenchForm() as form:
                read = followed(form) or READ[form.bench](form, spec, step.key)
                return {**read, **own}
            case _:
                return {}

    return fill


def _fit(form: BenchForm, spec: LineSpec, key: str) -> dict[str, Any]:
    low, high = form.preset["required"]["min_mm"], form.preset["required"]["max_mm"]
    shaft = spec.machine(_side(key)).shaft_diameter_mm + 0.01
    bore = [round(shaft - (low + high) / 2 + Random(i).choice((-0.002, 0.0, 0.002)), 3) for i in range(len(blower.PLACES))]
    return {"shaft_mm": [shaft] * len(bore), "bore_mm": bore, "shaft_at": blower.PLACES, "bore_at": blower.PLACES}


def _side(key: str) -> Side:
    return "driver" if key.endswith("driver") else "driven"


def _key(form: BenchForm, spec: LineSpec, key: str) -> dict[str, Any]:
    return key_of(spec.machine(_side(key)).shaft_diameter_mm)


def _soft(form: BenchForm, spec: LineSpec, key: str) -> dict[str, Any]:
    feet = getattr(form.suggest, "feet", None) or ()
    return {"feet": [{"name": foot, "rise_mm": 0.01 + 0.01 * (i % 3)} for i, foot in enumerate(feet)]}


def _edge(form: BenchForm, spec: LineSpec, key: str) -> dict[str, Any]:
    hubs = {f"{one}_hub_mm": spec.hub(at).diameter_mm for one, at in _hubs(spec)}
    return {**hubs, "readings": [{"clock": c, "feeler_mm": 0.0, "on": "movable"} for c in CLOCKS]}


def _hubs(spec: LineSpec) -> tuple[tuple[str, Side], ...]:
    return ("stationary", spec.stationary), ("movable", spec.movable)


def key_of(shaft_mm: float) -> dict[str, Any]:
    """A key about a quarter of its shaft wide, with room over it and none beside it."""
    width = float(round(shaft_mm / 3.5))
    height = float(round(width * 0.66))
    deep = round(height * 0.6, 1)
    return {
        "key": {"width_mm": width, "height_mm": height, "length_mm": 60.0},
        "shaft_keyway": {"width_mm": width + 0.01, "depth_mm": deep},
        "hub_keyway": {"width_mm": width + 0.03, "depth_mm": round(height - deep + 0.2, 1), "length_mm": 63.0},
    }


def _ring(middle: float, chance: Random) -> list[dict[str, float]]:
    return [{"clock": c, "value_mm": round(middle + chance.choice((-1, 0, 1)) * STEP_MM, 2)} for c in CLOCKS]


def _gaps(form: BenchForm, spec: LineSpec, key: str) -> dict[str, Any]:
    accept, chance = form.preset["accept"], Random(key)
    band = accept.get("each") or accept.get("mean")
    middle = (band["min_mm"] + band["max_mm"]) / 2 if band else 6.0
    more = {"ends": form.preset["ends"], "other_end": _ring(middle, chance)} if "ends" in form.preset else {}
    return {"readings": _ring(middle, chance), "diameter_mm": spec.hub(spec.movable).diameter_mm, **more}


def _dials(form: BenchForm, spec: LineSpec, key: str) -> dict[str, Any]:
    rim, face = blower.BOLTED["dials"]
    swing = spec.hub(spec.movable).diameter_mm / 2
    true = [{"clock": c, "value_mm": 0.0} for c in range(0, 360, 45)]
    return {
        "dials": [
            {**rim, "readings": true},
            {**face, "radius_mm": swing, "readings": [*true[:3], {"clock": 135, "value_mm": STEP_MM}, *true[4:]]},
        ]
    }


def _runout(form: BenchForm, spec: LineSpec, key: str) -> dict[str, Any]:
    chance = Random(key)
    faced = {"second": {"on": "face", "readings": _ring(0.0, chance)}} if "face" in form.preset.get("must_have", ()) else {}
    return {"kind": form.preset.get("kind", "rim"), "readings": _ring(0.0, chance), **faced}


def _said(form: BenchForm, spec: LineSpec, key: str) -> dict[str, Any]:
    """Nothing that could be worked out: it is said, for each line."""
    return {}


def _arm(form: BenchForm, spec: LineSpec, key: str) -> dict[str, Any]:
    return {"arm_mm": 550.0, "angle_deg": 84.0}


READ: dict[str, Callable[[BenchForm, LineSpec, str], dict[str, Any]]] = {
    "fit": _fit,
    "key": _key,
    "softfoot": _soft,
    "gap": _gaps,
    "straightedge": _edge,
    "alignment": _dials,
    "runout": _runout,
    "tighten": lambda form, spec, key: pulled(form.preset),
    "backstop": _said,
    "torque_arm": _arm,
}
