"""Offset and angle of two shafts from dials or a laser, and the moves that correct them."""
