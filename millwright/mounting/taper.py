"""Taper of shaft and bore against each other, the blue check, and how far the hub has to be drawn up."""

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field, model_validator

from ..errors import Problem, refuse_if_any
from ..model import Model, Size
from ..units import TaperWay, taper_said, taper_stated
from ..verdict import AS_ENTERED, Check, Result, WorkLine, judge, work, worst
from .blue import CONTACT_WANTED, SAYS, Pattern, contact_pattern, contact_share

EVEN_WITHIN_MM = 0.005  # rule of thumb: what a good micrometer tells apart on two diameters
CONTACT_SOURCE = "rule of thumb: 80 % even blue contact"
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
    advance_mm: float = Field(gt=0, le=200)


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
    next_hub = _next_hub_c(given, advance)
    checks = _checks(given, mismatch, share, advance, reached, next_hub)
    touches = _touches_first(mismatch, given.even_mm)
    return TaperResult(
        bench="taper",
        verdict=worst(checks, lacking=bool(_lacking(given, reached))),
        checks=checks,
        advice=_advice(given, touches, pattern, advance, reached, next_hub, checks),
        working=_working(given, shaft, bore, mismatch, advance, reached, next_hub),
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
    found = []
    for name, cone in (("shaft", given.shaft), ("bore", given.bore)):
        if cone.small <= 0:
            found.append(Problem(f"{name}.stated.value", "Over this length the taper comes to a point. A slip?"))
        elif cone.large_mm <= cone.small:
            found.append(Problem(f"{name}.large_mm", "The large end must be bigger than the small end."))
    if given.contact is not None:
        widths = {len(row) for row in given.contact}
        if not given.contact or widths == {0}:
            found.append(Problem("contact", "The blue map has no cell."))
        elif len(widths) > 1:
            found.append(Problem("contact", "Every row of the blue map has as many cells as the others."))
    if given.fitted_standout_mm is not None and given.hand_tight_standout_mm is None:
        found.append(Problem("hand_tight_standout_mm", "Draw-up is counted from hand tight: give that stand-out too."))
    if given.attempt is not None and given.attempt.hub_c <= given.attempt.shaft_c:
        found.append(Problem("attempt.hub_c", "The hub was no warmer than the shaft. A slip?"))
    return found


def _lacking(given: TaperInput, reached: float | None) -> list[str]:
    """What is still wanted, in words."""
    says = {"contact": "Mark the blue.", "draw-up": "Measure how far the shaft stands out, hand tight and fitted."}
    have = {"contact": given.contact is not None, "draw-up": reached is not None}
    return [says[what] for what in given.must_have if not have[what]]


def _touches_first(mismatch: float, even_mm: float) -> Touch:
    if abs(mismatch) <= even_mm + 1e-9:
        return Touch.EVENLY
    return Touch.LARGE if mismatch > 0 else Touch.SMALL


def _next_hub_c(given: TaperInput, advance: float) -> float | None:
    """Draw-up follows the temperature difference: what the last one gave says what the next one has to be."""
    if given.attempt is None:
        return None
    tried = given.attempt
    return tried.shaft_c + (tried.hub_c - tried.shaft_c) * advance / tried.advance_mm


def _checks(
    given: TaperInput, mismatch: float, share: float | None, advance: float, reached: float | None, next_hub: float | None
) -> list[Check]:
    checks = []
    if given.mismatch_max_mm is not None:
        checks.append(judge("taper mismatch", mismatch, "mm", high=given.mismatch_max_mm, source=given.mismatch_source))
    if share is not None:
        checks.append(judge("blue contact", 100 * share, "%", low=100 * given.contact_min, source=given.contact_source))
    if reached is not None:
        low, high = advance * (1 - HIT_WITHIN), advance * (1 + HIT_WITHIN)
        checks.append(
            judge("draw-up reached", reached, "mm", low=low, high=high, source="rule of thumb: within 10 % of the mark")
        )
    if next_hub is not None and given.ceiling_c is not None:
        checks.append(judge("next temperature", next_hub, "°C", high=given.ceiling_c, source=AS_ENTERED))
    return checks


def _advice(
    given: TaperInput,
    touches: Touch,
    pattern: Pattern | None,
    advance: float,
    reached: float | None,
    next_hub: float | None,
    checks: list[Check],
) -> list[str]:
    advice = _lacking(given, reached)
    if reached is not None and any(c.name == "draw-up reached" and c.status == "over" for c in checks):
        short = reached < advance
        advice.append(
            f"It {'stopped short' if short else 'went too far'} by {abs(reached - advance):.2f} mm. Take it off, let hub and "
            "shaft both cool, then try with the new temperature. Do not drive it or force it with the nut."
        )
    if next_hub is not None:
        advice.append(f"Next try: hub at {next_hub:.0f} °C with the shaft as cold as it was.")
        if given.ceiling_c is not None and next_hub > given.ceiling_c:
            advice.append(f"That lies above the ceiling of {given.ceiling_c:g} °C. Cool the shaft, or ask for another fit.")
    if pattern in SAYS:
        advice.append(SAYS[pattern])
    if touches is not Touch.EVENLY:
        advice.append(f"The {touches} touches first.")
    return advice


def _working(
    given: TaperInput,
    shaft: float,
    bore: float,
    mismatch: float,
    advance: float,
    reached: float | None,
    next_hub: float | None,
) -> list[WorkLine]:
    def cone(c: Cone) -> str:
        return f"({c.large_mm:.3f} − {c.small:.3f}) ÷ {c.length_mm:g}"

    length = min(given.shaft.length_mm, given.bore.length_mm)
    lines = [
        work("taper of the shaft", "(large − small) ÷ length", cone(given.shaft), shaft, "mm/mm"),
        work("taper of the bore", "(large − small) ÷ length", cone(given.bore), bore, "mm/mm"),
        work("mismatch", "(shaft − bore) × shorter length", f"({shaft:.5f} − {bore:.5f}) × {length:g}", mismatch, "mm"),
        work("draw-up wanted", "interference ÷ taper", f"{given.interference_mm:.3f} ÷ {shaft:.5f}", advance, "mm"),
    ]
    if reached is not None and given.fitted_standout_mm is not None and given.hand_tight_standout_mm is not None:
        stood = f"{given.fitted_standout_mm:.2f} − {given.hand_tight_standout_mm:.2f}"
        lines.append(work("draw-up reached", "stand-out fitted − hand tight", stood, reached, "mm"))
        numbers = f"{reached:.3f} × {shaft:.5f}"
        lines.append(work("interference reached", "draw-up × taper", numbers, reached * shaft, "mm"))
    if next_hub is not None and given.attempt is not None:
        t = given.attempt
        numbers = f"{t.shaft_c:g} + ({t.hub_c:g} − {t.shaft_c:g}) × {advance:.3f} ÷ {t.advance_mm:.3f}"
        lines.append(work("next hub temperature", "shaft + (hub − shaft) × wanted ÷ reached", numbers, next_hub, "°C"))
    return lines
