"""GDTF attributes (DIN SPEC 15800, Annex A) and what they are here."""

from __future__ import annotations

import re
from dataclasses import dataclass


@dataclass(frozen=True)
class Word:
    """What an attribute is called here, and by how much its physical values are multiplied to be natural ones."""

    source: str
    factor: float = 1.0
    stepped: bool = False


def _number(name: str) -> str:
    return rf"{name}(1|\(1\))?"


_WORDS: tuple[tuple[str, Word], ...] = (
    ("Dimmer", Word("intensity", 100)),
    ("Pan", Word("pan", -1)),
    ("Tilt", Word("tilt", -1)),
    ("(ColorAdd_R|ColorRGB_Red)", Word("red")),
    ("(ColorAdd_G|ColorRGB_Green)", Word("green")),
    ("(ColorAdd_B|ColorRGB_Blue)", Word("blue")),
    ("ColorAdd_W", Word("white")),
    ("ColorAdd_RY", Word("amber")),
    ("ColorAdd_WW", Word("warm")),
    ("ColorAdd_CW", Word("cold")),
    ("(ColorSub_C|ColorRGB_Cyan)", Word("cyan")),
    ("(ColorSub_M|ColorRGB_Magenta)", Word("magenta")),
    ("(ColorSub_Y|ColorRGB_Yellow)", Word("yellow")),
    ("HSB_Hue", Word("hue")),
    ("HSB_Saturation", Word("saturation", 100)),
    ("CT[CO]", Word("temperature")),
    ("Tint", Word("tint", 100)),
    ("Zoom", Word("zoom")),
    ("Iris", Word("iris", 100)),
    (_number("Frost"), Word("frost", 100)),
    (_number("Focus"), Word("focus", 100)),
    (_number("Shutter") + "Strobe|StrobeFrequency|StrobeModeStrobe", Word("strobe")),
    (_number("Prism"), Word("prism", 100)),
    (_number("Gobo"), Word("gobo", stepped=True)),
    (_number("Color"), Word("wheel", stepped=True)),
    (_number("(Fog|Haze)"), Word("haze", 100)),
    (_number("Fan"), Word("fan_speed", 100)),
)
_PATTERNS = [(re.compile(pattern), word) for pattern, word in _WORDS]
SHUTTER_OPEN = "Shutter1"
SHUTTER = re.compile(r"Shutter(1|\(1\))?")
"""Open and closed; strobing is a word of its own."""
EMITTERS = frozenset(
    ("red", "green", "blue", "white", "amber", "warm", "cold", "cyan", "magenta", "yellow", "hue", "saturation", "wheel")
)
"""Words that make colour."""


STANDARD = {
    "intensity": "Dimmer", "pan": "Pan", "tilt": "Tilt", "red": "ColorAdd_R", "green": "ColorAdd_G", "blue": "ColorAdd_B",
    "white": "ColorAdd_W", "amber": "ColorAdd_RY", "warm": "ColorAdd_WW", "cold": "ColorAdd_CW", "cyan": "ColorSub_C",
    "magenta": "ColorSub_M", "yellow": "ColorSub_Y", "hue": "HSB_Hue", "saturation": "HSB_Saturation", "temperature": "CTC",
    "tint": "Tint", "zoom": "Zoom", "iris": "Iris", "frost": "Frost1", "focus": "Focus1", "strobe": "Shutter1Strobe",
    "prism": "Prism1", "gobo": "Gobo1", "wheel": "Color1", "haze": "Haze1", "fan_speed": "Fan1",
}  # fmt: skip
"""What each is called by the standard."""


def word(attribute: str) -> Word | None:
    """What a GDTF attribute is here; None: it is not driven.

    >>> word("Gobo1").source, word("Gobo2"), word("ColorAdd_RY").source
    ('gobo', None, 'amber')
    """
    return next((found for pattern, found in _PATTERNS if pattern.fullmatch(attribute)), None)
