"""What a line of the value card is: what it is called, its unit, the paper to look in."""

from dataclasses import dataclass

from .meanings import GAP_WIDTH, THREAD

COUPLING_PAPER = "the coupling's installation manual, table of the series"
DRAWING = "the coupling's drawing or order"


@dataclass(frozen=True, kw_only=True)
class ValueKind:
    """What a figure is called, its unit, and where one looks for it."""

    key: str
    title: str
    unit: str
    look_in: str
    low: float
    high: float
    means: tuple[str, ...] = ()  # what has to be asked beside the number
    ask: str = ""
    by_speed: bool = False  # may have steps that hold up to a speed
    by_material: bool = False  # may have a figure for each material of the element
    by_what: str = "material of the element"  # or for each of something else
    words_only: bool = False  # what it means is all there is to it; the figure is 0
    may_be_none: bool = False  # its paper may give none: then what it would judge is not judged
    written: bool = False  # of words: not one of a few, but as it stands in the paper

    def unit_as(self, means: str) -> str:
        """The unit of a figure that means this: a tolerance in percent of the gap is no length."""
        return self.unit_by_means.get(means, self.unit)

    @property
    def unit_by_means(self) -> dict[str, str]:
        """Where what a figure means is its unit as well."""
        return {means: means for means in self.means if means in GAP_WIDTH}


def figure(key: str, title: str, unit: str, look_in: str, low: float, high: float, *, by_material: bool = False) -> ValueKind:
    """A figure between ``low`` and ``high``; beyond them it is taken for a slip."""
    return ValueKind(key=key, title=title, unit=unit, look_in=look_in, low=low, high=high, by_material=by_material)


def length(
    key: str,
    title: str,
    look_in: str,
    low: float,
    high: float,
    *,
    means: tuple[str, ...] = (),
    ask: str = "",
    by_speed: bool = False,
    by_material: bool = False,
) -> ValueKind:
    """A length; its key ends in _mm."""
    return ValueKind(
        key=key,
        title=title,
        unit="mm",
        look_in=look_in,
        low=low,
        high=high,
        means=means,
        ask=ask,
        by_speed=by_speed,
        by_material=by_material,
    )


def torque(key: str, title: str, look_in: str, low: float, high: float) -> ValueKind:
    """A torque, and how the threads have to be for it."""
    return ValueKind(key=key, title=title, unit="N·m", look_in=look_in, low=low, high=high, means=THREAD, ask="Threads")


def written(key: str, title: str, look_in: str, ask: str) -> ValueKind:
    """Words as they stand in the paper: the name of a grease, a material."""
    return ValueKind(key=key, title=title, unit="", look_in=look_in, low=0, high=0, ask=ask, words_only=True, written=True)


def words(key: str, title: str, look_in: str, means: tuple[str, ...], ask: str) -> ValueKind:
    """One of a few ways, without a figure."""
    return ValueKind(key=key, title=title, unit="", look_in=look_in, low=0, high=0, means=means, ask=ask, words_only=True)
