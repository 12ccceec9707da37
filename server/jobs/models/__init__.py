"""Jobs, what was entered in them and signed, and what came from an instrument."""

from .entry import Entry, Photograph, Signature, StreamReading
from .job import Job, of_this_site

__all__ = ["Entry", "Job", "Photograph", "Signature", "StreamReading", "of_this_site"]
