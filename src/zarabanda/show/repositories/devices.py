"""Outside devices that cues send messages to."""

from __future__ import annotations

from collections.abc import Collection, Sequence

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda.errors import InUse, ZarabandaError
from zarabanda.formats.cue_message import INWARD, CueMessage, speaks
from zarabanda.formats.device_document import DeviceDocument

from .. import uses
from ..references import SENT_TO
from ..tables import ControlRow, CueListRow, CueRow, DeviceRow
from .rows import get

MOST = 64


def every(session: Session) -> Sequence[DeviceRow]:
    """Devices in the order in which they were made."""
    return session.scalars(select(DeviceRow).order_by(DeviceRow.id)).all()


def document_of(row: DeviceRow) -> DeviceDocument:
    """What stands in a row."""
    return DeviceDocument.model_validate(row.document)


def _free_name(session: Session, name: str, but: int = 0) -> str:
    taken = session.scalars(select(DeviceRow).where(func.lower(DeviceRow.name) == name.lower(), DeviceRow.id != but)).first()
    if taken is not None:
        raise InUse(f"There is a device “{taken.name}” already. Choose another name.", "name")
    return name


def add(session: Session, name: str, document: DeviceDocument) -> DeviceRow:
    """A new one."""
    if len(every(session)) >= MOST:
        raise InUse(f"{MOST} devices are the most there can be. Delete one.", "devices")
    row = DeviceRow(name=_free_name(session, name), document=document.model_dump())
    session.add(row)
    session.flush()
    return row


def change(session: Session, number: int, name: str, document: DeviceDocument) -> DeviceRow:
    """Another name or document. What speaks otherwise could not be sent what cues send it."""
    row = get(session, DeviceRow, number, "device")
    if document.speaks != row.document["speaks"]:
        _not_used(session, row, "Take it out of there, or make another device.")
    row.name, row.document = _free_name(session, name, but=number), document.model_dump()
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


def message_names(session: Session, cues: Collection[int | None] = ()) -> dict[tuple[str, int], str]:
    """What messages can go to, as users name it, by table and number: devices, lists, controls, and of the cues these."""
    found = {(DeviceRow.__tablename__, row.id): row.name for row in every(session)}
    found |= {(CueListRow.__tablename__, row.id): row.name for row in session.scalars(select(CueListRow))}
    found |= {(ControlRow.__tablename__, row.id): row.name for row in session.scalars(select(ControlRow))}
    name = CueRow.document["name"].as_string()
    for number, place, called in session.execute(select(CueRow.id, CueRow.number, name).where(CueRow.id.in_(cues))):
        found[CueRow.__tablename__, number] = f"cue {place:g}" + (f" “{called}”" if called else "")
    return found


def must_fit(session: Session, messages: Sequence[CueMessage]) -> None:
    """Refuse messages to what is not there, or to devices that speak otherwise."""
    there = {row.id: row for row in every(session)}
    names = message_names(session, [getattr(message, "cue", None) for message in messages if message.kind in INWARD])
    for n, message in enumerate(messages):
        for table, field in SENT_TO[1:]:
            number = getattr(message, field, None)
            if isinstance(number, int) and message.kind in INWARD and (table, number) not in names:
                raise ZarabandaError(f"There is no such {field} any more. Choose another.", f"messages.{n}.{field}")
        wanted, number = speaks(message.kind), getattr(message, "device", None)
        if not wanted or number is None:
            continue
        if number not in there:
            able = ", ".join(row.name for row in there.values() if row.document["speaks"] == wanted) or "none"
            raise ZarabandaError(f"There is no device {number}. Those that speak {wanted}: {able}.", f"messages.{n}.device")
        if there[number].document["speaks"] != wanted:
            raise ZarabandaError(
                f"“{there[number].name}” speaks {there[number].document['speaks']}: choose a device that speaks {wanted}.",
                f"messages.{n}.device",
            )
