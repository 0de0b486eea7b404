"""Live actions on pixel maps, by number. picture: of the library instead of the map's own layers, 0: its own."""

from __future__ import annotations

from typing import Annotated

import msgspec

from .ids import Action, Number

OwnLayers = Annotated[int, msgspec.Meta(ge=0)]


class PixelLevel(Action, frozen=True, tag="pixel-level"):
    """Move the share of a pixel map, 0…1. over: over the effects on its heads, or under them; None: as the map says."""

    map: Number
    value: Annotated[float, msgspec.Meta(ge=0, le=1)]
    picture: OwnLayers = 0
    over: bool | None = None


class PressPixels(Action, frozen=True, tag="pixels"):
    """Bring a pixel map in, or out, in its own time."""

    map: Number
    on: bool = True
    picture: OwnLayers = 0
    over: bool | None = None


class PixelsOut(Action, frozen=True, tag="pixels-out"):
    """Bring all pixel maps out in a time."""

    seconds: Annotated[float, msgspec.Meta(ge=0, le=3600)] = 1.0


class LookAtPixels(Action, frozen=True, tag="look-at-pixels"):
    """See a pixel map on screens as it would be, while the stage stays; 0: no more. holder: who looks; without them it ends."""

    map: OwnLayers = 0
    picture: OwnLayers = 0
    holder: str = ""


PixelAction = PixelLevel | PressPixels | PixelsOut | LookAtPixels
