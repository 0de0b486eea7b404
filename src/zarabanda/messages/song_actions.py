"""Live actions on songs: the timelines that play cue lists, presses and levels."""

from __future__ import annotations

from typing import Annotated

import msgspec

from .ids import Action, Number

Position = Annotated[float, msgspec.Meta(ge=0, le=86_400)]


class PlaySong(Action, frozen=True, tag="play-song"):
    """Let a song play from where it is, or stand. One that is not on stage begins, and takes the place of another."""

    timeline: Number
    on: bool = True


class Locate(Action, frozen=True, tag="locate"):
    """Go to a position of a song, s; what is on stage is what playing to it gives."""

    timeline: Number
    position: Position


class SongSpeed(Action, frozen=True, tag="song-speed"):
    """Play so many times as fast, for looking."""

    timeline: Number
    speed: Annotated[float, msgspec.Meta(ge=0.1, le=2)] = 1.0


class LoopSong(Action, frozen=True, tag="loop-song"):
    """Play a part of a song over and over, from a position to another; `end` None: no more."""

    timeline: Number
    begin: Position = 0.0
    end: Position | None = None


class LeaveSong(Action, frozen=True, tag="leave-song"):
    """Take the song off the stage: all that it holds is released in a time."""

    seconds: Annotated[float, msgspec.Meta(ge=0, le=3600)] = 2.0


class Scrub(Action, frozen=True, tag="scrub"):
    """See a position of a song on screens, without output; None: no more."""

    timeline: Number = 0
    position: Position | None = None


class GiveBack(Action, frozen=True, tag="give-back"):
    """Give a control that hands took back to the song (by its subject, see `songs` of the state); None: all."""

    subject: str | None = None


class TakeTempo(Action, frozen=True, tag="take-tempo"):
    """Take a tempo from the beat grid of a song, so that it can be tapped."""

    tempo: str


class RecordSong(Action, frozen=True, tag="record-song"):
    """Record what hands do on armed tracks while a song plays, or end that; what was taken is then asked for."""

    timeline: Number
    on: bool = True


class Chased(Action, frozen=True, tag="chased"):
    """Where incoming timecode is: the song goes there within its next frames. For the engine itself. at: stamp of the position;
    jump: it has gone elsewhere; speed 0: it stands."""

    timeline: Number
    position: float
    at: float
    speed: float = 1.0
    jump: bool = False


SongAction = PlaySong | Locate | SongSpeed | LoopSong | LeaveSong | Scrub | GiveBack | TakeTempo | RecordSong
