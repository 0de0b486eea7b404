"""Presses of a song as a MIDI file, out and in."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated

from flask import Response
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from zarabanda.engine.timelines import grid_of
from zarabanda.errors import NotThere, ZarabandaError
from zarabanda.formats import midi_file
from zarabanda.formats.midi_file import Line, Press
from zarabanda.show import repositories
from zarabanda.show.repositories.timeline_events import NewEvent
from zarabanda.show.tables import EventRow, TimelineRow, TrackRow

from ..bodies import whole_body
from ..context import browser_id, context
from ..parts import Done
from .timeline_events import counted
from .timeline_models import TimelinePath

api = APIBlueprint("midi files", __name__, url_prefix="/api/timelines", abp_tags=[Tag(name="timelines")])
_KIND = "presses"


class MidiQuery(BaseModel):
    """lines: where each goes, as `KEY:TRACK`; replaces: what is on these tracks goes; preview: tell what is in the file."""

    lines: Annotated[list[Annotated[str, Field(pattern=r"^\d{1,4}/\d{1,2}/\d{1,3}:\d{1,9}$")]], Field(max_length=500)] = []
    replaces: bool = False
    preview: bool = True


class MidiLine(BaseModel):
    """The presses of one note. first, last: positions in s; track: the one of the song that has its name, if there is one."""

    key: str
    name: str
    count: int
    first: float
    last: float
    track: int | None


class MidiView(Done):
    """What is in a file, or was taken in. beyond: presses behind the end of the song, which are left out."""

    lines: list[MidiLine]
    beyond: int


def _tracks(session: Session, song: int) -> list[TrackRow]:
    repositories.rows.get(session, TimelineRow, song, "song")
    return [one for one in repositories.timelines.tracks(session, song) if one.document["kind"] == _KIND]


@api.get("/<int:timeline_id>/presses.mid")
def save_presses(path: TimelinePath) -> Response:
    """All presses of a song as a MIDI file, a track for each."""
    with context().store.reading() as session:
        song = repositories.rows.get(session, TimelineRow, path.timeline_id, "song")
        tracks = _tracks(session, path.timeline_id)
        rows = repositories.timeline_events.of_timeline(session, path.timeline_id)
        content = midi_file.written(
            [(one.document["name"], _presses(rows, one.id)) for one in tracks], grid_of(song.document["grid"])
        )
        name = "".join(one for one in song.name if one.isalnum() or one in " -_") or "song"
    response = Response(content, mimetype="audio/midi")
    response.headers.set("Content-Disposition", "attachment", filename=f"{name}.mid")
    return response


def _presses(rows: Iterable[EventRow], track: int) -> list[Press]:
    return [Press(one.at, one.length, one.document["does"]) for one in rows if one.track_id == track]


@api.put("/<int:timeline_id>/presses.mid", responses={200: MidiView})
def take_in_presses(path: TimelinePath, query: MidiQuery) -> MidiView:
    """Take in presses: the MIDI file as the body. With preview: its lines. All of it is one undo step."""
    lines = midi_file.read(whole_body(midi_file.MOST_BYTES))
    wanted = {key: int(track) for key, track in (one.split(":") for one in query.lines)}
    with context().store.reading() as session:
        song = repositories.rows.get(session, TimelineRow, path.timeline_id, "song")
        length = repositories.timelines.document_of(song).length_s
        names = {one.document["name"]: one.id for one in reversed(_tracks(session, path.timeline_id))}
    beyond = sum(one.at > length for line in lines for one in line.presses)
    done = "nothing yet"
    if not query.preview:
        done = _taken_in(
            path.timeline_id, lines, {key: int(track) for key, track in wanted.items()}, length, replaces=query.replaces
        )
    views = [
        MidiLine(key=line.key, name=line.called, count=len(line.presses), first=line.presses[0].at, last=line.presses[-1].at,
                 track=names.get(line.name))
        for line in lines
    ]  # fmt: skip
    return MidiView(lines=views, beyond=beyond, done=done)


def _taken_in(song: int, lines: list[Line], wanted: dict[str, int], length: float, *, replaces: bool) -> str:
    known = {line.key: line for line in lines}
    if unknown := [key for key in wanted if key not in known]:
        raise NotThere(f"There is no line {unknown[0]} in this file. Choose one of the list.", "lines")
    if not wanted:
        raise ZarabandaError("No line has a track. Choose one for those that are to be taken in.", "lines")
    with context().store.edit(browser_id(), "Take in presses from MIDI") as session:
        tracks = {one.id: one for one in _tracks(session, song)}
        if strange := [track for track in wanted.values() if track not in tracks]:
            raise NotThere(f"There is no track of presses {strange[0]} in this song. Choose one of the list.", "lines")
        gone = 0
        if replaces:
            there = repositories.timeline_events.of_timeline(session, song)
            gone = repositories.timeline_events.remove(session, [one.id for one in there if one.track_id in wanted.values()])
        new = [
            NewEvent(track, press.at, press.length, {"does": press.does})
            for key, track in wanted.items()
            for press in midi_file.presses_of(known[key], tracks[track].document["name"])
            if press.at <= length
        ]
        repositories.timeline_events.add(session, new)
    replaced = f", in the place of {counted(gone)}" if gone else ""
    return f"Took in {counted(len(new))}{replaced}"
