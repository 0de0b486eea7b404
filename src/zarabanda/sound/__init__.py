"""Sound files of songs: kept by what they hold, and their outline for pictures."""
