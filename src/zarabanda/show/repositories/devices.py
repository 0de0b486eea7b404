"""Outside devices that cues send messages to."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.errors import InUse
from zarabanda.formats.device_document import DeviceDocument

from .. import uses
from ..tables import DeviceRow
from .rows import get, own_name

MOST = 64


def every(session: Session) -> Sequence[DeviceRow]:
    """Devices in the order in which they were made."""
    return session.scalars(select(DeviceRow).order_by(DeviceRow.id)).all()


def document_of(row: DeviceRow) -> DeviceDocument:
    """What stands in a row."""
    return DeviceDocument.model_validate(row.document)


def add(session: Session, name: str, document: DeviceDocument) -> DeviceRow:
    """A new one."""
    if len(every(session)) >= MOST:
        raise InUse(f"{MOST} devices are the most there can be. Delete one.", "devices")
    row = DeviceRow(name=own_name(session, DeviceRow, name, "a device"), document=document.model_dump())
    session.add(row)
    session.flush()
    return row


def change(session: Session, number: int, name: str, document: DeviceDocument) -> DeviceRow:
    """Another name or document. What speaks otherwise could not be sent what cues send it."""
    row = get(session, DeviceRow, number, "device")
    if document.speaks != row.document["speaks"]:
        _not_used(session, row, "Take it out of there, or make another device.")
    row.name, row.document = own_name(session, DeviceRow, name, "a device", but=number), document.model_dump()
    session.flush()
    return row


def remove(session: Session, number: int) -> None:
    """Delete one that no cue sends to."""
    row = get(session, DeviceRow, number, "device")
    _not_used(session, row, "Take those messages out first.")
    session.delete(row)


def _not_used(session: Session, row: DeviceRow, remedy: str) -> None:
    users = uses.users_of(session, DeviceRow.__tablename__, row.id)
    if users:
        more = f" and {len(users) - 5} more" if len(users) > 5 else ""
        raise InUse(f"“{row.name}” is sent messages by {', '.join(users[:5])}{more}. {remedy}", "device")
