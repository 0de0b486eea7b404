"""What hands did while a song recorded, as events on its tracks."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.timecode.recording import reduced
from zarabanda.messages import TakenTold

from .repositories import timeline_events, timelines
from .repositories.timeline_events import NewEvent
from .tables import EventRow, TimelineRow, TrackRow

Spans = Sequence[tuple[float, float]]


@dataclass(frozen=True)
class Made:
    """Events that were made, and numbers of those that they replaced."""

    events: list[EventRow]
    gone: list[int]


def add(session: Session, timeline: int, taken: Sequence[TakenTold], spans: Spans, *, replaces: bool) -> Made:
    """Events of what was taken. replaces: what was on armed tracks within the spans goes; levels always take the place of those
    within which they moved."""
    row = session.get(TimelineRow, timeline)
    document = timelines.document_of(row) if row is not None else None
    late = document.latency_s if document is not None else 0.0
    length = document.length_s if document is not None else 0.0
    tracks = {
        one.id: one for one in timelines.tracks(session, timeline) if one.document.get("armed") and not one.document["locked"]
    }
    gone, new = list[int](), list[NewEvent]()
    for number, track in tracks.items():
        own = [one for one in taken if one.track == number]
        within = [(begin - late, end - late) for begin, end in spans] if replaces else []
        if track.document["kind"] == "levels" and own:
            within += _moved_within(own, spans, late)
        gone += [event.id for event in _events(session, track) if any(begin <= event.at <= end for begin, end in within)]
        for one in _of_track(track, own, spans):
            new.append(NewEvent(number, min(max(one.at - late, 0.0), length), one.length, one.document))
    if gone:
        timeline_events.remove(session, gone)
    return Made(timeline_events.add(session, new), gone)


def _events(session: Session, track: TrackRow) -> Sequence[EventRow]:
    return session.scalars(select(EventRow).where(EventRow.track_id == track.id)).all()


def _moved_within(own: Sequence[TakenTold], spans: Spans, late: float) -> list[tuple[float, float]]:
    """From the first to the last move within each span."""
    found = []
    for begin, end in spans:
        at = [one.at for one in own if begin <= one.at <= end]
        if at:
            found.append((min(at) - late, max(at) - late))
    return found


def _of_track(track: TrackRow, own: Sequence[TakenTold], spans: Spans) -> list[NewEvent]:
    """Events of one track, with the positions as they were taken."""
    kind, number = track.document["kind"], track.id
    if kind == "cues":
        return [NewEvent(number, one.at, 0.0, {"cue": one.cue}) for one in own]
    if kind == "levels":
        found = []
        for begin, end in spans:
            latest = {one.at: one.value for one in own if begin <= one.at <= end}
            found += [NewEvent(number, at, 0.0, {"value": value}) for at, value in reduced(sorted(latest.items()))]
        return found
    return _presses(number, own, spans)


def _presses(number: int, own: Sequence[TakenTold], spans: Spans) -> list[NewEvent]:
    """Each press with its length; one that was still held is as long as its span."""
    found, down = list[NewEvent](), dict[str, float]()

    def held(begin: float, end: float) -> None:
        until = min([end, *(stop for start, stop in spans if start <= begin <= stop)])
        found.append(NewEvent(number, begin, max(until - begin, 0.0), {"does": "hold"}))

    for one in own:
        if one.what == "down":
            down.setdefault(one.holder, one.at)
        elif one.what == "up" and one.holder in down:
            held(down.pop(one.holder), one.at)
        elif one.what in ("on", "off"):
            found.append(NewEvent(number, one.at, 0.1, {"does": one.what}))
    for begin in down.values():
        held(begin, max((stop for _, stop in spans), default=begin))
    return found
