"""What cannot be in a tightening: passes that fall, pulls of bolts that are not there, an extension without its wrench."""

import itertools

from ...bolt_order import HALF_TURNS
from ...errors import Problem
from ...verdict import ON_PAPER
from .io import TightenInput
from .wrench import arm_mm, range_problems


def problems_of(given: TightenInput) -> list[Problem]:
    found = [
        Problem(f"passes.{i}", "A pass is a share of the torque: more than 0, at most 1.")
        for i, share in enumerate(given.shares)
        if not 0 < share <= 1
    ]
    if not found:
        found += _problems_of_shares(given.shares)
    if given.beside is not None and given.passes != HALF_TURNS:
        found.append(Problem("beside", "Two circles go by turns in rounds of half turns only."))
    wrench = given.wrench
    found += range_problems(wrench.min_nm, wrench.max_nm, "wrench.max_nm") if wrench else []
    if given.extension_mm is not None:
        if wrench is None or wrench.length_mm is None:
            found.append(Problem("wrench.length_mm", "With an extension, enter the wrench's own length."))
        elif arm_mm(wrench.length_mm, given) <= 0:
            found.append(Problem("extension_angle_deg", "Turned back this far the extension takes all the leverage."))
    return found


def _problems_of_shares(shares: list[float]) -> list[Problem]:
    if not shares:
        return [Problem("passes", "Enter at least one pass.")]
    if any(later < earlier - ON_PAPER for earlier, later in itertools.pairwise(shares)):
        return [Problem("passes", "Passes rise, or stay as they are: no pass is lower than the one before it.")]
    if abs(shares[-1] - 1.0) > ON_PAPER:
        return [Problem("passes", "The last pass is the full torque.")]
    return []


def pull_problems(given: TightenInput, passes: int) -> list[Problem]:
    found, half_turns = [], given.passes == HALF_TURNS
    bolts = len(given.order)
    for i, pull in enumerate(given.pulls or []):
        if pull.bolt > bolts:
            found.append(Problem(f"pulls.{i}.bolt", f"There are only {bolts} bolts."))
        if pull.pass_ > passes:
            found.append(Problem(f"pulls.{i}.pass", f"There are only {passes} passes."))
        if half_turns:
            continue
        if pull.reached_nm is None:
            found.append(Problem(f"pulls.{i}.reached_nm", "Enter what it was pulled to."))
        if given.extension_mm is not None and pull.reached_is is None:
            text = "With an extension: is this what the wrench showed, or what the bolt got?"
            found.append(Problem(f"pulls.{i}.reached_is", text))
    return found
