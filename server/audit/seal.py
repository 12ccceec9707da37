"""A seal: how far every chain has come today, with a key that is not in the database, in a file that is kept elsewhere."""

import hmac
import json
import secrets
from datetime import datetime
from hashlib import sha256
from pathlib import Path
from typing import Any

from django.conf import settings

from millwright.errors import Problem, UnusableInput
from server.accounts.models import Site
from server.jobs.models import Job
from server.journal.digest import digest

from .broken import Sealed

FORMAT = "young-anvil seal"
VERSION = 1


def write_seal(folder: Path, now: datetime) -> Path:
    """Today's seal in a folder; one that is there already stays as it is."""
    folder.mkdir(parents=True, exist_ok=True)
    path = folder / f"seal-{now.date().isoformat()}.json"
    if not path.exists():
        waiting = path.with_suffix(".part")
        waiting.write_text(json.dumps(_sealed(now), indent=1))
        waiting.rename(path)
    return path


def read_seal(text: str) -> Sealed:
    """What was sealed. Raises `UnusableInput` where it is no seal, was changed, or was made with another key."""
    try:
        held = json.loads(text)
        whole = held.get("format") == FORMAT and held.get("version") == VERSION
        sealed = Sealed(
            day=str(held["at"])[:10],
            jobs={key: (int(number), str(head)) for key, (number, head) in held["jobs"].items()},
            journals={key: (int(number), str(head)) for key, (number, head) in held["journals"].items()},
        )
    except (ValueError, TypeError, KeyError, AttributeError):
        whole = False
    if not whole:
        raise UnusableInput(Problem("seal", "This is not a seal written by Young Anvil."))
    if not hmac.compare_digest(_signed(held), str(held.get("seal", ""))):
        raise UnusableInput(Problem("seal", "This seal was changed, or it was made with another key."))
    return sealed


def _sealed(now: datetime) -> dict[str, Any]:
    jobs = Job.objects.order_by("pk").values_list("pk", "last_number", "head")
    sites = Site.objects.order_by("pk").values_list("pk", "journal_number", "journal_head")
    held = {
        "format": FORMAT,
        "version": VERSION,
        "at": now.isoformat(),
        "jobs": {str(key): [number, head] for key, number, head in jobs.iterator()},
        "journals": {str(key): [number, head] for key, number, head in sites},
    }
    return {**held, "seal": _signed(held)}


def _signed(held: dict[str, Any]) -> str:
    """HMAC-SHA256 over everything but itself."""
    content = digest({key: value for key, value in held.items() if key != "seal"})
    return hmac.new(_key(), content.encode(), sha256).hexdigest()


def _key() -> bytes:
    """From the file that is named, made once where there is none: readable by its owner only, and not in the database."""
    path = Path(settings.SEAL_KEY_FILE)
    if not path.exists():
        path.parent.mkdir(parents=True, exist_ok=True)
        path.touch(mode=0o600)
        path.write_text(secrets.token_hex(32))
    return bytes.fromhex(path.read_text().strip())
