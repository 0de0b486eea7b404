"""Where a song is: labels of timecode, beats, events on a time axis, and following a clock."""
