"""The coupling itself: families, bolts, elements."""
