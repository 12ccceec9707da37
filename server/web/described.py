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


def with_refusals(description: dict[str, Any]) -> dict[str, Any]:
    """Every route may answer so, in the one shape of errors; what a route says of it itself stays."""
    refusal = {"application/json": {"schema": {"$ref": "#/components/schemas/ErrorsOut"}}}
    for routes in description["paths"].values():
        for route in routes.values():
            for status, words in EVERYWHERE.items():
                route["responses"].setdefault(status, {"description": words, "content": refusal})
    return description
