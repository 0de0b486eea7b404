"""Pixel maps: canvas, the four parts of a picture layer, sampling, and what they do to light (docs/computation.md, "Pixels")."""
