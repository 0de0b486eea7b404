"""What plays, as one frame after another."""
