"""Pixel maps and pictures of the library."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, TypeVar

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.errors import InUse, ZarabandaError
from zarabanda.formats.pixel_document import PixelMapDocument, StackDocument, media_of

from ..references import Names
from ..tables import PictureRow, PixelMapRow
from .rows import get, named

MOST = 400
_Row = TypeVar("_Row", PixelMapRow, PictureRow)


def every(session: Session) -> Sequence[PixelMapRow]:
    """Maps in their order."""
    return session.scalars(select(PixelMapRow).order_by(PixelMapRow.position, PixelMapRow.id)).all()


def library(session: Session) -> Sequence[PictureRow]:
    """Pictures in their order."""
    return session.scalars(select(PictureRow).order_by(PictureRow.position, PictureRow.id)).all()


def document_of(session: Session, row: PixelMapRow) -> PixelMapDocument:
    """The document of a map, with names of palettes and tempos."""
    return PixelMapDocument.model_validate(Names.of(session).named(row.document))


def stack_of(session: Session, row: PictureRow) -> StackDocument:
    """The document of a picture, with names of palettes and tempos."""
    return StackDocument.model_validate(Names.of(session).named(row.document))


def _plain(session: Session, document: StackDocument) -> dict[str, Any]:
    return Names.of(session).numbered(document.model_dump(mode="json"))


def _free_name(session: Session, kind: type[_Row], name: str, but: int = 0) -> str:
    name = name.strip()
    taken = named(session, kind, name, but)
    if taken is not None:
        raise InUse(f"{taken.in_words().capitalize()} has this name already. Choose another.", "name")
    return name


def _add(session: Session, kind: type[_Row], name: str, document: StackDocument, there: Sequence[_Row]) -> _Row:
    if len(there) >= MOST:
        raise ZarabandaError(f"{MOST} are the most there can be. Delete one.", "name")
    position = max((one.position for one in there), default=-1) + 1
    row = kind(name=_free_name(session, kind, name), position=position, document=_plain(session, document))
    session.add(row)
    session.flush()
    return row


def add(session: Session, name: str, document: PixelMapDocument) -> PixelMapRow:
    """A new map, behind the others."""
    return _add(session, PixelMapRow, name, document, every(session))


def keep(session: Session, name: str, document: StackDocument) -> PictureRow:
    """A new picture in the library, behind the others."""
    if not document.layers:
        raise ZarabandaError("There is no layer to keep. Add a layer first.", "layers")
    return _add(session, PictureRow, name, document, library(session))


def change(session: Session, number: int, name: str | None, document: PixelMapDocument | None) -> PixelMapRow:
    """Another name or document of a map."""
    row = get(session, PixelMapRow, number, "pixel map")
    if name is not None:
        row.name = _free_name(session, PixelMapRow, name, number)
    if document is not None:
        row.document = _plain(session, document)
    return row


def rename_picture(session: Session, number: int, name: str) -> PictureRow:
    """Another name of a picture."""
    row = get(session, PictureRow, number, "picture")
    row.name = _free_name(session, PictureRow, name, number)
    return row


def users_of_medium(session: Session, hash_: str) -> list[str]:
    """What uses a medium, in words."""
    rows: list[PixelMapRow | PictureRow] = [*every(session), *library(session)]
    return [row.in_words() for row in rows if hash_ in media_of(row.document)]
