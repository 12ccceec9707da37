"""What was taken out of use is not entered with, wherever it still lies about."""

from collections.abc import Mapping
from typing import Any

from millwright.errors import Problem
from server.accounts.models import Membership

from .models import Wrench


def withdrawn_problems(member: Membership, inputs: Mapping[str, Any]) -> list[Problem]:
    """Where a reading names a wrench of the register that is withdrawn."""
    named = inputs.get("wrench")
    name = named.get("name") if isinstance(named, Mapping) else named
    if not isinstance(name, str) or not name.strip():
        return []
    out = Wrench.objects.visible_to(member).filter(name=name.strip(), withdrawn_at__isnull=False).first()
    if out is None:
        return []
    text = f"Wrench {out.name} is withdrawn ({out.withdrawn_because}). Pull with another one."
    return [Problem("wrench.name" if isinstance(named, Mapping) else "wrench", text)]
