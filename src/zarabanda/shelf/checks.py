"""Whether what came in from a file is a show that can be used: its rows, documents and media, looked at before it is kept."""

from __future__ import annotations

import hashlib
import os
import re
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import Any

from pydantic import ValidationError
from sqlalchemy import select, text
from sqlalchemy.orm import Session

from zarabanda import targets
from zarabanda.engine.compiling import Compiler
from zarabanda.errors import ZarabandaError, brief
from zarabanda.formats.cue_document import CueListSettings
from zarabanda.formats.effect_document import EffectDocument
from zarabanda.formats.fan_document import FanDocument
from zarabanda.formats.rig_document import ModeDocument
from zarabanda.formats.timeline_document import EVENTS, MarkerDocument
from zarabanda.messages import ShowUpdate
from zarabanda.show import compile as compiling
from zarabanda.show import references, repositories
from zarabanda.show.store import Store
from zarabanda.show.tables import (
    ActionListRow,
    Base,
    BuskRow,
    ControlRow,
    CueListRow,
    CueRow,
    DeviceRow,
    DraftFan,
    EffectRow,
    EventRow,
    Group,
    LookRow,
    MarkerRow,
    Mode,
    PaletteRow,
    PictureRow,
    PixelMapRow,
    RouteRow,
    Show,
    SpecialRow,
    TimelineRow,
    TrackRow,
)

Read = Callable[[Session, Any], object]


def _effect(session: Session, row: EffectRow) -> object:
    return EffectDocument.model_validate(repositories.effects.document_of(session, row))


def _event(session: Session, row: EventRow) -> object:
    track = session.get(TrackRow, row.track_id)
    kind = repositories.timelines.track_of(track).kind if track is not None else ""
    return EVENTS[kind].model_validate(row.document)


def _heads(session: Session, row: Group) -> object:
    if not all(isinstance(one, str) for one in row.heads):
        raise ValueError("its heads are no keys")
    return row.heads


READ: dict[type[Base], Read] = {
    Mode: lambda session, row: ModeDocument.model_validate(row.document),
    Group: _heads,
    PaletteRow: lambda session, row: repositories.palettes.document(row).to_core(row.name),
    EffectRow: _effect,
    DraftFan: lambda session, row: FanDocument.model_validate(row.document),
    RouteRow: lambda session, row: repositories.routes.document_of(row),
    DeviceRow: lambda session, row: repositories.devices.document_of(row),
    CueListRow: lambda session, row: CueListSettings.model_validate(row.settings),
    CueRow: lambda session, row: repositories.cues.document(row),
    ControlRow: lambda session, row: targets.read(row.target),
    BuskRow: lambda session, row: repositories.busk.document_of(row),
    LookRow: lambda session, row: repositories.looks.document_of(row),
    ActionListRow: lambda session, row: repositories.action_lists.document_of(row),
    SpecialRow: lambda session, row: repositories.specials.document_of(row),
    PixelMapRow: lambda session, row: repositories.pixels.document_of(session, row),
    PictureRow: lambda session, row: repositories.pixels.stack_of(session, row),
    TimelineRow: lambda session, row: repositories.timelines.document_of(row),
    MarkerRow: lambda session, row: MarkerDocument(
        at=row.at, length=row.length, name=row.name, colour=row.colour
    ),
    TrackRow: lambda session, row: repositories.timelines.track_of(row),
    EventRow: _event,
}  # fmt: skip
"""How the documents of each table are read."""
_HASH = re.compile(r"[0-9a-f]{64}")


def check(store: Store) -> None:
    """Look at everything in a show, and index what refers to what. ZarabandaError says what is wrong with which row."""
    with store.reading() as session:
        broken = session.execute(text("PRAGMA foreign_key_check")).first()
        if broken is not None:
            raise ZarabandaError(f"A row of {broken[0]} belongs to a row of {broken[2]} that is not there.", str(broken[0]))
        if session.get(Show, 1) is None:
            raise ZarabandaError("There is no show in this file, only parts of one.", "show")
        for table, read in READ.items():
            for row in session.scalars(select(table)):
                _readable(session, row, read)
        _plays(session)
    with store.engine.begin() as connection, Session(connection) as session:
        references.note_all(session)
        session.commit()


def _readable(session: Session, row: Any, read: Read) -> None:
    try:
        read(session, row)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        where = ".".join(map(str, first["loc"]))
        raise ZarabandaError(f"{row.in_words()} cannot be read: {where}: {brief(first['msg'])}.", row.__tablename__) from error
    except Exception as error:  # documents of any shape may come in
        raise ZarabandaError(f"{row.in_words()} cannot be read: {brief(str(error))}.", row.__tablename__) from error


def _plays(session: Session) -> None:
    try:
        program = Compiler().take(ShowUpdate("check", 1, compiling.all_parts(session), whole=True))
    except Exception as error:  # documents of any shape may come in
        raise ZarabandaError(f"This show cannot be played: {brief(str(error))}.", "show") from error
    if program.faults:
        raise ZarabandaError(f"This show cannot be played: {brief(program.faults[0])}", "show")


def medium_taken_in(name: str, chunks: Iterable[bytes], target: Path, most: int) -> None:
    """Put a medium, or what is noted of one, into the media folder, if it is what its name says."""
    digest, size = hashlib.sha256(), 0
    fresh = target.with_name(f".incoming-{target.name}")
    try:
        with fresh.open("wb") as file:
            for piece in chunks:
                size += len(piece)
                if size > most:
                    raise ZarabandaError(f"{name} unpacks to more than {most >> 30} GB.", "file")
                digest.update(piece)
                file.write(piece)
        if _HASH.fullmatch(target.name) and digest.hexdigest() != target.name:
            raise ZarabandaError(f"{name} is not what its name says: the file is damaged. Take another copy of it.", "file")
        os.replace(fresh, target)
    finally:
        fresh.unlink(missing_ok=True)
