"""What looks and effects are made of: tempos, effects, palettes, the draft."""

from __future__ import annotations

from typing import Any

from sqlalchemy import JSON, Boolean, Float, ForeignKey, Integer, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import NEVER_AGAIN, Base


class TempoRow(Base):
    """A shared speed, with the BPM it has when the show opens."""

    __tablename__ = "tempo"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    bpm: Mapped[float] = mapped_column(Float)
    position: Mapped[int] = mapped_column(Integer)
    __table_args__ = NEVER_AGAIN


class EffectRow(Base):
    """An effect document, with the numbers of palettes and tempos in it. kept: in the library; else of the draft alone."""

    __tablename__ = "effect"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80))
    kept: Mapped[bool] = mapped_column(Boolean, default=False)
    favourite: Mapped[bool] = mapped_column(Boolean, default=False)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN


class PaletteRow(Base):
    """Kept values, as a palette document."""

    __tablename__ = "palette"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    position: Mapped[int] = mapped_column(Integer)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN


class DraftValue(Base):
    """Values set by hand of one attribute, by head key: a natural value, `{"palette": number}` or `{"fan": number}`."""

    __tablename__ = "draft_value"
    attribute: Mapped[str] = mapped_column(String(40), primary_key=True)
    heads: Mapped[dict[str, Any]] = mapped_column(JSON)

    def in_words(self) -> str:
        return "the draft"


class DraftFan(Base):
    """A fan in the draft, as a fan document: its rule, and its heads in their order."""

    __tablename__ = "draft_fan"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN

    def in_words(self) -> str:
        return "the draft"


class DraftEffect(Base):
    """An effect that runs in the draft, on head keys in their order."""

    __tablename__ = "draft_effect"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    effect_id: Mapped[int] = mapped_column(ForeignKey("effect.id"), index=True)
    heads: Mapped[list[str]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN

    def in_words(self) -> str:
        return "the draft"
