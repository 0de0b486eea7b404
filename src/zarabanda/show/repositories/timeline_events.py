"""Events of timelines: made, moved, copied, quantised, and time put in or taken out."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError
from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.errors import NotThere, ZarabandaError
from zarabanda.formats.effect_document import faults
from zarabanda.formats.timeline_document import EVENTS, MessageEvent

from ..tables import EventRow, MarkerRow, TimelineRow, TrackRow
from . import messages, timelines
from .rows import get

MOST = 20_000
_TICK = 6
"""Positions are kept to the millionth of a second."""


@dataclass(frozen=True)
class NewEvent:
    """An event that is to be made. document: as plain data."""

    track_id: int
    at: float
    length: float
    document: dict[str, Any]


def of_timeline(session: Session, timeline: int) -> Sequence[EventRow]:
    """All events of a song, by their position."""
    query = select(EventRow).join(TrackRow, EventRow.track_id == TrackRow.id).where(TrackRow.timeline_id == timeline)
    return session.scalars(query.order_by(EventRow.at, EventRow.id)).all()


def _track(session: Session, number: int, *, free: bool = True) -> TrackRow:
    row = get(session, TrackRow, number, "track")
    if free and row.document.get("locked"):
        raise ZarabandaError(f"The track “{row.document['name']}” is locked. Unlock it first.", "track")
    return row


def _length_of(session: Session, track: TrackRow) -> float:
    return timelines.document_of(get(session, TimelineRow, track.timeline_id, "song")).length_s


def _placed(at: float, length: float, total: float, place: str) -> float:
    if not 0 <= at <= total:
        raise ZarabandaError(f"{at:.3f} s is not within the song, which is {total:g} s long.", place)
    if length < 0:
        raise ZarabandaError(f"{length:.3f} s is no length; give 0 s or more.", place)
    return round(at, _TICK)


def _document(session: Session, kind: str, document: dict[str, Any], place: str) -> dict[str, Any]:
    try:
        read = EVENTS[kind].model_validate(document)
    except ValidationError as error:
        where, what = faults(error)[0]
        raise ZarabandaError(f"{place}.document.{where}: {what}.", f"{place}.document") from error
    if isinstance(read, MessageEvent):
        messages.must_fit(session, [read.message])
    return read.model_dump(mode="json")


def add(session: Session, events: Iterable[NewEvent], *, free: bool = True) -> list[EventRow]:
    """New events. free: refuse those on locked tracks."""
    made = []
    for n, one in enumerate(events):
        track = _track(session, one.track_id, free=free)
        at = _placed(one.at, one.length, _length_of(session, track), f"events.{n}.at")
        document = _document(session, track.document["kind"], one.document, f"events.{n}")
        row = EventRow(track_id=track.id, at=at, length=round(one.length, _TICK), document=document)
        session.add(row)
        made.append(row)
    session.flush()
    for number in {row.track_id for row in made}:
        song = get(session, TrackRow, number, "track").timeline_id
        if timelines.counts(session).get(song, 0) > MOST:
            raise ZarabandaError(f"{MOST} events are the most a song can have. Take some out.", "events")
    return made


def rows_of(session: Session, numbers: Sequence[int], *, free: bool = True) -> list[EventRow]:
    """Events by number, by their position. free: refuse those on locked tracks."""
    wanted = list(dict.fromkeys(numbers))
    found = {row.id: row for row in session.scalars(select(EventRow).where(EventRow.id.in_(wanted)))}
    missing = [number for number in wanted if number not in found]
    if missing:
        raise NotThere("An event does not exist any more; somebody may have deleted it. Undo brings it back.", "events")
    for number in {row.track_id for row in found.values()}:
        _track(session, number, free=free)
    return sorted(found.values(), key=lambda row: (row.at, row.id))


@dataclass(frozen=True)
class Change:
    """What of an event becomes another."""

    id: int
    at: float | None = None
    length: float | None = None
    track_id: int | None = None
    document: dict[str, Any] | None = None


def change(session: Session, changes: Sequence[Change]) -> list[EventRow]:
    """Events elsewhere, or otherwise."""
    rows = {row.id: row for row in rows_of(session, [one.id for one in changes])}
    for n, one in enumerate(changes):
        row = rows[one.id]
        track = _track(session, row.track_id)
        if one.track_id is not None and one.track_id != row.track_id:
            other = _track(session, one.track_id)
            if other.document["kind"] != track.document["kind"]:
                raise ZarabandaError("An event can move to a track of its own kind alone.", f"changes.{n}.track_id")
            row.track_id, track = other.id, other
        at, length = row.at if one.at is None else one.at, row.length if one.length is None else one.length
        row.at = _placed(at, length, _length_of(session, track), f"changes.{n}.at")
        row.length = round(length, _TICK)
        if one.document is not None:
            row.document = _document(session, track.document["kind"], one.document, f"changes.{n}")
    session.flush()
    return list(rows.values())


def remove(session: Session, numbers: Sequence[int]) -> int:
    """Without some events; how many those were."""
    rows = rows_of(session, numbers)
    for row in rows:
        session.delete(row)
    return len(rows)


def moved(session: Session, numbers: Sequence[int], to: Callable[[float], float]) -> list[EventRow]:
    """Events each where a function says; none leaves the song."""
    rows = rows_of(session, numbers)
    for row in rows:
        total = _length_of(session, get(session, TrackRow, row.track_id, "track"))
        row.at = round(min(max(to(row.at), 0.0), total), _TICK)
    session.flush()
    return rows


def copied(session: Session, numbers: Sequence[int], at: float, timeline: int) -> list[EventRow]:
    """Copies of events, the first at a position of a song: on tracks that drive the same there, made where there are none."""
    rows = rows_of(session, numbers, free=False)
    there = list(timelines.tracks(session, timeline))
    first, made = rows[0].at if rows else 0.0, list[NewEvent]()
    for row in rows:
        track = get(session, TrackRow, row.track_id, "track")
        onto = next((one for one in there if one.id == track.id), None) or next(
            (one for one in there if (one.document["kind"], one.document["drives"])
             == (track.document["kind"], track.document["drives"])), None,
        )  # fmt: skip
        if onto is None:
            document = timelines.track_of(track).model_copy(update={"locked": False, "armed": False})
            onto = timelines.add_track(session, timeline, document)
            there.append(onto)
        made.append(NewEvent(onto.id, row.at - first + at, row.length, dict(row.document)))
    return add(session, made)


def with_time(session: Session, timeline: int, at: float, seconds: float) -> int:
    """With time put in at a position, or, below 0, taken out: events and markers in what goes away go with it. How many moved."""
    row = get(session, TimelineRow, timeline, "song")
    document = timelines.document_of(row)
    length = document.length_s + seconds
    if length < 1 or not 0 <= at <= document.length_s or at - min(seconds, 0) > document.length_s + 1e-6:
        raise ZarabandaError(
            f"{-seconds:g} s cannot be taken out at {at:g} s: the song is {document.length_s:g} s long.", "seconds"
        )
    locked = next((one for one in timelines.tracks(session, timeline) if one.document.get("locked")), None)
    if locked is not None:
        raise ZarabandaError(
            f"The track “{locked.document['name']}” is locked, and its events could not move along. Unlock it.", "at"
        )
    row.document = document.model_copy(update={"length_s": length}).model_dump(mode="json")
    count = 0
    every: list[EventRow | MarkerRow] = [*of_timeline(session, timeline), *timelines.markers(session, timeline)]
    for one in every:
        if seconds < 0 and at <= one.at < at - seconds:
            session.delete(one)
        elif one.at >= at:
            one.at, count = round(one.at + seconds, _TICK), count + 1
    session.flush()
    return count
