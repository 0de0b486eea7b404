"""Values held by hand as a look: each palette that they refer to in its place."""

from __future__ import annotations

from collections.abc import Mapping

from zarabanda.core.effects.palette import Palette
from zarabanda.core.playback.looks import Look, Value

from .ids import HeldValues, PaletteUse


def look_of(values: HeldValues, palettes: Mapping[int, Palette]) -> Look:
    """The look. palettes: by number; one that is not there holds nothing."""
    found: dict[str, dict[str, Value]] = {}
    for name, heads in values.items():
        of_name = found.setdefault(name, {})
        for head, value in heads.items():
            if not isinstance(value, PaletteUse):
                of_name[head] = value
            elif value.palette in palettes:
                of_name[head] = palettes[value.palette]
    return found
