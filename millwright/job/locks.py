"""The chain of safety: whether the locks are off, and why the dead state is to be proved again."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from ..plan.locks import Locks


@dataclass(frozen=True, kw_only=True)
class HandOver:
    """Who went and who came, or that there was a break."""

    number: int
    words: str


@dataclass(frozen=True, kw_only=True)
class Proof:
    """The dead state was proved: its number and when."""

    number: int
    at: datetime


def stand_locks(
    off: int | None,
    proofs: Sequence[Proof],
    again: int | None,
    hand_overs: Sequence[HandOver],
    now: datetime | None,
    hours: float | None,
) -> Locks:
    """Where the locks are, and whether the last proof still holds.

    ``off``   - number of the last entry that took locks off
    ``again`` - number of the last lock-out after a start, signed
    ``now``   - the server's time; with None no proof grows old
    ``hours`` - the site's rule: how long a proof holds
    """
    if off is not None and (again is None or again < off):
        return Locks(live=True)
    last = max(proofs, key=lambda proof: proof.number, default=None)
    if last is None:
        return Locks()
    since = [hand_over for hand_over in hand_overs if hand_over.number > last.number]
    if since:
        return Locks(proof_due=since[-1].words)
    if now is not None and hours is not None and now - last.at > timedelta(hours=hours):
        return Locks(proof_due=f"the last proof is older than {hours:g} h, the rule of this site")
    return Locks()


def say_hand_over(inputs: Mapping[str, str]) -> str:
    """What happened, in words: "K. Ilves went, M. Sorel came"."""
    if inputs["what"] == "break":
        return "there was a break"
    return f"{inputs['goes']} went, {inputs['comes']} came"
