"""The stages every job goes through, from lock-out to signature."""
