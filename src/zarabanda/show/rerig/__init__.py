"""A show moves to other lights: which stand for which, and everything that follows."""
