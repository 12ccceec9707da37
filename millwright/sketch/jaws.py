"""Jaw couplings: how the element lies, where the gap is taken, what holds a wrap-round element; blocks in their pockets."""

from ..say import Figure
from .shapes import Sketch, box, circle, dimension, label, line, outline, sector


def element(gap: Figure | None, jaw_tip: Figure | None) -> Sketch:
    """Two hubs unrolled, jaws and legs in turn: the raised dots just touch. With the gap, or from jaw tip to face."""
    legs = [box(96, y, 224, y + 26, "rubber") for y in (58, 118)]
    dots = [circle(x, y + 13, 4, "solid") for x in (94, 226) for y in (58, 118)]
    between = [] if gap is None else [dimension(90, 30, 230, 30, "{gap}", gap=gap)]
    tip = [] if jaw_tip is None else [dimension(168, 172, 230, 172, "{tip}", tip=jaw_tip)]
    return Sketch(
        title="Element between the jaws, unrolled: its raised dots just touch both hub faces",
        width=320,
        height=190,
        paths=(
            box(30, 40, 90, 150, "cut"),
            box(230, 40, 290, 150, "cut other"),
            box(90, 86, 168, 116, "cut"),
            box(152, 40, 230, 56, "cut other"),
            box(152, 146, 230, 150, "cut other"),
            *legs,
            *dots,
            line(90, 22, 90, 40, "thin"),
            line(230, 22, 230, 40, "thin"),
            *([line(168, 116, 168, 180, "thin"), line(230, 150, 230, 180, "thin")] if tip else []),
        ),
        labels=(label(8, 176, "dot just touches", to=(94, 131)),),
        dimensions=(*between, *tip),
    )


def collar(bolts: int | None) -> Sketch:
    """The element in shear with its spacer: pilots home, and the collar over the first half before the second goes on."""
    count = "" if bolts is None else f", {bolts} each end"
    return Sketch(
        title="Half section: both halves on their pilots, the collar pushed back over the first, the element between",
        width=340,
        height=190,
        paths=(
            line(10, 150, 330, 150, "centre"),
            outline([(20, 90), (70, 90), (70, 104), (82, 104), (82, 132), (20, 132)], "cut"),
            outline([(320, 90), (270, 90), (270, 104), (258, 104), (258, 132), (320, 132)], "cut"),
            outline([(70, 70), (132, 70), (132, 118), (82, 118), (82, 104), (70, 104)], "cut other"),
            outline([(270, 70), (208, 70), (208, 118), (258, 118), (258, 104), (270, 104)], "cut other"),
            box(20, 132, 86, 150, "part"),
            box(254, 132, 320, 150, "part"),
            box(132, 74, 208, 96, "rubber"),
            outline([(76, 52), (128, 52), (128, 64), (84, 64), (84, 68), (76, 68)], "solid"),
            line(140, 58, 190, 58, "look here"),
            outline([(190, 52), (202, 58), (190, 64)], "look here"),
            box(56, 78, 88, 84, "part"),
            box(252, 78, 284, 84, "part"),
        ),
        labels=(
            label(76, 20, "collar: on before the second half", to=(100, 52)),
            label(90, 182, "pilot seated, no light", to=(82, 112)),
            label(334, 40, f"mounting bolts{count}", anchor="end", to=(268, 78)),
        ),
    )


def blocks() -> Sketch:
    """Claw couplings seen along the shaft: a block fills its pocket, its wide side outward."""
    x, y = 110, 100
    claws = [
        sector(x, y, 44, 78, start, start + 34, "cut" if i % 2 else "cut other") for i, start in enumerate(range(0, 360, 60))
    ]
    pockets = [sector(x, y, 48, 76, at + 36, at + 58, "rubber") for at in range(0, 360, 60)]
    return Sketch(
        title="Blocks between the claws of both hubs, the wide side outward; turned round, one is proud",
        width=360,
        height=200,
        paths=(
            circle(x, y, 86, "line"),
            *claws,
            *pockets,
            circle(x, y, 40, "part"),
            line(x - 92, y, x + 92, y, "centre"),
            line(x, y - 92, x, y + 92, "centre"),
            outline([(246, 70), (290, 70), (284, 104), (252, 104)], "rubber"),
            outline([(252, 132), (284, 132), (290, 166), (246, 166)], "rubber"),
            line(240, 128, 296, 170, "look here"),
            line(296, 128, 240, 170, "look here"),
        ),
        labels=(
            label(302, 82, "wide side"),
            label(302, 98, "outward"),
            label(302, 154, "not so"),
            label(214, 20, "one in every pocket", to=(150, 44)),
        ),
    )
