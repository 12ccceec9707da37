"""Issuing the record of a closed job: once, as it stands then, with a digest. Afterwards only that is shown."""

import hashlib
import json
from datetime import datetime
from typing import Any

from django.template.loader import render_to_string
from django.utils import timezone

from millwright.written import settled_in
from server.jobs.chain import head_of
from server.jobs.models import Job
from server.journal.write import write_down

from .models import IssuedRecord
from .record import record_of, steps_added
from .record_shape import RecordOut


def digest_of(data: Any) -> str:
    """SHA-256 of a record's data, however the database keeps it."""
    canonical = json.dumps(data, sort_keys=True, separators=(",", ":"), ensure_ascii=False)
    return hashlib.sha256(canonical.encode()).hexdigest()


def issue(job: Job) -> IssuedRecord:
    """The record of a closed job as it is issued; the one there is, where it was issued before."""
    record = record_of(job)
    data = json.loads(record.model_dump_json())
    digest, at = digest_of(data), timezone.now()
    page = _page(record, at, digest)
    made, is_new = IssuedRecord.objects.get_or_create(
        job=job, defaults={"data": data, "page": page, "digest": digest, "last_number": head_of(job).number, "at": at}
    )
    if is_new:
        write_down(job.site_id, [made])
    return made


def shown(job: Job) -> RecordOut:
    """What the record page shows: of an open job as it stands; of a closed one as it was issued, and what was added since."""
    issued = issued_of(job)
    if issued is None:
        return record_of(job)
    record = RecordOut.model_validate(issued.data)
    since = job.entries.filter(number__gt=issued.last_number)
    return record.model_copy(
        update={"digest": issued.digest, "issued_at": issued.at, "added_since": steps_added(job, list(since))}
    )


def page_of(job: Job) -> str:
    """The page the PDF is made from: of a closed job the one that was issued, word for word."""
    issued = issued_of(job)
    if issued is not None:
        return issued.page
    return _page(record_of(job), timezone.now(), "")


def _page(record: RecordOut, at: datetime, digest: str) -> str:
    """In the unit of the record, whatever the sheet it was read on."""
    written = settled_in(record, record.unit)
    return render_to_string("record.html", {"record": written, "printed_at": at, "digest": digest})


def issued_of(job: Job) -> IssuedRecord | None:
    """The issued record of a closed job; one that was closed before records were issued is issued now."""
    issued = IssuedRecord.objects.filter(job=job).first()
    if issued is not None or not job.signed or job.is_paper:
        return issued
    return issue(job)


def on_closed(job: Job, **_: Any) -> None:
    """A record was signed and closed."""
    issue(Job.objects.get(pk=job.pk))
