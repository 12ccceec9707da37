"""A hand that does what a sheet asks: it reads what is shown (labels, units, choices, figures of the card), measures a
machine that is as it should be, and types what it read as a person does, as text and in the unit of the job."""

import json
import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from random import Random
from typing import Any

from ..benches.register import as_dict, evaluate_json
from ..line import SIDES
from ..units import MM_PER_INCH, LengthUnit, read_length_mm
from .machine import Bracket, Gauge, TrueShafts, sweep

Shown = Mapping[str, Any]
CLOCKS = (0.0, 90.0, 180.0, 270.0)
DIAL = Gauge(resolution_mm=0.01)
PLACES = [
    {"station": station, "across": across}
    for across in ("12-6", "3-9")
    for station in ("machine side", "middle", "shaft end")
]
CONE = {"large_mm": 90.0, "small_mm": 80.0, "length_mm": 120.0}
MEASURED = ("tick", "condition", "length", "number")  # where a sheet does not insist


@dataclass(frozen=True, kw_only=True)
class Typed:
    """What goes in: values, and beside each length the text it was typed as, by its path."""

    inputs: dict[str, Any]
    typed: dict[str, str]


@dataclass(kw_only=True)
class Hand:
    """Somebody at one line, as the job shows it.

    ``spec``, ``unit`` - of the job
    ``chance``         - what a reading scatters by, within what these instruments read
    ``thorough``       - measures what a sheet offers and does not insist on
    """

    spec: Shown
    unit: LengthUnit
    chance: Random
    thorough: bool = True
    numbered: int = 0  # markings that were read so far: no two parts have the same

    def answer(self, step: Shown, card: Shown) -> Typed:
        """What this step is answered with where all is well. ``card`` - as it is shown, by line"""
        form = step["form"]
        if form["kind"] == "sheet":
            inputs = self._sheet(form, card)
        else:
            side = self._side(step)
            hub = self.spec["coupling"][f"{side}_hub"]
            read = READ[form["bench"]](At(hand=self, form=form, step=step, card=card, side=side, hub=hub))
            inputs = {key: value for key, value in read.items() if key not in form["preset"]}  # that stands there already
        return typed_in(inputs, self.unit)

    def _side(self, step: Shown) -> str:
        """Of which machine it is, by the name of it where the title says one."""
        title = step["title"].lower()
        return next((side for side in SIDES if self.spec[side]["name"].lower() in title), "driver")

    def _sheet(self, form: Shown, card: Shown) -> dict[str, Any]:
        asked = [one for one in form["fields"] if one["required"] or (self.thorough and one["kind"] in MEASURED)]
        answers = {one["key"]: self._field(one, card) for one in asked}
        if form["rows"]:
            rows = form["suggested_rows"] or [{}]
            answers["rows"] = [self._row(form["rows"], row, i) for i, row in enumerate(rows)]
        return answers

    def _row(self, columns: Sequence[Shown], suggested: Shown, i: int) -> dict[str, Any]:
        words = {"lock": f"L-{41 + i}", "tag": f"T-{108 + i}", "who": "Jorun Thornquist"}
        return {
            one["key"]: suggested.get(one["key"]) or words.get(one["key"]) or next(iter(one["options"]), "as its plate says")
            for one in columns
        }

    def _field(self, asked: Shown, card: Shown) -> Any:
        match asked["kind"]:
            case "tick":
                return True
            case "condition":
                return "ok"
            case "marks":
                return ["7"] * len(asked["options"])
            case "count":
                return asked["expected"] if asked["expected"] is not None else _counted(asked)
            case "choice":
                return _chosen(asked)
            case "date":
                return "2027-01-31"
            case "text":
                return self._words(asked, card)
            case _:
                return _figure(asked, card, self.spec)

    def _words(self, asked: Shown, card: Shown) -> str:
        label = asked["label"]
        if label == "Grease" and "grease_product" in card:
            return str(card["grease_product"]["means"])
        if (registered := re.search(r"registered: (.+)", asked["detail"])) is not None:
            return registered[1]
        if re.search(r"arrow", label, re.IGNORECASE):
            return "notch 4"
        if re.search(r"number|batch|marking", label, re.IGNORECASE):
            self.numbered += 1
            return f"lot {self.numbered}"
        return "as its manual has it"


def _counted(asked: Shown) -> int:
    """What lies there: as many as the label says, else four; at both ends together twice as many."""
    said = re.search(r"\d+", f"{asked['detail']} {asked['label']}")
    return int(said[0]) if said else 8 if "both ends" in asked["label"] else 4


# What is chosen where all is well, and not the first that is offered: by the label, then by the words of the choice.
CHOSEN: tuple[tuple[str, str], ...] = (
    (r"on shaft and bore now", r"dry"),
    (r"other way", r"locks"),
    (r"driven machine", r"one bearing"),
)


def _chosen(asked: Shown) -> str:
    options: Sequence[str] = asked["options"]
    for label, wanted in CHOSEN:
        if re.search(label, asked["label"], re.IGNORECASE):
            dry = "dry" in asked["detail"] or wanted != r"dry"
            found = next((one for one in options if re.search(wanted, one)), options[0])
            return found if dry else options[0]
    return options[0]


# What a figure is where all is well: by the label, then the line of the card it is held against, or the figure itself.
FIGURES: tuple[tuple[str, str | float], ...] = (
    (r"feeler that goes in|split", 1.0),
    (r"stand-out|touch|end play", 0.0),
    (r"bush", "shaft"),
    (r"hub is now at", 24.0),
    (r"speed", "speed"),
    (r"minutes|ran under load|watched for", 60.0),
    (r"load", 80.0),
    (r"hardness", 92.0),
    (r"distance|to flywheel", "gap_nominal_mm"),
    (r"^gap at the end of", "end_gap_nominal_mm"),
    (r"^gap", "gap_nominal_mm"),
)


def _figure(asked: Shown, card: Shown, spec: Shown) -> float:
    label = asked["label"].lower()
    for wanted, figure in FIGURES:
        if re.search(wanted, label):
            if figure == "speed":
                return float(spec["speed_rpm"])
            if figure == "shaft":
                return float(spec["driven"]["shaft_diameter_mm"])
            if isinstance(figure, float):
                return figure
            if figure in card:
                return float(card[figure]["value"])
    said = re.search(r"-?\d+(?:\.\d+)?", asked["detail"])
    return float(said[0]) if said else 1.0


@dataclass(frozen=True, kw_only=True)
class At:
    """A bench, and who stands at it."""

    hand: Hand
    form: Shown
    step: Shown
    card: Shown
    side: str
    hub: Shown

    @property
    def preset(self) -> Shown:
        """What comes from the card."""
        preset: Shown = self.form["preset"]
        return preset

    @property
    def shaft_mm(self) -> float:
        """The shaft of this side."""
        return float(self.hand.spec[self.side]["shaft_diameter_mm"])

    @property
    def movable_hub_mm(self) -> float:
        """The hub of the machine that is moved."""
        return float(self.hand.spec["coupling"][f"{self.hand.spec['movable']}_hub"]["diameter_mm"])

    def ring(self, middle: float) -> list[dict[str, float]]:
        """Read at four places, a hundredth more or less."""
        return [{"clock": c, "value_mm": round(middle + self.hand.chance.choice((-0.01, 0.0, 0.01)), 3)} for c in CLOCKS]


def _fit(at: At) -> dict[str, Any]:
    band = at.preset.get("required") or {"min_mm": 0.01, "max_mm": 0.04}
    shaft = at.shaft_mm + 0.01
    bores = [round(shaft - (band["min_mm"] + band["max_mm"]) / 2, 3)] * len(PLACES)
    return {"shaft_mm": [shaft] * len(bores), "bore_mm": bores, "shaft_at": PLACES, "bore_at": PLACES}


def _key(at: At) -> dict[str, Any]:
    """A key about a quarter of its shaft wide, with room over it and none beside it."""
    width = float(round(at.shaft_mm / 3.5))
    height = float(round(width * 0.66))
    deep = round(height * 0.6, 1)
    return {
        "key": {"width_mm": width, "height_mm": height, "length_mm": 60.0},
        "shaft_keyway": {"width_mm": width + 0.01, "depth_mm": deep},
        "hub_keyway": {"width_mm": width + 0.03, "depth_mm": round(height - deep + 0.2, 1), "length_mm": 63.0},
    }


def _soft(at: At) -> dict[str, Any]:
    feet = at.form["suggest"].get("feet") or [f"{i}" for i in range(4)]
    return {"feet": [{"name": foot, "rise_mm": round(0.01 + 0.01 * (i % 3), 2)} for i, foot in enumerate(feet)]}


def _gap(at: At) -> dict[str, Any]:
    accept = at.preset["accept"]
    band = accept.get("each") or accept.get("mean")
    middle = (band["min_mm"] + band["max_mm"]) / 2 if band else 6.0
    other = {"other_end": at.ring(middle)} if "ends" in at.preset else {}
    return {"readings": at.ring(middle), "diameter_mm": at.movable_hub_mm, **other}


def _edge(at: At) -> dict[str, Any]:
    hubs = {key: at.form["suggest"].get(key, at.movable_hub_mm) for key in ("stationary_hub_mm", "movable_hub_mm")}
    return {**hubs, "readings": [{"clock": c, "feeler_mm": 0.0, "on": "movable"} for c in CLOCKS]}


def _dials(at: At) -> dict[str, Any]:
    """A true pair of shafts, a hundredth off, swept by rim and face."""
    shafts = TrueShafts(offset_v_mm=0.01, offset_h_mm=-0.01)
    clocks = [float(c) for c in range(0, 360, 45)]
    radius = at.movable_hub_mm / 2
    rim, face = (
        Bracket(kind="rim", on="stationary", x_mm=20.0),
        Bracket(kind="face", on="stationary", x_mm=15.0, radius_mm=radius),
    )
    return {
        "dials": [
            {
                "kind": "rim",
                "bracket_on": "stationary",
                "x_mm": 20.0,
                "sag_mm": 0.0,
                "readings": _swept(shafts, rim, clocks, at),
            },
            {
                "kind": "face",
                "bracket_on": "stationary",
                "x_mm": 15.0,
                "radius_mm": radius,
                "readings": _swept(shafts, face, clocks, at),
            },
        ]
    }


def _swept(shafts: TrueShafts, bracket: Bracket, clocks: Sequence[float], at: At) -> list[dict[str, float]]:
    return [
        {"clock": one["clock"], "value_mm": round(one["value_mm"], 2)}
        for one in sweep(shafts, bracket, clocks, DIAL, at.hand.chance)
    ]


def _runout(at: At) -> dict[str, Any]:
    faced = {"second": {"on": "face", "readings": at.ring(0.0)}} if "face" in at.preset.get("must_have", ()) else {}
    return {**({} if "kind" in at.preset else {"kind": "rim"}), "readings": at.ring(0.0), **faced}


def pulled(preset: Shown) -> dict[str, Any]:
    """Every bolt in its turn, as the drawing calls it: to its torque; by half turns where it is pulled so; round after round
    until nothing moves."""
    pulls: list[dict[str, Any]] = []
    while (following := _next("tighten", {**preset, "pulls": pulls})) is not None:
        turn = {"pass": following["pass"], "bolt": following["bolt"]}
        if preset.get("passes") == "half turns":
            turn |= {"turned": following["pass"] < 3, "clicked": following["pass"] > 1}
        else:
            turn |= {"reached_nm": following["torque_nm"]} if "torque_nm" in following else {}
            turn |= {"moved": following["pass"] == 1} if preset.get("until_still") else {}
        pulls.append(turn)
    return {"pulls": pulls}


def followed(bench: str, given: Mapping[str, Any]) -> dict[str, Any]:
    """Hole by hole, as its bench says."""
    log: list[Any] = []
    while (following := _next(bench, {**given, "log": log})) is not None:
        log.append(following)
    return {**given, "log": log}


def _next(bench: str, given: Mapping[str, Any]) -> Any:
    return as_dict(evaluate_json(bench, json.dumps(given)))["next"]


def _grease(at: At) -> dict[str, Any]:
    product = at.preset.get("wanted_product", "Brackwater coupling grease")
    grams = {"grams": at.preset["wanted_grams"]} if "wanted_grams" in at.preset else {}
    holes = at.form["suggest"]["holes"]
    usual = {"routine": "low in, high out", "product": product, "batch": "7", **grams}
    return followed("grease", {"holes": holes, **usual, **at.preset})


def _airgap(at: At) -> dict[str, Any]:
    sides = ("driver", "load")
    stations = [{"side": side, "clock": c, "value_mm": 3.0} for side in sides for c in CLOCKS]
    return {"stations": stations, "diameter_mm": at.form["suggest"].get("diameter_mm", 400.0)}


def _arm(at: At) -> dict[str, Any]:
    return {"arm_mm": 550.0, "angle_deg": 84.0, **({} if "power_kw" in at.preset else {"torque_nm": 1800.0})}


def _backstop(at: At) -> dict[str, Any]:
    """The second stands at the other end, and sees it turn the other way."""
    across = bool(at.step["second_to"])
    way = (
        {"output_rotation": "ccw", "seen_from": "output side"}
        if across
        else {"output_rotation": "cw", "seen_from": "input side"}
    )
    return {**way, "meshes": 2, "backstop_on": "input side"}


def _taper(at: At) -> dict[str, Any]:
    """Blued, or drawn up by what interference wants at this taper. Source: geometry, the rise of a cone along itself."""
    cones = {"shaft": CONE, "bore": CONE}
    if "draw-up" not in at.step["title"]:
        return {**cones, "contact": [[1.0] * 8] * 4}
    hand_tight = at.form["suggest"].get("hand_tight_standout_mm", 40.0)
    advance = at.preset.get("interference_mm", 0.07) * CONE["length_mm"] / (CONE["large_mm"] - CONE["small_mm"])
    return {**cones, "hand_tight_standout_mm": hand_tight, "fitted_standout_mm": round(hand_tight + advance, 2)}


def _heat(at: At) -> dict[str, Any]:
    suggest = at.form["suggest"]
    return {
        "bore_mm": suggest.get("bore_mm", at.shaft_mm),
        "interference_mm": max(suggest.get("interference_mm", 0.04), 0.005),
        "heat_to_c": 198.0,
        "shaft_c": 20.0,
        "ambient_c": 20.0,
        "hub": {"material": "steel", "outside_mm": at.hub["diameter_mm"], "length_mm": at.hub["length_mm"]},
        **({} if "assembly_clearance_mm" in at.preset else {"assembly_clearance_mm": 0.01}),
    }


READ: Mapping[str, Callable[[At], dict[str, Any]]] = {
    "fit": _fit,
    "key": _key,
    "softfoot": _soft,
    "gap": _gap,
    "straightedge": _edge,
    "alignment": _dials,
    "runout": _runout,
    "tighten": lambda at: pulled(at.preset),
    "fitted": lambda at: followed("fitted", at.preset),
    "grease": _grease,
    "airgap": _airgap,
    "torque_arm": _arm,
    "backstop": _backstop,
    "taper": _taper,
    "heat": _heat,
}


def typed_in(inputs: Mapping[str, Any], unit: LengthUnit) -> Typed:
    """Every length as somebody types it: in thousandths of a millimetre, or hundredths of a thousandth of an inch."""
    texts: dict[str, str] = {}

    def typed(value: Any, path: str, name: str) -> Any:
        match value:
            case dict():
                return {key: typed(inner, f"{path}.{key}".lstrip("."), key) for key, inner in value.items()}
            case list():
                return [typed(inner, f"{path}.{i}", name) for i, inner in enumerate(value)]
            case float() | int() if name.endswith("_mm") and not isinstance(value, bool):
                text = f"{value:.3f}" if unit == "mm" else f"{value / MM_PER_INCH:.5f}"
                texts[path] = text
                return read_length_mm(text, unit)
            case _:
                return value

    return Typed(inputs=typed(dict(inputs), "", ""), typed=texts)
