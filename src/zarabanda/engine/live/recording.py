"""What hands do on armed tracks while a song plays, with the position of each (docs/computation.md, "Timelines")."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from zarabanda.errors import ZarabandaError
from zarabanda.messages import (
    AnyAction,
    Back,
    Go,
    GoTo,
    Level,
    ListLevel,
    OverlayLevel,
    Press,
    PressFlash,
    PressOverlay,
    PressPad,
    RecordSong,
    RowDepth,
    RowLevel,
)

from . import controls, cue_lists, rows, songs
from .folding import Moves
from .hands import plain
from .songs import Song, with_song
from .state import LiveState


@dataclass(frozen=True)
class Taken:
    """Something that a hand did on a track. at: position; what: cue, down, up, on, off or level; cue: that the list is on then;
    holder: whose finger it is."""

    track: int
    at: float
    what: str
    value: float = 0.0
    cue: int = 0
    holder: str = ""


@dataclass(frozen=True)
class Recording:
    """What was taken since a position. spans: from where to where it recorded, as the song may have gone elsewhere meanwhile."""

    since: float
    taken: tuple[Taken, ...] = ()
    spans: tuple[tuple[float, float], ...] = ()


def record(state: LiveState, action: RecordSong, t: float, moves: Moves) -> LiveState:
    """Begin to record, or end it: what was taken stays until it is asked for."""
    song = songs.current(state)
    if not action.on:
        return state if song is None else with_song(state, replace(song, recording=ended(song, t)))
    timeline = songs.named(state, action.timeline)
    if not any(one.armed and not one.muted for one in timeline.tracks):
        raise ZarabandaError("No track is armed: arm those that shall record, then record again.", "timeline")
    if song is None or song.id != timeline.id:
        raise ZarabandaError("Go to where recording shall begin first, or play the song.", "timeline")
    return with_song(state, replace(song, recording=Recording(song.transport.position_at(t))))


def ended(song: Song, t: float) -> Recording | None:
    """A recording up to where the song is."""
    if song.recording is None:
        return None
    here = max(song.transport.position_at(t), song.done)
    return replace(song.recording, spans=(*song.recording.spans, (song.recording.since, here)), since=here)


def taking(song: Song, action: AnyAction, subject: str, p: float) -> Song:
    """With something noted that a hand has done at a position, on tracks that are armed for it."""
    timeline = songs.timeline_of(song.inner, song.id)
    if song.recording is None or timeline is None or not song.plays:
        return song
    found = _what(song.inner, action)
    if found is None:
        return song
    tracks = [one for one in timeline.tracks if one.armed and plain(one.subject, song.inner.program) == subject]
    fitting = [one for one in tracks if one.kind == _KINDS[found["what"]]]
    taken = tuple(Taken(one.id, p, **found) for one in fitting)
    return replace(song, recording=replace(song.recording, taken=(*song.recording.taken, *taken))) if taken else song


_KINDS = {"cue": "cues", "down": "presses", "up": "presses", "on": "presses", "off": "presses", "level": "levels"}


def _what(inner: LiveState, action: AnyAction) -> dict[str, Any] | None:
    """What a hand's action was, once it is done: absolute, not “the other way”."""
    if isinstance(action, Go | Back | GoTo):
        cue = cue_lists.list_state(inner, action.list).cue
        return {"what": "cue", "cue": cue} if cue is not None else None
    if isinstance(action, Level | ListLevel | RowLevel | RowDepth | OverlayLevel):
        return {"what": "level", "value": action.value}
    if isinstance(action, PressOverlay):
        return {"what": "on" if action.on else "off"}
    if not isinstance(action, Press | PressPad | PressFlash):
        return None
    if isinstance(action, Press) and inner.program.controls[action.control].mode == "latch":
        on = controls.is_on(inner, inner.program.controls[action.control])
        return {"what": "on" if on else "off"} if action.down else None
    pad = inner.program.rows[action.row].pads.get(action.pad) if isinstance(action, PressPad) else None
    if pad is not None and pad.players and not pad.while_held:
        return {"what": "on" if rows.is_on(inner, pad) else "off"} if action.down else None
    return {"what": "down" if action.down else "up", "holder": action.holder}
