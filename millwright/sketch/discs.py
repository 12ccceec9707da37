"""Disc couplings: the holes of a pack, a close-fit bolt with its catch ring, a squeeze screw in a spacer unit."""

from ..say import Figure
from .shapes import Sketch, box, circle, dimension, in_turn, label, line, outline, ring

USUAL_BOLTS = 3  # of one flange, drawn where the card has no count yet


def pack_holes(first: int | None, second: int | None) -> Sketch:
    """The pack on the first flange: small holes take its bolts, large ones let the nuts of the other flange stay free."""
    n = min(max(first or USUAL_BOLTS, second or USUAL_BOLTS, 2), 12)
    x, y, r = 110, 100, 62
    size = min(10.0, 100 / (2 * n))
    small, large = in_turn(x, y, r, n)
    count = "" if first is None else f", {first} of them"
    return Sketch(
        title="Flange seen from the pack: small holes and large holes in turn",
        width=390,
        height=200,
        paths=(
            circle(x, y, 86, "part"),
            circle(x, y, r, "centre"),
            ring(x, y, 24, 38, "cut"),
            *(circle(*at, size + 4, "line") for at in large),
            *(circle(*at, size - 3, "hidden") for at in large),
            *(circle(*at, size - 2, "solid") for at in small),
        ),
        labels=(
            label(214, 40, f"small: its own bolts{count}", to=small[0]),
            label(214, 90, "large: the nuts of the", to=large[0] if large[0][0] > x else large[-1]),
            label(214, 106, "other flange stay free"),
            label(214, 150, "turn one shaft by a hole"),
            label(214, 166, "where a nut would touch"),
        ),
    )


def fitted_bolt() -> Sketch:
    """A close-fit bolt home: its head on the flange, the catch ring under the nut."""
    return Sketch(
        title="Section through a close-fit bolt: head seated, catch ring in its groove, nut on",
        width=360,
        height=180,
        paths=(
            box(90, 30, 126, 76, "cut"),
            box(90, 104, 126, 150, "cut"),
            *(box(128 + 8 * i, 40, 133 + 8 * i, 76, "cut other") for i in range(4)),
            *(box(128 + 8 * i, 104, 133 + 8 * i, 140, "cut other") for i in range(4)),
            box(160, 30, 186, 76, "cut"),
            box(160, 104, 186, 150, "cut"),
            box(90, 76, 216, 104, "part"),
            box(68, 66, 90, 114, "part"),
            box(186, 68, 194, 112, "solid"),
            box(194, 64, 222, 116, "part"),
            line(50, 90, 240, 90, "centre"),
        ),
        labels=(
            label(10, 24, "head seats on the flange", to=(88, 70)),
            label(232, 54, "catch ring: only in", to=(192, 70)),
            label(232, 70, "the second draw-in"),
            label(232, 140, "nut, turned", to=(214, 112)),
        ),
    )


def squeeze_screw(most: Figure | None, screws: int | None) -> Sketch:
    """A squeeze screw through the spacer flange into the adapter: it shortens the unit, and comes out again."""
    shorter = [] if most is None else [dimension(150, 26, 186, 26, "at most {most}", most=most)]
    came = "" if screws is None else f", {screws} in all"
    return Sketch(
        title="Section through a spacer unit at one end: a squeeze screw draws adapter and spacer flange together",
        width=400,
        height=190,
        paths=(
            outline([(92, 40), (150, 40), (150, 96), (128, 96), (128, 130), (92, 130)], "cut"),
            outline([(300, 70), (214, 70), (214, 40), (186, 40), (186, 130), (300, 130)], "cut other"),
            *(line(154 + 7 * i, 100, 154 + 7 * i, 128, "line") for i in range(5)),
            box(60, 104, 92, 130, "cut"),
            box(120, 58, 214, 70, "part"),
            box(214, 50, 232, 78, "solid"),
            line(104, 64, 246, 64, "centre"),
            line(50, 150, 310, 150, "centre"),
            *([line(150, 18, 150, 40, "thin"), line(186, 18, 186, 40, "thin")] if shorter else []),
        ),
        labels=(
            label(244, 46, "squeeze screw: each by", to=(232, 54)),
            label(244, 62, f"the same turn{came}"),
            label(20, 176, "pilot: must pass, then spring in", to=(92, 118)),
            label(290, 176, "out before it runs", anchor="start", to=(226, 78)),
        ),
        dimensions=tuple(shorter),
    )
