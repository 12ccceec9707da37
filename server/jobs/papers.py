"""Jobs from files that no lead has taken over: they are read, and nothing but a note goes into them."""

from millwright.job.new_entry import OutOfTurn

from .models import Job


def refuse_paper(job: Job) -> None:
    """Raise `OutOfTurn` where this job is a paper."""
    if job.is_paper:
        raise OutOfTurn("This job was read in from a file. A lead takes it over first.")
