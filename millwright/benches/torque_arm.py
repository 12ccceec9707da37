"""The arm that keeps a shaft-mounted reducer from turning with its shaft: how square it stands, and what its anchor takes."""

import math

from pydantic import Field

from ..errors import Problem, UnusableInput
from ..model import Model, Size, Torque
from ..power import torque_nm
from ..say import Figure, Say, bare, nm, say, words
from ..sketch import forces
from ..sketch.shapes import Sketch
from ..verdict import Check, Result, Status, WorkLine, judge, work, worst

SQUARE_DEG = 90.0
USUAL_LIMIT_DEG = 30.0
USUAL = "rule of thumb: within 30° of square"
GRAVITY_N_PER_KG = 9.81
SQUARE_ENOUGH = 0.99
LEAST_MM, LEAST_RPM = 1.0, 0.01  # nothing that is built is shorter, or turns slower


class ArmInput(Model):
    """An arm from the shaft to a pin, and a rod from the pin to the anchor; the torque by itself, or from power and speed."""

    power_kw: float | None = Field(default=None, gt=0, le=100_000)
    output_rpm: float | None = Field(default=None, gt=0, ge=LEAST_RPM, le=100_000)
    torque_nm: Torque | None = None
    arm_mm: Size = Field(ge=LEAST_MM, description="from the shaft's axis to the pin")
    angle_deg: float = Field(ge=1, le=179, description="between arm and rod; 90 is square")
    limit_angle_deg: float | None = Field(default=None, gt=0, lt=90, description="off square at most; else 30")
    limit_source: str = ""


class ArmResult(Result):
    """Torque of the output, and the pull or push along the rod."""

    torque_nm: float
    force_n: float
    square_force_n: float  # what it would be with the arm square
    drawn: Sketch


def evaluate(given: ArmInput) -> ArmResult:
    """Whether the arm stands near enough to square, and the force on the anchor.

    Source: geometry, torque = force × arm × sin(angle). Raises `UnusableInput` where the torque is not given, or twice.
    """
    torque = _torque(given)
    square = torque / (given.arm_mm / 1000)
    force = square / math.sin(math.radians(given.angle_deg))
    check = _off_square(given)
    return ArmResult(
        bench="torque_arm",
        verdict=worst([check]),
        checks=[check],
        says=_says(given, check, force, square),
        working=_working(given, torque, force),
        torque_nm=torque,
        force_n=force,
        square_force_n=square,
        drawn=forces.torque_arm(given.angle_deg, given.arm_mm, Figure(force, "N", 0), nm(torque, 0)),
    )


def _torque(given: ArmInput) -> float:
    if given.torque_nm is not None:
        if given.power_kw is not None:
            raise UnusableInput(Problem("torque_nm", "Give power and output speed, or the torque; not both."))
        return given.torque_nm
    missing = [
        Problem(key, says)
        for key, value, says in (
            ("power_kw", given.power_kw, "Enter the power that goes through the unit, or its output torque."),
            ("output_rpm", given.output_rpm, "Enter the speed of the output shaft."),
        )
        if value is None
    ]
    if given.power_kw is None or given.output_rpm is None:
        raise UnusableInput(*missing)
    return torque_nm(given.power_kw, given.output_rpm)


def _off_square(given: ArmInput) -> Check:
    limit = USUAL_LIMIT_DEG if given.limit_angle_deg is None else given.limit_angle_deg
    source = given.limit_source or (USUAL if given.limit_angle_deg is None else "limit as entered")
    return judge("off_square", "arm off square", abs(given.angle_deg - SQUARE_DEG), "°", high=limit, source=source)


def _says(given: ArmInput, check: Check, force: float, square: float) -> list[Say]:
    says = []
    if check.status is Status.OVER:
        way = "Open" if given.angle_deg < SQUARE_DEG else "Close"
        text = "{way} the angle by {by}: turn the unit on its shaft, or move the anchor."
        by = Figure(abs(given.angle_deg - SQUARE_DEG), "°", 0)
        says.append(say("towards_square", text, way=way, by=by))
    text = "The anchor takes {force}, as if {mass} hung from it, and as much pushes on the bearing beside the unit."
    says.append(say("anchor", text, force=Figure(force, "N", 0), mass=Figure(force / GRAVITY_N_PER_KG, "kg", 0)))
    sine = math.sin(math.radians(given.angle_deg))
    if sine < SQUARE_ENOUGH:
        text = "Square it would take {force}, {share} less."
        share = Figure((1 - sine) * 100, "%", 0)
        says.append(say("square", text, force=Figure(square, "N", 0), share=share))
    return says


def _working(given: ArmInput, torque: float, force: float) -> list[WorkLine]:
    lines = []
    if given.power_kw is not None and given.output_rpm is not None:
        numbers = words(
            "9549 × {power} ÷ {speed}", power=bare(given.power_kw, None, "kW"), speed=bare(given.output_rpm, None, "rpm")
        )
        lines.append(work("torque", "torque of the output", "9549 × kW ÷ rpm", numbers, torque, "N·m"))
    numbers = words(
        "{torque} ÷ ({arm} m × sin {angle})",
        torque=nm(torque, 0),
        arm=bare(given.arm_mm / 1000, 3, "m"),
        angle=Figure(given.angle_deg, "°", 0),
    )
    lines.append(work("force", "force on the anchor", "torque ÷ (arm × sin angle)", numbers, force, "N"))
    return lines
