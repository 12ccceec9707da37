"""What may stand in an entry and in a form, for the description of the API: one shape a kind and one a bench, from the
registries. The server reads an entry with the core's own models (`millwright.job.new_entry`), in the words of the trade."""

from collections.abc import Iterator
from typing import Any

from pydantic import BaseModel
from pydantic.json_schema import JsonSchemaMode

from millwright.benches.register import BENCHES, Bench
from millwright.job.entry import EntryKind
from millwright.job.new_entry import WORDS
from millwright.plan.hints import HINTS, NoHints
from millwright.verdict import Result

SHEET = "sheet"
AS_IT_IS = {"type": "boolean", "description": "of a stored reading: taken although it cannot be told whether it is inside"}
CAPTION = {"type": "object", "properties": {"caption": {"type": "string"}}, "additionalProperties": False}
SHEET_ANSWERS = {
    "description": "By the key of the field: a tick, a figure, words, marks, or rows of them.",
    "type": "object",
    "additionalProperties": {
        "anyOf": [
            {"type": ["boolean", "number", "string", "null"]},
            {"type": "array", "items": {"type": ["string", "null"]}},
            {"type": "array", "items": {"type": "object", "additionalProperties": {"type": "string"}}},
        ]
    },
}

Shape = dict[str, Any]


def models_named() -> Iterator[tuple[type[BaseModel], JsonSchemaMode]]:
    """The models that the shapes below name, and whether they are read (validation) or written (serialization)."""
    read: list[type[BaseModel]] = [bench.input for bench in BENCHES.values()]
    read += [*WORDS.values(), *HINTS.values(), NoHints]
    yield from ((model, "validation") for model in read)
    yield from ((model, "serialization") for model in _results())


def _results() -> list[type[BaseModel]]:
    return [Result, *(bench.result for bench in BENCHES.values())]


def with_shapes(schemas: dict[str, Shape]) -> None:
    """Puts a union for each of entry sent, entry stored and form of a bench in the place of its loose schema."""
    schemas["SheetAnswers"] = SHEET_ANSWERS
    for bench in BENCHES.values():
        schemas[_given(bench)] = _partly(schemas[bench.input.__name__], f"What is given of a {bench.input.__name__}.")
    for result in _results():
        schemas[result.__name__]["properties"]["as_it_is"] = AS_IT_IS
    sent, stored, form = (schemas[name] for name in ("EntryIn", "EntryOut", "BenchFormOut"))
    _put(schemas, "EntryIn", {"ReadingIn": _reading_sent(sent), **{f"{_title(k)}In": _sent(sent, k) for k in WORDS}})
    readings = {f"{_title(b.name)}Entry": _reading(stored, b.name, _given(b), b.result.__name__) for b in BENCHES.values()}
    readings["SheetEntry"] = _reading(stored, SHEET, "SheetAnswers", Result.__name__)
    _put(schemas, "EntryOut", {**readings, **{f"{_title(k)}Entry": _words(stored, k) for k in WORDS}})
    _put(schemas, "BenchFormOut", {f"{_title(b.name)}Form": _form(form, b) for b in BENCHES.values()})
    _put(schemas, "FormOut", {name: schemas[name] for name in ("SheetFormOut", "SignFormOut")}, "BenchFormOut")
    schemas["StepOut"]["properties"]["form"] = _ref("FormOut")


def are_filled(schemas: dict[str, Shape], root: str) -> None:
    """Marks as required what has a default, in a schema that is answered with and in all it holds: an answer says it all.

    What was entered stands as it was sent: it is passed over.
    """
    filled, waiting = {"SheetAnswers", *(model.__name__ for model, mode in models_named() if mode == "validation")}, [root]
    filled |= {_given(bench) for bench in BENCHES.values()}
    while waiting:
        name = waiting.pop()
        if name in filled:
            continue
        filled.add(name)
        shape = schemas[name]
        has_default = [key for key, of in shape.get("properties", {}).items() if "default" in of]
        if has_default:
            shape["required"] = sorted({*shape.get("required", []), *has_default})
        waiting += refs_in(shape)


def refs_in(shape: Any) -> Iterator[str]:
    """The names of the schemas a piece of the description refers to."""
    match shape:
        case {"$ref": str(ref)}:
            yield ref.rpartition("/")[2]
        case dict():
            for inner in shape.values():
                yield from refs_in(inner)
        case list():
            for inner in shape:
                yield from refs_in(inner)


def _put(schemas: dict[str, Shape], name: str, variants: dict[str, Shape], *beside: str) -> None:
    schemas.update({key: {**shape, "title": key} for key, shape in variants.items()})
    schemas[name] = {"title": name, "oneOf": [_ref(key) for key in (*beside, *variants)]}


def _sent(sent: Shape, kind: EntryKind) -> Shape:
    is_picture = kind is EntryKind.PHOTOGRAPH
    inputs = CAPTION if is_picture else _ref(WORDS[kind].__name__)
    shape = _without(sent, "as_it_is") if is_picture else _without(sent, "as_it_is", "image")
    return _with(shape, kind=_always(kind), inputs=inputs)


def _reading_sent(sent: Shape) -> Shape:
    inputs = {"anyOf": [*(_ref(_given(bench)) for bench in BENCHES.values()), _ref("SheetAnswers")]}
    return _with(_without(sent, "image"), kind=_always(EntryKind.READING), inputs=inputs)


def _reading(stored: Shape, bench: str, inputs: str, result: str) -> Shape:
    return _with(stored, kind=_always(EntryKind.READING), bench=_always(bench), inputs=_ref(inputs), result=_ref(result))


def _words(stored: Shape, kind: EntryKind) -> Shape:
    return _with(_without(stored, "bench", "result"), kind=_always(kind), inputs=_ref(WORDS[kind].__name__))


def _form(form: Shape, bench: Bench) -> Shape:
    given, hints = _ref(_given(bench)), HINTS.get(bench.name, NoHints).__name__
    return _with(form, bench=_always(bench.name), preset=given, compare=given, suggest=_ref(hints))


def _partly(schema: Shape, description: str) -> Shape:
    """The same with nothing required: what comes from the step and what comes from the hand are two halves."""
    properties = {
        key: {part: value for part, value in of.items() if part != "default"} for key, of in schema["properties"].items()
    }
    return {"type": "object", "description": description, "additionalProperties": False, "properties": properties}


def _with(shape: Shape, **properties: Shape) -> Shape:
    return {**shape, "properties": {**shape["properties"], **properties}}


def _without(shape: Shape, *names: str) -> Shape:
    required = [key for key in shape.get("required", []) if key not in names]
    properties = {key: of for key, of in shape["properties"].items() if key not in names}
    return {**shape, "properties": properties, "required": required}


def _always(value: str) -> Shape:
    return {"type": "string", "const": str(value)}


def _ref(name: str) -> Shape:
    return {"$ref": f"#/components/schemas/{name}"}


def _given(bench: Bench) -> str:
    return f"{bench.input.__name__.removesuffix('Input')}Given"


def _title(name: str) -> str:
    return "".join(part.capitalize() for part in name.split("-"))
