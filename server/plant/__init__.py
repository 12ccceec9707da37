"""The machine lines of a site."""
