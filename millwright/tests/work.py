"""A job worked on by one person, in memory: what tests of the route stand on."""

import json
from collections.abc import Mapping
from datetime import UTC, datetime, timedelta
from typing import Any

from millwright.benches import as_dict, evaluate_json
from millwright.card.meanings import GAP_EACH, GAP_MEAN, GAP_MM
from millwright.card.values import Source, Value
from millwright.line import LineSpec, Side
from millwright.model import read_json
from millwright.roles import Role
from millwright.route import entry
from millwright.route.build import values_of_connection, values_of_family
from millwright.route.families.facts import Circle
from millwright.route.families.register import FAMILIES
from millwright.route.fields import Field
from millwright.route.hints import GreaseHints
from millwright.route.stand import NOTHING_LEFT, stand
from millwright.route.state import Entry, EntryKind, RouteNow, Signature, SignatureKind, StepState
from millwright.route.steps import BenchForm, JobFacts, Scope, SheetForm
from millwright.verdict import Verdict, is_unproven

START = datetime(2026, 5, 12, 6, 0, tzinfo=UTC)
FIGURES = {
    "fit_min_mm": -0.045,
    "fit_max_mm": -0.005,
    "set_screw_torque_nm": 25,
    "soft_foot_mm": 0.05,
    "gap_nominal_mm": 30,
    "gap_plus_minus_mm": 1,
    "offset_limit_mm": 0.4,
    "angle_limit_deg": 0.35,
    "sliding_mm_per_s": 5.6,
    "foot_bolt_torque_nm": 190,
    "element_width_mm": 26,
    "open_centre_rpm": 1200,
    "interference_min_mm": 0.02,
    "interference_max_mm": 0.06,
    "heat_clearance_mm": 0.03,
    "hub_ceiling_c": 200,
    "flange_bolts": 6,
    "flange_bolt_torque_nm": 80,
    "sleeve_spread_mm": 0.3,
    "end_gap_nominal_mm": 8,
    "end_gap_plus_minus_mm": 0.4,
    "ends_differ_mm": 0.2,
    "end_face_mm": 0.2,
    "taper_interference_mm": 0.07,
    "taper_mismatch_mm": 0.01,
    "taper_contact_percent": 80,
    "lock_nut_torque_nm": 250,
    "hub_screws": 8,
    "hub_screw_torque_nm": 35,
    "shaft_runout_mm": 0.05,
    "hub_runout_mm": 0.05,
    "flywheel_face_mm": 0.1,
    "flywheel_rim_mm": 0.2,
}
CONE = {"large_mm": 90.0, "small_mm": 80.0, "length_mm": 120.0}
CLOCKS = (0, 90, 180, 270)


def ring(*values: float) -> list[dict[str, float]]:
    """Readings at 12, 3, 6 and 9."""
    return [{"clock": c, "value_mm": v} for c, v in zip(CLOCKS, values, strict=True)]


def dials(low_mm: float) -> dict[str, Any]:
    """Rim and face of a machine that is low and square."""
    rim = {"kind": "rim", "bracket_on": "stationary", "x_mm": 20.0, "readings": ring(0, low_mm, 2 * low_mm, low_mm)}
    face = {"kind": "face", "bracket_on": "stationary", "x_mm": 20.0, "radius_mm": 50.0, "readings": ring(0, 0, 0, 0)}
    return {"dials": [rim, face]}


def bolts(count: int, torque: float, passes: tuple[float, ...]) -> dict[str, Any]:
    """Every bolt pulled to its torque in every pass."""
    return {
        "pulls": [{"pass": n, "bolt": b + 1, "torque_nm": torque * p} for n, p in enumerate(passes, 1) for b in range(count)]
    }


def half_turns(preset: Mapping[str, Any]) -> dict[str, Any]:
    """Each bolt half a turn, then every one clicks, then a round that turns nothing."""
    pulls: list[dict[str, Any]] = []
    while True:
        found = as_dict(evaluate_json("tighten", json.dumps({**preset, "pulls": pulls})))
        if found["next"] is None:
            return {"pulls": pulls}
        turn = found["next"]
        pulls.append({"pass": turn["pass"], "bolt": turn["bolt"], "turned": turn["pass"] < 3, "clicked": turn["pass"] > 1})


def step_by_step(bench: str, given: Mapping[str, Any]) -> dict[str, Any]:
    """What the bench says comes next, until nothing does."""
    log: list[Any] = []
    while (following := as_dict(evaluate_json(bench, json.dumps({**given, "log": log})))["next"]) is not None:
        log.append(following)
    return {**given, "log": log}


def rounds(count: int, torque: float, turned: tuple[int, ...]) -> dict[str, Any]:
    """A part round and full rounds; ``turned`` - how many screws still turned in each full round."""
    pulls = bolts(count, torque, (0.5, *(1.0 for _ in turned)))["pulls"]
    for pull in pulls:
        pull["moved"] = pull["pass"] == 1 or pull["bolt"] <= turned[pull["pass"] - 2]
    return {"pulls": pulls}


def rounds_at_full_torque(count: int, torque: float, turned: tuple[int, ...]) -> dict[str, Any]:
    """Round after round at full torque; ``turned`` - how many screws still turned in each."""
    pulls = bolts(count, torque, tuple(1.0 for _ in turned))["pulls"]
    for pull in pulls:
        pull["moved"] = pull["bolt"] <= turned[pull["pass"] - 1]
    return {"pulls": pulls}


TRUE = {"readings": ring(0.0, 0.01, 0.02, 0.01), "kind": "rim"}
READINGS: dict[str, dict[str, Any]] = {
    "prepare.fit": {"shaft_mm": [48.01], "bore_mm": [48.03]},
    "prepare.key": {
        "key": {"width_mm": 14, "height_mm": 9, "length_mm": 60},
        "shaft_keyway": {"width_mm": 14.01, "depth_mm": 5.4},
        "hub_keyway": {"width_mm": 14.03, "depth_mm": 3.8, "length_mm": 60},
    },
    "set.soft": {"feet": [{"name": name, "rise_mm": 0.02} for name in ("a", "b", "c", "d")]},
    "set.gap": {"readings": ring(30, 30, 30, 30), "diameter_mm": 105},
    "couple.gap": {"readings": ring(30, 30, 30, 30), "diameter_mm": 105},
    "set.straightedge": {
        "readings": [{"clock": c, "feeler_mm": 0.0, "on": "movable"} for c in CLOCKS],
        "stationary_hub_mm": 105,
        "movable_hub_mm": 105,
    },
    "couple.over_halves": {
        "readings": [{"clock": c, "feeler_mm": 0.0, "on": "movable"} for c in CLOCKS],
        "stationary_hub_mm": 105,
        "movable_hub_mm": 105,
    },
    "set.align": dials(0.0),
    "couple.align": dials(0.0),
    "couple.sleeve": {"readings": ring(4.1, 4.2, 4.2, 4.1), "diameter_mm": 105},
    "couple.dial": {"kind": "face", "readings": ring(0.0, 0.02, 0.04, 0.02)},
    "prepare.taper": {"shaft": CONE, "bore": CONE, "contact": [[1.0] * 8] * 4},
    "mount.draw": {"shaft": CONE, "bore": CONE, "hand_tight_standout_mm": 40.78, "fitted_standout_mm": 41.62},
    "prepare.shaft": TRUE,
    "couple.true": TRUE,
    "mount.true": {**TRUE, "second": {"on": "face", "readings": ring(0.0, 0.0, 0.01, 0.0)}},
    "mount.runout": {**TRUE, "second": {"on": "face", "readings": ring(0.0, 0.0, 0.01, 0.0)}},
    "mount.clamp": rounds(8, 35, (8, 3, 0)),
    "prepare.flywheel_face": {"kind": "face", "readings": ring(0.0, 0.02, 0.04, 0.02)},
    "prepare.flywheel_rim": {"kind": "rim", "readings": ring(0.0, 0.02, 0.04, 0.02)},
    "off.gap": {"readings": ring(30, 30, 30, 30), "diameter_mm": 105},
    "off.align": dials(0.0),
    "found.align": dials(0.0),
    "found.sleeve": {"readings": ring(4.1, 4.2, 4.2, 4.1), "diameter_mm": 105},
    "found.dial": {"kind": "face", "readings": ring(0.0, 0.02, 0.04, 0.02)},
    "prepare.heat": {
        "bore_mm": 48.0,
        "interference_mm": 0.04,
        "assembly_clearance_mm": 0.01,
        "heat_to_c": 198.0,
        "shaft_c": 20.0,
        "ambient_c": 20.0,
        "hub": {"material": "steel", "outside_mm": 105, "length_mm": 60},
    },
}
PACK = {"readings": ring(30, 30.1, 30, 30), "diameter_mm": 105}
SLEEVES: dict[str, Any] = {
    "readings": ring(4.1, 4.2, 4.2, 4.1),
    "other_end": ring(4.0, 4.1, 4.1, 4.0),
    "diameter_mm": 105,
}
BOTH_ENDS: dict[str, Any] = {"readings": ring(8.0, 8.1, 8.0, 8.0), "other_end": ring(8.0, 8.0, 8.1, 8.0), "diameter_mm": 105}
SHRUNK = {"shaft_mm": [48.04], "bore_mm": [48.0]}
LOCKED = {"energy": "electric", "point": "motor isolator", "lock": "L-7", "tag": "T-7", "who": "Jorun Thornquist"}
WORDS = {
    "surface": "clean and dry",
    "series": "Brackwater Avocet",
    "size": "rundlet",
    "hub_c": 24,
    "torque_nm": 250,
    "distance_mm": 30,
    "standout_mm": 0,
}


SHEETS: dict[str, dict[str, Any]] = {
    "receive.carried": {"driver": "two bearings of its own", "driven": "one bearing: it floats"},
    "couple.touch": {f"at_{place}_mm": 0 for place in (12, 3, 6, 9)},
    "receive.unit": {"screws": 8},
    "receive.flywheel": {"bush_mm": 48},
    "prepare.place": {"distance_mm": 30, "float_mm": 2},
    "couple.gap_again": {"gap_mm": 30, "driver_mm": 8, "driven_mm": 8},
    "off.new": {"number": "lot 12"},
    "couple.blocks": {"set": "lot 12"},
    "close.run_in": {"what": "run under load", "minutes": 60, "load": 80},
}


def _read_on(form: BenchForm, key: str) -> dict[str, Any]:
    """What is read on a bench."""
    if key.endswith(".closed"):
        return {**BOTH_ENDS, "ends": form.preset["ends"]} if "ends" in form.preset else PACK
    if key.endswith(".sleeve") and "ends" in form.preset:
        return {**SLEEVES, "ends": form.preset["ends"]}
    if form.bench == "fitted":
        return step_by_step("fitted", form.preset)
    if form.bench == "grease":
        assert isinstance(form.suggest, GreaseHints)
        usual = {"routine": "low in, high out", "product": form.preset.get("wanted_product", "Maltster blue")}
        return step_by_step("grease", {"holes": form.suggest.holes, **usual, **form.preset})
    if key.startswith("close.rerun."):
        return rounds_at_full_torque(form.preset["bolts"], form.preset["torque_nm"], (2, 0))
    if form.preset.get("passes") == "half turns":
        return half_turns(form.preset)
    if form.bench == "tighten" and not form.preset.get("until_still"):
        return bolts(form.preset["bolts"], form.preset["torque_nm"], tuple(form.preset["passes"]))
    return READINGS[key] if key in READINGS else READINGS[key.rsplit(".", 1)[0]]


class Work:
    """A job worked on by one person, in memory."""

    def __init__(
        self,
        *,
        family: str = "jaw, curved",
        held: tuple[str, str] = ("keyed, slip fit", "keyed, slip fit"),
        scope: Scope = Scope.FIT,
        as_left: Mapping[str, Any] = NOTHING_LEFT,
        card: dict[str, float] | None = None,
        procedure: int | None = None,
        **spec: Any,
    ) -> None:
        machine = {"drawn_as": "motor", "shaft_diameter_mm": 48, "foot_bolts": 4}
        feet = [{"name": f"motor {n}", "from_coupling_mm": x} for n, x in (("front", 300), ("rear", 586))]
        hub = {"diameter_mm": 105, "length_mm": 60}
        line = {
            "driver": {"name": "Motor", "feet": feet, **machine},
            "driven": {"name": "Blower", "feet": [], **machine},
            "coupling": {
                "family": family,
                "series": "Brackwater Avocet",
                "size": "rundlet",
                "driver_hub": {**hub, "connection": held[0]},
                "driven_hub": {**hub, "connection": held[1]},
            },
            "movable": "driver",
            "speed_rpm": 1480,
            **spec,
        }
        self.line = read_json(LineSpec, json.dumps(line))
        source = Source(kind="sample", document="Trial sheet")
        means = {
            "offset_limit_mm": "offset",
            "gap_nominal_mm": GAP_MEAN,
            "gap_plus_minus_mm": GAP_MM,
            "end_gap_nominal_mm": GAP_EACH,
            "end_gap_plus_minus_mm": GAP_MM,
            **dict.fromkeys((k for k in FIGURES if "torque" in k), "dry"),
        }
        asked = {*values_of_family(family), *(key for way in held for key in values_of_connection(way))}
        figures = {**{k: FIGURES[k.split("@")[0]] for k in asked if k.split("@")[0] in FIGURES}, **(card or {})}
        self.card = {k: Value(value=v, means=means.get(k.split("@")[0], ""), source=source) for k, v in figures.items()}
        self.scope, self.as_left, self.procedure = scope, as_left, procedure
        self.proof_hours: float | None = None
        self.now = START
        self.entries: list[Entry] = []
        self.signatures: list[Signature] = []
        self._stood: tuple[object, RouteNow] | None = None

    def route(self) -> RouteNow:
        """Where it stands; worked out once for what has been entered so far."""
        so_far = (len(self.entries), len(self.signatures), self.line, dict(self.card), self.now, self.proof_hours)
        if self._stood is None or self._stood[0] != so_far:
            stands = stand(
                self.line,
                self.card,
                self.entries,
                self.signatures,
                self.scope,
                self.as_left,
                procedure=self.procedure,
                now=self.now,
                proof_hours=self.proof_hours,
            )
            self._stood = (so_far, stands)
        return self._stood[1]

    def state(self, key: str) -> str:
        """One step's state."""
        now = self.route().find(key)
        assert now is not None, key
        return now.state.value

    def next(self) -> str | None:
        """The key of the step that is next."""
        now = self.route().next()
        return now.step.key if now else None

    def enter(
        self,
        key: str,
        inputs: dict[str, Any],
        kind: EntryKind = EntryKind.READING,
        role: Role = Role.MILLWRIGHT,
        *,
        as_it_is: bool = True,
    ) -> Entry:
        """Checked and appended, as the server does it; what cannot be told is taken as it is."""
        checked = entry.check(self.route(), key, kind, inputs, role)
        number = len(self.entries) + len(self.signatures) + 1
        made = Entry(
            id=f"e{number}",
            number=number,
            step=key,
            kind=kind,
            inputs=checked.inputs,
            verdict=Verdict(checked.result["verdict"]) if checked.result else None,
            unproven=is_unproven(checked.result) and not as_it_is,
            by="A",
            role=role,
            at=max(self.now, START + timedelta(minutes=number)),
            ledger=checked.asked.get("ledger", ()),
        )
        self.entries.append(made)
        return made

    def judged(self, made: Entry) -> Mapping[str, Any]:
        """What an entry that was made says, evaluated again."""
        now = self.route().find(made.step)
        assert now is not None
        return entry.evaluate(now, made.inputs)[1]

    def sign(self, key: str, kind: SignatureKind = SignatureKind.HOLD) -> None:
        """The current reading of a step, signed."""
        now = self.route().find(key)
        assert now is not None
        number = len(self.entries) + len(self.signatures) + 1
        covers = now.current.id if now.current else None
        self.signatures.append(
            Signature(
                id=f"s{number}",
                number=number,
                kind=kind,
                step=key,
                entry=covers,
                by="L",
                role=Role.LEAD,
                at=START,
                reason="why",
            )
        )

    def fill(self, key: str) -> dict[str, Any]:
        """A step's inputs as they should be."""
        now = self.route().find(key)
        assert now is not None
        form = now.step.form
        side: Side = "driver" if "driver" in key else "driven"
        held = self.line.hub(side).connection
        if key.startswith("prepare.fit") and held == SHRINK:
            return SHRUNK
        if isinstance(form, BenchForm):
            return _read_on(form, key)
        assert isinstance(form, SheetForm)
        by_kind: dict[str, Any] = {
            "tick": True,
            "condition": "ok",
            "text": "as seen",
            "date": "2027-01-31",
            "number": 20,
            "length": 1,
            "count": 4,
        }
        own: dict[str, Any] = dict(SHEETS.get(key, {}))
        answers = {f.key: own.get(f.key, self._answer(f, WORDS.get(f.key, by_kind.get(f.kind)))) for f in form.fields}
        if form.rows:
            answers["rows"] = [LOCKED]
        return answers

    def _answer(self, field: Field, usual: Any) -> Any:
        """What is expected where something is; else the first choice, or what is usual."""
        if field.kind == "marks":
            return ["7"] * len(field.options)
        if field.expected is not None:
            return field.expected
        return WORDS.get(field.key, field.options[0]) if field.kind == "choice" else usual

    def step_on(self) -> None:
        """What is next: signed where it is to be signed, else entered as it should be."""
        now = self.route().next()
        assert now is not None
        if now.state is StepState.TO_SIGN:
            self.sign(now.step.key)
        else:
            self.enter(now.step.key, self.fill(now.step.key))

    def until(self, last: str | None) -> None:
        """Every step that is not done, in working order, up to but without the last."""
        for _ in range(200):
            now = self.route().next()
            if now is None or now.step.key == last:
                return
            self.step_on()
        raise AssertionError("the route does not come to an end")


def circles(family: str) -> list[Circle]:
    """The circles of a family as long as nobody says which kind it is."""
    facts = JobFacts(line=Work(family=family).line, family=FAMILIES[family].facts, card={})
    return list(facts.circles)


SLIP, SHRINK, TAPER = "keyed, slip fit", "keyed, interference", "tapered bore"
