"""Drives that hang on a shaft or hold by magnets: covers, race and strap of a backstop, wedge, packing, rotor."""

import math

from .shapes import Path, Sketch, around, box, circle, label, line, outline, ring, sector, turned_round


def _sprags(x: float, y: float, inner: float, outer: float, n: int, *, clockwise: bool) -> list[Path]:
    """Sprags between two races, each leaning the way that lets the shaft go."""
    lean = 14 if clockwise else -14
    found = []
    for i in range(n):
        at = i * 360 / n
        (x1, y1), (x2, y2) = around(x, y, inner + 2, at - lean / 2), around(x, y, outer - 2, at + lean / 2)
        turned = math.atan2(y2 - y1, x2 - x1) + math.pi / 2
        dx, dy = 4 * math.cos(turned), 4 * math.sin(turned)
        found.append(outline([(x1 + dx, y1 + dy), (x2 + dx, y2 + dy), (x2 - dx, y2 - dy), (x1 - dx, y1 - dy)], "solid"))
    return found


def arrow_on_race(way: str) -> Sketch:
    """The race as it goes in, the arrow it has to carry; both ways are open as long as nobody has said which."""
    x, y = 110.0, 104.0
    clockwise = way != "counter-clockwise"
    arrow = turned_round(x, y, 42, 300, 60, clockwise=clockwise) if way else []
    said = f"free way: {way}" if way else "free way: not said yet"
    return Sketch(
        title=f"Backstop as it goes in, seen from its own side, {said}",
        width=400,
        height=208,
        paths=(
            ring(x, y, 76, 94, "cut"),
            ring(x, y, 30, 54, "cut other"),
            *_sprags(x, y, 54, 76, 14, clockwise=clockwise),
            circle(x, y, 30, "part"),
            box(x - 5, y - 36, x + 5, y - 25, "part"),
            line(x - 100, y, x + 100, y, "centre"),
            line(x, y - 100, x, y + 100, "centre"),
            *arrow,
        ),
        labels=(
            label(222, 40, said),
            label(222, 56, "seen from its own side"),
            label(222, 96, "inner race with its arrow", to=around(x, y, 46, 96)),
            label(222, 136, "outer race, bolted to", to=around(x, y, 86, 110)),
            label(222, 152, "the housing"),
            label(222, 192, "same arrow on the housing"),
        ),
    )


def covers() -> Sketch:
    """Two units from above: driven by a belt, and with a motor built on."""

    def unit(x: float) -> list[Path]:
        return [
            box(x + 30, 40, x + 130, 150, "part"),
            line(x + 10, 122, x + 150, 122, "centre"),
            box(x + 14, 112, x + 146, 132, "cut"),
            line(x + 20, 66, x + 140, 66, "centre"),
        ]

    belt = [box(8, 48, 22, 84, "cut other"), box(22, 60, 40, 72, "part"), box(130, 50, 142, 82, "look here")]
    built_on = [box(200, 44, 238, 88, "part"), line(238, 94, 340, 94, "centre"), box(338, 80, 350, 108, "look here")]
    return Sketch(
        title="Gear unit from above: the cover is opposite the sheave, or with a motor built on, on another shaft",
        width=430,
        height=196,
        paths=(*unit(0), *belt, *unit(208), *built_on),
        labels=(
            label(80, 26, "driven by a belt", anchor="middle"),
            label(288, 26, "motor built on", anchor="middle"),
            label(84, 110, "output", anchor="middle"),
            label(292, 118, "output", anchor="middle"),
            label(84, 176, "opposite the sheave", anchor="middle", to=(136, 82)),
            label(296, 176, "on a shaft between", anchor="middle", to=(344, 108)),
        ),
    )


def strap() -> Sketch:
    """The strap holds the sprags on the inner race until the outer race is over all of them."""
    return Sketch(
        title="Inner race on its shaft, the strap round its sprags until the outer race has them",
        width=420,
        height=190,
        paths=(
            box(20, 78, 250, 112, "part"),
            outline([(70, 48), (150, 48), (150, 78), (70, 78)], "cut other"),
            outline([(70, 112), (150, 112), (150, 142), (70, 142)], "cut other"),
            *(box(74 + i * 12, 34, 82 + i * 12, 48, "solid") for i in range(6)),
            *(box(74 + i * 12, 142, 82 + i * 12, 156, "solid") for i in range(6)),
            line(70, 31, 150, 31, "look here"),
            line(70, 159, 150, 159, "look here"),
            outline([(176, 18), (246, 18), (246, 66), (226, 66), (226, 34), (176, 34)], "cut"),
            outline([(176, 172), (246, 172), (246, 124), (226, 124), (226, 156), (176, 156)], "cut"),
            line(10, 95, 262, 95, "centre"),
        ),
        labels=(
            label(272, 40, "outer race comes on", to=(240, 30)),
            label(272, 84, "strap stays until every", to=(148, 31)),
            label(272, 100, "sprag lies in the outer race"),
            label(272, 150, "shoulder: no feeler enters", to=(70, 130)),
        ),
    )


def bead(bolts: int | None) -> Sketch:
    """The face with its bead: unbroken, and round every hole."""
    n = min(max(bolts or 6, 3), 12)
    x, y = 110.0, 104.0
    holes = [around(x, y, 72, i * 360 / n) for i in range(n)]
    return Sketch(
        title="Face of the opening: an unbroken bead of sealant, round every bolt hole",
        width=390,
        height=208,
        paths=(
            ring(x, y, 50, 94, "part"),
            circle(x, y, 60, "look here"),
            *(circle(*at, 12, "look here") for at in holes),
            *(circle(*at, 6, "solid") for at in holes),
        ),
        labels=(
            label(222, 52, "thin, unbroken", to=around(x, y, 60, 40)),
            label(222, 100, "round every hole" + ("" if bolts is None else f", {bolts}"), to=holes[1]),
            label(222, 148, "none toward the bearing", to=around(x, y, 50, 130)),
        ),
    )


def wedge() -> Sketch:
    """Hub, wedge, ring and keeper plate of a conveyor shaft: what pulls against what."""
    return Sketch(
        title="Conveyor shaft in the output hub: the bolt through the keeper plate draws the wedge in against its ring",
        width=440,
        height=200,
        paths=(
            outline([(120, 30), (300, 30), (300, 70), (120, 70)], "cut"),
            outline([(120, 130), (300, 130), (300, 170), (120, 170)], "cut"),
            box(10, 78, 262, 122, "part"),
            outline([(170, 70), (312, 70), (312, 77), (170, 73)], "cut other"),
            outline([(170, 130), (312, 130), (312, 123), (170, 127)], "cut other"),
            outline([(170, 73), (312, 77), (262, 78), (170, 78)], "part"),
            box(300, 60, 306, 70, "look here"),
            box(300, 130, 306, 140, "look here"),
            box(316, 62, 328, 138, "part"),
            box(262, 94, 340, 106, "solid"),
            line(4, 100, 372, 100, "centre"),
        ),
        labels=(
            label(20, 60, "drive shaft, drilled", to=(40, 80)),
            label(20, 76, ""),
            label(350, 40, "ring first", to=(306, 64)),
            label(350, 88, "keeper plate", to=(328, 90)),
            label(350, 136, "wedge between", to=(300, 126)),
            label(350, 152, "hub and shaft"),
            label(150, 190, "output hub", to=(180, 160)),
        ),
    )


def joints(rings: int) -> Sketch:
    """Braided rings in the seat, each joint a third of a turn from the one before."""
    n = min(max(rings, 1), 6)
    x, y = 110.0, 104.0
    paths: list[Path] = [circle(x, y, 92, "part"), circle(x, y, 34, "part")]
    words = []
    for i in range(n):
        r = 88 - (i + 0.5) * 54 / n
        half, at = min(8.0, 22 / n), i * 120 % 360
        paths += [sector(x, y, r - half, r + half, at + start, at + start + 168, "cut") for start in (12, 180)]
        paths.append(line(*around(x, y, r - half, at), *around(x, y, r + half, at), "look here"))
        words.append(label(222, 34 + i * min(22.0, 150 / n), f"ring {i + 1}: joint at {(at // 30) or 12} o'clock"))
    words.append(label(222, 192, "ring 1 lies deepest, outermost here"))
    return Sketch(
        title=f"{n} rings of packing, each joint a third of a turn from the one before",
        width=400,
        height=208,
        paths=tuple(paths),
        labels=tuple(words),
    )


def rotor_between_plates() -> Sketch:
    """The magnet rotor between its two plates, card or jacking screws keeping it off."""
    return Sketch(
        title="Magnet rotor between the two conductor plates: something between them always, and no finger",
        width=430,
        height=214,
        paths=(
            box(60, 24, 76, 190, "cut"),
            box(184, 24, 200, 190, "cut"),
            box(60, 24, 200, 34, "cut"),
            box(60, 180, 200, 190, "cut"),
            box(92, 44, 124, 170, "cut other"),
            box(136, 44, 168, 170, "cut other"),
            box(124, 96, 136, 118, "part"),
            box(76, 46, 92, 74, "look here"),
            box(76, 140, 92, 168, "look here"),
            box(168, 46, 184, 74, "look here"),
            box(168, 140, 184, 168, "look here"),
            box(168, 98, 270, 116, "part"),
            box(10, 98, 60, 116, "part"),
            line(4, 107, 282, 107, "centre"),
        ),
        labels=(
            label(216, 40, "gap spacer joins both plates", to=(190, 29)),
            label(216, 70, "card between, or jacking", to=(182, 60)),
            label(216, 86, "screws, always"),
            label(290, 112, "load shaft"),
            label(216, 150, "magnets: they snap to steel", to=(160, 150)),
            label(216, 166, "and do not let go of a finger"),
            label(10, 206, "driver, carries the plates"),
        ),
    )
