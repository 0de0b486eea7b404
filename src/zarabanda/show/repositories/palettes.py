"""Palettes: kept values that the draft refers to and stops of effects go to."""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Sequence
from functools import lru_cache
from typing import Any

import numpy as np
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from zarabanda.core.colour.spaces import rgb_to_hex
from zarabanda.core.effects.palette import Palette
from zarabanda.core.rig import attributes
from zarabanda.core.rig.heads import Heads
from zarabanda.errors import InUse, NotThere, ZarabandaError
from zarabanda.formats.effect_document import EffectDocument
from zarabanda.formats.palette_document import KEPT, MIXED, PaletteDocument

from .. import references
from ..tables import CueRow, DraftValue, EffectRow, LookRow, PaletteRow
from .rows import get, place_in_order


def every(session: Session) -> Sequence[PaletteRow]:
    """Palettes in their order."""
    return session.scalars(select(PaletteRow).order_by(PaletteRow.position, PaletteRow.id)).all()


def to_core(row: PaletteRow) -> Palette:
    """A palette as the core computes with it."""
    return _palette(row.name, json.dumps(row.document))


def document(row: PaletteRow) -> PaletteDocument:
    """Its document, read."""
    return PaletteDocument.model_validate(row.document, context=KEPT)


@lru_cache(maxsize=1024)
def _palette(name: str, document: str) -> Palette:
    return PaletteDocument.model_validate_json(document, context=KEPT).to_core(name)


def by_name(session: Session) -> dict[str, Palette]:
    """All of them as the core computes with them."""
    return {row.name: to_core(row) for row in every(session)}


def store(session: Session, name: str, document: PaletteDocument) -> PaletteRow:
    """A new palette, behind the others."""
    _name_is_free(session, name, 0)
    last = session.scalar(select(func.max(PaletteRow.position)))
    row = PaletteRow(name=name, position=0 if last is None else last + 1, document=document.plain())
    session.add(row)
    session.flush()
    return row


def free_name(session: Session, name: str) -> str:
    """This name, or with a number behind it where something has it already."""
    taken = {known.lower() for known in session.scalars(select(PaletteRow.name))}
    return next(one for one in (name, *(f"{name} {n}" for n in range(2, len(taken) + 3))) if one.lower() not in taken)


def change(session: Session, palette_id: int, name: str, document: PaletteDocument) -> PaletteRow:
    """Another name or other values for a palette; what refers to it follows both."""
    row = get(session, PaletteRow, palette_id, "palette")
    _name_is_free(session, name, row.id)
    row.name, row.document = name, document.plain()
    return row


def put_in_order(session: Session, order: Sequence[int]) -> None:
    """Palettes in this order; those that it does not name stay behind."""
    place_in_order(every(session), order)


def merge(session: Session, palette_id: int, other_id: int) -> PaletteRow:
    """Take the values of another palette into this one, over its own, and use this one wherever the other was used."""
    row, other = get(session, PaletteRow, palette_id, "palette"), get(session, PaletteRow, other_id, "palette")
    if row is other:
        raise ZarabandaError("A palette cannot be merged with itself; choose another.", "other")
    mine, theirs = to_core(row), to_core(other)
    merged: dict[str, Any] = {"values": {**mine.values, **theirs.values}}
    for name in ("models", "own"):
        ours, its = getattr(mine, name), getattr(theirs, name)
        merged[name] = {key: {**ours.get(key, {}), **its.get(key, {})} for key in {**ours, **its}}
    families = {attributes.BY_NAME[one].family for one in {*mine.names, *theirs.names}}
    family = families.pop() if len(families) == 1 else MIXED
    kept = {key: value for key, value in row.document.items() if key in ("set", "way")}
    row.document = PaletteDocument.model_validate({"family": family, **merged, **kept}).plain()
    replace(session, other.id, row.id)
    remove(session, other.id)
    return row


def remove(session: Session, palette_id: int) -> None:
    """Delete a palette that nothing refers to."""
    row = get(session, PaletteRow, palette_id, "palette")
    if users := in_words(used_by(session, palette_id)):
        raise InUse(
            f"“{row.name}” is in use by {', '.join(users[:5])}. Replace it there by its values or by another palette.", "palette"
        )
    session.delete(row)


def used_by(session: Session, palette_id: int) -> Counter[str]:
    """Who refers to a palette, in words, and at how many values or stops."""
    found: Counter[str] = Counter()
    for user in references.users_of(session, PaletteRow.__tablename__, palette_id):
        if isinstance(user, DraftValue):
            found["the draft"] += _count(user.heads, palette_id) if user.attribute not in _TOLD_ONCE else 0
        elif isinstance(user, CueRow | LookRow):
            values = {name: heads for name, heads in user.document["values"].items() if name not in _TOLD_ONCE}
            found[user.in_words()] += _count(values, palette_id)
        elif isinstance(user, EffectRow):
            found[user.in_words()] += _count(user.document, palette_id)
    return found


_TOLD_ONCE = attributes.COMPOUND["colour"][1:]
"""A colour counts once, by its red."""


def in_words(users: Counter[str]) -> list[str]:
    """`the effect “Tide”, 2 times`."""
    return [user if count == 1 else f"{user}, {count} times" for user, count in users.items()]


def _count(document: Any, palette_id: int) -> int:
    if isinstance(document, dict):
        if document.get("palette") == palette_id:
            return 1
        return sum(_count(one, palette_id) for one in document.values())
    return sum(_count(one, palette_id) for one in document) if isinstance(document, list) else 0


def replace(session: Session, palette_id: int, by: int | None, rig: Heads | None = None) -> None:
    """Let whatever refers to a palette refer to another, or (by: None) have its values, for the heads of a rig.

    A stop of an effect has one value for all heads: what the palette has for every head, else what its first head has.
    """
    row = get(session, PaletteRow, palette_id, "palette")
    other = get(session, PaletteRow, by, "palette") if by is not None else None
    palette = to_core(row)
    for user in references.users_of(session, PaletteRow.__tablename__, palette_id):
        if isinstance(user, DraftValue):
            user.heads = _replaced_on_heads(user.attribute, user.heads, palette_id, other, palette, rig)
        elif isinstance(user, CueRow | LookRow):
            values = {
                name: _replaced_on_heads(name, heads, palette_id, other, palette, rig)
                for name, heads in user.document["values"].items()
            }
            user.document = {**user.document, "values": values}
        elif isinstance(user, EffectRow):
            user.document = _replaced(user.document, palette_id, {"palette": other.id} if other else None, palette)
    session.flush()


def _replaced_on_heads(
    attribute: str, heads: dict[str, Any], palette_id: int, other: PaletteRow | None, palette: Palette, rig: Heads | None
) -> dict[str, Any]:
    found = {}
    for head, value in heads.items():
        if not isinstance(value, dict) or value.get("palette") != palette_id:
            found[head] = value
        elif other is not None:
            found[head] = {"palette": other.id}
        elif rig is not None and head in rig.index:
            number = float(palette.on(rig, [rig.index[head]], [attribute])[0, 0])
            if number == number:
                found[head] = number
    return found


def _replaced(document: Any, palette_id: int, by: dict[str, int] | None, palette: Palette, attribute: str = "") -> Any:
    """A document of an effect with another palette, or a value, in place of one. attribute: of the layer."""
    if isinstance(document, dict):
        if document == {"palette": palette_id}:
            return by if by is not None else _one_value(palette, attribute)
        attribute = document["attribute"] if isinstance(document.get("attribute"), str) else attribute
        return {key: _replaced(one, palette_id, by, palette, attribute) for key, one in document.items()}
    return [_replaced(one, palette_id, by, palette, attribute) for one in document] if isinstance(document, list) else document


def _one_value(palette: Palette, attribute: str) -> Any:
    names = attributes.touched(attribute)
    for values in (palette.values, *palette.models.values(), *palette.own.values()):
        if all(name in values for name in names):
            if attribute == "colour":
                return rgb_to_hex(np.array([values[name] for name in names]))
            return values[names[0]] if len(names) == 1 else "base"
    return "base"


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
