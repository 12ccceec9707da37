"""What an audit finds, and what it is held against."""

from collections.abc import Mapping
from dataclasses import dataclass, field

Point = tuple[int, str]  # a number, and the hash that stood there


@dataclass(frozen=True, kw_only=True)
class Broken:
    """Something that is not as it was entered: where, and what of it."""

    where: str
    what: str

    def __str__(self) -> str:
        return f"{self.where}: {self.what}"


@dataclass(frozen=True, kw_only=True)
class Sealed:
    """How far every chain had come on the day of a seal, by the id of its job or site."""

    jobs: Mapping[str, Point] = field(default_factory=dict)
    journals: Mapping[str, Point] = field(default_factory=dict)
    day: str = ""


NOTHING_SEALED = Sealed()
AFTER_THE_SEAL = "it is not what stood there when the seal of {day} was made"


def held_against(seal: Sealed, point: Point | None, hashes: Mapping[int, str], where: str) -> list[Broken]:
    """Whether a chain still has the hash that was sealed. ``hashes`` - those of its rows, by their numbers."""
    if point is None or hashes.get(point[0]) == point[1]:
        return []
    return [Broken(where=where, what=f"number {point[0]}: {AFTER_THE_SEAL.format(day=seal.day)}")]
