"""How a hub is held on its shaft: fit, key, run-out."""
