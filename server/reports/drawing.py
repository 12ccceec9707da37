"""The alignment as a drawing on paper: side view and plan, along the shaft to scale, across exaggerated."""

from collections.abc import Mapping
from html import escape
from typing import Any

from millwright.line import LineSpec

WIDTH, VIEW_HEIGHT, MARGIN = 720.0, 150.0, 30.0
ROOM_ACROSS = 34.0  # how far, in drawing units, the largest displacement is drawn
MOST_TIMES = 500.0  # beyond this a machine that is in line would look as if it were not
STEPS = (1, 2, 5)


def exaggeration(largest_mm: float, scale: float) -> float:
    """A round factor (1, 2, 5 × 10ⁿ) that draws the largest displacement no farther than there is room."""
    if largest_mm <= 0:
        return 100.0
    wanted, best = ROOM_ACROSS / (largest_mm * scale), 1.0
    for power in range(5):
        for step in STEPS:
            if step * 10**power <= wanted:
                best = float(step * 10**power)
    return min(best, MOST_TIMES)


def alignment_svg(spec: LineSpec, result: Mapping[str, Any]) -> str:
    """Side view over plan; the stationary machine is hatched, its axis prolonged as the datum.

    Driver left, driven right, whichever of the two is moved.
    """
    way = -1.0 if spec.movable == "driver" else 1.0  # drawn x of the movable side
    reach = {side: max([f.from_coupling_mm for f in spec.machine(side).feet] or [300.0]) for side in ("driver", "driven")}
    left, right = reach["driver"] * 1.15, reach["driven"] * 1.15
    scale = (WIDTH - 2 * MARGIN) / (left + right)
    far = reach[spec.movable]
    places = [
        abs(result[f"offset_{p}_mm"] + result[f"slope_{p}_mm_per_m"] * x / 1000) for p in ("v", "h") for x in (0.0, far)
    ]
    times = exaggeration(max(places), scale)
    centre = MARGIN + left * scale

    def x_at(x_mm: float) -> float:
        return centre + way * x_mm * scale

    # Looking from behind the movable machine 3 o'clock is to the right: down in plan when it stands left.
    down = {"v": -1.0, "h": -way}
    views = [
        _view(spec, result, plane, title, x_at, across=scale * times, down=down[plane], top=top)
        for plane, title, top in (("v", "Side view", 0.0), ("h", "Plan", VIEW_HEIGHT))
    ]
    note = f"Across drawn × {times:g}; along the shaft to scale, {left + right:.0f} mm"
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH:.0f} {2 * VIEW_HEIGHT + 20:.0f}" role="img" '
        f'font-family="Barlow Semi Condensed, sans-serif" font-size="12">'
        '<defs><pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">'
        '<path d="M0 0V6" stroke="#14202B" stroke-width=".7"/></pattern></defs>'
        + "".join(views)
        + f'<text x="{MARGIN}" y="{2 * VIEW_HEIGHT + 14:.0f}">{note}</text></svg>'
    )


def _view(
    spec: LineSpec, result: Mapping[str, Any], plane: str, title: str, x_at: Any, *, across: float, down: float, top: float
) -> str:
    axis = top + VIEW_HEIGHT / 2
    offset, slope = float(result[f"offset_{plane}_mm"]), float(result[f"slope_{plane}_mm_per_m"])

    def y_at(x_mm: float) -> float:
        return axis + down * (offset + slope * x_mm / 1000) * across

    movable, stationary = spec.machine(spec.movable), spec.machine(spec.stationary)
    far = max(f.from_coupling_mm for f in movable.feet)
    fixed = max([f.from_coupling_mm for f in stationary.feet] or [300.0])
    face = max([plane["x_mm"] for plane in result.get("flex", [])] or [4.0])  # a spacer reaches from plane to plane
    near, fixed_near = max(far * 0.3, face * 1.3), max(fixed * 0.3, face * 1.3)
    parts = [
        f'<text x="{MARGIN}" y="{top + 16:.0f}" font-weight="600">{title}</text>',
        _line(MARGIN / 2, axis, WIDTH - MARGIN / 2, axis, 'stroke-dasharray="14 3 3 3" stroke-width=".8"'),
        _box(x_at(-fixed), axis, x_at(-fixed_near), axis, 34, 'fill="url(#hatch)"'),
        _box(x_at(-fixed_near), axis, x_at(-face), axis, 8, 'fill="url(#hatch)"'),
        _box(x_at(far), y_at(far), x_at(near), y_at(near), 34, 'fill="#fff"'),
        _box(x_at(near), y_at(near), x_at(face), y_at(face), 8, 'fill="#fff"'),
        *([_box(x_at(-face), axis, x_at(face), y_at(face), 6, 'fill="#fff"')] if result.get("flex") else []),
        _line(x_at(far * 1.1), y_at(far * 1.1), x_at(face), y_at(face), 'stroke-dasharray="14 3 3 3" stroke-width=".8"'),
        _label(x_at(-fixed * 0.65), axis, stationary.name),
        _label(x_at(far * 0.65), y_at(far * 0.65), movable.name),
    ]
    words = ("high", "low") if plane == "v" else ("to 3", "to 9")
    parts.append(
        f'<text x="{x_at(0):.1f}" y="{top + 30:.0f}" text-anchor="middle">{abs(offset):.2f} '
        f"{words[0] if offset > 0 else words[1]}, {abs(slope) / 10:.3f}/100</text>"
    )
    return "".join(parts)


def _line(x1: float, y1: float, x2: float, y2: float, extra: str) -> str:
    return f'<path d="M{x1:.1f} {y1:.1f}L{x2:.1f} {y2:.1f}" fill="none" stroke="#14202B" {extra}/>'


def _box(x1: float, y1: float, x2: float, y2: float, half: float, fill: str) -> str:
    corners = f"M{x1:.1f} {y1 - half:.1f}L{x2:.1f} {y2 - half:.1f}L{x2:.1f} {y2 + half:.1f}L{x1:.1f} {y1 + half:.1f}Z"
    return f'<path d="{corners}" stroke="#14202B" stroke-width="1.5" {fill}/>'


def _label(x: float, y: float, words: str) -> str:
    return (
        f'<text x="{x:.1f}" y="{y + 4:.1f}" text-anchor="middle" font-weight="600" stroke="#fff" stroke-width="4" '
        f'paint-order="stroke">{escape(words)}</text>'
    )
