"""What may be signed, by whom and when: the one place where a signature is checked before it is appended."""

from ..errors import Problem, UnusableInput
from ..roles import TAKES, Deed, Role
from .entry import SignatureKind
from .new_entry import OutOfTurn
from .now import STATE_WORDS, RouteNow, StepNow, StepState

OF_A_STEP = (SignatureKind.HOLD, SignatureKind.AUTHORISE)


class NotTheirs(Exception):
    """This is signed by somebody of another role."""

    def __init__(self, wanted: Role, role: Role) -> None:
        super().__init__(f"This takes a {wanted.value}; you are signed in as {role.value}.")


def check_signature(
    route: RouteNow, step_key: str, kind: SignatureKind, entry: str | None, reason: str, role: Role
) -> StepNow:
    """The step that is signed, as it stands.

    ``entry`` - the reading the signer saw. Raises `NotTheirs` for a role below the one that is needed, `OutOfTurn` naming
    what is stale or open, `UnusableInput` for a step that is not there or a reason that is missing.
    """
    if kind not in OF_A_STEP:
        raise UnusableInput(Problem("kind", "No step is signed like this."))
    now = route.find(step_key)
    if now is None:
        raise UnusableInput(Problem("step", f"This route has no step {step_key}."))
    if (now.current.id if now.current else None) != entry:
        raise OutOfTurn("Another reading was entered meanwhile. Look at it, then sign.")
    if now.state is StepState.STALE:
        raise OutOfTurn(f"{now.step.title} is to be read again: {now.stale_because}. Read it again, then sign.")
    if kind is SignatureKind.AUTHORISE:
        _refuse_authorisation(now, reason, role)
    else:
        _refuse_hold(route, now, role)
    return now


def _refuse_authorisation(now: StepNow, reason: str, role: Role) -> None:
    if not role.may(Deed.ACCEPT_OVER):
        raise NotTheirs(TAKES[Deed.ACCEPT_OVER], role)
    if not now.may_be_accepted(now.current.id if now.current else None):
        raise OutOfTurn("There is nothing out of tolerance here that a lead may accept.")
    if not reason.strip():
        raise UnusableInput(Problem("reason", "Enter the reason. The record shows it."))


def _refuse_hold(route: RouteNow, now: StepNow, role: Role) -> None:
    if now.step.hold is None:
        raise OutOfTurn("This step takes no signature.")
    if not role.may_act_as(now.step.hold):
        raise NotTheirs(now.step.hold, role)
    if now.step.form.kind == "sign":
        why = route.why_not_signed_off()
        if why:
            raise OutOfTurn("Not ready to sign. " + " · ".join(map(str, why)))
    if now.state is not StepState.TO_SIGN:
        raise OutOfTurn(f"{now.step.title}: {STATE_WORDS[now.state]}. There is nothing to sign yet.")
