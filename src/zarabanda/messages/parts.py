"""Parts of the show, as they reach the engine: by subject and number."""

from __future__ import annotations

from typing import Any

import msgspec

from zarabanda.core.rig.modes import ModeSpec, Place
from zarabanda.targets import Target

from .ids import PartKey


class Part(msgspec.Struct, frozen=True, forbid_unknown_fields=True, tag_field="part"):
    """A part of the show. Parts of one subject have numbers of their own."""

    @property
    def key(self) -> PartKey:
        """Subject and number."""
        return str(type(self).__struct_config__.tag), getattr(self, "id", 0)


class ModePart(Part, frozen=True, tag="mode"):
    """A mode."""

    id: int
    mode: ModeSpec


class FixturePart(Part, frozen=True, tag="fixture"):
    """A fixture (id: its number), with the number of its mode: see `core.rig.rig.FixtureSpec`."""

    id: int
    name: str
    mode: int
    place: Place
    rotation: Place = (0.0, 0.0, 0.0)
    universe: int | None = 1
    address: int | None = 1
    cell_order: str = ""


class TempoPart(Part, frozen=True, tag="tempo"):
    """A tempo, with the BPM that it has when the show opens, and its place among them."""

    id: int
    name: str
    bpm: float
    position: int


class PalettePart(Part, frozen=True, tag="palette"):
    """A palette: values for every head by attribute, and what holds on single heads instead."""

    id: int
    name: str
    values: dict[str, float]
    own: dict[str, dict[str, float]]


class EffectPart(Part, frozen=True, tag="effect"):
    """An effect document, with the numbers of palettes and tempos."""

    id: int
    document: dict[str, Any]


class DraftValuesPart(Part, frozen=True, tag="draft-values"):
    """What is set by hand of one attribute."""

    id: str
    heads: dict[str, float]


class DraftEffectPart(Part, frozen=True, tag="draft-effect"):
    """What plays in the draft."""

    id: int
    target: Target


class ControlPart(Part, frozen=True, tag="control"):
    """A fader or button: how it acts and what it drives. source: where it is, in words."""

    id: int
    name: str
    source: str
    mode: str
    job: str
    release_s: float
    target: Target


class OpeningPart(Part, frozen=True, tag="opening"):
    """Actions that are done once, when the show opens for the first time."""

    actions: tuple[Any, ...]


AnyPart = (
    ModePart | FixturePart | TempoPart | PalettePart | EffectPart | DraftValuesPart | DraftEffectPart | ControlPart | OpeningPart
)
