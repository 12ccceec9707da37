"""Cancel a job: it stays on record as it stands, and its line is free for another."""

from datetime import datetime
from uuid import UUID

from django.db import transaction

from millwright.errors import Problem, UnusableInput
from millwright.job.entry import SignatureKind
from millwright.job.new_entry import OutOfTurn
from millwright.roles import Deed
from server.accounts.auth import require
from server.accounts.models import Membership

from ..models import Job, Signature
from .sign import put


@transaction.atomic
def cancel_job(job_id: UUID, *, by: Membership, reason: str, now: datetime) -> Job:
    """Raises `PermissionDenied` for anybody but the lead, `OutOfTurn` for a job that is closed, `UnusableInput` without a
    reason."""
    require(by, Deed.CANCEL_JOBS)
    job = Job.objects.locked(by, job_id)
    if job.closed:
        raise OutOfTurn("This job is closed already.")
    if not reason.strip():
        raise UnusableInput(Problem("reason", "Enter the reason. The record shows it."))
    signed = put(job, Signature(kind=SignatureKind.CANCEL.value, reason=reason.strip()), by=by, now=now)
    job.closed_at, job.cancelled_by, job.cancelled_because = signed.at, signed.by, signed.reason
    job.save(update_fields=["closed_at", "cancelled_by", "cancelled_because"])
    return job
