"""The air gaps of a magnetic drive, and the move that evens them."""
