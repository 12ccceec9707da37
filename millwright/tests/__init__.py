"""Tests of the core: no database. Doctests of the core's modules are among them."""
