"""What several families share: marks that must agree, the half holes of a bush, the holes of a tube, a nut that stays on."""

from collections.abc import Sequence

from .shapes import Sketch, around, box, circle, in_turn, label, line, outline, ring, sector


def marks(places: Sequence[str], read: Sequence[str] = ()) -> Sketch:
    """Parts in a row as they lie, a line scribed over all of them; with what was ``read`` on each."""
    wide = max(70.0, 360 / max(len(places), 1))
    width = wide * len(places) + 20
    parts, words = [], []
    agree = len({mark.strip().casefold() for mark in read}) == 1
    for i, place in enumerate(places):
        x1, x2 = 10 + i * wide + 3, 10 + (i + 1) * wide - 3
        parts.append(box(x1, 50 if i % 2 else 40, x2, 110 if i % 2 else 120, "part"))
        words.append(label((x1 + x2) / 2, 142, place, anchor="middle"))
        if i < len(read):
            words.append(label((x1 + x2) / 2, 74, read[i].strip(), anchor="middle"))
    said = "one line over all of them" if not read else "they agree" if agree else "they differ"
    return Sketch(
        title=f"Marks of {', '.join(places)}: {said}",
        width=width,
        height=156,
        paths=(*parts, line(4, 84, width - 4, 84, "look here")),
        labels=(label(width / 2, 24, said, anchor="middle"), *words),
    )


def bush(screws: int | None) -> Sketch:
    """A tapered bush from its face: in some holes the thread is in the hub, in the others in the bush."""
    n = min(screws or 2, 6)
    x, y = 110, 100
    holes = [around(x, y, 52, (i + 0.5) * 360 / (n + 1)) for i in range(n)]
    jack = around(x, y, 52, (n + 0.5) * 360 / (n + 1))
    count = "" if screws is None else f"{screws} "
    return Sketch(
        title="Bush in its hub from the face: half holes threaded in the hub take the screws, the other one jacks it out",
        width=390,
        height=200,
        paths=(
            ring(x, y, 52, 88, "cut"),
            ring(x, y, 30, 52, "cut other"),
            circle(x, y, 30, "part"),
            box(x - 5, y - 38, x + 5, y - 26, "part"),
            *(circle(*at, 10, "solid") for at in holes),
            circle(*jack, 10, "part"),
        ),
        labels=(
            label(218, 44, f"{count}screws here: thread in", to=holes[0]),
            label(218, 60, "the hub, plain in the bush"),
            label(218, 130, "empty: thread in the bush,", to=jack),
            label(218, 146, "for jacking it out"),
            label(218, 184, "thread on thread does not draw"),
        ),
    )


def tube_holes(bolts: int | None) -> Sketch:
    """The flange of a tube: bolts of the small holes come out, those of the large ones hold the element and stay."""
    n = min(max(bolts or 3, 2), 8)
    x, y, r = 110, 100, 62
    small, large = in_turn(x, y, r, n)
    count = "" if bolts is None else f"{bolts} "
    return Sketch(
        title="Flange of the tube: the bolts in its small holes come out, hub and element stay together",
        width=370,
        height=200,
        paths=(
            circle(x, y, 88, "part"),
            sector(x, y, 30, 40, 0, 179, "cut"),
            sector(x, y, 30, 40, 180, 359, "cut"),
            circle(x, y, r, "centre"),
            *(circle(*at, 9, "look here") for at in small),
            *(circle(*at, 13, "line") for at in large),
            *(circle(*at, 8, "solid") for at in large),
        ),
        labels=(
            label(218, 44, f"small holes: {count}bolts out,", to=small[0]),
            label(218, 60, "each with nut and bushing"),
            label(218, 130, "large holes: these stay,", to=large[0]),
            label(218, 146, "the joint is the factory's"),
        ),
    )


TAPER = ((20, 74), (60, 74), (196, 82), (196, 86), (268, 86), (268, 94), (196, 94), (196, 98), (60, 106), (20, 106))


def nut_stays() -> Sketch:
    """A tapered hub about to let go: the nut is backed off a few turns and stays on, full thread."""
    return Sketch(
        title="Tapered shaft end: the nut is backed off and still on, so that the hub that springs loose is held",
        width=390,
        height=180,
        paths=(
            outline(TAPER, "part"),
            outline([(70, 30), (180, 30), (180, 81), (70, 75)], "cut"),
            outline([(70, 105), (180, 99), (180, 150), (70, 150)], "cut"),
            box(212, 66, 240, 114, "solid"),
            line(10, 90, 290, 90, "centre"),
            line(184, 40, 208, 40, "look here"),
            outline([(204, 35), (212, 40), (204, 45)], "look here"),
        ),
        labels=(
            label(222, 44, "it springs as far as the nut"),
            label(250, 136, "nut on, full thread,", to=(236, 114)),
            label(250, 152, "a few turns back"),
        ),
    )
