"""Palettes: kept values that stops of effects go to."""

from __future__ import annotations

import json
from collections.abc import Sequence
from functools import lru_cache

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda.core.effects.palette import Palette
from zarabanda.errors import InUse, NotThere
from zarabanda.formats.effect_document import EffectDocument
from zarabanda.formats.palette_document import PaletteDocument

from ..tables import PaletteRow
from ..uses import users_of
from .rows import get


def every(session: Session) -> Sequence[PaletteRow]:
    """Palettes in their order."""
    return session.scalars(select(PaletteRow).order_by(PaletteRow.position, PaletteRow.id)).all()


def to_core(row: PaletteRow) -> Palette:
    """A palette as the core computes with it."""
    return _palette(row.name, json.dumps(row.document))


@lru_cache(maxsize=1024)
def _palette(name: str, document: str) -> Palette:
    return PaletteDocument.model_validate_json(document).to_core(name)


def by_name(session: Session) -> dict[str, Palette]:
    """All of them as the core computes with them."""
    return {row.name: to_core(row) for row in every(session)}


def store(session: Session, name: str, document: PaletteDocument) -> PaletteRow:
    """A new palette, behind the others."""
    _name_is_free(session, name, 0)
    last = session.scalar(select(func.max(PaletteRow.position)))
    plain = document.model_dump(mode="json", exclude_none=True)
    row = PaletteRow(name=name, position=0 if last is None else last + 1, document=plain)
    session.add(row)
    session.flush()
    return row


def change(session: Session, palette_id: int, name: str, document: PaletteDocument) -> PaletteRow:
    """Another name or other values for a palette; effects that go to it follow both."""
    row = get(session, PaletteRow, palette_id, "palette")
    _name_is_free(session, name, row.id)
    row.name, row.document = name, document.model_dump(mode="json", exclude_none=True)
    return row


def remove(session: Session, palette_id: int) -> None:
    """Delete a palette that no effect goes to."""
    row = get(session, PaletteRow, palette_id, "palette")
    users = users_of(session, PaletteRow.__tablename__, palette_id)
    if users:
        raise InUse(f"“{row.name}” is in use by {', '.join(users[:5])}. Take it out of there first.", "palette")
    session.delete(row)


def must_exist(session: Session, document: EffectDocument, before: EffectDocument | None = None) -> None:
    """Refuse an effect that goes to a palette which is not there; one that it had before is let pass."""
    kept = before.palettes() if before else {}
    asked = {name: place for name, place in document.palettes().items() if name not in kept}
    names = {row.name for row in every(session)} if asked else set()
    for name, place in asked.items():
        if name not in names:
            raise NotThere(
                f"There is no palette “{name}”; use one of {', '.join(sorted(names)) or 'your own, once kept'}.", place
            )


def _name_is_free(session: Session, name: str, but: int) -> None:
    same = select(PaletteRow).where(func.lower(PaletteRow.name) == name.lower(), PaletteRow.id != but)
    if session.scalars(same).first() is not None:
        raise InUse(f"There is a palette named “{name}” already. Choose another name.", "name")
