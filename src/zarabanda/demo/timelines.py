"""Timelines of the demo's songs: beat grid and markers for each, and for "Saltworks" all that it plays."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from multiprocessing.pool import ThreadPool
from pathlib import Path
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.formats.timeline_document import Grid, MarkerDocument, Sound, TempoChange, TimelineDocument, TrackDocument
from zarabanda.media_folder import MEDIA
from zarabanda.show import repositories
from zarabanda.show.repositories.timeline_events import NewEvent
from zarabanda.show.tables import BuskRow, ControlRow, CueListRow, CueRow, DeviceRow, LookRow, Page
from zarabanda.sound.media import Media
from zarabanda.sound.spectrum import Spectrum

from .music import SALTWORKS, SONGS, Song
from .sound import RATE, sounding

STARTS = {"Tide Clock": "01:00:00:00", "Saltworks": "02:00:00:00", "Lantern Fish": "03:00:00:00"}
_CUES: tuple[tuple[int, float, float], ...] = (
    (1, 1, 1), (3, 5, 1), (4, 13, 1), (5, 22, 1), (6, 31, 1), (7, 42, 4), (10, 53, 1), (11, 65, 1), (12, 72, 1), (13, 79, 1),
    (15, 95, 1),
)  # fmt: skip
"""Of Saltworks: cue, and on which bar and beat; the others follow by themselves."""
_FLASHES = (
    (45, 4),
    (47, 2.5),
    (49, 4),
    (51, 2.5),
    (55, 4),
    (57, 2.5),
    (59, 4),
    (61, 2.5),
    (63, 4),
    (63, 4.5),
    (64, 4),
    (64, 4.5),
)
_HEARTS = ((37, 1, 2.0), (39, 1, 2.0), (41, 1, 3.5), (85, 1, 1.5), (89, 1, 1.5), (93, 1, 3.0))
_FOLD = ((31, 0.0), (39, 0.85), (43, 0.85), (46, 0.4), (53, 0.4), (55, 1.0), (64, 1.0), (66, 0.0))
_ROSE = ((65, 0.0), (70, 0.6), (77, 0.6), (79, 0.0))
_CLIPS = ((13, "/clip/play", '"salt pans" 2.0'), (31, "/clip/play", "gulls 1.0"), (43, "/clip/play", "foam 0.2"),
          (65, "/clip/play", "water 6.0"), (79, "/clip/play", "salt 1.0"))  # fmt: skip


def songs_made(data: Path) -> dict[str, Sound]:
    """The sound of each song, made and kept in the media folder of a data folder."""
    media = Media(data / MEDIA)

    def made(song: Song) -> Sound:
        kept = media.write(f"{song.name}.flac", sounding(song), RATE)
        Spectrum.of(media.path(kept.hash))  # written beside it now, so that the first light does not wait for it
        return Sound(**asdict(kept))

    with ThreadPool() as threads:
        return dict(zip((song.name for song in SONGS), threads.map(made, SONGS), strict=True))


def add_timelines(session: Session, sounds: Mapping[str, Sound] | None = None) -> None:
    """A timeline for each song. sounds: by the name of the song; without one a song is mute until it is given one."""
    for song in SONGS:
        document = TimelineDocument(
            length_s=song.seconds, starts_at=STARTS[song.name], grid=Grid(changes=[TempoChange(beat=0, bpm=song.bpm)]),
            sound=(sounds or {}).get(song.name),
        )  # fmt: skip
        row = repositories.timelines.add(session, song.name, document)
        for n, part in enumerate(song.sections):
            at = song.at(part.bar)
            marker = MarkerDocument(
                at=at, length=min(song.at(song.ends(n)), song.seconds) - at, name=part.name, colour=part.colour
            )
            repositories.timelines.add_marker(session, row.id, marker)
        if song is SALTWORKS:
            _Saltworks(session, row.id).fill()
        else:
            number = session.scalars(select(CueListRow.id).where(CueListRow.name == song.name)).one()
            repositories.timelines.add_track(
                session, row.id, TrackDocument(name=song.name, kind="cues", drives=f"list:{number}", armed=True)
            )


class _Saltworks:
    """All that the song plays."""

    def __init__(self, session: Session, timeline: int) -> None:
        self._session, self._timeline = session, timeline

    def _number(self, table: Any, name: str) -> int:
        return int(self._session.scalars(select(table.id).where(table.name == name)).one())

    def _control(self, name: str) -> int:
        found = select(ControlRow.id).join(Page, Page.id == ControlRow.page_id).where(ControlRow.name == name)
        return int(self._session.scalars(found.order_by(ControlRow.id)).first() or 0)

    def _track(self, name: str, kind: str, drives: str, **more: Any) -> int:
        document = TrackDocument.model_validate({"name": name, "kind": kind, "drives": drives, **more})
        return repositories.timelines.add_track(self._session, self._timeline, document).id

    def fill(self) -> None:
        """Make its tracks, and what is on them."""
        song: Song = SALTWORKS
        songs = self._number(CueListRow, "Saltworks")
        cues = {
            row.number: row.id for row in self._session.execute(select(CueRow.number, CueRow.id).where(CueRow.list_id == songs))
        }
        track = self._track("Saltworks", "cues", f"list:{songs}")
        events = [NewEvent(track, song.at(bar, beat), 0.0, {"cue": cues[float(cue)]}) for cue, bar, beat in _CUES]
        track = self._track("Rear spots, white", "presses", f"flash:{self._number(BuskRow, 'Rear spots')}:white")
        events += [NewEvent(track, song.at(*place), 0.2, {"does": "hold"}) for place in _FLASHES]
        track = self._track("Crowd: heartbeat", "presses", f"control:{self._control('Crowd: heartbeat')}")
        events += [NewEvent(track, song.at(bar, beat), length, {"does": "hold"}) for bar, beat, length in _HEARTS]
        track = self._track("Spots: tide fold", "levels", f"control:{self._control('Spots: tide fold')}")
        events += [NewEvent(track, song.at(bar), 0.0, {"value": value}) for bar, value in _FOLD]
        track = self._track("Rose over", "levels", f"overlay:{self._number(LookRow, 'Rose over')}")
        events += [NewEvent(track, song.at(bar), 0.0, {"value": value}) for bar, value in _ROSE]
        device = self._number(DeviceRow, "Pixel server")
        track = self._track("Pixel server", "messages", f"device:{device}", group="video", locked=True)
        for bar, address, arguments in _CLIPS:
            message = {"kind": "osc", "device": device, "address": address, "arguments": arguments, "is_state": True}
            row = NewEvent(track, song.at(bar), 0.0, {"message": message})
            events.append(row)
        locked = [one for one in events if one.track_id == track]
        repositories.timeline_events.add(self._session, [one for one in events if one.track_id != track])
        repositories.timeline_events.add(self._session, locked, free=False)
