"""Jobs that couple up: two that were closed, two in the middle; what was written there otherwise than usual."""

from datetime import timedelta
from typing import Any

from millwright.scope import Scope

GRID: dict[str, dict[str, Any]] = {
    "receive.kit": {"grid_n": 2, "fittings": "ok"},
    "couple.gap_again": {"gap_mm": 4.0},
    "couple.teeth": {"product": "Brackwater grid grease", "batch": "lot 7"},
}
BLOCKS: dict[str, dict[str, Any]] = {
    "off.old": {"out": 12, "number": "lot 31", "fate": "scrap, and marked so", "seen": "worn by a third, dust in the guard"},
    "off.mark": {"arrow": "third notch"},
    "found.wear": {"zero_mm": 6.5, "twist_mm": 4.0},
    "couple.blocks": {"set": "lot 44", "made": "2026-08", "pockets": 12, "blocks": 12},
    "couple.ring": {"arrow": "third notch"},
    "couple.wear": {"zero_mm": 3.0, "grows": "grows", "twist_mm": 1.5},
    "receive.kit": {"blocks_n": 12},
    "set.moved": {"machine": "no"},
}
UNIT: dict[str, dict[str, Any]] = {
    "receive.unit": {"screws": 12},
    "prepare.ends": {"distance_mm": 180.0},
    "couple.screws_in": {"driver": 6, "driven": 6},
    "couple.squeeze": {"before_mm": 178.4, "now_mm": 176.2},
    "couple.lift_in": {"sling": 1},
}
TYRE: dict[str, dict[str, Any]] = {
    "found.split": {"split_mm": 5.5},
    "off.old": {"out": 1, "number": "T 208", "fate": "scrap, and marked so", "seen": "cracks at the bead, driver end"},
    "off.new": {"number": "T 317"},
    "couple.tyre": {"split_mm": 3.0},
    "set.moved": {"machine": "no"},
}
# Line, what is done, when it began, what is written otherwise than usual, and where it stands; None where it is closed.
COUPLED: tuple[tuple[str, str, Scope, timedelta, dict[str, dict[str, Any]], str | None], ...] = (
    ("Roller mill", "New grid coupling", Scope.FIT, timedelta(days=150), GRID, None),
    ("Malt crusher", "New set of blocks", Scope.ELEMENT, timedelta(days=400), BLOCKS, None),
    ("Chilled-water pump 2", "New spacer unit and hubs", Scope.FIT, timedelta(hours=8), UNIT, "couple.home"),
    ("Husk mill", "New tyre", Scope.ELEMENT, timedelta(hours=3), TYRE, "couple.ring_driver"),
)
