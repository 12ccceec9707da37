"""Whether the coupling of this line suits its machine: rated torque against power and speed, and its top speed."""

from ...card.values import source_of
from ...power import torque_nm
from ...say import Figure, say
from ...verdict import Check, Judged, judge, said_by_hand
from ..families.facts import SUITS_VALUES
from ..fields import Field, number, tick
from ..steps import Answers, JobFacts

RATED, FACTOR, TOP = SUITS_VALUES
POWER = "power_kw"


def judge_material(job: JobFacts, marked: object) -> Judged:
    """The material marked on an element against what the line wants: the limits on the card are those of that one."""
    wanted, found = job.card.get("element_material"), str(marked or "").strip()
    if wanted is None or not found or found.casefold() == wanted.means.strip().casefold():
        return [], []
    name, source = f"{found} is in, {wanted.means} is specified", source_of(job.card, "element_material")
    text = "Offset, angle and speed on the card are those of {wanted}: {found} has limits of its own."
    return [said_by_hand("material", name, source, in_order=False)], [
        say("other_material", text, wanted=wanted.means, found=found)
    ]


def fields(job: JobFacts) -> tuple[Field, ...]:
    """What has to be asked: the power where the line does not have it, the paper where the card does not."""
    asked: list[Field] = []
    if job.family.hangs:
        return ()
    if RATED in job.card and job.line.driver.power_kw is None:
        asked.append(number(POWER, "Most power that goes through it", "kW"))
    if RATED not in job.card or TOP not in job.card:
        detail = "with both on the card they are held against this machine here"
        asked.append(tick("suits", "Rated torque and top speed in its document cover this machine", detail))
    return tuple(asked)


def judged(job: JobFacts, answers: Answers) -> Judged:
    """The service torque against the rated torque, and the speed against the top speed, where the card has them."""
    speed, power = job.line.speed_rpm, job.line.driver.power_kw or answers.get(POWER)
    checks: list[Check] = []
    if job.family.hangs:
        return [], []
    if TOP in job.card:
        top = job.card[TOP].value
        checks.append(judge("top_speed", "speed", speed, "rpm", high=top, close_above=1, source=source_of(job.card, TOP)))
    if not power:
        return checks, []
    steady = torque_nm(power, speed)
    turning = {"power": Figure(power, "kW"), "speed": Figure(speed, "rpm"), "torque": Figure(steady, "N·m", 0)}
    if RATED not in job.card:
        text = "{power} at {speed} is {torque} on the shaft, before any service factor."
        return checks, [say("shaft_torque", text, **turning)]
    rated, source = job.card[RATED].value, source_of(job.card, RATED)
    factor = job.card[FACTOR].value if FACTOR in job.card else None
    service = steady * (factor or 1.0)
    checks.append(judge("service_torque", "service torque", service, "N·m", high=rated, close_above=1, source=source))
    if factor is None:
        bare = "{power} at {speed} is {torque}. No service factor is on the card: it is held against the rated torque bare."
        return checks, [say("no_service_factor", bare, **turning)]
    text = "{power} at {speed} is {torque}, times the service factor {factor}."
    return checks, [say("service_torque", text, factor=Figure(factor, ""), **turning)]
