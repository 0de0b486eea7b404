"""Tempos: shared speeds."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.errors import ZarabandaError
from zarabanda.formats.effect_document import EffectDocument

from ..tables import TempoRow


def every(session: Session) -> Sequence[TempoRow]:
    """Tempos in their order."""
    return session.scalars(select(TempoRow).order_by(TempoRow.position, TempoRow.id)).all()


def named(session: Session, name: str) -> TempoRow | None:
    """The tempo of a name."""
    return session.scalars(select(TempoRow).where(TempoRow.name == name)).first()


def must_exist(session: Session, document: EffectDocument) -> None:
    """Refuse an effect whose tempo is not there."""
    if document.speed.kind == "tempo" and named(session, document.speed.tempo) is None:
        there = ", ".join(tempo.name for tempo in every(session))
        raise ZarabandaError(f"There is no tempo “{document.speed.tempo}”; use one of {there}.", "speed.tempo")
