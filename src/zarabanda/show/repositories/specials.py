"""Specials, and named places on stage."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from colorsys import rgb_to_hsv

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda.core.rig.modes import Place
from zarabanda.errors import ZarabandaError
from zarabanda.formats.special_document import SpecialDocument
from zarabanda.messages import HeldValues, SpecialPart

from .. import references
from ..tables import PlaceRow, SpecialRow
from .rows import get, own_name, place_in_order

MOST = 100
_WHITE = {"hue": 0.0, "saturation": 0.0}


def every(session: Session) -> Sequence[SpecialRow]:
    """Specials in their order."""
    return session.scalars(select(SpecialRow).order_by(SpecialRow.position, SpecialRow.id)).all()


def places(session: Session) -> dict[int, PlaceRow]:
    """Named places by number, in the order of their names."""
    return {row.id: row for row in session.scalars(select(PlaceRow).order_by(func.lower(PlaceRow.name)))}


def document_of(row: SpecialRow) -> SpecialDocument:
    """Its document, read."""
    return SpecialDocument.model_validate(row.document)


def point_of(document: SpecialDocument, there: Mapping[int, PlaceRow]) -> Place | None:
    """The point that it is aimed at, in m; None: it is aimed at none."""
    if document.aim is None:
        return None
    if document.aim.place is None:
        return document.aim.point
    place = there.get(document.aim.place)
    return None if place is None else (place.x, place.y, place.z)


def part_of(row: SpecialRow, there: Mapping[int, PlaceRow]) -> SpecialPart:
    """As the engine gets it."""
    document, heads = document_of(row), dict.fromkeys(document_of(row).heads)
    rgb = [int(document.colour[n : n + 2], 16) / 255 for n in (1, 3, 5)]
    hue, saturation, _ = rgb_to_hsv(*rgb)
    set_to = {"intensity": document.level, **dict(zip(("red", "green", "blue"), rgb, strict=True)), **document.beam}
    set_to |= {"hue": 360 * hue, "saturation": 100 * saturation}  # of lights that have these of their own
    values: HeldValues = {name: dict.fromkeys(heads, value) for name, value in set_to.items()}
    return SpecialPart(
        row.id, row.name, tuple(heads), values, document.out, document.move, document.up, point_of(document, there), row.position
    )


def new_name(session: Session) -> str:
    """A name that no special has: `Special 1`."""
    names = {row.name.lower() for row in every(session)}
    return next(f"Special {n}" for n in range(1, MOST + 2) if f"special {n}" not in names)


def add(session: Session, name: str, document: SpecialDocument) -> SpecialRow:
    """A new special, behind the others."""
    there = every(session)
    if len(there) >= MOST:
        raise ZarabandaError(f"{MOST} specials are the most there can be. Delete one.", "specials")
    _fits(session, document)
    position = max((one.position for one in there), default=-1) + 1
    row = SpecialRow(
        name=own_name(session, SpecialRow, name, "a special"), position=position, document=document.model_dump(mode="json")
    )
    session.add(row)
    session.flush()
    return row


def change(session: Session, number: int, name: str, document: SpecialDocument) -> SpecialRow:
    """Another name or document."""
    row = get(session, SpecialRow, number, "special")
    _fits(session, document)
    row.name, row.document = own_name(session, SpecialRow, name, "a special", but=number), document.model_dump(mode="json")
    return row


def _fits(session: Session, document: SpecialDocument) -> None:
    if not document.heads:
        raise ZarabandaError("A special has no lights yet. Choose at least one.", "document.heads")
    if document.aim is not None and document.aim.place is not None:
        get(session, PlaceRow, document.aim.place, "place")


def arrange(session: Session, order: Sequence[int]) -> None:
    """Specials in this order; those that are not named come last."""
    place_in_order(every(session), order)


def add_place(session: Session, name: str, point: Place) -> PlaceRow:
    """A new named place."""
    row = PlaceRow(name=own_name(session, PlaceRow, name, "a place"), x=point[0], y=point[1], z=point[2])
    session.add(row)
    session.flush()
    return row


def change_place(session: Session, number: int, name: str, point: Place) -> PlaceRow:
    """Another name, or elsewhere: specials that are aimed at it follow."""
    row = get(session, PlaceRow, number, "place")
    row.name = own_name(session, PlaceRow, name, "a place", but=number)
    row.x, row.y, row.z = point
    return row


def remove_place(session: Session, number: int) -> PlaceRow:
    """A place, gone; specials that are aimed at it stay aimed at the point where it was."""
    row = get(session, PlaceRow, number, "place")
    for user in references.users_of(session, PlaceRow.__tablename__, number):
        if isinstance(user, SpecialRow):
            user.document = {**user.document, "aim": {"place": None, "point": [row.x, row.y, row.z]}}
    session.flush()
    session.delete(row)
    return row
