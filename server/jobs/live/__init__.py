"""Who has a job open and what changes in it, told within a second: `hub` listens, `api` streams."""
