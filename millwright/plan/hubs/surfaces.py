"""What may be on a fit: paste on a keyed one, nothing at all on one that holds by friction. Decided for each side."""

from ...line import Side
from ...say import say
from ...verdict import Judged, said_by_hand
from ..fields import Field, choice, text
from ..steps import AFTER_THE_MICROMETER, Answers, JobFacts, SheetForm, Stage, Step

PASTE, DRY, OILED = SURFACES = ("mounting paste, thin", "clean and dry", "oil or anti-seize")
KEYED_TAKES = (PASTE, DRY)
FRICTION_TAKES = (DRY,)


def clean(job: JobFacts, side: Side, *, what: str, why: str, takes: tuple[str, ...], ticks: tuple[Field, ...]) -> Step:
    """Shaft and bore cleaned and dressed.

    ``what``  - what is cleaned: "shaft and bore"
    ``takes`` - the surfaces this fit may have, the best first
    """
    friction, now = takes == FRICTION_TAKES, job.terms.edition < AFTER_THE_MICROMETER
    return Step(
        key=f"prepare.clean.{side}",
        stage=Stage.PREPARE,
        title=f"Clean and dress {what}, {job.line.machine(side).called}",
        why=why,
        tool="fine file, abrasive strip, solvent, lint-free cloth",
        caution="Solvent that does not burn. Chemical-proof gloves."
        + (" This side is a dry joint: keep the paste brush away." if friction else ""),
        relies=frozenset({job.refused_fact(side)}),
        form=SheetForm(
            fields=(
                *ticks,
                *([laid(takes)] if now else []),
                text("fretting", "Fretting found (a looser fit before?)", required=False),
            )
        ),
        judge=(lambda job, answers: judge_laid(answers, takes)) if now else None,
        on_fail="Wash it off with solvent, wipe it dry with a new cloth, and say what is on it then.",
    )


def laid(takes: tuple[str, ...]) -> Field:
    """What lies on shaft and bore as the hub goes on; chosen after they were measured, for paste falsifies a micrometer."""
    detail = "a dry joint" if takes == FRICTION_TAKES else "a paste joint"
    return choice("surface", "On shaft and bore now", *SURFACES, detail=detail)


def said(job: JobFacts, side: Side) -> str:
    """What was chosen for this hub, in a phrase; empty while nobody has."""
    chosen = job.answers.get(f"prepare.decide.{side}", {}).get("surface")
    return f"on shaft and bore: {chosen}" if chosen else ""


def judge_laid(answers: Answers, takes: tuple[str, ...]) -> Judged:
    surface = answers.get("surface")
    if surface in (None, "", *takes):
        return [], []
    says = (
        f"{str(surface).capitalize()} on a fit that holds by friction: the joint slips."
        if takes == FRICTION_TAKES
        else f"{str(surface).capitalize()} on a keyed fit: it takes mounting paste, or nothing."
    )
    return [said_by_hand("surface", "surface of the fit", "rule of thumb: by how the hub is held", in_order=False)], [
        say("wrong_surface", says)
    ]
