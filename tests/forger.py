"""Somebody who knows how the file of a job is written, and makes what he changed fit (docs/formats.md, without the app)."""

import hashlib
import json
from collections.abc import Mapping
from typing import Any

STARTED = ("id", "title", "scope", "unit", "procedure", "edition", "tasks", "spec", "card", "started_by", "started_at")
OF_ALL = ("id", "number", "step", "kind", "by", "role", "at")
OF_AN_ENTRY, OF_A_SIGNATURE = ("inputs", "typed", "asked", "result"), ("entry", "reason")


def made_to_fit(held: Mapping[str, Any]) -> dict[str, Any]:
    """The file with every hash in it made anew, as if it had been entered like this."""
    forged: dict[str, Any] = json.loads(json.dumps(held))
    before = _hash({key: _day(forged[key]) if key.endswith("_at") else forged[key] for key in STARTED})
    for row in sorted([*forged["entries"], *forged["signatures"]], key=lambda row: row["number"]):
        own = OF_AN_ENTRY if "inputs" in row else OF_A_SIGNATURE
        content = {**{key: row[key] for key in (*OF_ALL, *own)}, "at": _day(row["at"])}
        row["chain"] = before = _hash({**content, "before": before, "job": forged["id"], "person": row["whose"]})
    forged["chain"] = before
    return forged


def _hash(content: Any) -> str:
    text = json.dumps(_plain(content), sort_keys=True, separators=(",", ":"), ensure_ascii=False)
    return hashlib.sha256(text.encode()).hexdigest()


def _plain(value: Any) -> Any:
    if isinstance(value, dict):
        return {key: _plain(inner) for key, inner in value.items()}
    if isinstance(value, list):
        return [_plain(inner) for inner in value]
    return int(value) if isinstance(value, float) and value.is_integer() else value


def _day(text: str) -> str:
    return text.replace("Z", "+00:00")
