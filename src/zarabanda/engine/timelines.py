"""Making timelines from parts of the show; a track that an edit leaves alone is not made again."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from zarabanda.core.timecode import smpte
from zarabanda.core.timecode.beat_grid import BeatGrid
from zarabanda.core.timecode.timeline import Event, Timeline, Track
from zarabanda.messages import EventPart, TimelinePart, TrackPart

from .messaging import timed_messages

SUBJECTS = frozenset({"timeline", "track", "event"})
"""Parts that timelines are made of."""


def grid_of(document: Mapping[str, Any]) -> BeatGrid:
    """A beat grid from its document."""
    changes = tuple((float(one["beat"]), float(one["bpm"])) for one in document.get("changes", ()))
    return BeatGrid(document.get("first_s", 0.0), changes or ((0.0, 120.0),), document.get("in_bar", 4))


def _events(part: EventPart) -> list[Event]:
    """What an event comes to: a message with a length ends by one of its own."""
    document = part.document
    if "message" in document:
        timed = timed_messages([document["message"]])
        return [Event(part.id, part.at + at, content=content) for at, content in timed]
    return [
        Event(
            part.id, part.at, part.length, document.get("cue") or 0, document.get("does", "hold"), document.get("value", 0.0)
        )
    ]  # fmt: skip


def _track(part: TrackPart, events: Iterable[EventPart]) -> Track:
    document = part.document
    made = sorted((one for event in events for one in _events(event)), key=lambda one: (one.at, one.id))
    if document["kind"] == "levels":  # two points at one place: the later one is meant
        made = [one for one, following in zip(made, [*made[1:], None], strict=True) if following is None or following.at > one.at]
    armed = document.get("armed", False) and not document.get("locked", False)
    return Track(part.id, document["kind"], document["drives"], made, document.get("muted", False), armed)


@dataclass(frozen=True, eq=False)
class _MadeTrack:
    part: TrackPart
    events: tuple[EventPart, ...]
    track: Track


class TimelineMaker:
    """Makes timelines, and keeps what it made of each part."""

    def __init__(self) -> None:
        self._tracks: dict[int, _MadeTrack] = {}
        self._timelines: dict[int, tuple[TimelinePart, Timeline]] = {}

    def made(
        self, timelines: Iterable[TimelinePart], tracks: Iterable[TrackPart], events: Iterable[EventPart]
    ) -> dict[int, Timeline]:
        """All timelines, in their running order."""
        by_track, by_timeline = defaultdict[int, list[EventPart]](list), defaultdict[int, list[Track]](list)
        for event in events:
            by_track[event.track_id].append(event)
        before, self._tracks = self._tracks, {}
        for part in sorted(tracks, key=lambda one: (one.position, one.id)):
            own, known = tuple(by_track[part.id]), before.get(part.id)
            if known is None or known.part is not part or not _same(known.events, own):
                known = _MadeTrack(part, own, _track(part, own))
            self._tracks[part.id] = known
            by_timeline[part.timeline_id].append(known.track)
        found = {}
        for one in sorted(timelines, key=lambda one: (one.position, one.id)):
            made = self._timelines.get(one.id)
            if made is None or made[0] is not one or not _same(made[1].tracks, by_timeline[one.id]):
                made = one, _timeline(one, by_timeline[one.id])
            found[one.id] = made
        self._timelines = found
        return {number: made for number, (_, made) in found.items()}


def _same(one: Iterable[object], other: Iterable[object]) -> bool:
    first, second = list(one), list(other)
    return len(first) == len(second) and all(a is b for a, b in zip(first, second, strict=True))


def _timeline(part: TimelinePart, tracks: list[Track]) -> Timeline:
    document = part.document
    rate = smpte.RATES[document.get("rate", "25")]
    begins = smpte.seconds_of(smpte.read(document.get("starts_at", "00:00:00:00"), rate), rate)
    return Timeline(
        part.id, part.name, document["length_s"], grid_of(document.get("grid", {})), tuple(tracks),
        document.get("begins_alone", True), document.get("keeps_moving", True), document.get("clock", "own") == "MTC",
        rate.name, begins, document.get("on_stop") == "goes on", document.get("on_jump") == "goes on",
    )  # fmt: skip
