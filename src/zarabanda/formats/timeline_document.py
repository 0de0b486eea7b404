"""A timeline, its tracks, events and markers as they are kept. One definition for the API, the database and messages."""

from __future__ import annotations

import re
from itertools import pairwise
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, field_validator, model_validator

from zarabanda.core.timecode import smpte
from zarabanda.core.timecode.beat_grid import MAX_BPM, MIN_BPM
from zarabanda.errors import ZarabandaError

from .cue_message import INWARD, CueMessage

LONGEST_S = 4 * 3600.0
Position = Annotated[float, Field(ge=0, le=LONGEST_S, allow_inf_nan=False)]
RateName = Literal["24", "25", "29.97", "29.97 drop", "30"]
TrackKind = Literal["cues", "presses", "levels", "messages"]
TrackGroup = Literal["light", "video", "sound", "effects"]
_NUMBER = r"[1-9][0-9]{0,9}"
DRIVES = {
    "cues": rf"list:{_NUMBER}",
    "presses": rf"control:{_NUMBER}|pad:{_NUMBER}:{_NUMBER}|flash:{_NUMBER}:(white|odd|even|strobe|dark)|overlay:{_NUMBER}"
    rf"|pixels:{_NUMBER}:(0|{_NUMBER})",
    "levels": rf"control:{_NUMBER}|row-level:{_NUMBER}|row-depth:{_NUMBER}|overlay:{_NUMBER}|list-level:{_NUMBER}"
    rf"|pixels:{_NUMBER}:(0|{_NUMBER})",
    "messages": rf"device:{_NUMBER}",
}
"""What a track of each kind can drive: see `engine.live.hands`."""


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class TempoChange(_Part):
    """From a beat on another tempo."""

    beat: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)]
    bpm: Annotated[float, Field(ge=MIN_BPM, le=MAX_BPM, allow_inf_nan=False)]


class Grid(_Part):
    """Beats of a song. first_s: where bar 1 begins; changes: of the tempo, the first at beat 0."""

    first_s: Annotated[float, Field(ge=-60, le=LONGEST_S, allow_inf_nan=False)] = 0.0
    changes: Annotated[list[TempoChange], Field(min_length=1, max_length=500)] = [TempoChange(beat=0, bpm=120)]
    in_bar: Annotated[int, Field(ge=1, le=16)] = 4

    @model_validator(mode="after")
    def _in_order(self) -> Grid:
        beats = [one.beat for one in self.changes]
        if beats[0] != 0 or any(b <= a for a, b in pairwise(beats)):
            raise ValueError("the first tempo begins at beat 0, and each other one at a later beat than the one before")
        return self


class Sound(_Part):
    """The sound of a song. hash: SHA-256 of the file, by which it lies in the media folder; name: as it was given."""

    hash: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    name: Annotated[str, Field(max_length=200)]
    seconds: Annotated[float, Field(ge=0, le=LONGEST_S)]
    channels: Annotated[int, Field(ge=1, le=64)] = 2
    rate: Annotated[int, Field(ge=1000, le=400_000)] = 44_100
    silent: bool = False


class TimelineDocument(_Part):
    """A song on a time axis. starts_at: label of incoming timecode at its beginning; clock: where its time comes from; on_stop:
    what it does once timecode has stopped for 2 s, on_jump: when it goes elsewhere; begins_alone: everything else goes out as it
    begins; keeps_moving: effects go on while it stands; sound_at: where its sound begins; latency_s: that recording is corrected
    by."""

    length_s: Annotated[float, Field(ge=1, le=LONGEST_S, allow_inf_nan=False)] = 180.0
    rate: RateName = "25"
    starts_at: str = "01:00:00:00"
    clock: Literal["own", "MTC"] = "own"
    on_stop: Literal["stands", "goes on"] = "stands"
    on_jump: Literal["goes there", "goes on"] = "goes there"
    begins_alone: bool = True
    keeps_moving: bool = True
    grid: Grid = Field(default_factory=Grid)
    sound: Sound | None = None
    sound_at: Annotated[float, Field(ge=0, le=LONGEST_S)] = 0.0
    latency_s: Annotated[float, Field(ge=-1, le=1, allow_inf_nan=False)] = 0.0

    @model_validator(mode="after")
    def _label(self) -> TimelineDocument:
        rate = smpte.RATES[self.rate]
        try:
            self.starts_at = smpte.text(smpte.label_of(smpte.read(self.starts_at, rate), rate), rate)
        except ZarabandaError as error:
            raise ValueError(f"starts_at: {error.message}") from error
        return self

    @property
    def begins(self) -> float:
        """When its first label is, s from 00:00:00:00 on."""
        rate = smpte.RATES[self.rate]
        return smpte.seconds_of(smpte.read(self.starts_at, rate), rate)


class TrackDocument(_Part):
    """A track. kind: what its events are; group: whose it is; drives: what they are on; locked: nothing is recorded or moved;
    muted: it does not play; armed: it records."""

    name: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
    group: TrackGroup = "light"
    kind: TrackKind
    drives: Annotated[str, Field(max_length=60)]
    locked: bool = False
    muted: bool = False
    armed: bool = False

    @model_validator(mode="after")
    def _drives(self) -> TrackDocument:
        if not re.fullmatch(DRIVES[self.kind], self.drives):
            raise ValueError(f"drives: a track of {self.kind} cannot drive {self.drives!r}")
        return self


class CueEvent(_Part):
    """Goes to a cue, by its number in the show."""

    cue: int


class PressEvent(_Part):
    """A press: held for its length, or what it did: on or off."""

    does: Literal["hold", "on", "off"] = "hold"


class LevelEvent(_Part):
    """A point of a level, 0…1; straight to the next."""

    value: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]


class MessageEvent(_Part):
    """A message to a device."""

    message: CueMessage

    @field_validator("message")
    @classmethod
    def _outward(cls, message: CueMessage) -> CueMessage:
        if message.kind in INWARD:
            raise ValueError("a track of messages sends to a device; what acts on the show itself has tracks of its own")
        return message


EVENTS: dict[str, type[CueEvent | PressEvent | LevelEvent | MessageEvent]] = {
    "cues": CueEvent, "presses": PressEvent, "levels": LevelEvent, "messages": MessageEvent,
}  # fmt: skip
"""What an event of each kind of track is."""
EventDocument = CueEvent | PressEvent | LevelEvent | MessageEvent


class MarkerDocument(_Part):
    """A part of a song. length: 0: a place alone; colour: `#rrggbb`, empty: none."""

    at: Position
    length: Annotated[float, Field(ge=0, le=LONGEST_S)] = 0.0
    name: Annotated[str, Field(min_length=1, max_length=60, pattern=r"\S")]
    colour: Annotated[str, Field(pattern=r"^(#[0-9a-f]{6})?$")] = ""
