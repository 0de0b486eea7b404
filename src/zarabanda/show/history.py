"""Undo and redo: every edit is kept as the rows it changed, before and after."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from sqlalchemy import delete, event, insert, inspect, select, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Mapper, ORMExecuteState, Session
from sqlalchemy.orm.unitofwork import UOWTransaction

from zarabanda.errors import InUse, ZarabandaError

from . import references, uses
from .tables import Base, Edit

Row = dict[str, Any]
Change = dict[str, Any]

TABLES: dict[str, Mapper[Any]] = {
    mapper.class_.__tablename__: mapper for mapper in Base.registry.mappers if mapper.class_.in_history
}


def one_key_each(mappers: Iterable[Mapper[Any]]) -> None:
    """Refuse tables whose rows the history could not find again: it keeps one key of each row."""
    for mapper in mappers:
        if len(mapper.primary_key) != 1:
            raise TypeError(f"{mapper.class_.__name__} has a key of {len(mapper.primary_key)} columns; the history needs one.")


one_key_each(TABLES.values())


def _after(row: Base) -> Row:
    return {column.key: getattr(row, column.key) for column in inspect(row).mapper.column_attrs}


def _before(row: Base) -> Row:
    values = {}
    for attribute in inspect(row).mapper.column_attrs:
        past = inspect(row).attrs[attribute.key].history
        values[attribute.key] = past.deleted[0] if past.deleted else getattr(row, attribute.key)
    return values


class Recorder:
    """Notes what a session changes in the tables that undo follows."""

    def __init__(self, session: Session) -> None:
        self._noted: dict[tuple[str, Any], Change] = {}
        event.listen(session, "after_flush", self._flushed)
        event.listen(session, "do_orm_execute", self._refuse_bulk)

    def _refuse_bulk(self, state: ORMExecuteState) -> None:
        """A statement that changes rows without loading them would be lost to undo."""
        if state.is_insert or state.is_update or state.is_delete:
            table = getattr(state.statement, "table", None)
            if table is not None and table.name in TABLES:
                raise TypeError(f"Rows of {table.name} are changed in bulk: undo would not know. Load them and change each.")

    def _flushed(self, session: Session, _context: UOWTransaction) -> None:
        for row in [*session.new, *session.dirty, *session.deleted]:
            if isinstance(row, Base) and row.in_history:
                after = None if row in session.deleted else _after(row)
                self._note(row, None if row in session.new else _before(row), after)
                references.note(session, row.__tablename__, inspect(row).mapper.primary_key_from_instance(row)[0], after)

    def _note(self, row: Base, before: Row | None, after: Row | None) -> None:
        table = row.__tablename__
        key = inspect(row).mapper.primary_key_from_instance(row)[0]
        known = self._noted.get((table, key))
        if known is None:
            self._noted[(table, key)] = {"table": table, "key": key, "before": before, "after": after}
        else:
            known["after"] = after

    def changes(self) -> list[Change]:
        """What changed so far, in order; rows that are as they were are left out."""
        return [change for change in self._noted.values() if change["before"] != change["after"]]


def _present(session: Session, mapper: Mapper[Any], key: Any) -> Row | None:
    row = session.get(mapper.class_, key)
    return None if row is None else _after(row)


def _replace(session: Session, changes: list[Change], now: str, then: str, label: str) -> None:
    """Put rows from their state `now` to their state `then`; refuse when one is not as it was left, or is in use by now."""
    for change in changes:
        mapper = TABLES[change["table"]]
        if _present(session, mapper, change["key"]) != change[now]:
            raise ZarabandaError(
                f"“{label}” cannot be taken back: it was changed since, in another window. Undo it there first, or change "
                "it by hand."
            )
    goes = {(change["table"], change["key"]) for change in changes if change[then] is None}
    undone = {(change["table"], change["key"]) for change in changes}
    users = [user for table, key in sorted(goes, key=str) for user in uses.users_of(session, table, key, but=undone)]
    if users:
        named = ", ".join(dict.fromkeys(users[:5]))
        raise InUse(f"“{label}” cannot be taken back: it is in use by now, by {named}. Take it out of there first.")
    session.expunge_all()
    try:
        for change in changes:
            _put(session, change, now, then)
    except IntegrityError as error:
        raise InUse(
            f"“{label}” cannot be taken back: something with the same name or place is there by now. Rename or move that first."
        ) from error
    for change in changes:
        if change[now] is None:
            uses.place_is_free(session, change["table"], change["key"], label)


def _put(session: Session, change: Change, now: str, then: str) -> None:
    mapper = TABLES[change["table"]]
    key_column = mapper.primary_key[0]
    if change[then] is None:
        session.execute(delete(mapper).where(key_column == change["key"]))
    elif change[now] is None:
        session.execute(insert(mapper).values(**change[then]))
    else:
        session.execute(update(mapper).where(key_column == change["key"]).values(**change[then]))
    references.note(session, change["table"], change["key"], change[then])


def undo(session: Session, browser: str) -> tuple[str, list[Change]]:
    """Take back the last edit of a browser; its label, and what it changes."""
    edit = session.scalars(select(Edit).where(Edit.browser == browser, ~Edit.undone).order_by(Edit.id.desc()).limit(1)).first()
    if edit is None:
        raise ZarabandaError("There is nothing to undo: you have not changed the show in this browser.")
    number, label, changes = edit.id, edit.label, edit.changes
    _replace(session, changes[::-1], "after", "before", label)
    session.execute(update(Edit).where(Edit.id == number).values(undone=True))
    return label, changes


def redo(session: Session, browser: str) -> tuple[str, list[Change]]:
    """Do the earliest undone edit of a browser again; its label, and what it changes."""
    edit = session.scalars(select(Edit).where(Edit.browser == browser, Edit.undone).order_by(Edit.id).limit(1)).first()
    if edit is None:
        raise ZarabandaError("There is nothing to redo.")
    number, label, changes = edit.id, edit.label, edit.changes
    _replace(session, changes, "before", "after", label)
    session.execute(update(Edit).where(Edit.id == number).values(undone=False))
    return label, changes


def waiting(session: Session, browser: str) -> tuple[str | None, str | None]:
    """Labels of what undo and redo would take: for the buttons."""
    done = select(Edit.label).where(Edit.browser == browser, ~Edit.undone).order_by(Edit.id.desc()).limit(1)
    undone = select(Edit.label).where(Edit.browser == browser, Edit.undone).order_by(Edit.id).limit(1)
    return session.scalar(done), session.scalar(undone)
