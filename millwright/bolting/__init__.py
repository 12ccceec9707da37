"""Bolts: in what order they are pulled, and whether they were."""
