"""Songs on stage, as they are written into the journal, and back: where each is says all of what it plays."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace

import msgspec

from zarabanda.core.timecode.transport import Transport
from zarabanda.messages import AnyAction

from .live.advance import MOVES
from .live.ahead import Ahead
from .live.folding import song_at
from .live.hands import Hand
from .live.songs import Song, with_taken_tempos
from .live.state import LiveState
from .live.tempo import Tempo


class HandEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `hands.Hand`."""

    since: float
    action: AnyAction | None


class SongEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `songs.Song`. tempos: that hands have taken, in BPM."""

    id: int
    at: float
    position: float
    transport_speed: float
    speed: float
    hands: dict[str, HandEntry]
    touched: list[str]
    loop: tuple[float, float] | None
    follows: bool
    stands_since: float | None
    tempos: dict[int, float]


def written(songs: Sequence[Song]) -> list[SongEntry]:
    """Songs that are not going out, as entries."""
    return [
        SongEntry(
            one.id, one.transport.at, one.transport.position, one.transport.speed, one.speed,
            {subject: HandEntry(hand.since, hand.action) for subject, hand in one.hands.items()}, sorted(one.touched), one.loop,
            one.follows, one.ahead.stands_since, {number: own.bpm for number, own in one.inner.tempos.items()},
        )
        for one in songs
        if not one.leaving
    ]  # fmt: skip


def read(entries: Iterable[SongEntry], state: LiveState, moved: float) -> LiveState:
    """A state with the songs that were on stage, with all times moved. What came meanwhile is done by what follows."""
    for entry in entries:
        timeline = state.program.timelines.get(entry.id)
        if timeline is None:
            continue
        p = min(max(entry.position, 0.0), timeline.length)
        inner = song_at(state.program, timeline, p, frozenset(entry.hands), MOVES)
        inner = inner.with_(outbox=replace(inner.outbox, messages=()), page=None)
        for hand in entry.hands.values():
            if hand.action is not None:
                inner = MOVES.redone(inner, hand.action, p)
        stood = entry.stands_since
        ahead = Ahead() if stood is None else Ahead(stood + moved, timeline.grid.bpm_at(p))
        hands = {subject: Hand(one.since + moved, one.action) for subject, one in entry.hands.items()}
        song = Song(
            entry.id, Transport(entry.at + moved, p, entry.transport_speed), inner, p, entry.speed, hands,
            frozenset(entry.touched), entry.loop, follows=entry.follows, ahead=ahead,
        )  # fmt: skip
        taken = {number: Tempo(bpm) for number, bpm in entry.tempos.items()}
        song = replace(song, inner=with_taken_tempos(inner, taken, p))
        state = state.with_(songs=(*state.songs, song))
    return state


def times(entries: Iterable[SongEntry]) -> list[float]:
    """All numbers that must be finite."""
    found = [value for one in entries for value in msgspec.structs.astuple(one) if isinstance(value, float)]
    return found + [hand.since for one in entries for hand in one.hands.values()]
