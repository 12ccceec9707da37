"""Tyre couplings: the bead under its ring, the split; what hangs on a shaft before the flange on an engine flywheel."""

from ..say import Figure
from .shapes import Sketch, box, dimension, label, line, outline


def bead(split: Figure | None, clear: Figure | None) -> Sketch:
    """Section through a bead, clamped: no metal on metal; and the split seen from outside."""
    open_by = [] if split is None else [dimension(308, 40, 342, 40, "at most {split}", split=split)]
    at, to = (142, 112), (124, 124)
    free = label(*at, "a feeler goes in", to=to) if clear is None else label(*at, "at least {clear} free", to=to, clear=clear)
    return Sketch(
        title="Bead of the tyre between flange and clamp ring, the ring clear of the flange; beside it the split",
        width=400,
        height=180,
        paths=(
            outline([(40, 60), (76, 60), (76, 132), (150, 132), (150, 150), (40, 150)], "cut"),
            outline([(96, 60), (124, 60), (124, 118), (96, 104)], "cut other"),
            outline([(76, 60), (96, 60), (96, 104), (108, 112), (92, 126), (76, 120)], "rubber"),
            outline([(76, 60), (96, 60), (150, 20), (180, 20), (180, 32), (154, 34)], "rubber"),
            box(30, 84, 136, 92, "part"),
            box(22, 78, 40, 98, "solid"),
            line(14, 88, 148, 88, "centre"),
            line(20, 164, 170, 164, "centre"),
            box(270, 56, 308, 140, "rubber"),
            box(342, 56, 380, 140, "rubber"),
            line(308, 34, 308, 56, "thin"),
            line(342, 34, 342, 56, "thin"),
        ),
        labels=(
            free,
            label(8, 24, "screws by half turns", to=(30, 78)),
            label(330, 164, "split, from outside", anchor="middle"),
        ),
        dimensions=tuple(open_by),
    )


def hung_in_order() -> Sketch:
    """On the driven shaft before its flange: bolt ring, clamp ring, element. None of them can follow."""
    return Sketch(
        title="Driven shaft beside the flywheel: bolt ring, clamp ring and element hang on it before the flange",
        width=380,
        height=180,
        paths=(
            box(20, 30, 60, 150, "cut other"),
            box(150, 80, 370, 100, "part"),
            outline([(330, 60), (346, 60), (346, 80), (330, 80)], "cut"),
            outline([(330, 100), (346, 100), (346, 120), (330, 120)], "cut"),
            outline([(290, 50), (302, 50), (302, 80), (290, 80)], "cut other"),
            outline([(290, 100), (302, 100), (302, 130), (290, 130)], "cut other"),
            outline([(226, 36), (262, 44), (262, 80), (226, 80)], "rubber"),
            outline([(226, 100), (262, 100), (262, 136), (226, 144)], "rubber"),
            box(160, 56, 196, 80, "cut"),
            box(160, 100, 196, 124, "cut"),
            line(10, 90, 376, 90, "centre"),
        ),
        labels=(
            label(374, 20, "1 bolt ring", anchor="end", to=(338, 60)),
            label(304, 20, "2 clamp ring", anchor="end", to=(296, 50)),
            label(222, 20, "3 element", anchor="end", to=(240, 40)),
            label(100, 172, "4 the flange, last", to=(176, 124)),
            label(20, 172, "flywheel"),
        ),
    )
