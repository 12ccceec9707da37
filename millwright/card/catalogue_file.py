"""A catalogue of coupling sizes as a file: JSON, or CSV with a line for each value."""

import csv
import io
from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Annotated, Any, Literal, TypeVar

from pydantic import AfterValidator, Field, ValidationError

from ..csv_readings import rows_of
from ..errors import Problem, UnusableInput, refuse_if_any
from ..line import Family
from ..model import Model, Name
from .values import OfMaterial, Source, UpTo, Value, as_today, card_problems

OF_A_SIZE = ["family", "series", "size"]
OF_A_VALUE = ["value", "figure", "means", "up to rpm", "of material", "kind of source", "document", "issue", "page"]
HEAD = [*OF_A_SIZE, *OF_A_VALUE]
MOST_SIZES = 5_000
T = TypeVar("T")


class CatalogueSize(Model):
    """One size of one series with its value card."""

    family: Family
    series: Name = Field(min_length=1, max_length=60)
    size: Name = Field(min_length=1, max_length=40)
    values: Annotated[dict[str, Value], AfterValidator(as_today)] = Field(default_factory=dict)


class CatalogueFile(Model):
    """A catalogue."""

    format: Literal["young-anvil catalogue"] = "young-anvil catalogue"
    version: Literal[1] = 1
    sizes: list[CatalogueSize] = Field(max_length=MOST_SIZES)


NONE_GIVEN = "none:"  # where the paper gives no figure, before the reason why that will do


def write_csv(sizes: Sequence[CatalogueSize]) -> str:
    """A line for each value, figures in the units of the value card; a size with no value has a line of its own."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(HEAD)
    for size in sizes:
        known = [size.family, size.series, size.size]
        for key, value in size.values.items():
            source = value.source
            up_to = "; ".join(f"{step.rpm:g}={step.value:g}" for step in value.up_to)
            of = "; ".join(f"{one.material}={one.value:g}" for one in value.of_material)
            papers = [source.kind, source.document, source.issue, source.page]
            figure = f"{NONE_GIVEN} {value.none_because}" if value.none_because else repr(value.value)
            writer.writerow([*known, key, figure, value.means, up_to, of, *papers])
        if not size.values:
            writer.writerow([*known, *[""] * len(OF_A_VALUE)])
    return out.getvalue()


def read_csv(text: bytes) -> list[CatalogueSize]:
    """Read what `write_csv` writes. Raises `UnusableInput` naming every line that cannot be read; then nothing is read."""
    try:
        rows = rows_of(text.decode("utf-8-sig"), what="values")
    except UnicodeDecodeError:
        raise UnusableInput(Problem("line 1", "This is not a text file of values.")) from None
    if not rows or [cell.strip() for cell in rows[0]] != HEAD:
        raise UnusableInput(Problem("line 1", f"The first line must be: {','.join(HEAD)}."))
    sizes: dict[tuple[str, str], dict[str, Any]] = {}
    problems: list[Problem] = []
    for number, row in enumerate(rows[1:], start=2):
        if any(cell.strip() for cell in row):
            problems += [replace(p, path=f"line {number}") for p in _read_row(row, sizes)]
    refuse_if_any(problems)
    return [CatalogueSize.model_validate(size) for size in sizes.values()]


def _read_row(row: list[str], sizes: dict[tuple[str, str], dict[str, Any]]) -> list[Problem]:
    """Put one value where it belongs; what is wrong with it otherwise."""
    if len(row) != len(HEAD):
        return [Problem("", f"This line has {len(row)} columns, not {len(HEAD)}.")]
    family, series, name, key, figure, means, up_to, of, kind, document, issue, page = (cell.strip() for cell in row)
    known = sizes.setdefault((series, name), {"family": family, "series": series, "size": name, "values": {}})
    if known["family"] != family:
        return [Problem("", f"{series} {name} is of another family further up: {known['family']}.")]
    if key in known["values"]:
        return [Problem("", f"{key} of {series} {name} stands further up already.")]
    try:
        values = {}
        if key:
            source = Source.model_validate({"kind": kind, "document": document, "issue": issue, "page": page})
            steps = _pairs(up_to, lambda rpm, value: UpTo(rpm=float(rpm), value=value))
            of_material = _pairs(of, lambda material, value: OfMaterial(material=material, value=value))
            none = figure.removeprefix(NONE_GIVEN).strip() if figure.startswith(NONE_GIVEN) else ""
            values[key] = Value(
                value=0.0 if none else float(figure),
                means=means,
                up_to=steps,
                of_material=of_material,
                none_because=none,
                source=source,
            )
        CatalogueSize.model_validate({**known, "values": {}})
    except ValidationError as wrong:
        first = wrong.errors()[0]
        return [Problem("", f"{'.'.join(str(part) for part in first['loc'])}: {first['msg']}.")]
    except ValueError:
        return [Problem("", f"Enter a number: {figure or up_to or of}")]
    known["values"] |= values
    return card_problems(as_today(values))


def _pairs(text: str, make: Callable[[str, float], T]) -> list[T]:
    """What stands as "1500=0.2; 3000=0.1"."""
    found = []
    for part in filter(None, (part.strip() for part in text.split(";"))):
        name, _, value = part.rpartition("=")
        found.append(make(name.strip(), float(value)))
    return found
