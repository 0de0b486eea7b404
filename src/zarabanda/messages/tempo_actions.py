"""Live actions on tempos."""

from __future__ import annotations

from typing import Annotated

import msgspec

from .ids import Action


class Tap(Action, frozen=True, tag="tap"):
    """Tap a tempo, by its name."""

    tempo: str


class Bpm(Action, frozen=True, tag="bpm"):
    """Set a tempo by a number, 10 to 400."""

    tempo: str
    value: float


class TempoTimes(Action, frozen=True, tag="tempo-times"):
    """Half, double or other times what a tempo has."""

    tempo: str
    factor: Annotated[float, msgspec.Meta(gt=0, le=8)]


class HoldTempo(Action, frozen=True, tag="hold-tempo"):
    """Let a tempo stand where it is, or go on from there."""

    tempo: str
    on: bool = True


class FollowTempo(Action, frozen=True, tag="follow-tempo"):
    """Let a tempo follow another at a ratio, in line with its beats; without a main: no more."""

    tempo: str
    main: str | None = None
    ratio: Annotated[float, msgspec.Meta(ge=0.0625, le=16)] = 1.0


class LineUp(Action, frozen=True, tag="line-up"):
    """Put all effects of a tempo on its beats."""

    tempo: str


class TemposBack(Action, frozen=True, tag="tempos-back"):
    """All tempos, or one, back to the BPM that the show keeps: going, and of their own."""

    tempo: str | None = None


TempoAction = Tap | Bpm | TempoTimes | HoldTempo | FollowTempo | LineUp | TemposBack
