"""What the description of the API says that its code does not: answers that are files, and refusals that every route has."""

from typing import Any


def gives(media: str) -> dict[str, Any]:
    """For a route whose answer is no JSON of a schema: what it is instead."""
    content = {media: {"schema": {"type": "string", "format": "binary"}}}
    return {"responses": {200: {"description": "OK", "content": content}}}


def exchanges(takes: str, answers: str) -> dict[str, Any]:
    """For a route that reads its body itself: the schemas of body and answer, by their names."""

    def of(schema: str) -> dict[str, Any]:
        return {"content": {"application/json": {"schema": {"$ref": f"#/components/schemas/{schema}"}}}}

    return {"requestBody": {**of(takes), "required": True}, "responses": {200: {"description": "OK", **of(answers)}}}


EVERYWHERE = {"401": "sign in first", "422": "not usable: what is wrong, by path", "503": "the database is away: try again"}


REFUSED = {"schema": {"$ref": "#/components/schemas/ErrorsOut"}}


def with_refusals(description: dict[str, Any]) -> dict[str, Any]:
    """Every route may answer so, in the one shape of errors, which is written down once a status."""
    shared = description["components"].setdefault("responses", {})
    for routes in description["paths"].values():
        for route in routes.values():
            answers = route["responses"]
            for status, words in EVERYWHERE.items():
                answers.setdefault(status, {"description": words, "content": {"application/json": REFUSED}})
            for status, answer in answers.items():
                if answer.get("content") == {"application/json": REFUSED}:
                    words = EVERYWHERE.get(str(status), answer["description"])
                    shared[f"Refused{status}"] = {"description": words, "content": answer["content"]}
                    answers[status] = {"$ref": f"#/components/responses/Refused{status}"}
    return description


SAID = ("description", "title", "summary", "format", "operationId")


def bare(described: Any, *, names: bool = False) -> Any:
    """The same without what is only read by people. ``names`` - these are names of fields, not words about them"""
    match described:
        case dict():
            kept = {key: inner for key, inner in described.items() if names or key not in SAID or not isinstance(inner, str)}
            return {key: bare(inner, names=key in ("properties", "schemas", "paths")) for key, inner in kept.items()}
        case list():
            return [bare(inner) for inner in described]
        case _:
            return described
