"""Scenes of My Virtual Rig (DIN SPEC 15801), read and written (docs/formats.md, "MVR")."""
