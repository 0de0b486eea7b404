"""Live actions on the rows of a busking page, and on what goes over all of them. Rows and pads by number."""

from __future__ import annotations

from typing import Annotated, Literal

import msgspec

from .ids import Action, Number

Share = Annotated[float, msgspec.Meta(ge=0, le=1)]
Colour = Annotated[str, msgspec.Meta(pattern="^#[0-9a-fA-F]{6}$")]


class PressPad(Action, frozen=True, tag="pad"):
    """Press a pad, or let go of one that acts while it is held. holder: who does, known by the web process."""

    row: Number
    pad: Number
    down: bool = True
    holder: str = ""


class NoPad(Action, frozen=True, tag="no-pad"):
    """Let go of what pads of a section hold: colour, position, beam; or the effects of the row."""

    row: Number
    section: Literal["colour", "position", "beam", "effects"]


class RowLevel(Action, frozen=True, tag="row-level"):
    """Move the level of a row, 0…1; that of the top row multiplies those of all rows."""

    row: Number
    value: Share


class RowDepth(Action, frozen=True, tag="row-depth"):
    """Move the depth of all effects of a row, 0…1; that of the top row multiplies those of all rows."""

    row: Number
    value: Share


class RowValue(Action, frozen=True, tag="row-value"):
    """Move an attribute of a row by hand, in its unit: output and fan of haze."""

    row: Number
    attribute: Literal["haze", "fan_speed"]
    value: Annotated[float, msgspec.Meta(ge=0, le=100)]


class RowPairs(Action, frozen=True, tag="row-pairs"):
    """Play the effects of a row in pairs, mirrored, or as they are."""

    row: Number
    on: bool = True


class ReleaseRow(Action, frozen=True, tag="release-row"):
    """Let go of all that a row holds, in a time."""

    row: Number
    seconds: Annotated[float, msgspec.Meta(ge=0, le=3600)] = 2.0


class NextChange(Action, frozen=True, tag="next-change"):
    """What the next press of a pad takes: s for position, and for all else; or that it waits for the next beat or bar."""

    seconds: Annotated[float, msgspec.Meta(ge=0, le=20)] | None = None
    position_s: Annotated[float, msgspec.Meta(ge=0, le=20)] | None = None
    waits: Literal["", "beat", "bar"] | None = None


class AllWaves(Action, frozen=True, tag="all-waves"):
    """Waveform, spread and travel of all intensity effects, from the words of `core.effects.variants`; empty: their own."""

    shape: str | None = None
    spread: str | None = None
    travel: str | None = None


class PickTwo(Action, frozen=True, tag="two-colours"):
    """The two colours, the rows that they go over, and how far they lie over the colours that are there, 0…1."""

    a: Colour | None = None
    b: Colour | None = None
    rows: Annotated[list[Number], msgspec.Meta(max_length=100)] | None = None
    mix: Share | None = None


class PressFlash(Action, frozen=True, tag="flash"):
    """Flash a row while it is held. holder: who does, known by the web process."""

    row: Number
    kind: Literal["white", "odd", "even", "strobe", "dark"]
    down: bool = True
    holder: str = ""


class FlashTimes(Action, frozen=True, tag="flash-times"):
    """How long flashes take to go, in s, and the rate of strobes, in Hz."""

    release_s: Annotated[float, msgspec.Meta(ge=0, le=5)] | None = None
    rate_hz: Annotated[float, msgspec.Meta(ge=1, le=20)] | None = None


class BringBack(Action, frozen=True, tag="bring-back"):
    """Take back the last way home, within 10 s."""


RowAction = (
    PressPad
    | NoPad
    | RowLevel
    | RowDepth
    | RowValue
    | RowPairs
    | ReleaseRow
    | NextChange
    | AllWaves
    | PickTwo
    | PressFlash
    | FlashTimes
    | BringBack
)
