"""The gap between two hub faces, round the clock."""
