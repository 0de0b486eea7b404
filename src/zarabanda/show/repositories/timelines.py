"""Timelines in their running order, with their markers and tracks."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda.errors import InUse, ZarabandaError
from zarabanda.formats.timeline_document import MarkerDocument, TimelineDocument, TrackDocument

from ..tables import EventRow, MarkerRow, TimelineRow, TrackRow
from .rows import get, own_name, place_in_order

MOST, MOST_TRACKS, MOST_MARKERS = 200, 120, 500


def every(session: Session) -> Sequence[TimelineRow]:
    """Timelines in their running order."""
    return session.scalars(select(TimelineRow).order_by(TimelineRow.position, TimelineRow.id)).all()


def document_of(row: TimelineRow) -> TimelineDocument:
    """Its document, read."""
    return TimelineDocument.model_validate(row.document)


def _range_is_free(session: Session, name: str, document: TimelineDocument, but: int = 0) -> None:
    """Refuse a range of timecode that another song has: an incoming label must choose one."""
    begins, ends = document.begins, document.begins + document.length_s
    for row in every(session):
        other = document_of(row)
        if (
            row.id != but
            and document.clock == other.clock == "MTC"
            and begins < other.begins + other.length_s
            and other.begins < ends
        ):
            text = f"The timecode of “{row.name}” ({other.starts_at}, {other.length_s:g} s) overlaps with that of “{name}”"
            raise InUse(f"{text}. Let one of them start elsewhere, or on its own clock.", "document.starts_at")


def add(session: Session, name: str, document: TimelineDocument) -> TimelineRow:
    """A new timeline, last in the running order."""
    there = every(session)
    if len(there) >= MOST:
        raise ZarabandaError(f"{MOST} songs are the most there can be. Delete one.", "timelines")
    _range_is_free(session, name, document)
    position = max((one.position for one in there), default=-1) + 1
    row = TimelineRow(
        name=own_name(session, TimelineRow, name, "a song"), position=position, document=document.model_dump(mode="json")
    )
    session.add(row)
    session.flush()
    return row


def change(session: Session, number: int, name: str, document: TimelineDocument) -> TimelineRow:
    """Another name or document."""
    row = get(session, TimelineRow, number, "song")
    _range_is_free(session, name, document, number)
    row.name, row.document = own_name(session, TimelineRow, name, "a song", but=number), document.model_dump(mode="json")
    session.flush()
    return row


def remove(session: Session, number: int) -> TimelineRow:
    """Without a timeline, and all that is on it."""
    row = get(session, TimelineRow, number, "song")
    for track in tracks(session, number):
        _without_events(session, track)
        session.delete(track)
    for marker in markers(session, number):
        session.delete(marker)
    session.flush()
    session.delete(row)
    return row


def arrange(session: Session, order: Sequence[int]) -> None:
    """Another running order; what is not named comes last."""
    place_in_order(every(session), order)


# markers


def markers(session: Session, timeline: int) -> Sequence[MarkerRow]:
    """The parts of a song, in their order."""
    return session.scalars(
        select(MarkerRow).where(MarkerRow.timeline_id == timeline).order_by(MarkerRow.at, MarkerRow.id)
    ).all()  # fmt: skip


def _within(session: Session, timeline: int, at: float, length: float, place: str) -> None:
    total = document_of(get(session, TimelineRow, timeline, "song")).length_s
    if at + length > total + 1e-6:
        raise ZarabandaError(f"{at + length:.2f} s is behind the end of the song, which is {total:g} s long.", place)


def add_marker(session: Session, timeline: int, document: MarkerDocument) -> MarkerRow:
    """A new marker."""
    if len(markers(session, timeline)) >= MOST_MARKERS:
        raise ZarabandaError(f"{MOST_MARKERS} markers are the most a song can have. Delete one.", "markers")
    _within(session, timeline, document.at, document.length, "at")
    row = MarkerRow(timeline_id=timeline, **document.model_dump())
    session.add(row)
    session.flush()
    return row


def change_marker(session: Session, number: int, document: MarkerDocument) -> MarkerRow:
    """A marker elsewhere, or called otherwise."""
    row = get(session, MarkerRow, number, "marker")
    _within(session, row.timeline_id, document.at, document.length, "at")
    row.at, row.length, row.name, row.colour = document.at, document.length, document.name, document.colour
    return row


def replace_markers(session: Session, timeline: int, documents: Iterable[MarkerDocument]) -> int:
    """All markers of a song anew; how many there are now."""
    get(session, TimelineRow, timeline, "song")
    for row in markers(session, timeline):
        session.delete(row)
    session.flush()
    return len([add_marker(session, timeline, one) for one in documents])


# tracks


def tracks(session: Session, timeline: int) -> Sequence[TrackRow]:
    """The tracks of a song, in their order."""
    return session.scalars(
        select(TrackRow).where(TrackRow.timeline_id == timeline).order_by(TrackRow.position, TrackRow.id)
    ).all()  # fmt: skip


def track_of(row: TrackRow) -> TrackDocument:
    """Its document, read."""
    return TrackDocument.model_validate(row.document)


def add_track(session: Session, timeline: int, document: TrackDocument) -> TrackRow:
    """A new track, below those of its group."""
    get(session, TimelineRow, timeline, "song")
    there = tracks(session, timeline)
    if len(there) >= MOST_TRACKS:
        raise ZarabandaError(f"{MOST_TRACKS} tracks are the most a song can have. Delete one.", "tracks")
    _drives_alone(there, document)
    position = max((one.position for one in there), default=-1) + 1
    row = TrackRow(timeline_id=timeline, position=position, document=document.model_dump(mode="json"))
    session.add(row)
    session.flush()
    return row


def _drives_alone(there: Iterable[TrackRow], document: TrackDocument, but: int = 0) -> None:
    """Refuse two tracks of one kind on one thing: which of them it follows could not be seen."""
    same = next(
        (one for one in there if one.id != but and one.document["kind"] == document.kind
         and one.document["drives"] == document.drives), None,
    )  # fmt: skip
    if same is not None and document.kind != "messages":
        raise InUse(f"The track “{same.document['name']}” drives this already. Record on that one.", "document.drives")


def change_track(session: Session, number: int, document: TrackDocument) -> TrackRow:
    """Another document; what kind it is stays."""
    row = get(session, TrackRow, number, "track")
    if document.kind != row.document["kind"]:
        raise ZarabandaError("What kind of events a track has cannot be changed. Make another track.", "document.kind")
    _drives_alone(tracks(session, row.timeline_id), document, number)
    row.document = document.model_dump(mode="json")
    return row


def _without_events(session: Session, row: TrackRow) -> None:
    for event in session.scalars(select(EventRow).where(EventRow.track_id == row.id)):
        session.delete(event)
    session.flush()


def remove_track(session: Session, number: int) -> TrackRow:
    """Without a track, and what is on it."""
    row = get(session, TrackRow, number, "track")
    _without_events(session, row)
    session.delete(row)
    return row


def arrange_tracks(session: Session, timeline: int, order: Sequence[int]) -> None:
    """Another order of tracks."""
    place_in_order(tracks(session, timeline), order)


def counts(session: Session) -> dict[int, int]:
    """How many events each song has."""
    query = select(TrackRow.timeline_id, func.count(EventRow.id)).join(EventRow, EventRow.track_id == TrackRow.id)
    return {row[0]: row[1] for row in session.execute(query.group_by(TrackRow.timeline_id))}
