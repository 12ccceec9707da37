"""The route of a job: its steps in working order, and the state of each, derived from what was entered."""
