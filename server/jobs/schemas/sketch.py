"""A drawing of what to look for, as the core has it."""

from millwright.sketch.shapes import Anchor, Ink
from server.web.shown import Shown
from server.web.words import Said


class PathOut(Shown):
    """A line or an outline, as SVG has it, and in which ink."""

    d: str
    ink: Ink


class PointOut(Shown):
    """A place in a drawing."""

    x: float
    y: float


class LabelOut(Shown):
    """Words at a place; with `to` a leader runs from them to what they name."""

    x: float
    y: float
    words: Said
    anchor: Anchor
    to: PointOut | None
    big: bool


class DimensionOut(Shown):
    """A distance between two points, with its figure."""

    x1: float
    y1: float
    x2: float
    y2: float
    words: Said


class WindowOut(Shown):
    """A part of a drawing, over its whole height."""

    left: float
    width: float


class SketchOut(Shown):
    """What to look for, drawn; `title` for whoever cannot see it."""

    title: str
    width: float
    height: float
    paths: list[PathOut]
    labels: list[LabelOut]
    dimensions: list[DimensionOut]
    note: Said
    narrow: WindowOut | None
