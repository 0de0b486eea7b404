"""The draft: values set by hand, fans over them, and effects that run on them."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.playback.looks import Look
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError, shown
from zarabanda.formats.fan_document import FanDocument
from zarabanda.messages import HeldValues, PaletteUse
from zarabanda.messages.looks import look_of

from ..tables import DraftEffect, DraftFan, DraftValue, EffectRow, PaletteRow
from . import palettes
from .effects import all_uses
from .rows import get

Wanted = float | PaletteUse | None
"""A value, that of a palette, or None: it is taken back."""


def _rows(session: Session, names: Collection[str] | None) -> Iterable[DraftValue]:
    query = select(DraftValue)
    return session.scalars(query if names is None else query.where(DraftValue.attribute.in_(names)))


def fans(session: Session) -> dict[int, FanDocument]:
    """All fans by their number."""
    return {row.id: FanDocument.model_validate(row.document) for row in session.scalars(select(DraftFan))}


def fanned(session: Session) -> list[str]:
    """Attributes that fans have values of."""
    return [row.attribute for row in _rows(session, None) if any(_fan_of(value) is not None for value in row.heads.values())]


def following(session: Session, fan_id: int) -> dict[str, list[str]]:
    """Heads that a fan gives values to, by attribute."""
    every = {row.attribute: row.heads for row in _rows(session, None)}
    found = {name: [head for head, value in heads.items() if _fan_of(value) == fan_id] for name, heads in every.items()}
    return {name: heads for name, heads in found.items() if heads}


def _fan_of(value: Any) -> int | None:
    return value.get("fan") if isinstance(value, dict) else None


def held(session: Session, names: Collection[str] | None = None) -> HeldValues:
    """What is set by hand, by attribute (None: all) and head key: natural values, or those of palettes."""
    known = fans(session)
    found: HeldValues = {}
    for row in _rows(session, names):
        spread: dict[int, Mapping[str, float]] = {}
        heads: dict[str, float | PaletteUse] = {}
        for head, value in row.heads.items():
            if not isinstance(value, dict):
                heads[head] = value
            elif "palette" in value:
                heads[head] = PaletteUse(value["palette"])
            elif (fan := value["fan"]) in known:
                if fan not in spread:
                    spread[fan] = known[fan].values_of(row.attribute)
                if head in spread[fan]:
                    heads[head] = spread[fan][head]
        found[row.attribute] = heads
    return found


def look(session: Session, values: HeldValues | None = None) -> Look:
    """What is set by hand as a look, with its palettes. values: what `held` has read already, or some of it."""
    kept = held(session) if values is None else values
    used = {value.palette for heads in kept.values() for value in heads.values() if isinstance(value, PaletteUse)}
    rows = session.scalars(select(PaletteRow).where(PaletteRow.id.in_(used))) if used else ()
    return look_of(kept, {row.id: palettes.to_core(row) for row in rows})


def sources(session: Session) -> dict[str, dict[str, str]]:
    """From what each value set by hand comes, in a word, by attribute and head key: the palette, `fan`, or `draft`."""
    names = {row.id: row.name for row in session.execute(select(PaletteRow.id, PaletteRow.name))}

    def of(value: Any) -> str:
        if not isinstance(value, dict):
            return "draft"
        return names.get(value["palette"], "a palette that is gone") if "palette" in value else "fan"

    return {row.attribute: {head: of(value) for head, value in row.heads.items()} for row in _rows(session, None)}


def put_on(session: Session, effect_id: int, heads: Iterable[str]) -> DraftEffect:
    """Run an effect in the draft."""
    get(session, EffectRow, effect_id, "effect")
    row = DraftEffect(effect_id=effect_id, heads=list(heads))
    session.add(row)
    session.flush()
    return row


def remove(session: Session, draft_effect_id: int) -> None:
    """Take an effect out of the draft; one that was not kept goes with it."""
    row = get(session, DraftEffect, draft_effect_id, "draft effect")
    effect = get(session, EffectRow, row.effect_id, "effect")
    session.delete(row)
    session.flush()
    if not effect.kept and not all_uses(session, effect.id):
        session.delete(effect)


def clear(session: Session) -> None:
    """Take back all values set by hand, and all effects of the draft."""
    for value in [*session.scalars(select(DraftValue)), *session.scalars(select(DraftFan))]:
        session.delete(value)
    for effect in session.scalars(select(DraftEffect)).all():
        remove(session, effect.id)


def set_values(session: Session, values: Mapping[str, Mapping[str, Wanted]]) -> None:
    """Set values by attribute and head key, in natural units or from palettes; None takes a value back."""
    check(values)
    for attribute, wanted in values.items():
        _merge(session, attribute, {head: _plain(value) for head, value in wanted.items()})
    _forget_fans(session)


def check(values: Mapping[str, Mapping[str, Wanted]]) -> None:
    """Refuse attributes that do not exist, and values out of their range."""
    for attribute, wanted in values.items():
        row = attributes.BY_NAME.get(attribute)
        if row is None:
            known = ", ".join(attributes.BY_NAME)
            raise ZarabandaError(f"There is no attribute {shown(attribute)}; use one of {known}.", "attribute")
        for head, value in wanted.items():
            if isinstance(value, float | int) and not row.low <= value <= row.high:
                limits = f"{row.low:g} to {row.high:g} {row.unit}".strip()
                raise ZarabandaError(
                    f"{attribute} {value:g} of head {head} is out of range; it goes from {limits}.", f"values.{head}"
                )


def _plain(value: Wanted) -> Any:
    return {"palette": value.palette} if isinstance(value, PaletteUse) else None if value is None else float(value)


def _merge(session: Session, attribute: str, wanted: Mapping[str, Any]) -> None:
    row = session.get(DraftValue, attribute)
    merged = {**(row.heads if row else {}), **wanted}
    kept = {head: value for head, value in merged.items() if value is not None}
    if row is None and kept:
        session.add(DraftValue(attribute=attribute, heads=kept))
    elif row is not None and kept:
        row.heads = kept
    elif row is not None:
        session.delete(row)


def add_fan(session: Session, document: FanDocument, on: Mapping[str, Iterable[str]]) -> DraftFan:
    """A fan, in place of what its heads had. on: heads by attribute that it gives values of."""
    row = DraftFan(document=document.model_dump(mode="json"))
    session.add(row)
    session.flush()
    for attribute, heads in on.items():
        _merge(session, attribute, {key: {"fan": row.id} for key in heads})
    _forget_fans(session)
    return row


def change_fan(session: Session, fan_id: int, document: FanDocument) -> None:
    """Another rule, or another order."""
    get(session, DraftFan, fan_id, "fan").document = document.model_dump(mode="json")


def _forget_fans(session: Session) -> None:
    """Fans that give no head a value any more go."""
    session.flush()
    every = session.scalars(select(DraftFan)).all()
    if not every:
        return
    used = {_fan_of(value) for row in _rows(session, None) for value in row.heads.values()}
    for fan in every:
        if fan.id not in used:
            session.delete(fan)
    session.flush()
