"""A sketch on paper. Its geometry is the core's (`millwright.sketch`); here it gets ink.

Words that lie over lines stand on a white ground of their own shape, written under them: what prints the PDF paints an
outline over its letters, whatever order is asked for.
"""

import math
from html import escape

from millwright.sketch.shapes import Anchor, Dimension, Ink, Label, Sketch

INK, BLUE = "#14202B", "#1F4E79"
ARROW = 9.0
TEXT, BIG = 13, 21
_CENTRE = 'stroke-dasharray="14 3 3 3" stroke-width=".8"'
INKS: dict[Ink, str] = {
    "part": f'fill="#fff" stroke="{INK}" stroke-width="1.5"',
    "cut": f'fill="url(#cut)" stroke="{INK}" stroke-width="1.5"',
    "cut other": f'fill="url(#other)" stroke="{INK}" stroke-width="1.5"',
    "rubber": f'fill="url(#rubber)" stroke="{INK}" stroke-width="1.5"',
    "solid": f'fill="{INK}" stroke="{INK}"',
    "line": f'fill="none" stroke="{INK}" stroke-width="1.5"',
    "thin": f'fill="none" stroke="{INK}" stroke-width=".75"',
    "centre": f'fill="none" stroke="{INK}" {_CENTRE}',
    "hidden": f'fill="none" stroke="{INK}" stroke-dasharray="5 4"',
    "look here": f'fill="none" stroke="{BLUE}" stroke-width="2.5"',
}
PATTERNS = (
    '<defs><pattern id="cut" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">'
    f'<path d="M0 0V7" stroke="{INK}" stroke-width=".7"/></pattern>'
    '<pattern id="other" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">'
    f'<path d="M0 0V6" stroke="{INK}" stroke-width=".7"/></pattern>'
    '<pattern id="rubber" width="5" height="5" patternUnits="userSpaceOnUse">'
    f'<path d="M0 0L5 5M5 0L0 5" stroke="{INK}" stroke-width=".5"/></pattern></defs>'
)


def sketch_svg(sketch: Sketch) -> str:
    """The whole drawing, in the size it was made for: on the page of a record nothing else says how large it is."""
    paths = "".join(f'<path d="{path.d}" {INKS[path.ink]}/>' for path in sketch.paths)
    figures = "".join([*map(_dimension, sketch.dimensions), *map(_label, sketch.labels), _note(sketch)])
    wide, tall = f"{sketch.width:g}", f"{sketch.height:g}"
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {wide} {tall}" width="{wide}" height="{tall}" '
        f'style="width:{wide}px;height:{tall}px;max-width:100%" role="img" aria-label="{escape(sketch.title)}" '
        f'font-family="Barlow Semi Condensed, sans-serif" font-size="{TEXT}">{PATTERNS}{paths}{figures}</svg>'
    )


def _note(sketch: Sketch) -> str:
    return _text(8, sketch.height - 10, str(sketch.note), "start") if sketch.note.template else ""


def _label(label: Label) -> str:
    if label.big:
        big = f'text-anchor="{label.anchor}" font-size="{BIG}" font-weight="600"'
        return on_its_ground(label.x, label.y, str(label.words), big, ground=4)
    if label.to is None:
        return _text(label.x, label.y, str(label.words), label.anchor)
    x, y = label.to.x, label.to.y
    begins = label.y - 12 if y < label.y else label.y + 3  # clear of the words
    leader = f'<path d="M{label.x:g} {begins:g}L{x:g} {y:g}" {INKS["thin"]}/>'
    return leader + _dot(x, y) + _text(label.x, label.y, str(label.words), label.anchor)


def _dot(x: float, y: float) -> str:
    return f'<circle cx="{x:g}" cy="{y:g}" r="2.2" fill="{INK}"/>'


def _dimension(one: Dimension) -> str:
    along = math.atan2(one.y2 - one.y1, one.x2 - one.x1)
    heads = "".join(
        f"M{x + ARROW * math.cos(along + turn):.1f} {y + ARROW * math.sin(along + turn):.1f}L{x:g} {y:g}"
        f"L{x + ARROW * math.cos(along - turn):.1f} {y + ARROW * math.sin(along - turn):.1f}"
        for x, y, turn in ((one.x1, one.y1, 0.3), (one.x2, one.y2, math.pi - 0.3))
    )
    line = f'<path d="M{one.x1:g} {one.y1:g}L{one.x2:g} {one.y2:g}{heads}" {INKS["thin"]}/>'
    return line + _text((one.x1 + one.x2) / 2, (one.y1 + one.y2) / 2 - 4, str(one.words), "middle")


def _text(x: float, y: float, words: str, anchor: Anchor) -> str:
    return on_its_ground(x, y, words, f'text-anchor="{anchor}"', ground=3)


def on_its_ground(x: float, y: float, words: str, extra: str, *, ground: float) -> str:
    """Words over a white ground of ``ground`` units round each letter; ``extra`` - further attributes."""
    place = f'x="{x:.1f}" y="{y:.1f}" {extra}'
    under = f'<text {place} fill="#fff" stroke="#fff" stroke-width="{ground:g}" aria-hidden="true">{escape(words)}</text>'
    return f'{under}<text {place} fill="{INK}">{escape(words)}</text>'
