"""Texts whose figures are data, as they leave the server."""

from typing import Annotated, Any

from ninja import Schema
from pydantic import BeforeValidator

from millwright.say import Words


def _plain_text(given: Any) -> Any:
    return Words(given, {}) if isinstance(given, str) else given


Said = Annotated[Words, BeforeValidator(_plain_text)]  # what was stored as plain text has no figures


class ChangedOut(Schema):
    """One figure that was changed."""

    what: str
    was: Said
    now: Said
