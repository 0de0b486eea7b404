"""Selections: words and orders."""
