"""When something was entered: never before what was entered before it."""

from datetime import datetime

from ..models import Job


def not_before(job: Job, now: datetime) -> datetime:
    """The server's clock, or the time of the last entry where that clock was set back since."""
    lasts = [rows.order_by("-number").values_list("at", flat=True).first() for rows in (job.entries, job.signatures)]
    return max([now, *(at for at in lasts if at is not None)])
