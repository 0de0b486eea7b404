"""A row of a busking page as it is kept. One definition for the API, the database and messages."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from .cue_message import Controller, Note, NoteOff, Osc, ProgramChange, ShowControl

Kind = Literal["all", "lights", "messages", "haze"]
"""What a row is for: the top row over all rows of lights, one group of lights, messages to outside devices, or haze."""
Section = Literal["colour", "position", "beam", "effects", "messages"]
SECTIONS: tuple[Section, ...] = ("colour", "position", "beam", "effects", "messages")
MOST_PADS = 120
PadName = Annotated[str, Field(max_length=40)]
PadId = Annotated[int, Field(ge=1, le=2**31 - 1)]
Outward = Annotated[Note | NoteOff | Controller | ProgramChange | ShowControl | Osc, Field(discriminator="kind")]


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class _Pad(_Part):
    """id: its number within the row, for as long as it is there; name: empty, that of what is on it."""

    id: PadId
    name: PadName = ""


class PalettePad(_Pad):
    """A palette, by its number."""

    palette: int


class OnMap(_Part):
    """A pixel map, by its number. picture: of the library instead of its own layers, 0: its own."""

    map: int
    picture: int = 0


class EffectPad(_Pad):
    """An effect of the library, by its number, or a pixel map instead (effect is then 0). while_held: acts while it is held; else
    each press turns it on or off."""

    effect: int = 0
    pixels: OnMap | None = None
    while_held: bool = False

    @model_validator(mode="after")
    def _one_of_both(self) -> EffectPad:
        if (self.effect > 0) == (self.pixels is not None):
            raise ValueError("a pad of effects has an effect or a pixel map")
        return self


class MessagePad(_Pad):
    """A message to an outside device."""

    name: Annotated[str, Field(min_length=1, max_length=40)]
    message: Outward


PalettePads = Annotated[list[PalettePad], Field(max_length=MOST_PADS)]


class BuskRowDocument(_Part):
    """carries: sections that it shows beside its level; pads by section; tempo: by whose beats presses wait, None: the first;
    colour_tempo: of the top row, by which the two colours go; go_list: of the top row, the cue list that Space plays."""

    carries: Annotated[list[Section], Field(max_length=len(SECTIONS))] = Field(default_factory=list)
    colour: PalettePads = Field(default_factory=list)
    position: PalettePads = Field(default_factory=list)
    beam: PalettePads = Field(default_factory=list)
    effects: Annotated[list[EffectPad], Field(max_length=MOST_PADS)] = Field(default_factory=list)
    messages: Annotated[list[MessagePad], Field(max_length=MOST_PADS)] = Field(default_factory=list)
    tempo: int | None = None
    colour_tempo: int | None = None
    go_list: int | None = None

    @model_validator(mode="after")
    def _each_once(self) -> BuskRowDocument:
        numbers = [pad.id for section in SECTIONS for pad in getattr(self, section)]
        if len(numbers) != len(set(numbers)):
            raise ValueError("two pads have the same number; give each its own")
        return self

    @property
    def free_pad(self) -> int:
        """A number that no pad has."""
        return max((pad.id for section in SECTIONS for pad in getattr(self, section)), default=0) + 1
