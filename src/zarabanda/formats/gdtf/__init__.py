"""Fixture types of the General Device Type Format (DIN SPEC 15800), read into kinds (docs/formats.md, "GDTF")."""
