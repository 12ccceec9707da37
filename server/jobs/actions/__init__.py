"""One change to the data per file; every change goes through one of these."""
