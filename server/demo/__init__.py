"""Quillmere Maltings, an invented malt house, built through the same functions a user reaches."""
