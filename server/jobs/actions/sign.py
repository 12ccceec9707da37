"""Sign a hold point, accept an over-limit value, close the record."""

from datetime import datetime
from uuid import UUID

from django.db import transaction

from millwright.errors import Problem, UnusableInput
from millwright.roles import Role
from millwright.route.entry import OutOfTurn
from millwright.route.stages.close_out import CLOSING
from millwright.route.state import RouteNow, SignatureKind, StepNow, StepState
from server.accounts.auth import require_role
from server.accounts.models import Membership

from ..models import Job, Signature
from ..signals import record_closed


@transaction.atomic
def sign(
    job_id: UUID, *, id: UUID, by: Membership, step: str, kind: SignatureKind, entry: UUID | None, reason: str, now: datetime
) -> Signature:
    """Append a signature. The same id sent again gives the one that stands.

    ``entry`` - the reading the signer saw; refused where another has become current since.
    Raises `PermissionDenied` for a role below the step's, `OutOfTurn` naming what is stale or open.
    """
    job = Job.objects.locked(by, job_id)
    stands = Signature.objects.filter(pk=id, job=job).first()
    if stands is not None:
        return stands
    route = job.stand(now)
    now_at = route.find(step)
    if now_at is None:
        raise UnusableInput(Problem("step", f"This route has no step {step}."))
    _refuse(route, now_at, by, kind, str(entry) if entry else None, reason)
    signed = Signature.objects.create(
        id=id,
        job=job,
        number=route.last_number + 1,
        kind=kind,
        step=step,
        entry_id=entry,
        reason=reason.strip(),
        by=by.user.shown_name,
        role=by.role,
        at=now,
    )
    if step == CLOSING:
        record_closed.send(sender=Job, job=job)
    return signed


def _refuse(route: RouteNow, now_at: StepNow, by: Membership, kind: SignatureKind, entry: str | None, reason: str) -> None:
    step = now_at.step
    if (now_at.current.id if now_at.current else None) != entry:
        raise OutOfTurn("Another reading was entered meanwhile. Look at it, then sign.")
    if now_at.state is StepState.STALE:
        raise OutOfTurn(f"{step.title} is stale: {now_at.stale_because}. Read it again, then sign.")
    if kind is SignatureKind.AUTHORISE:
        require_role(by, Role.LEAD)
        if not step.may_authorise or now_at.state is not StepState.OVER:
            raise OutOfTurn("There is nothing over its limit here that a lead may accept.")
        if not reason.strip():
            raise UnusableInput(Problem("reason", "Say why it is accepted. The record shows it."))
        return
    if step.hold is None:
        raise OutOfTurn("This step takes no signature.")
    require_role(by, step.hold)
    if step.form.kind == "sign":
        why = route.why_not_signed_off()
        if why:
            raise OutOfTurn("Not ready to sign. " + " · ".join(why))
    if now_at.state is not StepState.TO_SIGN:
        raise OutOfTurn(f"{step.title} is {now_at.state.value}. There is nothing to sign yet.")
