"""Sign a hold point, accept an over-limit value, close the record."""

from datetime import datetime
from uuid import UUID

from django.db import transaction

from millwright.job.entry import SignatureKind
from millwright.job.new_entry import OutOfTurn
from millwright.job.signing import check_signature
from millwright.plan.stages.close_out import CLOSING
from server.accounts.models import Membership

from ..chain import head_of, link
from ..models import Job, Signature
from ..papers import refuse_paper
from ..signals import record_closed
from ..so_far import and_then, so_far


@transaction.atomic
def sign(
    job_id: UUID, *, id: UUID, by: Membership, step: str, kind: SignatureKind, entry: UUID | None, reason: str, now: datetime
) -> Signature:
    """Append a signature. The same id sent again gives the one that stands.

    ``entry`` - the reading the signer saw; refused where another has become current since.
    Raises `NotTheirs` for a role below the step's, `OutOfTurn` naming what is stale or open.
    """
    job = Job.objects.locked(by, job_id)
    stands = Signature.objects.filter(pk=id).first()
    if stands is not None:
        return _the_same(stands, job, step, kind, entry)
    if job.cancelled_by:
        raise OutOfTurn(f"This job was cancelled by {job.cancelled_by}: {job.cancelled_because}")
    refuse_paper(job)
    seen = so_far(job)
    route = job.stand_after(seen.entries, now=now, signatures=seen.signatures)
    check_signature(route, step, kind, str(entry) if entry else None, reason, by.as_role)
    signed = put(job, Signature(id=id, kind=kind, step=step, entry_id=entry, reason=reason.strip()), by=by, now=now)
    and_then(seen, signed)
    if step == CLOSING:
        job.closed_at = signed.at
        job.save(update_fields=["closed_at"])
        record_closed.send(sender=Job, job=job)
    return signed


def put(job: Job, signed: Signature, *, by: Membership, now: datetime) -> Signature:
    """Whatever is signed goes into the chain of its job, which is held meanwhile."""
    head = head_of(job)
    signed.job, signed.number, signed.at = job, head.number + 1, head.not_before(now)
    signed.person, signed.whose, signed.by, signed.role = by.user, by.user_id, by.user.shown_name, by.role
    signed.chain = link(head.chain, signed)
    signed.save(force_insert=True)
    return signed


def _the_same(stands: Signature, job: Job, step: str, kind: SignatureKind, entry: UUID | None) -> Signature:
    if (stands.job_id, stands.step, stands.kind, stands.entry_id) != (job.pk, step, kind, entry):
        raise OutOfTurn("Something else was already signed under this number.")
    return stands
