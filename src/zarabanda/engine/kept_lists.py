"""Cue lists, specials and what plays, as they are written into the journal, and back."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import fields, replace
from typing import Any

import msgspec

from zarabanda.core.playback.specials import Gate, Specials
from zarabanda.messages import PlayerId

from .live.cue_lists import FollowOn, ListState
from .live.playing import Fade, Glide, Playing
from .live.sending import Waiting
from .program import Instance


class FollowOnEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `cue_lists.FollowOn`."""

    cue: int | None
    due: float
    beat: float | None
    tempo: int | None


class WaitingEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `sending.Waiting`."""

    cue: int
    place: int
    due: float


class ListEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `cue_lists.ListState`."""

    cue: int | None
    went_at: float
    chosen: int | None
    follow_on: FollowOnEntry | None
    paused_at: float | None
    level: float
    rounds: int
    backwards: bool
    waiting: list[WaitingEntry]


class GateEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `specials.Gate`."""

    side: int
    wanted: int
    level: float
    at: float
    out: float
    move: float
    up: float
    opens: float | None
    goal: tuple[float, float]
    came_from: int


class SpecialsEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `specials.Specials`."""

    on: list[int]
    gates: dict[str, GateEntry]
    level: float


class FadeEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `playing.Fade`."""

    start: float
    end: float
    at: float
    seconds: float
    ease: str
    earlier: FadeEntry | None
    paused_at: float


class PlayingEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `playing.Playing`. instance: the key of what it plays."""

    key: PlayerId
    instance: PlayerId
    started: float
    started_beat: float
    level: float
    fades: list[FadeEntry]
    shift: float
    rate: float
    glide: tuple[float, float, float] | None
    layer_shifts: list[float]
    frozen: float | None
    part: list[tuple[str, str]]
    only: bool
    cue: int
    silenced: list[int]
    hand: FadeEntry
    hand_speed: float


def lists_written(lists: Mapping[int, ListState]) -> dict[int, ListEntry]:
    """Where lists are, as entries."""
    return {
        number: ListEntry(
            one.cue, one.went_at, one.chosen,
            None if one.follow_on is None else FollowOnEntry(*_values(one.follow_on)),
            one.paused_at, one.level, one.rounds, one.backwards, [WaitingEntry(*_values(message)) for message in one.waiting],
        )
        for number, one in lists.items()
    }  # fmt: skip


def lists_read(entries: Mapping[int, ListEntry], moved: float) -> dict[int, ListState]:
    """Where lists were, with all times moved."""
    found = {}
    for number, entry in entries.items():
        follow_on = None if entry.follow_on is None else FollowOn(*msgspec.structs.astuple(entry.follow_on))
        if follow_on is not None:
            follow_on = replace(follow_on, due=follow_on.due + moved)
        paused_at = None if entry.paused_at is None else entry.paused_at + moved
        found[number] = ListState(
            entry.cue, entry.went_at + moved, entry.chosen, follow_on, paused_at, entry.level, entry.rounds, entry.backwards,
            tuple(Waiting(one.cue, one.place, one.due + moved) for one in entry.waiting),
        )  # fmt: skip
    return found


def specials_written(specials: Specials) -> SpecialsEntry:
    """Specials as an entry."""
    gates = {head: GateEntry(*_values(gate)) for head, gate in specials.gates.items()}
    return SpecialsEntry(list(specials.on), gates, specials.level)


def specials_read(entry: SpecialsEntry, moved: float) -> Specials:
    """Specials as they were, with all times moved."""
    gates = {}
    for head, one in entry.gates.items():
        gate = Gate(*msgspec.structs.astuple(one))
        gates[head] = replace(gate, at=gate.at + moved, opens=None if gate.opens is None else gate.opens + moved)
    return Specials(tuple(entry.on), gates, entry.level)


def playing_written(playing: Mapping[PlayerId, Playing]) -> list[PlayingEntry]:
    """What plays, as entries."""
    return [
        PlayingEntry(
            key, one.instance.key, one.started, one.started_beat, one.level, [fade_written(fade) for fade in one.fades],
            one.shift, one.rate, None if one.glide is None else (one.glide.before, one.glide.begin, one.glide.length),
            list(one.layer_shifts), one.frozen, sorted(one.part), one.only, one.cue,
            sorted(one.silenced), fade_written(one.hand), one.hand_speed,
        )
        for key, one in playing.items()
    ]  # fmt: skip


def playing_read(
    entries: Iterable[PlayingEntry], instances: Mapping[PlayerId, Instance], moved: float
) -> dict[PlayerId, Playing]:
    """What played, with all times moved; without what is not there any more."""
    found = {}
    for entry in entries:
        instance = instances.get(entry.instance)
        if instance is None:
            continue
        fades = [fade_read(one, moved) for one in entry.fades]
        found[entry.key] = Playing(
            instance, entry.started + moved, entry.started_beat, entry.level, tuple(fades), entry.shift, entry.rate,
            None if entry.glide is None else Glide(*entry.glide), tuple(entry.layer_shifts), entry.frozen,
            frozenset(entry.part), entry.only, entry.cue, frozenset(entry.silenced),
            fade_read(entry.hand, moved), entry.hand_speed,
        )  # fmt: skip
    return found


def fade_written(fade: Fade) -> FadeEntry:
    """A fade as an entry."""
    earlier = None if fade.earlier is None else fade_written(fade.earlier)
    return FadeEntry(fade.start, fade.end, fade.at, fade.seconds, fade.ease, earlier, fade.paused_at)


def fade_read(entry: FadeEntry, moved: float) -> Fade:
    """A fade as it was, with its times moved."""
    earlier = None if entry.earlier is None else fade_read(entry.earlier, moved)
    return Fade(entry.start, entry.end, entry.at + moved, entry.seconds, entry.ease, earlier, entry.paused_at + moved)


def _values(record: Any) -> list[Any]:
    return [getattr(record, field.name) for field in fields(record)]


def times(lists: Mapping[int, ListEntry], specials: SpecialsEntry, playing: Iterable[PlayingEntry]) -> list[float]:
    """All numbers that must be finite."""
    found: list[object] = [specials.level]
    for one in lists.values():
        found += [message.due for message in one.waiting]
        found += [*msgspec.structs.astuple(one), *(msgspec.structs.astuple(one.follow_on) if one.follow_on else ())]
    for gate in specials.gates.values():
        found += [*msgspec.structs.astuple(gate), *gate.goal]
    for entry in playing:
        found += [*msgspec.structs.astuple(entry), *(entry.glide or ())]
        for fade in (*entry.fades, entry.hand):
            found += [fade.start, fade.end, fade.at, fade.seconds]
    return [value for value in found if isinstance(value, float)]
