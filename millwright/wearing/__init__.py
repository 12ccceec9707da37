"""What wears and drifts: the line through readings over time, and the days between which it is at its limit."""
