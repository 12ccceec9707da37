"""The web server: what people enter is kept here; what it means is said by the core."""
