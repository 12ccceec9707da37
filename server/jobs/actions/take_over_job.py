"""Take over a job from a file: a lead read it, and from now on it counts here."""

from datetime import datetime
from uuid import UUID

from django.db import transaction

from millwright.job.entry import SignatureKind
from millwright.job.new_entry import OutOfTurn
from millwright.roles import Deed
from server.accounts.auth import require
from server.accounts.models import Membership

from ..models import Job, Signature
from ..signals import record_closed
from .sign import put


@transaction.atomic
def take_over_job(job_id: UUID, *, by: Membership, now: datetime) -> Job:
    """What is due, what was left and what drifts goes by it from now on; an open one is carried on.

    Raises `PermissionDenied` for anybody but the lead, `OutOfTurn` for a job that is no file's, counts already or was
    cancelled.
    """
    require(by, Deed.TAKE_OVER_JOBS)
    job = Job.objects.locked(by, job_id)
    if job.cancelled_by:
        raise OutOfTurn(f"This job was cancelled: {job.cancelled_because} There is nothing to take over.")
    if not job.is_paper:
        raise OutOfTurn("This job counts here already.")
    job.taken_over_at = put(job, Signature(kind=SignatureKind.TAKE_OVER.value), by=by, now=now).at
    job.save(update_fields=["taken_over_at"])
    if job.closed:
        record_closed.send(sender=Job, job=job)
    return job
