"""Rows of any table, and the one of the show itself."""

from __future__ import annotations

from typing import Any, TypeVar

from sqlalchemy.orm import Session

from zarabanda.errors import NotThere

from ..tables import Base, Show

T = TypeVar("T", bound=Base)


def get(session: Session, table: type[T], key: Any, what: str) -> T:
    """A row, or a clear error that it is gone."""
    row = session.get(table, key)
    if row is None:
        raise NotThere(f"This {what} does not exist any more; somebody may have deleted it. Undo brings it back.", what)
    return row


def show(session: Session) -> Show:
    """The one show."""
    return get(session, Show, 1, "show")
