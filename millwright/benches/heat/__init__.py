"""How hot a hub is to be, how long it stays open, how it cools."""
