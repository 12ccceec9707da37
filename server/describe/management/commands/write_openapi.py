"""Writes the API's description, with every bench's input and result among its components."""

import json
from pathlib import Path

from django.core.management.base import BaseCommand, CommandError, CommandParser
from pydantic import BaseModel
from pydantic.json_schema import JsonSchemaMode, models_json_schema

from server.api import api
from server.jobs.described import are_filled, models_named, refs_in, with_shapes
from server.keep.rounds.api import LookIn
from server.plant.api import LineIn
from server.web.described import bare, with_refusals


class Command(BaseCommand):
    """./anvil types calls this, and the drift check compares its output."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to write."""
        parser.add_argument("path", type=Path)
        parser.add_argument("--types", type=Path, help="where to write it for a compiler, without what only people read")

    def handle(self, *args: object, path: Path, types: Path | None = None, **options: object) -> None:
        """Ninja's description, plus the benches' models by their own names."""
        description = json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/"), default=str))
        schemas = description["components"]["schemas"]
        models: list[tuple[type[BaseModel], JsonSchemaMode]] = [
            (LineIn, "validation"),
            (LookIn, "validation"),
            *models_named(),
        ]
        _, found = models_json_schema(models, ref_template="#/components/schemas/{model}")
        for name, schema in found["$defs"].items():
            stands = schemas.setdefault(name, schema)
            if stands.get("properties", {}).keys() != schema.get("properties", {}).keys():
                raise CommandError(f"Two different models are called {name}. One of them needs another name.")
        with_shapes(schemas)
        schemas["SeriesOut"]["properties"]["trend"] = {"$ref": "#/components/schemas/WearResult"}
        for routes in description["paths"].values():
            for route in routes.values():
                for name in refs_in(route["responses"]):
                    are_filled(schemas, name)
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(json.dumps(with_refusals(description), indent=1, ensure_ascii=False, sort_keys=True) + "\n")
        if types is not None:
            types.write_text(json.dumps(bare(description), sort_keys=True))
