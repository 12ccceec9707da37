"""Rounds: what is looked at in service, typed there, copied from paper or read from a file."""
