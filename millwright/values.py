"""The value card: every limit and torque a job needs, where it comes from, and which paper to look in."""

from dataclasses import dataclass, replace
from typing import Literal

from pydantic import Field

from .errors import Problem
from .line import SIDES, Side
from .model import Model

SourceKind = Literal["maker's manual", "drawing", "site rule", "measured", "sample"]


class Source(Model):
    """Where a figure comes from. A sample is invented and binds nobody."""

    kind: SourceKind
    document: str = Field(min_length=1, max_length=120)
    issue: str = Field(default="", max_length=60)
    page: str = Field(default="", max_length=60)

    def say(self) -> str:
        """In one line: "sample: Jaw couplings sample sheet, issue 2, page 3"."""
        parts = [f"{self.kind}: {self.document}"]
        parts += [f"issue {self.issue}"] if self.issue else []
        parts += [f"page {self.page}"] if self.page else []
        return ", ".join(parts)


class UpTo(Model):
    """A limit that holds up to a speed."""

    rpm: float = Field(gt=0, le=100_000)
    value: float


class Value(Model):
    """One figure of the card; `means` settles what kind of limit or thread it is where that matters.

    With `up_to` it depends on the speed: each step holds up to its rpm, `value` above the last.
    """

    value: float
    means: str = Field(default="", max_length=40)
    typed: str = Field(default="", max_length=40)
    up_to: list[UpTo] = Field(default_factory=list, max_length=8)
    source: Source

    def at(self, rpm: float) -> float:
        """The figure that holds at a speed."""
        holds = [step for step in self.up_to if rpm <= step.rpm]
        return min(holds, key=lambda step: step.rpm).value if holds else self.value


ValueCard = dict[str, Value]


@dataclass(frozen=True, kw_only=True)
class ValueKind:
    """What a figure is called, its unit, and where one looks for it."""

    key: str
    title: str
    unit: str
    look_in: str
    low: float
    high: float
    means: tuple[str, ...] = ()  # what has to be asked beside the number
    ask: str = ""
    by_speed: bool = False  # may have steps that hold up to a speed


COUPLING_PAPER = "the coupling's installation manual, table of the series"
GAP_MEAN, GAP_EACH = "the mean of the readings", "every reading"
GAP_MM, GAP_PERCENT = "mm", "percent of the gap"
THREAD = ("dry", "oiled", "glued")
THREAD_ASK = "Threads"

VALUE_KINDS: dict[str, ValueKind] = {
    kind.key: kind
    for kind in (
        ValueKind(
            key="fit_min_mm",
            title="Fit, loosest wanted (clearance is negative)",
            unit="mm",
            look_in="the coupling's order sheet or drawing: bore tolerance against the shaft's",
            low=-1,
            high=1,
        ),
        ValueKind(
            key="fit_max_mm",
            title="Fit, tightest wanted (clearance is negative)",
            unit="mm",
            look_in="the coupling's order sheet or drawing: bore tolerance against the shaft's",
            low=-1,
            high=1,
        ),
        ValueKind(
            key="interference_min_mm",
            title="Interference, smallest wanted",
            unit="mm",
            look_in="the coupling's order sheet or drawing: bore tolerance against the shaft's",
            low=0.001,
            high=2,
        ),
        ValueKind(
            key="interference_max_mm",
            title="Interference, largest wanted",
            unit="mm",
            look_in="the coupling's order sheet or drawing: bore tolerance against the shaft's",
            low=0.001,
            high=2,
        ),
        ValueKind(
            key="taper_interference_mm",
            title="Interference wanted on the taper",
            unit="mm",
            look_in="the coupling's order sheet or drawing",
            low=0.001,
            high=2,
        ),
        ValueKind(
            key="taper_mismatch_mm",
            title="Tapers may differ over the fit by",
            unit="mm",
            look_in="the coupling's drawing, or the plant's rule for tapers",
            low=0.001,
            high=0.5,
        ),
        ValueKind(
            key="taper_contact_percent",
            title="Blue contact wanted",
            unit="%",
            look_in="the coupling's manual, or the plant's rule for tapers",
            low=10,
            high=100,
        ),
        ValueKind(
            key="lock_nut_torque_nm",
            title="Lock nut torque",
            unit="N·m",
            look_in=COUPLING_PAPER,
            low=1,
            high=20000,
            means=THREAD,
            ask=THREAD_ASK,
        ),
        ValueKind(
            key="heat_clearance_mm",
            title="Room wanted while a hot hub slides on",
            unit="mm",
            look_in="the coupling's manual, chapter on shrink fits; or the plant's rule",
            low=0.005,
            high=1,
        ),
        ValueKind(
            key="hub_ceiling_c",
            title="Most heat the hub may have",
            unit="°C",
            look_in="the coupling's manual, chapter on shrink fits",
            low=50,
            high=600,
        ),
        ValueKind(
            key="set_screw_torque_nm",
            title="Hub set screw torque",
            unit="N·m",
            look_in=COUPLING_PAPER,
            low=0.1,
            high=2000,
            means=THREAD,
            ask=THREAD_ASK,
        ),
        ValueKind(
            key="hub_screws",
            title="Screws that hold the hub (bush, ring or disc)",
            unit="",
            look_in="the bush's or ring's own sheet; or count them",
            low=1,
            high=40,
        ),
        ValueKind(
            key="hub_screw_torque_nm",
            title="Torque of the screws that hold the hub",
            unit="N·m",
            look_in="the bush's or ring's own sheet: the coupling's manual does not hold it",
            low=0.5,
            high=5000,
            means=THREAD,
            ask=THREAD_ASK,
        ),
        ValueKind(
            key="shaft_runout_mm",
            title="Run-out of the bare shaft, total reading",
            unit="mm",
            look_in="the machine's manual, or the site's rule",
            low=0.002,
            high=2,
            by_speed=True,
        ),
        ValueKind(
            key="hub_runout_mm",
            title="Run-out of a mounted hub, total reading",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.002,
            high=5,
            by_speed=True,
        ),
        ValueKind(
            key="soft_foot_mm",
            title="A foot may rise by",
            unit="mm",
            look_in="the site's alignment rule, or the machine's manual",
            low=0.005,
            high=1,
        ),
        ValueKind(
            key="gap_nominal_mm",
            title="Gap between hub faces",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.1,
            high=5000,
            means=(GAP_MEAN, GAP_EACH),
            ask="Accepted by",
        ),
        ValueKind(
            key="gap_plus_minus_mm",
            title="Gap, plus or minus",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.01,
            high=50,
            means=(GAP_MM, GAP_PERCENT),
            ask="The figure is",
        ),
        ValueKind(
            key="gap_spread_mm",
            title="Gap, largest less smallest",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.005,
            high=20,
        ),
        ValueKind(
            key="axial_growth_mm",
            title="Shafts grow toward each other when warm by",
            unit="mm",
            look_in="both machines' manuals; or worked out from their temperatures",
            low=-20,
            high=20,
        ),
        ValueKind(
            key="offset_limit_mm",
            title="Offset limit of the coupling",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.005,
            high=20,
            means=("offset", "swing"),
            ask="The paper means",
        ),
        ValueKind(
            key="angle_limit_deg",
            title="Angle limit of the coupling",
            unit="°",
            look_in="the coupling's installation manual; for jaw couplings by the element's material",
            low=0.005,
            high=10,
        ),
        ValueKind(
            key="sliding_mm_per_s",
            title="Running target: halves may slide over each other at",
            unit="mm/s",
            look_in="the site's alignment rule (samples: rough 10, ordinary 5.6, fine 2.8)",
            low=0.1,
            high=100,
        ),
        ValueKind(
            key="foot_bolt_torque_nm",
            title="Machine foot bolt torque",
            unit="N·m",
            look_in="the machine's manual, or the site's bolt torque rule",
            low=1,
            high=20000,
            means=THREAD,
            ask=THREAD_ASK,
        ),
        ValueKind(
            key="flange_bolts",
            title="Flange bolts of the coupling",
            unit="",
            look_in="the coupling's drawing or parts list; or count them",
            low=3,
            high=100,
        ),
        ValueKind(
            key="flange_bolt_torque_nm",
            title="Flange bolt torque",
            unit="N·m",
            look_in=COUPLING_PAPER,
            low=1,
            high=20000,
            means=THREAD,
            ask=THREAD_ASK,
        ),
        ValueKind(
            key="sleeve_spread_mm",
            title="Hub to sleeve, largest less smallest, closed",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.02,
            high=20,
        ),
        ValueKind(key="element_width_mm", title="Width of the element", unit="mm", look_in=COUPLING_PAPER, low=1, high=500),
        ValueKind(
            key="element_opening_mm",
            title="Opening in the element's centre",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=1,
            high=1000,
        ),
        ValueKind(
            key="open_centre_rpm",
            title="Highest speed with an open-centre element",
            unit="rpm",
            look_in=COUPLING_PAPER,
            low=1,
            high=100000,
        ),
    )
}


def value_kind(key: str) -> ValueKind | None:
    """What stands under a key: a line of the card, or the same line for one hub only. None where there is none."""
    base, _, side = key.partition("@")
    kind = VALUE_KINDS.get(base)
    if kind is None or not side:
        return kind
    return replace(kind, key=key, title=f"{kind.title}, {side} hub") if side in SIDES else None


def of_hub(card: ValueCard, key: str, side: Side) -> str:
    """The key a hub goes by: its own figure where the card has one, else the one both hubs share."""
    own = f"{key}@{side}"
    return own if own in card else key


def lines_of(card: ValueCard) -> list[tuple[str, ValueKind]]:
    """The lines a card has, in the order they are written on it."""
    keys = [key for base in VALUE_KINDS for key in (base, *(f"{base}@{side}" for side in SIDES)) if key in card]
    return [(key, kind) for key in keys if (kind := value_kind(key)) is not None]


def value_problems(key: str, value: Value) -> list[Problem]:
    """What is wrong with a figure put on the card; paths start inside the value."""
    kind = value_kind(key)
    if kind is None:
        return [Problem("", "The value card has no such line.")]
    found = []
    between = f"{kind.title} is between {kind.low:g} and {kind.high:g} {kind.unit}".rstrip()
    if not kind.low <= value.value <= kind.high:
        found.append(Problem("value", f"{between}. A slip?"))
    if kind.means and value.means not in kind.means:
        found.append(Problem("means", f"{kind.ask}: {' or '.join(kind.means)}?"))
    if value.up_to and not kind.by_speed:
        found.append(Problem("up_to", "This figure does not depend on the speed."))
    found += [
        Problem(f"up_to.{i}.value", f"{between}. A slip?")
        for i, step in enumerate(value.up_to)
        if not kind.low <= step.value <= kind.high
    ]
    return found


def say_value(value: Value, kind: ValueKind) -> str:
    """A figure with its unit, and up to which speed another one holds.

    >>> say_value(Value(value=0.05, up_to=[UpTo(rpm=600, value=0.1)], source=Source(kind="sample", document="x")),
    ...           VALUE_KINDS["hub_runout_mm"])
    '0.05 mm; up to 600 rpm 0.1 mm'
    """
    steps = [f"up to {step.rpm:g} rpm {step.value:g} {kind.unit}" for step in sorted(value.up_to, key=lambda s: s.rpm)]
    return "; ".join([f"{value.value:g} {kind.unit}".strip(), *steps])


def source_of(card: ValueCard, key: str) -> str:
    """The source in words, for a check."""
    return card[key].source.say()
