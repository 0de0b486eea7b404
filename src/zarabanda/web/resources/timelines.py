"""Songs on a time axis: the running order, each song whole, its markers, tracks and beat grid."""

from __future__ import annotations

from typing import Any

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.timecode import beat_grid, smpte
from zarabanda.core.timecode.beat_grid import BeatGrid
from zarabanda.engine.timelines import grid_of
from zarabanda.errors import ZarabandaError
from zarabanda.formats import markers_csv
from zarabanda.formats.cue_message import in_words
from zarabanda.formats.timeline_document import Grid, MarkerDocument, TempoChange, TimelineDocument, TrackDocument
from zarabanda.media_folder import MEDIA
from zarabanda.show import repositories
from zarabanda.show.repositories.timelines import document_of, track_of
from zarabanda.show.subjects import Subjects
from zarabanda.show.tables import CueRow, EventRow, MarkerRow, TimelineRow, TrackRow
from zarabanda.sound.media import Media

from ..context import browser_id, context
from ..parts import Done, Kept
from .timeline_models import (
    CueChoice,
    DrivablesView,
    DrivableView,
    GridBody,
    KeepTimeline,
    KindQuery,
    LatenessView,
    MarkerPath,
    MarkersText,
    MarkerView,
    RunningOrder,
    SongEventView,
    SongsView,
    SongView,
    TapsBody,
    TimelinePath,
    TimelineView,
    TrackPath,
    TrackView,
)

api = APIBlueprint("timelines", __name__, url_prefix="/api/timelines", abp_tags=[Tag(name="timelines")])


def media() -> Media:
    """The media folder of the show."""
    return Media(context().data / MEDIA)


def label_at(document: TimelineDocument, seconds: float) -> str:
    """The label of timecode at a position."""
    rate = smpte.RATES[document.rate]
    return smpte.text_at(smpte.seconds_of(smpte.read(document.starts_at, rate), rate) + seconds, rate)


@api.get("", responses={200: SongsView})
def get_timelines() -> SongsView:
    """All songs, in their running order."""
    with context().store.reading() as session:
        counts, found = repositories.timelines.counts(session), []
        for row in repositories.timelines.every(session):
            document = document_of(row)
            found.append(
                SongView(
                    id=row.id, name=row.name, length_s=document.length_s, bpm=document.grid.changes[0].bpm,
                    clock=document.clock, rate=document.rate, begins=document.starts_at,
                    ends=label_at(document, document.length_s), sound=document.sound.name if document.sound else "",
                    events=counts.get(row.id, 0),
                )
            )  # fmt: skip
        return SongsView(songs=found)


@api.post("", responses={201: Kept})
def make_timeline(body: KeepTimeline) -> tuple[Kept, int]:
    """Make a song."""
    with context().store.edit(browser_id(), f"Make the song {body.name}") as session:
        row = repositories.timelines.add(session, body.name, body.document)
        return Kept(id=row.id, done=f"Made {row.name}"), 201


@api.post("/order", responses={200: Done})
def arrange_timelines(body: RunningOrder) -> Done:
    """Another running order."""
    with context().store.edit(browser_id(), "Change the running order") as session:
        repositories.timelines.arrange(session, body.order)
    return Done(done="Changed the running order")


@api.put("/<int:timeline_id>", responses={200: Done})
def change_timeline(path: TimelinePath, body: KeepTimeline) -> Done:
    """Another name or other settings."""
    with context().store.edit(browser_id(), f"Change the song {body.name}") as session:
        row = repositories.timelines.change(session, path.timeline_id, body.name, body.document)
        return Done(done=f"Changed {row.name}")


@api.delete("/<int:timeline_id>", responses={200: Done})
def delete_timeline(path: TimelinePath) -> Done:
    """Delete a song with all that is on it. Undo brings it back."""
    with context().store.edit(browser_id(), "Delete a song") as session:
        return Done(done=f"Deleted {repositories.timelines.remove(session, path.timeline_id).name}")


# a song, whole


class Wording:
    """Events in words."""

    def __init__(self, session: Session, events: list[EventRow]) -> None:
        tracks = {row.track_id for row in events}
        query = select(TrackRow).where(TrackRow.id.in_(tracks))
        self._tracks = {row.id: track_of(row) for row in session.scalars(query)}
        cues = {row.document["cue"] for row in events if "cue" in row.document}
        name = CueRow.document["name"].as_string()
        query_cues = select(CueRow.id, CueRow.list_id, CueRow.number, name).where(CueRow.id.in_(cues))
        self._cues = {number: (of, place, called) for number, of, place, called in session.execute(query_cues)}
        self._names = repositories.messages.names(session) if any("message" in row.document for row in events) else {}
        subjects = Subjects(session)
        self._there = {number: bool(subjects.name(one.drives)) for number, one in self._tracks.items()}

    def view(self, row: EventRow) -> SongEventView:
        """An event as it is read."""
        track, document = self._tracks[row.track_id], row.document
        what, words, gone = "", "", not self._there[row.track_id]
        if track.kind == "cues":
            cue = self._cues.get(document["cue"])
            gone = gone or cue is None or f"list:{cue[0]}" != track.drives
            what, words = (f"{cue[1]:g}", cue[2] or "") if cue is not None else ("?", "a cue that is gone")
        elif track.kind == "presses":
            what = {"hold": f"{row.length:.2f} s", "on": "on", "off": "off"}[document["does"]]
            words = track.name
        elif track.kind == "levels":
            what, words = f"{100 * document['value']:g} %", track.name
        else:
            what, words = document["message"]["kind"], in_words(document["message"], self._names)
        return SongEventView(
            id=row.id, track_id=row.track_id, at=row.at, length=row.length, what=what, words=words, gone=gone, document=document
        )  # fmt: skip


def bars_of(grid: BeatGrid, length_s: float) -> tuple[int, list[float]]:
    """The first bar that begins within a song, counted from 1, and where it and those after it begin, s."""
    first = int(-(-grid.beats(0.0) // grid.in_bar))
    last = int(grid.beats(length_s) // grid.in_bar)
    return first + 1, [round(grid.time_of(bar * grid.in_bar), 6) for bar in range(first, last + 1)]


@api.get("/<int:timeline_id>", responses={200: TimelineView})
def get_timeline(path: TimelinePath) -> TimelineView:
    """A song with its markers, tracks and events."""
    with context().store.reading() as session:
        row = repositories.rows.get(session, TimelineRow, path.timeline_id, "song")
        document, subjects = document_of(row), Subjects(session)
        tracks = [
            TrackView(id=one.id, document=track_of(one), drives=subjects.name(one.document["drives"]))
            for one in repositories.timelines.tracks(session, row.id)
        ]
        events = list(repositories.timeline_events.of_timeline(session, row.id))
        wording = Wording(session, events)
        lists = [int(one.document.drives[5:]) for one in tracks if one.document.kind == "cues"]
        name = CueRow.document["name"].as_string()
        query = select(CueRow.id, CueRow.list_id, CueRow.number, name).where(CueRow.list_id.in_(lists))
        cues = session.execute(query.order_by(CueRow.list_id, CueRow.number))
        first_bar, bars = bars_of(grid_of(row.document["grid"]), document.length_s)
        return TimelineView(
            id=row.id, name=row.name, document=document,
            sound_is_there=document.sound is not None and media().has(document.sound.hash),
            bars=bars, first_bar=first_bar,
            markers=[_marker(one) for one in repositories.timelines.markers(session, row.id)],
            tracks=tracks, events=[wording.view(one) for one in events],
            cues=[CueChoice(id=one, list_id=of, number=place, name=called or "") for one, of, place, called in cues],
        )  # fmt: skip


def _marker(row: Any) -> MarkerView:
    return MarkerView(id=row.id, at=row.at, length=row.length, name=row.name, colour=row.colour)


# beat grid


@api.post("/<int:timeline_id>/grid", responses={200: Done})
def change_grid(path: TimelinePath, body: GridBody) -> Done:
    """Fit the grid to taps, drag one of its beats, or change the tempo from a beat on."""
    with context().store.edit(browser_id(), "Change the beat grid") as session:
        row = repositories.rows.get(session, TimelineRow, path.timeline_id, "song")
        document = document_of(row)
        grid = _changed_grid(grid_of(row.document["grid"]), body)
        changes = [TempoChange(beat=beat, bpm=bpm) for beat, bpm in grid.changes]
        made = Grid(first_s=grid.first_s, changes=changes, in_bar=grid.in_bar)
        repositories.timelines.change(session, row.id, row.name, document.model_copy(update={"grid": made}))
        return Done(done=f"{grid.changes[0][1]:.2f} BPM, bar 1 at {grid.first_s:.3f} s")


@api.post("/<int:timeline_id>/lateness", responses={200: LatenessView})
def measure_lateness(path: TimelinePath, body: TapsBody) -> LatenessView:
    """How late taps along with the song are: what presses that are recorded should come earlier by. Changes nothing."""
    with context().store.reading() as session:
        row = repositories.rows.get(session, TimelineRow, path.timeline_id, "song")
        late, wanders = beat_grid.lateness(grid_of(row.document["grid"]), body.taps)
        return LatenessView(late_s=late, wanders_s=wanders)


def _changed_grid(grid: BeatGrid, body: GridBody) -> BeatGrid:
    match body.do:
        case "tapped":
            return beat_grid.tapped(body.taps, grid.in_bar)
        case "drag":
            return grid.stretched(body.beat, body.at)
        case "tempo":
            return grid.with_tempo(body.beat, body.bpm)
    return grid.without_tempo(body.beat)


# markers


@api.post("/<int:timeline_id>/markers", responses={201: Kept})
def make_marker(path: TimelinePath, body: MarkerDocument) -> tuple[Kept, int]:
    """Make a marker."""
    with context().store.edit(browser_id(), f"Mark {body.name}") as session:
        row = repositories.timelines.add_marker(session, path.timeline_id, body)
        return Kept(id=row.id, done=f"Marked {row.name}"), 201


@api.put("/markers/<int:marker_id>", responses={200: Done})
def change_marker(path: MarkerPath, body: MarkerDocument) -> Done:
    """Move a marker, or call it otherwise."""
    with context().store.edit(browser_id(), f"Change the marker {body.name}") as session:
        return Done(done=f"Changed {repositories.timelines.change_marker(session, path.marker_id, body).name}")


@api.delete("/markers/<int:marker_id>", responses={200: Done})
def delete_marker(path: MarkerPath) -> Done:
    """Take a marker out."""
    with context().store.edit(browser_id(), "Delete a marker") as session:
        row = repositories.rows.get(session, MarkerRow, path.marker_id, "marker")
        session.delete(row)
        return Done(done=f"Deleted {row.name}")


@api.get("/<int:timeline_id>/markers.csv", responses={200: MarkersText})
def get_markers(path: TimelinePath) -> MarkersText:
    """Markers as CSV."""
    with context().store.reading() as session:
        rows = repositories.timelines.markers(session, path.timeline_id)
        return MarkersText(text=markers_csv.written([_marker(one) for one in rows]))


@api.post("/<int:timeline_id>/markers.csv", responses={200: Done})
def read_markers(path: TimelinePath, body: MarkersText) -> Done:
    """All markers anew, from CSV."""
    markers = markers_csv.read(body.text)
    with context().store.edit(browser_id(), "Read markers from CSV") as session:
        count = repositories.timelines.replace_markers(session, path.timeline_id, markers)
        return Done(done=f"Read {count} markers")


# tracks


@api.get("/drivable", responses={200: DrivablesView})
def get_drivable(query: KindQuery) -> DrivablesView:
    """What tracks of a kind can drive."""
    with context().store.reading() as session:
        found = Subjects(session).for_kind(query.kind)
        return DrivablesView(drivables=[DrivableView(subject=one.subject, what=one.what, of=one.of) for one in found])


def _can_drive(session: Session, document: TrackDocument) -> None:
    why = Subjects(session).why_not(document.drives)
    if why:
        raise ZarabandaError(why, "drives")


@api.post("/<int:timeline_id>/tracks", responses={201: Kept})
def make_track(path: TimelinePath, body: TrackDocument) -> tuple[Kept, int]:
    """Make a track."""
    with context().store.edit(browser_id(), f"Make the track {body.name}") as session:
        _can_drive(session, body)
        row = repositories.timelines.add_track(session, path.timeline_id, body)
        return Kept(id=row.id, done=f"Made the track {body.name}"), 201


@api.put("/tracks/<int:track_id>", responses={200: Done})
def change_track(path: TrackPath, body: TrackDocument) -> Done:
    """Lock, mute or arm a track, call it otherwise, or let it drive something else."""
    with context().store.edit(browser_id(), f"Change the track {body.name}") as session:
        row = repositories.rows.get(session, TrackRow, path.track_id, "track")
        if row.document["drives"] != body.drives:
            _can_drive(session, body)
        repositories.timelines.change_track(session, path.track_id, body)
    return Done(done=f"Changed the track {body.name}")


@api.delete("/tracks/<int:track_id>", responses={200: Done})
def delete_track(path: TrackPath) -> Done:
    """Delete a track, and what is on it."""
    with context().store.edit(browser_id(), "Delete a track") as session:
        row = repositories.timelines.remove_track(session, path.track_id)
        return Done(done=f"Deleted the track {row.document['name']}")


@api.post("/<int:timeline_id>/tracks/order", responses={200: Done})
def arrange_tracks(path: TimelinePath, body: RunningOrder) -> Done:
    """Another order of tracks."""
    with context().store.edit(browser_id(), "Change the order of tracks") as session:
        repositories.timelines.arrange_tracks(session, path.timeline_id, body.order)
    return Done(done="Changed the order of tracks")
