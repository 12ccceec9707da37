"""After the record is closed: what wears and drifts, what is due when, what a round reads, what a line has been through."""
