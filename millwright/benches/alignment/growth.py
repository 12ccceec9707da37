"""How far a foot lifts its machine from cold to running, from its height and its temperatures."""

from pydantic import Field

from ...errors import Problem
from ...metals import METALS, Material
from ...model import Model, Size


class Warmth(Model):
    """A foot or pedestal between base and shaft, cold and running."""

    height_mm: Size = Field(description="from the base to the shaft's centre")
    cold_c: float = Field(ge=-60, le=200)
    hot_c: float = Field(ge=-60, le=700)
    material: Material = "cast iron"


def rise_mm(warmth: Warmth) -> float:
    """Source: thermal expansion, height × expansion × warming.

    >>> round(rise_mm(Warmth(height_mm=250, cold_c=20, hot_c=60)), 3)
    0.105
    """
    return warmth.height_mm * METALS[warmth.material].expansion_per_k * (warmth.hot_c - warmth.cold_c)


def all_growth(growth: dict[str, float] | None, warmth: dict[str, Warmth]) -> dict[str, float]:
    """Measured or maker's figures, and those worked out, by foot."""
    return {**(growth or {}), **{name: rise_mm(by) for name, by in warmth.items()}}


def problems_of_warmth(growth: dict[str, float] | None, warmth: dict[str, Warmth]) -> list[Problem]:
    """A foot whose growth is given twice."""
    return [
        Problem(f"warmth.{name}", f"The growth of {name} is given already. One of the two.")
        for name in warmth
        if name in (growth or {})
    ]
