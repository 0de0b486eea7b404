"""What runs, evaluated together."""
