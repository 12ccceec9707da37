"""The benches from a shell: `./anvil bench`, `./anvil bench NAME --schema`, `./anvil bench NAME < input.json`."""

import argparse
import json
import sys

from .benches.register import BENCHES, as_dict, evaluate_json, find
from .errors import UnusableInput, as_json

EVALUATED = 0
UNUSABLE = 2


def main() -> int:
    """Exit code 0: evaluated. 2: the input is not usable, and standard output says why."""
    options = argparse.ArgumentParser(prog="./anvil bench", description=__doc__)
    options.add_argument("name", nargs="?", help="one of: " + ", ".join(BENCHES))
    options.add_argument("--schema", action="store_true", help="JSON Schema of its input and its result")
    asked = options.parse_args()
    if asked.name is None:
        for bench in BENCHES.values():
            print(f"{bench.name:14}{bench.answers}")
        return EVALUATED
    try:
        if asked.schema:
            bench = find(asked.name)
            _print(
                {
                    "input": bench.input.model_json_schema(),
                    "result": bench.result.model_json_schema(mode="serialization"),
                }
            )
        else:
            _print(as_dict(evaluate_json(asked.name, sys.stdin.buffer.read())))
    except UnusableInput as refused:
        _print({"errors": [as_json(found) for found in refused.problems]})
        return UNUSABLE
    return EVALUATED


def _print(thing: object) -> None:
    json.dump(thing, sys.stdout, ensure_ascii=False, allow_nan=False, indent=1)
    print()


if __name__ == "__main__":
    sys.exit(main())
