"""The door of every bench: strict, frozen models, and what their refusals say in trade language."""

import re
import unicodedata
from typing import Annotated, Any, TypeVar

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError, ValidationInfo
from pydantic_core import ErrorDetails

from .errors import Problem, UnusableInput, problem
from .say import Figure

# Bounds that no coupling on earth reaches: what lies beyond is a slip of the finger.
Reading = Annotated[float, Field(ge=-100, le=100, description="mm, plunger pushed in is positive")]
Place = Annotated[float, Field(ge=-50_000, le=50_000, description="mm along the shaft line")]
Size = Annotated[float, Field(gt=0, le=10_000, description="mm")]
Slope = Annotated[float, Field(ge=-500, le=500, description="mm/m")]
Clock = Annotated[float, Field(ge=-360, le=720, description="degrees clockwise from 12 o'clock")]
Torque = Annotated[float, Field(gt=0, le=100_000, description="N·m")]

_TURNS_THE_LINE = frozenset("\u202a\u202b\u202c\u202d\u202e\u2066\u2067\u2068\u2069")  # make text read other than it is


AT_THE_DOOR = "at the door"  # what comes in from outside is refused; what is stored already can still be read


def is_one_line(text: str) -> bool:
    """No line break, tab or other control character, nothing that turns the direction of reading."""
    return not any(
        unicodedata.category(character) in ("Cc", "Zl", "Zp") or character in _TURNS_THE_LINE for character in text
    )


def is_plain_text(text: str) -> bool:
    """Lines of writing: no control character but line breaks and tabs."""
    return all(map(is_one_line, text.replace("\t", " ").splitlines()))


def _name(text: str) -> str:
    if not is_one_line(text):
        raise ValueError("This is one line of plain characters: no line break, tab or control character.")
    return text


def _plain_text(text: str) -> str:
    if not is_plain_text(text):
        raise ValueError("There is a control character in this text. Type it again.")
    return text


def _name_at_the_door(text: str, info: ValidationInfo) -> str:
    return _name(text) if info.context == AT_THE_DOOR else text


def _plain_text_at_the_door(text: str, info: ValidationInfo) -> str:
    return _plain_text(text) if info.context == AT_THE_DOOR else text


# Names of lines, machines, parts, papers: printed on paper and sent to others. Notes and reasons may have lines.
Name = Annotated[str, AfterValidator(_name_at_the_door)]
PlainText = Annotated[str, AfterValidator(_plain_text_at_the_door)]
NameIn = Annotated[str, AfterValidator(_name)]
PlainTextIn = Annotated[str, AfterValidator(_plain_text)]


M = TypeVar("M", bound=BaseModel)


class Model(BaseModel):
    """Unknown keys, NaN, text for a number and true for a number are refused."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True, allow_inf_nan=False)


def read_json(model: type[M], text: str | bytes) -> M:
    """Read JSON into a model; every problem found is in the `UnusableInput` raised."""
    try:
        return model.model_validate_json(text, context=AT_THE_DOOR)
    except ValidationError as refused:
        raise UnusableInput(*(_problem(e) for e in refused.errors(include_url=False))) from None


UNITS = {"mm": "mm", "m": "mm/m", "c": "°C", "nm": "N·m", "rpm": "rpm", "deg": "°", "kw": "kW", "s": "s"}


def unit_of(key: str) -> str:
    """The unit at the end of a name, empty where there is none.

    >>> unit_of("sag_mm"), unit_of("angle_mm_per_m"), unit_of("clock")
    ('mm', 'mm/m', '')
    """
    name, _, last = key.rpartition("_")
    return UNITS.get(last, "") if name else ""


def _problem(error: ErrorDetails) -> Problem:
    path, ctx = ".".join(str(step) for step in error["loc"]), error.get("ctx", {})
    low, high = ctx.get("gt", ctx.get("ge")), ctx.get("lt", ctx.get("le"))
    unit = unit_of(next((step for step in reversed(error["loc"]) if isinstance(step, str)), ""))
    if low is not None and not (error["type"] == "greater_than" and low == 0):
        text = "This is smaller than anything met in practice ({bound}). A slip?"
        return problem(path, text, bound=Figure(float(low), unit))
    if high is not None:
        return problem(path, "This is bigger than what can be here ({bound}). A slip?", bound=Figure(float(high), unit))
    return Problem(path, _sentence(error))


_UNITS = re.compile(r"_(mm|deg|nm|n|c|rpm|kw|s|g|mm_per_m)$")


def _in_words(name: str) -> str:
    """A name of the description in words: "shaft_diameter_mm" is the shaft diameter."""
    return _UNITS.sub("", name).replace("_", " ")


def _sentence(error: ErrorDetails) -> str:  # noqa: C901, PLR0911 - a table, kind by kind
    ctx: dict[str, Any] = error.get("ctx", {})
    match error["type"]:
        case "missing":
            return f"Enter the {_in_words(str(error['loc'][-1]))}."
        case "extra_forbidden":
            return "This name is not known here. Is it misspelt?"
        case "float_type" | "int_type" | "float_parsing" | "int_parsing" | "int_from_float":
            return "Enter a number."
        case "finite_number":
            return "Enter a number that is not endless."
        case "greater_than":
            return "This must be more than 0."
        case "enum" | "literal_error":
            return f"This is one of: {ctx['expected']}."
        case "too_short":
            return f"At least {ctx['min_length']} needed here."
        case "too_long":
            return f"At most {ctx['max_length']} fit here."
        case "json_invalid":
            return f"This is not whole JSON: {ctx['error']}."
        case "value_error":
            return str(ctx["error"])
        case "string_too_short":
            return "Enter a name."
        case _:
            return f"{error['msg']}."
