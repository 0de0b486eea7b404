"""The real-time part: what plays since when, tempos, faders; one frame after another, on time."""
