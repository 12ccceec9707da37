"""Taper of shaft and bore against each other, the blue check, and how far the hub has to be drawn up."""

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field, model_validator

from ...errors import Problem, problem, refuse_if_any
from ...model import Model, Size
from ...say import Say, Words, bare, deg_c, mm, number, say, words
from ...units import TaperWay, taper_said, taper_stated
from ...verdict import AS_ENTERED, ON_PAPER, Check, Result, WorkLine, judge, work, worst
from .blue import CONTACT_WANTED, LEAST, SAYS, Pattern, contact_pattern, contact_share, rings, say_ring, strips

EVEN_WITHIN_MM = 0.005  # rule of thumb: what a good micrometer tells apart on two diameters
CONTACT_SOURCE = "rule of thumb: 80 % even blue contact"
LEAST_SOURCE = "rule of thumb: no ring and no strip under 30 % blue"
HIT_SOURCE = "rule of thumb: within 10 % of the mark"
LEAST_ADVANCE = 0.1  # rule of thumb: a try that got less of the way tells nothing of the next one
SAME_MM = 0.05  # stand-outs and the draw-up noted for a try agree within this
MOST_DEGREES = 45.0
HIT_WITHIN = 0.10  # rule of thumb: draw-up within a tenth of what was wanted is on its mark

Share = Annotated[float, Field(ge=0, le=1)]


class StatedTaper(Model):
    """A taper as drawings, sine bars and protractors give it."""

    way: TaperWay
    value: float = Field(gt=0, le=10_000)

    @property
    def taper(self) -> float:
        """Change of diameter per length."""
        return taper_stated(self.way, self.value)


class Cone(Model):
    """Two diameters over a length, measured along the axis; or the large one and the taper as it is stated."""

    large_mm: Size
    small_mm: Size | None = None
    stated: StatedTaper | None = None
    length_mm: Size

    @model_validator(mode="after")
    def _one_way_to_say_it(self) -> "Cone":
        if (self.small_mm is None) == (self.stated is None):
            raise ValueError("Give the small end's diameter, or the taper in another way; one of them.")
        return self

    @property
    def small(self) -> float:
        """Diameter at the small end, mm."""
        if self.stated is not None:
            return self.large_mm - self.stated.taper * self.length_mm
        return self.small_mm or 0.0

    @property
    def taper(self) -> float:
        """Change of diameter per length: 0.0833 is 1 in 12."""
        return (self.large_mm - self.small) / self.length_mm


class Attempt(Model):
    """A try that stopped short or went too far: with what temperatures, and how far it was drawn up."""

    hub_c: float = Field(ge=-50, le=900)
    shaft_c: float = Field(ge=-200, le=300)
    advance_mm: float | None = Field(default=None, gt=0, le=200, description="by the stand-outs where not given")


class TaperInput(Model):
    """Shaft and bore as measured, the interference wanted, the blue map, and what fitting gave."""

    shaft: Cone
    bore: Cone
    interference_mm: float = Field(gt=0, le=20, description="wanted on diameter")
    mismatch_max_mm: Size | None = Field(default=None, description="most the two tapers may differ over the fit")
    mismatch_source: str = AS_ENTERED
    even_mm: float = Field(default=EVEN_WITHIN_MM, gt=0, le=1)
    contact: list[list[Share]] | None = Field(
        default=None, max_length=40, description="blue map: rows from the large end, columns round the shaft"
    )
    contact_min: float = Field(default=CONTACT_WANTED, gt=0, le=1)
    contact_source: str = CONTACT_SOURCE
    hand_tight_standout_mm: float | None = Field(default=None, ge=-500, le=500, description="shaft end beyond the hub's face")
    fitted_standout_mm: float | None = Field(default=None, ge=-500, le=500)
    attempt: Attempt | None = None
    ceiling_c: float | None = Field(default=None, ge=30, le=900, description="most the hub may have")
    must_have: list[Literal["contact", "draw-up"]] = Field(
        default_factory=list, description="what has to be there before this is complete"
    )


class Touch(StrEnum):
    """Which end of the fit bears first."""

    LARGE = "large end"
    SMALL = "small end"
    EVENLY = "evenly"


class TaperResult(Result):
    """Tapers as change of diameter per length; draw-up along the shaft."""

    taper_shaft: float
    taper_bore: float
    one_in_shaft: float
    one_in_bore: float
    said_shaft: dict[TaperWay, float]
    said_bore: dict[TaperWay, float]
    mismatch_mm: float
    touches_first: Touch
    advance_mm: float
    mark_standout_mm: float | None
    advance_reached_mm: float | None
    interference_reached_mm: float | None
    contact_share: float | None
    contact_pattern: Pattern | None
    next_hub_c: float | None


def evaluate(given: TaperInput) -> TaperResult:
    """Match of the tapers, contact, draw-up wanted and reached, and the next temperature after a miss.

    Raises `UnusableInput` for a cone that does not taper, a ragged or empty map, one stand-out without the other.
    Source: geometry. Interference on the diameter grows by the taper for each mm of draw-up.
    """
    refuse_if_any(_problems(given))
    shaft, bore = given.shaft.taper, given.bore.taper
    mismatch = (shaft - bore) * min(given.shaft.length_mm, given.bore.length_mm)
    advance = given.interference_mm / shaft
    reached = None
    if given.fitted_standout_mm is not None and given.hand_tight_standout_mm is not None:
        reached = given.fitted_standout_mm - given.hand_tight_standout_mm
    share = contact_share(given.contact) if given.contact else None
    pattern = contact_pattern(given.contact) if given.contact else None
    found_c = _next_hub_c(given, advance, reached)
    next_hub = found_c if found_c is None or given.ceiling_c is None else min(found_c, given.ceiling_c)
    checks = _checks(given, mismatch, advance, reached, found_c)
    touches = _touches_first(mismatch, given.even_mm)
    return TaperResult(
        bench="taper",
        verdict=worst(checks, lacking=bool(_lacking(given, reached))),
        checks=checks,
        says=_advice(given, touches, pattern, advance, reached, found_c),
        working=_working(given, shaft, bore, mismatch, advance, reached, found_c),
        taper_shaft=shaft,
        taper_bore=bore,
        one_in_shaft=1 / shaft,
        one_in_bore=1 / bore,
        said_shaft=taper_said(shaft),
        said_bore=taper_said(bore),
        mismatch_mm=mismatch,
        touches_first=touches,
        advance_mm=advance,
        mark_standout_mm=None if given.hand_tight_standout_mm is None else given.hand_tight_standout_mm + advance,
        advance_reached_mm=reached,
        interference_reached_mm=None if reached is None else reached * shaft,
        contact_share=share,
        contact_pattern=pattern,
        next_hub_c=next_hub,
    )


def _problems(given: TaperInput) -> list[Problem]:
    cones = (("shaft", given.shaft), ("bore", given.bore))
    return [
        *(one for name, cone in cones for one in _cone_problems(name, cone)),
        *_map_problems(given.contact),
        *_try_problems(given),
    ]


def _cone_problems(name: str, cone: Cone) -> list[Problem]:
    if cone.stated is not None and cone.stated.way == "degrees" and cone.stated.value > MOST_DEGREES:
        return [Problem(f"{name}.stated.value", f"A hub's taper has no more than {MOST_DEGREES:g} degrees. A slip?")]
    if cone.small <= 0:
        return [Problem(f"{name}.stated.value", "Over this length the taper comes to a point. A slip?")]
    if cone.large_mm <= cone.small:
        return [Problem(f"{name}.large_mm", "The large end must be bigger than the small end.")]
    return []


def _map_problems(contact: list[list[float]] | None) -> list[Problem]:
    if contact is None:
        return []
    widths = {len(row) for row in contact}
    if not contact or widths == {0}:
        return [Problem("contact", "The blue map has no cell.")]
    return [Problem("contact", "Every row of the blue map has as many cells as the others.")] if len(widths) > 1 else []


def _try_problems(given: TaperInput) -> list[Problem]:
    fitted, hand_tight, tried = given.fitted_standout_mm, given.hand_tight_standout_mm, given.attempt
    found = []
    if fitted is not None and hand_tight is None:
        found.append(Problem("hand_tight_standout_mm", "Draw-up is counted from hand tight: give that stand-out too."))
    if tried is not None and tried.hub_c <= tried.shaft_c:
        found.append(Problem("attempt.hub_c", "The hub was no warmer than the shaft. A slip?"))
    if tried is not None and tried.advance_mm is not None and fitted is not None and hand_tight is not None:
        by_standout = fitted - hand_tight
        if abs(by_standout - tried.advance_mm) > SAME_MM + ON_PAPER:
            text = "By the stand-outs it is {standout}, by the note on the try {noted}. One of them is wrong."
            found.append(problem("attempt.advance_mm", text, standout=mm(by_standout), noted=mm(tried.advance_mm)))
    return found


def _lacking(given: TaperInput, reached: float | None) -> list[str]:
    """What is still wanted, in words."""
    says = {"contact": "Mark the blue.", "draw-up": "Measure the stand-out of the shaft, hand tight and fitted."}
    have = {"contact": given.contact is not None, "draw-up": reached is not None}
    return [says[what] for what in given.must_have if not have[what]]


def _touches_first(mismatch: float, even_mm: float) -> Touch:
    if abs(mismatch) <= even_mm + 1e-9:
        return Touch.EVENLY
    return Touch.LARGE if mismatch > 0 else Touch.SMALL


def _next_hub_c(given: TaperInput, advance: float, reached: float | None) -> float | None:
    """Draw-up follows the temperature difference: what the last one gave says what the next one has to be.

    None on its mark, and where the try got less than a tenth of the way: it was stopped by something else.
    """
    tried, went = given.attempt, _went_mm(given, reached)
    if tried is None or went is None or went < LEAST_ADVANCE * advance - ON_PAPER:
        return None
    if abs((went if reached is None else reached) - advance) <= HIT_WITHIN * advance + ON_PAPER:
        return None
    return tried.shaft_c + (tried.hub_c - tried.shaft_c) * advance / went


def _went_mm(given: TaperInput, reached: float | None) -> float | None:
    """How far the try went up: as noted, else by the stand-outs."""
    return reached if given.attempt is None or given.attempt.advance_mm is None else given.attempt.advance_mm


def _checks(given: TaperInput, mismatch: float, advance: float, reached: float | None, next_hub: float | None) -> list[Check]:
    checks = []
    if given.mismatch_max_mm is not None:
        high, source = given.mismatch_max_mm, given.mismatch_source
        checks.append(judge("mismatch", "taper mismatch", mismatch, "mm", high=high, source=source))
    if given.contact is not None:
        checks += _contact_checks(given, given.contact)
    if reached is not None:
        low, high = advance * (1 - HIT_WITHIN), advance * (1 + HIT_WITHIN)
        checks.append(judge("draw_up", "draw-up reached", reached, "mm", low=low, high=high, source=HIT_SOURCE))
    if next_hub is not None and given.ceiling_c is not None:
        high = given.ceiling_c
        checks.append(judge("next_temperature", "next temperature", next_hub, "°C", high=high, source=AS_ENTERED))
    return checks


def _contact_checks(given: TaperInput, contact: list[list[float]]) -> list[Check]:
    """All of it, and the barest ring and strip: a hub held at one end, or on one side, works loose."""
    ring, strip, least = min(rings(contact)), min(strips(contact)), 100 * LEAST
    share, source = 100 * contact_share(contact), given.contact_source
    return [
        judge("contact", "blue contact", share, "%", low=100 * given.contact_min, source=source),
        judge("contact_ring", "barest ring", 100 * ring, "%", low=least, source=LEAST_SOURCE),
        judge("contact_strip", "barest strip", 100 * strip, "%", low=least, source=LEAST_SOURCE),
    ]


def _advice(
    given: TaperInput, touches: Touch, pattern: Pattern | None, advance: float, reached: float | None, next_hub: float | None
) -> list[Say]:
    advice = [say("still_to_do", "{what}", what=what) for what in _lacking(given, reached)]
    if reached is not None and abs(reached - advance) > HIT_WITHIN * advance + ON_PAPER:
        text = "It {how} by {by}. Take it off, let hub and shaft both cool, then try with the new temperature."
        text += " Do not drive it or force it with the nut."
        how = "stopped short" if reached < advance else "went too far"
        advice.append(say("off_its_mark", text, how=how, by=mm(abs(reached - advance))))
    if next_hub is not None and given.ceiling_c is not None and next_hub > given.ceiling_c:
        text = "The next try would need {wanted}, above the ceiling of {ceiling}. Cool the shaft, or ask for another fit."
        advice.append(say("next_over_ceiling", text, wanted=deg_c(next_hub), ceiling=deg_c(given.ceiling_c, None)))
    elif next_hub is not None:
        text = "Next try: hub at {hub} with the shaft as cold as it was."
        advice.append(say("next_try", text, hub=deg_c(next_hub)))
    elif given.attempt is not None and (went := _went_mm(given, reached)) is not None and went < LEAST_ADVANCE * advance:
        text = "It hardly went on: not the heat, something else stopped it. Dirt, a burr, a high key, the wrong bore?"
        advice.append(say("hardly_went_on", text))
    if given.contact is not None:
        advice += _say_bare(given.contact)
    if pattern in SAYS:
        advice.append(say(f"blue_{pattern.name.lower()}", SAYS[pattern]))
    if touches is not Touch.EVENLY:
        advice.append(say("touches_first", "The {end} touches first.", end=touches.value))
    return advice


def _say_bare(contact: list[list[float]]) -> list[Say]:
    """The barest ring and strip, where one is bare."""
    says = []
    by_ring, by_strip = rings(contact), strips(contact)
    if min(by_ring) < LEAST:
        where = say_ring(by_ring.index(min(by_ring)), len(by_ring))
        share = number(100 * min(by_ring), 0)
        says.append(say("ring_bare", "The ring {where} is {share} % blue: it does not bear there.", where=where, share=share))
    if min(by_strip) < LEAST:
        where = f"{by_strip.index(min(by_strip)) + 1} of {len(by_strip)}"
        share = number(100 * min(by_strip), 0)
        says.append(
            say("strip_bare", "Strip {where} along the shaft is {share} % blue: bare on one side.", where=where, share=share)
        )
    return says


def _working(
    given: TaperInput,
    shaft: float,
    bore: float,
    mismatch: float,
    advance: float,
    reached: float | None,
    next_hub: float | None,
) -> list[WorkLine]:
    def cone(c: Cone) -> Words:
        length = bare(c.length_mm, None)
        return words("({large} − {small}) ÷ {length}", large=bare(c.large_mm), small=bare(c.small), length=length)

    length = bare(min(given.shaft.length_mm, given.bore.length_mm), None)
    by = number(shaft, 5)
    differ = words("({shaft} − {bore}) × {length}", shaft=by, bore=number(bore, 5), length=length)
    wanted = words("{grip} ÷ {taper}", grip=bare(given.interference_mm), taper=by)
    lines = [
        work("taper_shaft", "taper of the shaft", "(large − small) ÷ length", cone(given.shaft), shaft, ""),
        work("taper_bore", "taper of the bore", "(large − small) ÷ length", cone(given.bore), bore, ""),
        work("mismatch", "mismatch", "(shaft − bore) × shorter length", differ, mismatch),
        work("advance", "draw-up required", "interference ÷ taper", wanted, advance),
    ]
    if reached is not None and given.fitted_standout_mm is not None and given.hand_tight_standout_mm is not None:
        stood = words(
            "{fitted} − {hand}", fitted=bare(given.fitted_standout_mm, 2), hand=bare(given.hand_tight_standout_mm, 2)
        )
        lines.append(work("advance_reached", "draw-up reached", "stand-out fitted − hand tight", stood, reached))
        grips = words("{reached} × {taper}", reached=bare(reached), taper=by)
        lines.append(work("reached", "interference reached", "draw-up × taper", grips, reached * shaft))
    if next_hub is not None and given.attempt is not None:
        t = given.attempt
        numbers = words(
            "{shaft} + ({hub} − {shaft}) × {wanted} ÷ {reached}",
            shaft=bare(t.shaft_c, None, "°C"),
            hub=bare(t.hub_c, None, "°C"),
            wanted=bare(advance),
            reached=bare(_went_mm(given, reached) or 0.0),
        )
        lines.append(
            work("next", "next hub temperature", "shaft + (hub − shaft) × required ÷ reached", numbers, next_hub, "°C")
        )
    return lines
