"""Jobs: what was entered and signed, append-only; where a job stands is derived by the core."""
