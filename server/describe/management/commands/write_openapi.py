"""Writes the API's description, with every bench's input and result among its components."""

import json
from pathlib import Path
from typing import Literal

from django.core.management.base import BaseCommand, CommandParser
from pydantic import BaseModel
from pydantic.json_schema import models_json_schema

from millwright.benches import BENCHES
from server.api import api
from server.plant.api import LineIn
from server.web.described import with_refusals


class Command(BaseCommand):
    """./anvil types calls this, and the drift check compares its output."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to write."""
        parser.add_argument("path", type=Path)

    def handle(self, *args: object, path: Path, **options: object) -> None:
        """Ninja's description, plus the benches' models by their own names."""
        description = with_refusals(json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/"), default=str)))
        models: list[tuple[type[BaseModel], Literal["validation", "serialization"]]] = [(LineIn, "validation")]
        models += [(bench.input, "validation") for bench in BENCHES.values()]
        models += [(bench.result, "serialization") for bench in BENCHES.values()]
        _, found = models_json_schema(models, ref_template="#/components/schemas/{model}")
        for name, schema in found["$defs"].items():
            description["components"]["schemas"].setdefault(name, schema)
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(json.dumps(description, indent=1, ensure_ascii=False, sort_keys=True) + "\n")
