"""Events of songs: made, moved, quantised, copied, deleted; time put in and taken out."""

from __future__ import annotations

from collections.abc import Iterable

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy.orm import Session

from zarabanda.core.timecode import smpte
from zarabanda.engine.timelines import grid_of
from zarabanda.errors import ZarabandaError
from zarabanda.show import recorded_song, repositories
from zarabanda.show.repositories.timeline_events import Change, NewEvent
from zarabanda.show.repositories.timelines import document_of
from zarabanda.show.tables import EventRow, TimelineRow, TrackRow

from ..context import browser_id, context
from ..parts import Done
from .timeline_models import (
    ChosenEvents,
    CopyEvents,
    EventChanges,
    EventsEdited,
    KeepRecording,
    NewEvents,
    NudgeEvents,
    QuantiseEvents,
    TimeBody,
    TimelinePath,
)
from .timelines import Wording

api = APIBlueprint("timeline_events", __name__, url_prefix="/api/timelines", abp_tags=[Tag(name="timelines")])


def edited(session: Session, done: str, rows: Iterable[EventRow], gone: Iterable[int] = ()) -> EventsEdited:
    """What an edit of events has done."""
    every = list(rows)
    session.flush()
    wording = Wording(session, every)
    return EventsEdited(done=done, events=[wording.view(row) for row in every], gone=list(gone))


def kept(answer: EventsEdited) -> EventsEdited:
    """An answer once its edit is kept: with the revision that it made."""
    answer.revision = context().link.revision
    return answer


def counted(count: int) -> str:
    """So many events, in words."""
    return "1 event" if count == 1 else f"{count} events"


@api.post("/events", responses={201: EventsEdited})
def make_events(body: NewEvents) -> tuple[EventsEdited, int]:
    """Make events."""
    with context().store.edit(browser_id(), f"Make {counted(len(body.events))}") as session:
        new = [NewEvent(one.track_id, one.at, one.length, one.document) for one in body.events]
        rows = repositories.timeline_events.add(session, new)
        answer = edited(session, f"Made {counted(len(rows))}", rows)
    return kept(answer), 201


@api.post("/events/change", responses={200: EventsEdited})
def change_events(body: EventChanges) -> EventsEdited:
    """Move events, or make them otherwise: all in one step."""
    with context().store.edit(browser_id(), body.words) as session:
        changes = [Change(one.id, one.at, one.length, one.track_id, one.document) for one in body.changes]
        rows = repositories.timeline_events.change(session, changes)
        answer = edited(session, f"Changed {counted(len(rows))}", rows)
    return kept(answer)


@api.post("/events/delete", responses={200: EventsEdited})
def delete_events(body: ChosenEvents) -> EventsEdited:
    """Delete events."""
    with context().store.edit(browser_id(), f"Delete {counted(len(body.events))}") as session:
        count = repositories.timeline_events.remove(session, body.events)
        answer = edited(session, f"Deleted {counted(count)}", [], body.events)
    return kept(answer)


@api.post("/events/nudge", responses={200: EventsEdited})
def nudge_events(body: NudgeEvents) -> EventsEdited:
    """Move events by a time."""
    with context().store.edit(browser_id(), f"Move {counted(len(body.events))}") as session:
        rows = repositories.timeline_events.moved(session, body.events, lambda at: at + body.seconds)
        answer = edited(session, f"Moved {counted(len(rows))}", rows)
    return kept(answer)


def _song_of(session: Session, events: list[int]) -> TimelineRow:
    if not events:
        raise ZarabandaError("Choose some events first.", "events")
    row = repositories.timeline_events.rows_of(session, events[:1], free=False)[0]
    track = repositories.rows.get(session, TrackRow, row.track_id, "track")
    return repositories.rows.get(session, TimelineRow, track.timeline_id, "song")


@api.post("/events/quantise", responses={200: EventsEdited})
def quantise_events(body: QuantiseEvents) -> EventsEdited:
    """Bring events towards the nearest beat, bar or frame."""
    with context().store.edit(browser_id(), f"Quantise {counted(len(body.events))}") as session:
        song = _song_of(session, body.events)
        grid, rate = grid_of(song.document["grid"]), smpte.RATES[document_of(song).rate]

        def near(at: float) -> float:
            if body.unit == "frame":
                return float(round(at * rate.per_second) / rate.per_second)
            return grid.near(at, body.unit)

        rows = repositories.timeline_events.moved(session, body.events, lambda at: at + body.strength * (near(at) - at))
        answer = edited(session, f"Quantised {counted(len(rows))}", rows)
    return kept(answer)


@api.post("/<int:timeline_id>/events/copy", responses={200: EventsEdited})
def copy_events(path: TimelinePath, body: CopyEvents) -> EventsEdited:
    """Copy events to a position of this song, also from another; without one: to its next marker."""
    with context().store.edit(browser_id(), f"Copy {counted(len(body.events))}") as session:
        at = body.at
        if at is None:
            chosen = repositories.timeline_events.rows_of(session, body.events, free=False)
            first = chosen[0].at if chosen else 0.0
            later = [one.at for one in repositories.timelines.markers(session, path.timeline_id) if one.at > first + 1e-6]
            if not later:
                raise ZarabandaError("No marker follows these events. Make one, or paste at the playhead.", "events")
            at = later[0]
        rows = repositories.timeline_events.copied(session, body.events, at, path.timeline_id)
        if body.cut:
            repositories.timeline_events.remove(session, body.cut)
        answer = edited(session, f"{'Moved' if body.cut else 'Copied'} {counted(len(rows))}", rows, body.cut)
    return kept(answer)


@api.post("/<int:timeline_id>/recording", responses={200: EventsEdited})
def keep_recording(path: TimelinePath, body: KeepRecording) -> EventsEdited:
    """Make events of what was recorded since recording began, and end that."""
    found = context().link.questions.taken_of(path.timeline_id)
    if not found.spans:
        raise ZarabandaError("Nothing was recorded: arm a track, record, and play.", "timeline")
    with context().store.edit(browser_id(), "Record") as session:
        made = recorded_song.add(session, path.timeline_id, found.taken, found.spans, replaces=body.replaces)
        gone = f", in the place of {counted(len(made.gone))}" if made.gone else ""
        answer = edited(session, f"Recorded {counted(len(made.events))}{gone}", made.events, made.gone)
    return kept(answer)


@api.post("/<int:timeline_id>/time", responses={200: Done})
def change_time(path: TimelinePath, body: TimeBody) -> Done:
    """Put time in, or take it out: all that follows moves along."""
    words = f"Insert {body.seconds:g} s" if body.seconds > 0 else f"Remove {-body.seconds:g} s"
    with context().store.edit(browser_id(), words) as session:
        count = repositories.timeline_events.with_time(session, path.timeline_id, body.at, body.seconds)
        return Done(done=f"{words}: {counted(count)} and markers moved")
