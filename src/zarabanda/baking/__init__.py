"""Light written out for other systems: as frames, as steps, as bytes of universes, as notes of a MIDI file, as pictures."""
