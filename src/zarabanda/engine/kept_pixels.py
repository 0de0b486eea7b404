"""Pixel maps on stage, as they are written into the journal, and back."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

import msgspec

from .kept_lists import FadeEntry, fade_read, fade_written
from .live.pixels import PixelsState, Use, stack_of
from .program import Program


class PixelsEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `live.pixels.PixelsState`."""

    map: int
    picture: int
    over: bool
    since: float
    beats: dict[int, float]
    fader: FadeEntry
    flash: FadeEntry
    shifts: dict[int, float]
    list_id: int


def written(pixels: Mapping[Use, PixelsState]) -> list[PixelsEntry]:
    """As entries, in their order."""
    return [
        PixelsEntry(
            one.map, one.picture, one.over, one.since, dict(one.beats), fade_written(one.fader), fade_written(one.flash),
            dict(one.shifts), one.list_id,
        )
        for one in pixels.values()
    ]  # fmt: skip


def read(entries: Iterable[PixelsEntry], program: Program, moved: float) -> dict[Use, PixelsState]:
    """As they were, with all times moved; without what is not there any more."""
    return {
        (one.map, one.picture): PixelsState(
            one.map, one.picture, one.over, one.since + moved, one.beats, fade_read(one.fader, moved),
            fade_read(one.flash, moved), one.shifts, one.list_id,
        )
        for one in entries
        if stack_of(program, (one.map, one.picture)) is not None
    }  # fmt: skip


def times(entries: Iterable[PixelsEntry]) -> list[float]:
    """All numbers that must be finite."""
    found = list[float]()
    for one in entries:
        fades = [number for fade in (one.fader, one.flash) for number in (fade.start, fade.end, fade.at, fade.seconds)]
        found += [one.since, *one.beats.values(), *one.shifts.values(), *fades]
    return found
