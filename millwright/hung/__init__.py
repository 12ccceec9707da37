"""Drives that hang on the shaft they turn: which way a backstop lets go, and the arm that holds the unit."""
