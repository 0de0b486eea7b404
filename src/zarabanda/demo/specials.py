"""Specials of "Salt Light": the singer's mark, the percussion island, and the two lead dancers."""

from __future__ import annotations

from sqlalchemy.orm import Session

from zarabanda.formats.special_document import Aim, SpecialDocument
from zarabanda.show import repositories

_HEAD_M = 1.5
"""Lights are aimed as high as a face is."""
PLACES: dict[str, tuple[float, float, float]] = {
    "Singer's mark": (0.0, 1.5, _HEAD_M), "Percussion island": (5.5, 4.0, _HEAD_M), "Lead left": (-3.0, 2.5, _HEAD_M),
    "Lead right": (3.0, 2.5, _HEAD_M), "At the drums": (4.0, 3.0, _HEAD_M),
}  # fmt: skip
SPECIALS: tuple[tuple[str, str, tuple[int, ...], str, float, float], ...] = (
    ("Singer", "Singer's mark", (105, 106, 205, 206), "#fff1dc", 12.0, 90.0),
    ("Singer to the drums", "At the drums", (105, 106, 205, 206), "#fff1dc", 12.0, 90.0),
    ("Percussion", "Percussion island", (109, 110, 209, 210), "#ffb02e", 20.0, 80.0),
    ("Lead left", "Lead left", (102, 103, 203), "#f4f1e8", 10.0, 100.0),
    ("Lead right", "Lead right", (107, 108, 208), "#f4f1e8", 10.0, 100.0),
)
"""Name, place, lights, colour, zoom in degrees, level in %."""


def add_specials(session: Session) -> None:
    """Places, and the specials that are aimed at them."""
    places = {name: repositories.specials.add_place(session, name, point).id for name, point in PLACES.items()}
    for name, place, heads, colour, zoom, level in SPECIALS:
        document = SpecialDocument(
            heads=[str(head) for head in heads], aim=Aim(place=places[place]), colour=colour, beam={"zoom": zoom}, level=level,
            out=0.6, up=0.8,
        )  # fmt: skip
        repositories.specials.add(session, name, document)
