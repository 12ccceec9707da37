"""Feet that do not stand flat: which one first, what kind it is, and what to put under it."""

from typing import Annotated, Literal

from pydantic import Field

from ..errors import Problem, refuse_if_any
from ..model import Model, Size
from ..say import Say, bare, joined, mm, say, words
from ..verdict import AS_ENTERED, Result, WorkLine, judge, work, worst

Kind = Literal["parallel", "angled", "springing", "unknown"]
Feeler = Annotated[float, Field(ge=0, le=20, description="mm")]

CORNERS = ("near, 9 o'clock side", "near, 3 o'clock side", "far, 3 o'clock side", "far, 9 o'clock side")
# Rules of thumb: corners within a quarter of the widest, or two hundredths, stand parallel; a foot that rises half as
# much again as there is air under it springs as well.
PARALLEL_SHARE, PARALLEL_MM = 0.25, 0.02
SPRINGS_ABOVE = 1.5


class SoftFoot(Model):
    """One foot, and how far a dial on it rises while its bolt is slackened, the others tight."""

    name: str = Field(min_length=1, max_length=60)
    rise_mm: float = Field(ge=-10, le=20)


class SoftFootInput(Model):
    """All feet of one machine. `corners`: feelers under the four corners of a foot, its bolt slack (`CORNERS`)."""

    feet: list[SoftFoot] = Field(min_length=1, max_length=40)
    limit_mm: Size | None = Field(default=None, description="most a foot may rise")
    limit_source: str = AS_ENTERED
    corners: dict[str, Annotated[list[Feeler], Field(min_length=4, max_length=4)]] = Field(default_factory=dict)


class FootFound(Model):
    """What a foot is like. `shim_mm` only under the worst one: the others are measured again after it."""

    name: str
    rise_mm: float
    kind: Kind
    shim_mm: float
    stepped_mm: list[float] | None  # what goes under each corner, where it stands at an angle


class SoftFootResult(Result):
    """The worst foot first, then measure again."""

    worst: str
    feet: list[FootFound]


def evaluate(given: SoftFootInput) -> SoftFootResult:
    """Which foot is soft, of what kind, and what to try under the worst one.

    One at a time: a low pad makes both feet of its diagonal rise, and shimming both over-corrects.
    Raises `UnusableInput` for names used twice and corners of a foot that is not there.
    Source: rule of thumb, shim by the rise where it stands parallel; by the feelers where it stands at an angle.
    """
    refuse_if_any(_problems(given))
    checks = [
        judge("rise", f"rise, {foot.name}", foot.rise_mm, "mm", high=given.limit_mm, source=given.limit_source)
        for foot in given.feet
    ]
    first = max(given.feet, key=lambda foot: abs(foot.rise_mm))
    soft = abs(first.rise_mm) > (given.limit_mm or 0.0)  # with no limit the worst is told all the same
    feet = [_found(foot, given, shim=soft and foot is first) for foot in given.feet]
    return SoftFootResult(
        bench="softfoot",
        verdict=worst(checks),
        checks=checks,
        says=_advice(given, next(f for f in feet if f.name == first.name)) if soft else [],
        working=_working(given, first, soft),
        worst=first.name,
        feet=feet,
    )


def _problems(given: SoftFootInput) -> list[Problem]:
    names = [foot.name for foot in given.feet]
    found = [
        Problem(f"feet.{i}.name", f"There is another foot called {name}.")
        for i, name in enumerate(names)
        if name in names[:i]
    ]
    return found + [Problem(f"corners.{name}", f"No foot is called {name}.") for name in given.corners if name not in names]


def _found(foot: SoftFoot, given: SoftFootInput, *, shim: bool) -> FootFound:
    corners = given.corners.get(foot.name)
    kind = _kind(foot, corners, given.limit_mm)
    stepped = list(corners) if shim and kind == "angled" and corners else None
    return FootFound(
        name=foot.name,
        rise_mm=foot.rise_mm,
        kind=kind,
        shim_mm=_shim_mm(foot, kind, corners) if shim else 0.0,
        stepped_mm=stepped,
    )


def _kind(foot: SoftFoot, corners: list[float] | None, limit_mm: float | None) -> Kind:
    if corners is None:
        return "unknown"
    widest, spread, limit_mm = max(corners), max(corners) - min(corners), limit_mm or 0.0
    if widest <= max(PARALLEL_MM, limit_mm / 2):
        return "springing" if abs(foot.rise_mm) > limit_mm else "parallel"
    return "parallel" if spread <= max(PARALLEL_MM, PARALLEL_SHARE * widest) else "angled"


def _shim_mm(foot: SoftFoot, kind: Kind, corners: list[float] | None) -> float:
    if kind == "springing":
        return 0.0
    if kind == "parallel" and corners:
        return sum(corners) / 4
    return min(corners) if kind == "angled" and corners else max(foot.rise_mm, 0.0)


def _advice(given: SoftFootInput, foot: FootFound) -> list[Say]:
    name, corners = foot.name, given.corners.get(foot.name)
    again = "Then tighten all feet and measure every one again: a low pad makes its whole diagonal rise."
    match foot.kind:
        case "parallel":
            text = "{foot} is a parallel soft foot. Put {shim} under it."
            says = [say("parallel", text, foot=name, shim=mm(foot.shim_mm)), say("measure_again", again)]
        case "angled":
            steps = joined(
                (
                    words("{step} {corner}", step=mm(step), corner=corner)
                    for corner, step in zip(CORNERS, foot.stepped_mm or [], strict=False)
                ),
                ", ",
            )
            text = "{foot} is an angled soft foot. Stepped shims: {steps}. More than a few: machine the pad or foot."
            says = [say("angled", text, foot=name, steps=steps), say("measure_again", again)]
        case "springing":
            says = [
                say("springs", "{foot} rises with no air under it: it springs. No shim cures that.", foot=name),
                say("springs_why", "Look for pipe strain, a bent foot, dirt or rust, or a stack of many thin shims."),
            ]
        case "unknown":
            text = f"If the foot is parallel, shim {{shim}}. {again}"
            says = [
                say("corners_tell", "Feelers under the four corners of {foot} tell what kind it is.", foot=name),
                say("if_parallel", text, shim=mm(foot.shim_mm)),
            ]
    if corners and foot.kind != "springing" and foot.rise_mm > SPRINGS_ABOVE * max(corners):
        text = "It rises more than there is air under it: {foot} springs as well. Slacken pipes and conduits and try again."
        says.append(say("springs_as_well", text, foot=name))
    return says


def _working(given: SoftFootInput, first: SoftFoot, soft: bool) -> list[WorkLine]:
    lines = [work("highest", "highest rise", "largest of all feet", first.name, first.rise_mm)]
    corners = given.corners.get(first.name)
    if soft and corners:
        each = joined((words("{c}", c=bare(c, 2)) for c in corners), " + ")
        air = words("({each}) ÷ 4", each=each)
        lines.append(work("air", "air under it, mean", "sum of corners ÷ 4", air, sum(corners) / 4))
        differ = words("{most} − {least}", most=bare(max(corners), 2), least=bare(min(corners), 2))
        lines.append(work("corners", "corners differ by", "widest − narrowest", differ, max(corners) - min(corners)))
    return lines
