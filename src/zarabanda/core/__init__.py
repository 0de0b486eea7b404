"""Pure computation on NumPy arrays: no clock, no input or output, no web, no database (docs/computation.md)."""
