"""Rows of any table, and the one of the show itself."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any, Protocol, TypeVar

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda.errors import InUse, NotThere

from ..tables import Base, Show

T = TypeVar("T", bound=Base)


class Placed(Protocol):
    """A row that has its place in an order."""

    id: Any
    position: Any


def get(session: Session, table: type[T], key: Any, what: str) -> T:
    """A row, or a clear error that it is gone."""
    row = session.get(table, key)
    if row is None:
        raise NotThere(f"This {what} does not exist any more; somebody may have deleted it. Undo brings it back.", what)
    return row


def named(session: Session, table: type[T], name: str, but: int = 0) -> T | None:
    """The row of a table that has this name, however it is written, but for the one of this number."""
    columns: Any = table
    return session.scalars(select(table).where(func.lower(columns.name) == name.lower(), columns.id != but)).first()


def own_name(session: Session, table: type[T], name: str, what: str, but: int = 0) -> str:
    """A name for a row, without spaces round it, or a clear error that another has it. what: it
    is, `a group`; but: its number."""
    name = name.strip()
    taken: Any = named(session, table, name, but)
    if taken is not None:
        raise InUse(f"There is {what} “{taken.name}” already. Choose another name.", "name")
    return name


def place_in_order(rows: Iterable[Placed], order: Sequence[int]) -> None:
    """Put rows in this order, by their numbers; those that are not named come last, as they were."""
    place = {number: n for n, number in enumerate(dict.fromkeys(order))}
    for position, row in enumerate(sorted(rows, key=lambda one: place.get(one.id, len(place)))):
        row.position = position


def show(session: Session) -> Show:
    """The one show."""
    return get(session, Show, 1, "show")
