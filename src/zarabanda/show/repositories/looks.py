"""Kept looks, and overlays among them."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.errors import InUse, NotThere, ZarabandaError
from zarabanda.formats.look_document import LookDocument

from ..tables import EffectRow, Group, LookRow
from .rows import get, named, place_in_order

MOST = 400


def every(session: Session) -> Sequence[LookRow]:
    """Looks in their order: overlays lie over one another in it."""
    return session.scalars(select(LookRow).order_by(LookRow.position, LookRow.id)).all()


def document_of(row: LookRow) -> LookDocument:
    """Its document, read."""
    return LookDocument.model_validate(row.document)


def _free_name(session: Session, name: str, but: int = 0) -> str:
    name = name.strip()
    taken = named(session, LookRow, name, but)
    if taken is not None:
        raise InUse(f"{taken.in_words().capitalize()} has this name already. Choose another.", "name")
    return name


def _fits(session: Session, document: LookDocument) -> None:
    if document.is_empty:
        raise ZarabandaError(
            "There is nothing to keep in it. Set some values or start an effect first, or choose other families or lights.",
            "families",
        )
    for one in document.effects:
        get(session, EffectRow, one.effect, "effect").kept = True
        if one.group_id is not None:
            get(session, Group, one.group_id, "group")


def add(session: Session, name: str, document: LookDocument, *, over: bool) -> LookRow:
    """A new look, behind the others; an overlay lies over the others."""
    there = every(session)
    if len(there) >= MOST:
        raise ZarabandaError(f"{MOST} looks are the most there can be. Delete one.", "looks")
    _fits(session, document)
    position = max((one.position for one in there), default=-1) + 1
    plain = document.model_dump(mode="json")
    row = LookRow(name=_free_name(session, name), position=position, over=over, document=plain)
    session.add(row)
    session.flush()
    return row


def change(session: Session, number: int, name: str, document: LookDocument) -> LookRow:
    """Another name or document."""
    row = get(session, LookRow, number, "look")
    _fits(session, document)
    row.name, row.document = _free_name(session, name, but=number), document.model_dump(mode="json")
    return row


def arrange(session: Session, order: Sequence[int]) -> None:
    """Looks in this order; those that are not named come last."""
    place_in_order(every(session), order)


def effect_at(session: Session, number: int, place: int) -> tuple[LookRow, LookDocument, int]:
    """The effect at a place of a look, by its number, with the look."""
    row = get(session, LookRow, number, "look")
    document = document_of(row)
    if place >= len(document.effects):
        raise NotThere("This effect is not in the look any more. Undo brings it back.", "look")
    return row, document, document.effects[place].effect
