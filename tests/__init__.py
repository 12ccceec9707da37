"""Tests of the API, the database and the real interface."""
