"""Where a job stands: what was entered and signed, and what follows from it for every step."""
