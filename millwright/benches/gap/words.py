"""What is said of a gap: what to do, and how its figures come about."""

from ...clock import say_clock, say_toward
from ...clock import working as clock_working
from ...say import Say, bare, mm, per_m, say, words
from ...verdict import Band, Check, Status, WorkLine, work
from .io import End, GapInput, GapSince

NOTICED_MM = 0.02  # rule of thumb: two readings of a caliper or feeler


def say_closed(end: End) -> list[Say]:
    """Where the hubs touch, and what that asks for."""
    closed = [clock for clock, value in zip(end.clock, end.value, strict=True) if value <= 0]
    if not closed:
        return []
    at = end.named(f"The hubs touch at {say_clock(closed[0])}")
    return [say("closed", "{at}. Move the machine back before it is turned, then read again.", at=at)]


def say_since(ends: list[End], since: list[GapSince]) -> list[Say]:
    """What has become of each end since it was left."""
    says = []
    for end, now in zip(ends, since, strict=False):
        at = f" ({end.name})" if end.name else ""
        if max(abs(now.mean_mm), abs(now.spread_mm)) <= NOTICED_MM:
            says.append(say("as_it_was_left", "As it was left, as near as the readings show{at}.", at=at))
            continue
        text = "Since it was left the gap has changed by {mean}, its spread by {spread}{at}."
        mean, spread = mm(now.mean_mm, signed=True), mm(now.spread_mm, signed=True)
        says.append(say("changed_since_left", text, mean=mean, spread=spread, at=at))
    return says


def say_differ(ends: list[End], checks: list[Check]) -> list[Say]:
    """Which way a spacer sits off the middle."""
    if not any(check.code == "ends_differ" and check.status is Status.OVER for check in checks):
        return []
    wide, narrow = sorted(ends, key=lambda end: -end.fit.mean_mm)
    off = (wide.fit.mean_mm - narrow.fit.mean_mm) / 2
    text = "One element is pressed, the other stretched: the spacer sits {off} too near the {end}. Shift it, or a hub."
    return [say("spacer_off_middle", text, off=mm(off), end=narrow.name)]


def advice_of(given: GapInput, end: End, checks: list[Check]) -> list[Say]:
    """The distance by the mean, the angle by where it opens: each has its own cure."""
    over = {check.code for check in checks if check.status is Status.OVER}
    advice = []
    askew = bool(over & {end.code("angle"), end.code("spread")})
    wanted = given.accept.mean or given.accept.each
    if wanted is not None and over & {end.code("mean"), end.code("each")}:
        low, high = wanted.min_mm, wanted.max_mm
        fits = _in_band(end.fit.mean_mm, wanted)
        if fits:
            askew = True
        elif low is not None and high is not None:
            middle = (low + high) / 2
            off = end.fit.mean_mm - middle
            text = "{way} the gap{at} by {by} to reach the middle of the tolerance, {middle}."
            way, at = "Close" if off > 0 else "Open", f" at the {end.name}" if end.name else ""
            advice.append(say("set_distance", text, way=way, at=at, by=mm(abs(off)), middle=mm(middle)))
        else:
            off = end.fit.mean_mm - (high if high is not None else low or 0.0)
            text = "{way} the gap{at} by at least {by}."
            way, at = "Close" if off > 0 else "Open", f" at the {end.name}" if end.name else ""
            advice.append(say("set_distance", text, way=way, at=at, by=mm(abs(off))))
    if askew:
        opens = end.named(f"The gap opens at {say_toward(end.fit.peak_deg)}")
        by = words(", {per_m}", per_m=per_m(end.slope.size)) if end.slope else ""
        text = "{opens}{by}: that is angle, not distance. Take the angle out, then read the gap again."
        advice.append(say("take_out_angle", text, opens=opens, by=by))
    return advice


def _in_band(value: float, band: Band) -> bool:
    return (band.min_mm is None or value >= band.min_mm) and (band.max_mm is None or value <= band.max_mm)


def working_of(given: GapInput, end: End) -> list[WorkLine]:
    """How gap, spread and angle come about."""
    value, fit, lines = end.value, end.fit, []
    if given.bar_mm is not None:
        bar = words("{bar} + feeler", bar=bare(given.bar_mm))
        lines.append(work(end.code("bar"), end.named("bar under every feeler"), "bar + feeler", bar, given.bar_mm))
    mean = "mean of the sine" if len(value) != 4 else "mean round the clock"
    lines.append(work(end.code("mean"), end.named("mean gap"), mean, f"{len(value)} readings", fit.mean_mm))
    numbers = words("{most} − {least}", most=bare(max(value)), least=bare(min(value)))
    lines.append(work(end.code("spread"), end.named("spread"), "largest − smallest", numbers, end.spread_mm))
    lines += clock_working(end.clock, value, fit)
    if given.diameter_mm is None or end.slope is None:
        return lines
    on = bare(given.diameter_mm, 1)
    numbers = words("2 × {sine} ÷ {on} × 1000", sine=bare(fit.size_mm, 4), on=on)
    formula = "2 × √(up² + right²) ÷ diameter"
    lines.append(work(end.code("angle"), end.named("angle"), formula, numbers, end.slope.size, "mm/m"))
    if given.accept.angle is not None:
        limit = given.accept.angle.max_mm_per_m
        numbers = words("{limit} ÷ 1000 × {on}", limit=bare(limit, 2, "mm/m"), on=on)
        what = "angle limit, as a gap difference here"
        lines.append(work(end.code("angle_limit"), what, "limit × diameter", numbers, limit / 1000 * given.diameter_mm))
    return lines
