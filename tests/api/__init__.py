"""The API and the database, driven by HTTP."""
