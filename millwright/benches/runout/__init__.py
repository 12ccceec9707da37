"""Run-out of a hub or shaft, and whether it is bent."""
