"""What a hand cannot hit and an eye cannot read, measured on a page as it is."""

from pathlib import Path

from playwright.sync_api import Page

PROBE = Path(__file__).with_suffix(".js").read_text()
FINGER_PX, GLOVE_PX = 44, 56


def faults(page: Page, *, gloves: bool = False) -> list[str]:
    """Controls smaller than a finger or a glove, text under 13 px, cut off or over other text, what scrolls sideways."""
    found: list[str] = page.evaluate(PROBE, GLOVE_PX if gloves else FINGER_PX)
    return found
