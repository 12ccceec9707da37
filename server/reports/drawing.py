"""What of an entry is drawn on paper. The geometry is the core's; here it gets ink."""

from collections.abc import Mapping
from dataclasses import dataclass
from html import escape
from typing import Any

from pydantic import TypeAdapter

from millwright.benches.alignment.drawn import WIDTH, Drawn, DrawnMachine, DrawnView, Ray
from millwright.benches.backstop import WAY_WORDS
from millwright.line import LineSpec
from millwright.say import mm, words
from millwright.sketch import common, forces, proofs
from millwright.sketch.shapes import Sketch
from millwright.units import LengthUnit
from millwright.written import say_in, settled_in
from server.jobs.models import Entry, Job

from .sketch_svg import on_its_ground, sketch_svg

ON_SCREEN = 960  # as wide as the page of a record; on paper the sheet says how wide
VIEW_HEIGHT = 150.0
HALF_BODY, HALF_SHAFT, HALF_SPACER, HALF_PLANE = 30.0, 7.0, 6.0, 16.0
MOVES_AT = 52.0  # below the axis
ARROW = 9.0
INK, BLUE = "#14202B", "#1F4E79"
CENTRE_LINE = 'stroke-dasharray="14 3 3 3" stroke-width=".8"'
AS_READ = "Side view and plan of the two machines as read"
TITLES = {"v": "Side view", "h": "Plan"}
IN_PLACE = Ray(drop=0.0, shear=0.0)
DRAWN = TypeAdapter(Drawn)
SKETCH = TypeAdapter(Sketch)


@dataclass(frozen=True)
class Drawing:
    """A drawing, and what it shows in words."""

    svg: str
    title: str


def drawing_of(job: Job, entry: Entry) -> Drawing | None:
    """Where the machines stood, marks as they were read, bolts as their heads were seated, holes as they were filled."""
    result = entry.result or {}
    if result.get("bench") == "alignment":
        svg = alignment_svg(job.as_spec, result, job.sheet)
        return None if svg is None else Drawing(svg, AS_READ)
    sketch = _sketch_of(entry, result)
    return None if sketch is None else Drawing(sketch_svg(settled_in(sketch, job.sheet)), sketch.title)


def _sketch_of(entry: Entry, result: Mapping[str, Any]) -> Sketch | None:
    match result.get("bench"):
        case "fitted" if result.get("holes") and result.get("next") is None and "rings_on" in result:
            return proofs.seated([hole["head"] for hole in result["holes"]]) if result["rings_on"] else None
        case "grease" if result.get("holes"):
            said = {"done": "filled, plug in", "closed": "plug in"}
            return proofs.filled([(h["clock"], said.get(h["state"], h["state"])) for h in result["holes"]])
        case "airgap" | "torque_arm" if "drawn" in result:
            return SKETCH.validate_python(result["drawn"])
        case "backstop" if result.get("train"):
            free = WAY_WORDS[result["shaft_rotation_seen_from_backstop"]]
            return forces.gear_train([shaft["turns"] for shaft in result["train"]], free, entry.inputs["backstop_on"])
        case "sheet":
            asked = [field for field in entry.asked.get("fields", []) if field["kind"] == "marks"]
            read = [(field["options"], entry.inputs.get(field["key"])) for field in asked]
            return next((common.marks(at, [str(mark or "") for mark in marks]) for at, marks in read if marks), None)
        case _:
            return None


def alignment_svg(spec: LineSpec, result: Mapping[str, Any], unit: LengthUnit) -> str | None:
    """Side view over plan; the stationary machine is hatched, its axis prolonged as the datum.

    None where the reading is older than this drawing.
    """
    if "drawn" not in result:
        return None
    drawn: Drawn = settled_in(DRAWN.validate_python(result["drawn"]), unit)
    views = "".join(_view(spec, drawn, view, top=i * VIEW_HEIGHT) for i, view in enumerate(drawn.views))
    long = say_in(words("{long}", long=mm(WIDTH / drawn.layout.per_mm, 0)), unit)
    note = f"Across drawn × {drawn.times:g}; along the shaft to scale, {long}"
    height = len(drawn.views) * VIEW_HEIGHT
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH:.0f} {height + 20:.0f}" width="{ON_SCREEN}" role="img" '
        f'font-family="Barlow Semi Condensed, sans-serif" font-size="12">'
        '<defs><pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">'
        f'<path d="M0 0V6" stroke="{INK}" stroke-width=".7"/></pattern></defs>'
        f'{views}<text x="10" y="{height + 14:.0f}">{note}</text></svg>'
    )


def _view(spec: LineSpec, drawn: Drawn, view: DrawnView, *, top: float) -> str:
    movable, stationary = drawn.layout.movable, drawn.layout.stationary
    spacer = _quad(stationary.face, IN_PLACE, movable.face, view.axis, HALF_SPACER, 'fill="#fff"') if view.flex else ""
    band = ""
    if drawn.band is not None:
        near, far = drawn.band
        band = f"M0 {-near:.1f}L{movable.far:.1f} {-far:.1f}V{far:.1f}L0 {near:.1f}Z"
        band = f'<path d="{band}" fill="{BLUE}" fill-opacity=".08" stroke="{INK}" stroke-width=".5" stroke-dasharray="2 3"/>'
    parts = [
        _text(10 - drawn.layout.centre, 16 - VIEW_HEIGHT / 2, TITLES[view.plane], 'font-weight="600"'),
        _line(stationary.far * 1.05, IN_PLACE, movable.far * 1.05, IN_PLACE, f'stroke="{INK}" {CENTRE_LINE}'),
        _machine(stationary, IN_PLACE, 'fill="url(#hatch)"'),
        _machine(movable, view.axis, 'fill="#fff"'),
        band,
        _line(movable.far * 1.08, view.axis, movable.face, view.axis, f'stroke="{INK}" {CENTRE_LINE}'),
        _line(0.0, view.cold, movable.far, view.cold, f'stroke="{BLUE}" stroke-dasharray="6 4"') if view.cold else "",
        spacer,
        *(_plane(plane.x, plane.drop, str(plane.words)) for plane in view.flex),
        _label(_middle(stationary), IN_PLACE, spec.machine(spec.stationary).name),
        _label(_middle(movable), view.axis, spec.machine(spec.movable).name),
        *(_move(move.x, move.points, str(move.words)) for move in view.moves),
        _text(0.0, 30 - VIEW_HEIGHT / 2, str(view.words), 'text-anchor="middle"'),
    ]
    return f'<g transform="translate({drawn.layout.centre:.1f} {top + VIEW_HEIGHT / 2:.1f})">{"".join(parts)}</g>'


def _y(ray: Ray, x: float) -> float:
    return ray.drop + ray.shear * x


def _middle(machine: DrawnMachine) -> float:
    return (machine.near + machine.far) / 2


def _machine(machine: DrawnMachine, axis: Ray, fill: str) -> str:
    return _quad(machine.far, axis, machine.near, axis, HALF_BODY, fill) + _quad(
        machine.near, axis, machine.face, axis, HALF_SHAFT, fill
    )


def _line(x1: float, one: Ray, x2: float, other: Ray, extra: str) -> str:
    return f'<path d="M{x1:.1f} {_y(one, x1):.1f}L{x2:.1f} {_y(other, x2):.1f}" fill="none" {extra}/>'


def _quad(x1: float, one: Ray, x2: float, other: Ray, half: float, fill: str) -> str:
    y1, y2 = _y(one, x1), _y(other, x2)
    corners = f"M{x1:.1f} {y1 - half:.1f}L{x2:.1f} {y2 - half:.1f}L{x2:.1f} {y2 + half:.1f}L{x1:.1f} {y1 + half:.1f}Z"
    return f'<path d="{corners}" stroke="{INK}" stroke-width="1.5" {fill}/>'


def _plane(x: float, drop: float, words: str) -> str:
    path = f'<path d="M{x:.1f} {drop - HALF_PLANE:.1f}V{drop + HALF_PLANE:.1f}" stroke="{INK}" stroke-width="2"/>'
    return path + _text(x, drop + HALF_PLANE + 12, words, 'text-anchor="middle" font-size="10"')


def _move(x: float, points: str, words: str) -> str:
    """What a foot has to do: its figure, and an arrow where it is not to stay."""
    text = _text(x + 10, MOVES_AT + 4, words, 'font-weight="600"')
    if not points:
        return text
    head = -1.0 if points == "up" else 1.0
    tip, tail, barb = MOVES_AT + head * ARROW, MOVES_AT - head * ARROW, MOVES_AT + head * (ARROW - 5)
    arrow = f"M{x:.1f} {tail:.1f}V{tip:.1f}M{x - 4:.1f} {barb:.1f}L{x:.1f} {tip:.1f}L{x + 4:.1f} {barb:.1f}"
    return f'{text}<path d="{arrow}" fill="none" stroke="{INK}" stroke-width="1.5"/>'


def _label(x: float, axis: Ray, words: str) -> str:
    return on_its_ground(x, _y(axis, x) + 4, words, 'text-anchor="middle" font-weight="600"', ground=4)


def _text(x: float, y: float, words: str, extra: str) -> str:
    return f'<text x="{x:.1f}" y="{y:.1f}" {extra}>{escape(words)}</text>'
