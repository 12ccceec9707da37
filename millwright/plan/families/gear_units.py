"""What gear units that hang on their shaft have in common: slung, let go again, their arm, their oil."""

from ...bolt_order import Pattern
from ...card.values import source_of
from ...meaning import Meaning, Of
from ..counts import back
from ..fields import Field, choice, number, out, text, tick
from ..procedure import Bench, Row, Stop
from ..steps import BenchForm, Holding, JobFacts
from .facts import Circle, Part

SLINGS = "slings and shackles on the gear unit"
GEAR_UNIT = "gear unit"
OIL, LITRES, OFF_SQUARE = "unit_oil", "unit_oil_l", "arm_off_square_deg"
UNIT = Part(key="unit", title="Gear unit", look_for="hollow shaft clean and whole, breather and oil for its position")
ONE_PULL: tuple[float, ...] = (1.0,)
ROUND: Pattern = "circle"
ARM = Circle(key="arm", title="bolts of the torque arm", at="away from the hubs", order=ROUND, passes=ONE_PULL, own=True)


def slung(*more: Row, title: str = "Sling the gear unit", why: str = "") -> Stop:
    """The first thing on every such drive: until its shaft and arm have it, only this holds it."""
    return Stop(
        key="sling",
        title=title,
        why=why or "Until its shaft and its arm hold it, nothing else does.",
        photograph="how the unit is held",
        tool="sling, hoist or lifting table for its weight",
        caution="Nobody under it, and nobody's hand between unit and machine.",
        rows=(
            choice("by", "Held by", "a sling", "a hoist", "a lifting table"),
            out("slings", "Slings, shackles and props on it", SLINGS),
            tick("taut", "Just taut: it hangs level and does not swing"),
            tick("rest", "The load of the driven machine at rest: blocked, or emptied"),
            *more,
        ),
        holds=(Holding(what=GEAR_UNIT, asked="by"),),
    )


def let_go(by: str, *rows: Row) -> Stop:
    """The sling off, once something that stays has the unit."""
    return Stop(
        key="sling_off",
        title="Take the sling off",
        why="Now the drive holds itself, or it shows at once that it does not.",
        caution="Slack first, look, then off.",
        rows=(
            *rows,
            tick("slack", "Sling slack: the unit did not move"),
            back("slings", "Slings, shackles and props off it", SLINGS),
        ),
        holds=(Holding(what=GEAR_UNIT, by=by, for_now=False),),
        ordered=True,
        on_fail="It moved: sling it again at once, and look what gave.",
    )


LAID_DOWN = Stop(
    key="laid_down",
    title="Lay the unit down",
    why="A unit left in its sling is forgotten there.",
    rows=(
        tick("down", "Laid on timber or a trestle, its oil kept in"),
        tick("covered", "Hollow shaft and plugs covered"),
        back("slings", "Slings, shackles and props off it", SLINGS),
    ),
    holds=(Holding(what=GEAR_UNIT, by="timber or a trestle", for_now=False),),
)


def set_arm() -> Bench:
    """The arm's angle, and what its anchor takes."""

    def form(job: JobFacts) -> BenchForm:
        preset: dict[str, object] = {"output_rpm": job.line.speed_rpm}
        if job.line.driver.power_kw is not None:
            preset["power_kw"] = job.line.driver.power_kw
        if OFF_SQUARE in job.card:
            preset |= {"limit_angle_deg": job.card[OFF_SQUARE].value, "limit_source": source_of(job.card, OFF_SQUARE)}
        return BenchForm(bench="torque_arm", preset=preset)

    return Bench(
        key="arm_angle",
        title="Set the torque arm, near square",
        why="Far from square the same torque pulls harder on the anchor and on the bearing beside the unit.",
        tool="angle gauge, rule",
        caution="The unit stays slung until the arm is pinned.",
        form=form,
        judged_by=(OFF_SQUARE,),
        on_fail=lambda job: "Turn the unit on its shaft, or move the anchor; then measure again.",
    )


ARM_FREE = Stop(
    key="arm_free",
    title="Pin the arm, free at both ends",
    why="A clamped arm bends the shaft at every turn.",
    rows=(
        tick("pinned", "Pin in and secured at both ends"),
        tick("bushes", "Bushes not clamped: the arm moves a little by hand at both ends"),
        tick("anchor", "Anchor on firm ground, not on a cover or a rail"),
        tick("pulls", "It pulls, and does not push, where its manual says so", none_of="its manual allows both"),
    ),
)


def _oil(job: JobFacts) -> Field:
    detail = f"the card: {job.card[OIL].means}" if OIL in job.card else "as its plate or manual has it"
    return text("oil", "Oil that is in", detail)


def _litres(job: JobFacts) -> Field:
    detail = f"the card: {job.card[LITRES].value:g} l" if LITRES in job.card else "for the position it hangs in"
    return number("litres", "Filled", "l", detail)


OIL_AND_BREATHER = Stop(
    key="oil",
    means=(Meaning(of=Of.OIL),),
    title="Check oil and breather for the position it hangs in",
    why="The position decides which plug is the breather and where the oil level is.",
    judged_by=(OIL, LITRES),
    rows=(
        choice("position", "Its output shaft lies", "level", "sloping", "upright"),
        _oil,
        _litres,
        tick("level", "Level at the plug for this position"),
        tick("breather", "Breather uppermost, its transport seal off"),
        tick("drain", "Drain plug lowest"),
    ),
)
