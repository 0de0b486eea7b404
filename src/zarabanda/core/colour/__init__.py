"""Colour: spaces, emitters, distance."""
