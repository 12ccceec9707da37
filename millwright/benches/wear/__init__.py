"""When what wears or drifts is at its limit."""
