"""Songs on stage, as they are written into the journal, and back, with all that they play: no song is played again from its
beginning while the lights wait."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

import msgspec

from zarabanda.core.timecode.timeline import Timeline
from zarabanda.core.timecode.transport import Transport
from zarabanda.messages import AnyAction

from . import kept_stage
from .kept_stage import StageEntry
from .live.advance import MOVES
from .live.ahead import Ahead
from .live.folding import song_at
from .live.hands import Hand
from .live.songs import Song
from .live.state import LiveState
from .program import Program


class HandEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `hands.Hand`."""

    since: float
    action: AnyAction | None


class SongEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `songs.Song`. inner: what it played at the position `done`; at, position, transport_speed: of its transport."""

    id: int
    inner: StageEntry
    done: float
    at: float
    position: float
    transport_speed: float
    speed: float
    hands: dict[str, HandEntry]
    touched: list[str]
    loop: tuple[float, float] | None
    leaving: bool
    follows: bool
    stands_since: float | None


def written(songs: Sequence[Song]) -> list[SongEntry]:
    """Songs as entries."""
    return [
        SongEntry(
            one.id, kept_stage.written(one.inner), one.done, one.transport.at, one.transport.position, one.transport.speed,
            one.speed,
            {subject: HandEntry(hand.since, hand.action) for subject, hand in one.hands.items()}, sorted(one.touched), one.loop,
            one.leaving, one.follows, one.ahead.stands_since,
        )
        for one in songs
    ]  # fmt: skip


def read(entries: Iterable[SongEntry], state: LiveState, moved: float) -> LiveState:
    """A state with the songs that were on stage, with all times moved. What came meanwhile is done by what follows."""
    songs = []
    for entry in entries:
        timeline = state.program.timelines.get(entry.id)
        if timeline is None:
            continue
        hands = {subject: Hand(one.since + moved, one.action) for subject, one in entry.hands.items()}
        transport = Transport(entry.at + moved, min(max(entry.position, 0.0), timeline.length), entry.transport_speed)
        stood = entry.stands_since
        ahead = Ahead() if stood is None else Ahead(stood + moved, timeline.grid.bpm_at(entry.done))
        songs.append(
            Song(
                entry.id, transport, _inner(entry, state.program, timeline), entry.done, entry.speed, hands,
                frozenset(entry.touched), entry.loop, entry.leaving, ahead, follows=entry.follows,
            )
        )  # fmt: skip
    return state.with_(songs=tuple(songs))


def _inner(entry: SongEntry, program: Program, timeline: Timeline) -> LiveState:
    """What a song played; on another rig than it was written on: what it is where it was."""
    claims = kept_stage.claims_read(entry.inner, program.for_songs, entry.done, moved=0.0)
    if claims is None:
        return song_at(program, timeline, entry.done, frozenset(entry.hands), MOVES)
    inner = kept_stage.read(entry.inner, program.for_songs, moved=0.0).with_(claims=claims, grid=timeline.grid, opened=True)
    return kept_stage.settled(inner, entry.done)


def times(entries: Iterable[SongEntry]) -> list[float]:
    """All numbers that must be finite."""
    found = [value for one in entries for value in msgspec.structs.astuple(one) if isinstance(value, float)]
    found += [hand.since for one in entries for hand in one.hands.values()]
    return found + [value for one in entries for value in kept_stage.times(one.inner)]
