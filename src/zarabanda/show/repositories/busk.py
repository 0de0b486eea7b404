"""Busking pages, their rows, and the pads on these."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda.errors import NotThere, ZarabandaError
from zarabanda.formats.busk_document import BuskRowDocument

from ..tables import BuskPage, BuskRow, Group
from .rows import get, own_name, place_in_order

MOST_ROWS = 40


def pages(session: Session) -> Sequence[BuskPage]:
    """Pages in their order."""
    return session.scalars(select(BuskPage).order_by(BuskPage.position, BuskPage.id)).all()


def rows(session: Session, page_id: int | None = None) -> Sequence[BuskRow]:
    """Rows of a page, or of all, in their order."""
    query = select(BuskRow).order_by(BuskRow.page_id, BuskRow.position, BuskRow.id)
    return session.scalars(query if page_id is None else query.where(BuskRow.page_id == page_id)).all()


def document_of(row: BuskRow) -> BuskRowDocument:
    """Its document, read."""
    return BuskRowDocument.model_validate(row.document)


def put(row: BuskRow, document: BuskRowDocument) -> None:
    """Another document for a row."""
    row.document = document.model_dump(mode="json")


def add_page(session: Session, name: str) -> BuskPage:
    """A new page without rows, behind the others."""
    last = session.scalar(select(func.max(BuskPage.position)))
    page = BuskPage(name=own_name(session, BuskPage, name, "a busking page"), position=0 if last is None else last + 1)
    session.add(page)
    session.flush()
    return page


def rename_page(session: Session, page_id: int, name: str) -> BuskPage:
    """Another name."""
    page = get(session, BuskPage, page_id, "busking page")
    page.name = own_name(session, BuskPage, name, "a busking page", but=page_id)
    return page


def remove_page(session: Session, page_id: int) -> BuskPage:
    """A page and its rows, gone."""
    page = get(session, BuskPage, page_id, "busking page")
    for row in rows(session, page_id):
        session.delete(row)
    session.flush()
    session.delete(page)
    return page


def add_row(session: Session, page_id: int, kind: str, name: str, group: Group | None, document: BuskRowDocument) -> BuskRow:
    """A new row, below the others; the top row is always the first."""
    there = rows(session, page_id)
    if len(there) >= MOST_ROWS:
        raise ZarabandaError(f"A busking page has at most {MOST_ROWS} rows. Make another page for more.", "rows")
    last = max((one.position for one in there), default=-1)
    row = BuskRow(
        page_id=page_id, position=last + 1, name=name, kind=kind, group_id=None if group is None else group.id, document={}
    )  # fmt: skip
    put(row, document)
    session.add(row)
    session.flush()
    return row


def arrange(session: Session, page_id: int, order: Sequence[int]) -> None:
    """Rows of a page in this order; the top row stays on top, and rows that are not named come last."""
    there = rows(session, page_id)
    place_in_order(there, [*(one.id for one in there if one.kind == "all"), *order])


def with_pads(document: BuskRowDocument, section: str, pads: Sequence[dict[str, Any]]) -> BuskRowDocument:
    """A document with other pads in a section, in this order; those without a number are new."""
    plain, free = document.model_dump(mode="json"), document.free_pad
    numbered = []
    for pad in pads:
        if pad.get("id") is None:
            pad, free = {**pad, "id": free}, free + 1
        numbered.append(pad)
    return BuskRowDocument.model_validate({**plain, section: numbered})


def effect_pad(session: Session, key: str) -> tuple[BuskRow, int, int]:
    """The row of the pad that plays by a key (`row:4:2:4`), its effect, and the pad's number."""
    number, pad = (int(part) for part in key.split(":")[1:3])
    row = get(session, BuskRow, number, "row")
    effect = next((one.effect for one in document_of(row).effects if one.id == pad), None)
    if effect is None:
        raise NotThere("This pad does not exist any more; somebody may have taken it out. Undo brings it back.", "pad")
    return row, effect, pad
