"""Settings: `base` for the running server, `test` for the tests."""
