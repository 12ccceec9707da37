"""Bolts in their order and their passes."""
