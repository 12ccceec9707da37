"""The chain of safety: its steps, and where the locks are."""

from dataclasses import dataclass

LOCKS_OFF, LOCK_AGAIN, START = "close.locks", "close.again", "close.start"
FIRST_LOCKS, FIRST_PROOF, PROOF = "safe.locks", "safe.try", "prepare.dead"
RUNS_SMOOTHLY, RUNS_ROUGH = "runs smoothly", "vibration, noise or heat: find out why"
FIRST_LOCK_OUT_AGAIN = "Locks are off. Lock it out again first."


@dataclass(frozen=True, kw_only=True)
class Locks:
    """Where the locks are.

    ``live``      - they came off and it has not been locked out again: nobody has hands on the machine
    ``proof_due`` - why the dead state is to be proved again before hands go in; empty where it is not
    """

    live: bool = False
    proof_due: str = ""
