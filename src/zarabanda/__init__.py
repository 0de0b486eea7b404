"""Zarabanda: design, play and trust the light of a concert."""

__version__ = "0.1.0"
