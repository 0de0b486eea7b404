"""What uses what in a show: asked before something goes, and before something comes back."""

from __future__ import annotations

from collections.abc import Collection
from typing import Any

from sqlalchemy import func, inspect, select
from sqlalchemy.orm import Session

from zarabanda.errors import InUse

from . import references
from .tables import Base, ControlRow, CueRow, EffectRow

Key = tuple[str, Any]


def users_of(session: Session, table: str, key: Any, but: Collection[Key] = ()) -> list[str]:
    """What refers to a row, in words; rows in `but` do not count."""
    found = []
    for mapper in Base.registry.mappers:
        for reference in mapper.local_table.foreign_keys:
            if reference.column.table.name != table:
                continue
            column = mapper.columns[reference.parent.key]
            for user in session.scalars(select(mapper.class_).where(column == key)):
                own_key = mapper.primary_key_from_instance(user)[0]
                if (user.__tablename__, own_key) not in but:
                    found.append(user.in_words())
    found += [
        user.in_words()
        for user in references.users_of(session, table, key)
        if (user.__tablename__, inspect(user).mapper.primary_key_from_instance(user)[0]) not in but
    ]
    return found


def place_is_free(session: Session, table: str, key: Any, label: str) -> None:
    """Refuse what comes back to a place or name that something else has by now."""
    taken: Base | None = None
    if table == ControlRow.__tablename__ and (control := session.get(ControlRow, key)) is not None:
        same = ControlRow.page_id == control.page_id, ControlRow.row == control.row, ControlRow.place == control.place
        taken = session.scalars(select(ControlRow).where(*same, ControlRow.id != key)).first()
    elif table == EffectRow.__tablename__ and (effect := session.get(EffectRow, key)) is not None and effect.kept:
        alike = func.lower(EffectRow.name) == effect.name.lower()
        taken = session.scalars(select(EffectRow).where(EffectRow.kept, alike, EffectRow.id != key)).first()
    elif table == CueRow.__tablename__ and (cue := session.get(CueRow, key)) is not None:
        taken = session.scalars(
            select(CueRow).where(CueRow.list_id == cue.list_id, CueRow.number == cue.number, CueRow.id != key)
        ).first()
    if taken is not None:
        raise InUse(f"“{label}” cannot be done: {taken.in_words()} is there by now. Rename or move that first.")
