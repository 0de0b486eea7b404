"""What a head can do, in natural units: one table, one row an attribute.

A new attribute is one new row here; modes, effects, the API and the screens read it from this table.
The range is the widest that makes sense; a mode narrows it to what its fixture can do.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Family = Literal["intensity", "position", "colour", "beam"]
FAMILIES: tuple[Family, ...] = ("intensity", "position", "colour", "beam")


@dataclass(frozen=True, slots=True)
class Attribute:
    """One thing that a head can do. `low`, `high` and `home` in `unit`; `circle` when the range closes on itself."""

    name: str
    label: str
    family: Family
    unit: str
    low: float
    high: float
    home: float
    circle: bool = False
    gdtf: str = ""

    @property
    def span(self) -> float:
        """Width of the range, in the attribute's unit."""
        return self.high - self.low

    @property
    def stepped(self) -> bool:
        """Whether it has slots and nothing between them."""
        return self.unit == "slot"


ATTRIBUTES: tuple[Attribute, ...] = (
    Attribute("intensity", "Intensity", "intensity", "%", 0, 100, 0, gdtf="Dimmer"),
    Attribute("pan", "Pan", "position", "°", -270, 270, 0, gdtf="Pan"),
    Attribute("tilt", "Tilt", "position", "°", -135, 135, 0, gdtf="Tilt"),
    Attribute("red", "Red", "colour", "", 0, 1, 1, gdtf="ColorAdd_R"),
    Attribute("green", "Green", "colour", "", 0, 1, 1, gdtf="ColorAdd_G"),
    Attribute("blue", "Blue", "colour", "", 0, 1, 1, gdtf="ColorAdd_B"),
    Attribute("hue", "Hue", "colour", "°", 0, 360, 0, circle=True, gdtf="HSB_Hue"),
    Attribute("saturation", "Saturation", "colour", "%", 0, 100, 0, gdtf="HSB_Saturation"),
    Attribute("temperature", "Colour temperature", "colour", "K", 1800, 12000, 6500, gdtf="CTC"),
    Attribute("tint", "Tint", "colour", "%", -100, 100, 0, gdtf="Tint"),
    Attribute("white_mix", "White mix", "colour", "%", 0, 100, 0),
    Attribute("zoom", "Zoom", "beam", "°", 1, 90, 20, gdtf="Zoom"),
    Attribute("iris", "Iris", "beam", "%", 0, 100, 100, gdtf="Iris"),
    Attribute("frost", "Frost", "beam", "%", 0, 100, 0, gdtf="Frost1"),
    Attribute("focus", "Focus", "beam", "%", 0, 100, 50, gdtf="Focus1"),
    Attribute("strobe", "Strobe", "beam", "Hz", 0, 25, 0, gdtf="StrobeFrequency"),
    Attribute("gobo", "Gobo", "beam", "slot", 0, 31, 0, gdtf="Gobo1"),
    Attribute("prism", "Prism", "beam", "%", 0, 100, 0, gdtf="Prism1"),
    Attribute("haze", "Haze output", "beam", "%", 0, 100, 0, gdtf="Fog1"),
    Attribute("fan_speed", "Fan speed", "beam", "%", 0, 100, 0, gdtf="Fan1"),
)

BY_NAME: dict[str, Attribute] = {attribute.name: attribute for attribute in ATTRIBUTES}
INDEX: dict[str, int] = {attribute.name: number for number, attribute in enumerate(ATTRIBUTES)}
COUNT = len(ATTRIBUTES)

INTENSITY, PAN, TILT = INDEX["intensity"], INDEX["pan"], INDEX["tilt"]
RED, GREEN, BLUE = INDEX["red"], INDEX["green"], INDEX["blue"]
HUE, SATURATION = INDEX["hue"], INDEX["saturation"]
TEMPERATURE, TINT, WHITE_MIX = INDEX["temperature"], INDEX["tint"], INDEX["white_mix"]

COMPOUND: dict[str, tuple[str, ...]] = {"position": ("pan", "tilt"), "colour": ("red", "green", "blue")}
"""Attributes that a layer moves together, and what they are made of."""


def touched(layer_attribute: str) -> tuple[str, ...]:
    """Plain attributes that a layer on `layer_attribute` changes.

    >>> touched("position")
    ('pan', 'tilt')
    >>> touched("zoom")
    ('zoom',)
    """
    return COMPOUND.get(layer_attribute, (layer_attribute,))
