"""The draft: values set by hand, and effects that run on them."""

from __future__ import annotations

from collections.abc import Iterable

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError, shown

from ..tables import DraftEffect, DraftValue, EffectRow
from .effects import all_uses
from .rows import get


def values(session: Session) -> dict[str, dict[str, float]]:
    """What is set by hand, by attribute and head key, in natural units."""
    return {row.attribute: row.heads for row in session.scalars(select(DraftValue))}


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
    for value in session.scalars(select(DraftValue)):
        session.delete(value)
    for effect in session.scalars(select(DraftEffect)).all():
        remove(session, effect.id)


def set_values(session: Session, attribute: str, wanted: dict[str, float | None]) -> None:
    """Set values of one attribute by head key, in natural units; None takes a value back."""
    row_of = attributes.BY_NAME.get(attribute)
    if row_of is None:
        raise ZarabandaError(
            f"There is no attribute {shown(attribute)}; use one of {', '.join(attributes.BY_NAME)}.", "attribute"
        )
    for head, value in wanted.items():
        if value is not None and not row_of.low <= value <= row_of.high:
            raise ZarabandaError(
                f"{attribute} {value:g} of head {head} is out of range; it goes from {row_of.low:g} to {row_of.high:g} "
                f"{row_of.unit}.",
                f"values.{head}",
            )
    row = session.get(DraftValue, attribute)
    merged = {**(row.heads if row else {}), **wanted}
    kept = {head: float(value) for head, value in merged.items() if value is not None}
    if row is None and kept:
        session.add(DraftValue(attribute=attribute, heads=kept))
    elif row is not None and kept:
        row.heads = kept
    elif row is not None:
        session.delete(row)
