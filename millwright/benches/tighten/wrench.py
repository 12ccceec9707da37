"""The wrench in hand: what it is set to with something on its end, its range and its calibration."""

import math

from ...errors import Problem
from ...say import Say, bare, say, words
from ...verdict import Check, Status, WorkLine, judge, none_wanted, work
from .io import TightenInput

RANGE_SOURCE = "the wrench's own range"
CALIBRATION_SOURCE = "the wrench's own certificate"
BOTTOM_FIFTH = 0.2  # rule of thumb: a wrench is not trusted in the bottom fifth of its range


def range_problems(min_nm: float, max_nm: float, path: str) -> list[Problem]:
    """What is wrong with the range of a wrench, N·m, said at the path of its top."""
    return [] if min_nm < max_nm else [Problem(path, "The top of the wrench's range must be above its bottom.")]


def arm_mm(length: float, given: TightenInput) -> float:
    return length + (given.extension_mm or 0.0) * math.cos(math.radians(given.extension_angle_deg))


def lever_of(given: TightenInput) -> float:
    if given.extension_mm is None or given.wrench is None or given.wrench.length_mm is None:
        return 1.0
    return given.wrench.length_mm / arm_mm(given.wrench.length_mm, given)


def wrench_checks(given: TightenInput, factor: float) -> list[Check]:
    """Its range, and its calibration on the day."""
    wrench = given.wrench
    if wrench is None:
        return []
    low, high = wrench.min_nm, wrench.max_nm
    found = [
        judge("wrench", "wrench setting", setting, "N·m", low=low, high=high, source=RANGE_SOURCE, close_above=1.0)
        for setting in sorted({torque * factor for torque in _torques(given)})
    ]
    checks = [max(found, key=lambda check: check.used or 0.0)]
    if wrench.calibrated_until is not None and given.pulled_on is not None:
        late = (given.pulled_on - wrench.calibrated_until).days
        name = f"calibrated until {wrench.calibrated_until.isoformat()}, days past it"
        checks.append(none_wanted("calibration", name, max(late, 0), CALIBRATION_SOURCE, found=Status.OVER))
    return checks


def say_wrench(given: TightenInput) -> list[Say]:
    wrench = given.wrench
    if wrench is None:
        return []
    says = []
    if wrench.calibrated_until is not None and given.pulled_on is not None and given.pulled_on > wrench.calibrated_until:
        text = "{wrench} was calibrated until {day}. Take another one."
        name = wrench.name or "This wrench"
        says.append(say("calibration_late", text, wrench=name, day=wrench.calibrated_until.isoformat()))
    low = wrench.min_nm + BOTTOM_FIFTH * (wrench.max_nm - wrench.min_nm)
    if wrench.min_nm <= min(_torques(given)) * lever_of(given) < low:
        says.append(
            say("bottom_fifth", "The lowest setting lies in the bottom fifth of the wrench's range. (Rule of thumb.)")
        )
    return says


def working_of_setting(given: TightenInput, which: str, torque: float, factor: float) -> list[WorkLine]:
    if factor == 1.0 or given.wrench is None or given.wrench.length_mm is None:
        return []
    length = given.wrench.length_mm
    lever = words(
        "{torque} × {length} ÷ {arm}",
        torque=bare(torque, None, "N·m"),
        length=bare(length, None),
        arm=bare(arm_mm(length, given), 1),
    )
    return [work("set", f"set the wrench to{which}", "T × L ÷ (L + E × cos angle)", lever, torque * factor, "N·m")]


def _torques(given: TightenInput) -> set[float]:
    """Every torque the wrench is asked for."""
    return {given.torque_nm * share for share in given.shares} | ({given.beside.torque_nm} if given.beside else set())
