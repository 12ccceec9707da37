"""A tapered hub: its match, its blue pattern, how far it is drawn up."""
