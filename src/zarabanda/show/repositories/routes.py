"""Routes: which universes go where."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.errors import InUse
from zarabanda.formats.route_document import RouteDocument, numbers_there
from zarabanda.messages import RoutePart

from ..tables import RouteRow
from .rows import get

MOST = 64


def every(session: Session) -> Sequence[RouteRow]:
    """Routes in the order in which they were made."""
    return session.scalars(select(RouteRow).order_by(RouteRow.id)).all()


def document_of(row: RouteRow) -> RouteDocument:
    """What stands in a row."""
    return RouteDocument.model_validate(row.document)


def part_of(row: RouteRow) -> RoutePart:
    """A route as the engine works with it."""
    return document_of(row).part(row.id, on=row.on)


def add(session: Session, document: RouteDocument, *, on: bool = False) -> RouteRow:
    """A new route; off, unless said otherwise."""
    if len(every(session)) >= MOST:
        raise InUse(f"{MOST} routes are the most there can be. Put ranges together, or delete one.", "routes")
    row = RouteRow(document=document.model_dump(), on=on)
    session.add(row)
    session.flush()
    _not_twice(session, row)
    return row


def change(session: Session, number: int, document: RouteDocument | None = None, *, on: bool | None = None) -> RouteRow:
    """Another document, or on or off."""
    row = get(session, RouteRow, number, "route")
    if document is not None:
        row.document = document.model_dump()
    if on is not None:
        row.on = on
    session.flush()
    _not_twice(session, row)
    return row


def remove(session: Session, number: int) -> None:
    """Delete one."""
    session.delete(get(session, RouteRow, number, "route"))


def _not_twice(session: Session, row: RouteRow) -> None:
    """Refuse that a universe of a node gets values by two routes that are on: they would fight."""
    if not row.on:
        return
    part = part_of(row)
    for other in map(part_of, every(session)):
        if other.id == part.id or not other.on or (other.protocol, other.to, other.port) != (part.protocol, part.to, part.port):
            continue
        for first, last in numbers_there(part):
            for begins, ends in numbers_there(other):
                if first <= ends and begins <= last:
                    raise InUse(
                        f"Universe {max(first, begins)} of {part.to} gets its values by another route already "
                        f"({document_of(get(session, RouteRow, other.id, 'route')).line}). Change one of the two.", "universes"
                    )  # fmt: skip
