"""The value card: every line it can hold, and what stands on it."""
