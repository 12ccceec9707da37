"""What was done, drawn for the record: bolts as their heads were seated, holes as grease was filled through them."""

from collections.abc import Sequence

from .shapes import Label, Path, Sketch, around, box, circle, label, line, ring

X, Y, R = 110.0, 104.0, 66.0


def seated(heads: Sequence[str]) -> Sketch:
    """The circle from its flange, hole by hole clockwise from the top; ``heads`` - on which flange each one stands."""
    n = max(len(heads), 1)
    size = min(15.0, 170 / n)
    places = [around(X, Y, R, i * 360 / n) for i in range(n)]
    words = [label(*around(X, Y, R + size + 12, i * 360 / n), str(i + 1), anchor="middle") for i in range(n)]
    own = [circle(*at, size, "solid") for at, head in zip(places, heads, strict=False) if head == "hub"]
    other = [circle(*at, size, "part") for at, head in zip(places, heads, strict=False) if head != "hub"]
    return Sketch(
        title=f"Close-fit bolts as they were drawn in: {n} heads seated",
        width=360,
        height=212,
        paths=(ring(X, Y, 22, 34, "cut"), circle(X, Y, R, "centre"), *own, *other),
        labels=(
            *words,
            label(228, 60, "● head on the hub"),
            label(228, 80, "○ head on the spacer"),
            label(228, 120, "seen from the hub"),
        ),
    )


def filled(holes: Sequence[tuple[float, str]]) -> Sketch:
    """The coupling as it stood while it was filled: ``holes`` - clock position in degrees and what was said of each."""
    paths: list[Path] = [
        ring(X, Y, 48, R, "cut"),
        circle(X, Y, 26, "part"),
        line(X - 90, Y, X + 90, Y, "centre"),
        line(X, Y - 90, X, Y + 90, "centre"),
        box(X - 96, Y + 92, X + 96, Y + 98, "cut other"),
    ]
    words: list[Label] = []
    for i, (clock, said) in enumerate(holes, start=1):
        paths.append(circle(*around(X, Y, R, clock), 8, "solid"))
        words.append(label(*around(X, Y + 5, R - 30, clock), str(i), anchor="middle"))
        words.append(label(228, 30 + 20 * i, f"{i}: {said}"))
    return Sketch(
        title="Grease holes by clock position as it was filled, every plug in",
        width=380,
        height=212,
        paths=tuple(paths),
        labels=tuple(words),
    )
