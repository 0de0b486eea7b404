"""The show itself, its history, and what refers to what."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import JSON, Boolean, DateTime, Index, Integer, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class Show(Base):
    """The show itself, one row. settings: opening actions and the like."""

    __tablename__ = "show"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    settings: Mapped[dict[str, Any]] = mapped_column(JSON, default=dict)


class Edit(Base):
    """One user action on the show: rows before and after. Undone ones wait for redo."""

    __tablename__ = "edit"
    in_history = False
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    browser: Mapped[str] = mapped_column(String(64), index=True)
    label: Mapped[str] = mapped_column(String(200))
    at: Mapped[datetime] = mapped_column(DateTime, default=lambda: datetime.now(UTC).replace(tzinfo=None))
    undone: Mapped[bool] = mapped_column(Boolean, default=False)
    changes: Mapped[list[dict[str, Any]]] = mapped_column(JSON)


class Reference(Base):
    """That a document of a row refers to another row. Made from the documents whenever they are written (see `references`).

    user_id: a number, or a word where rows of that table go by one, which SQLite keeps as it is.
    """

    __tablename__ = "reference"
    in_history = False
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    user_table: Mapped[str] = mapped_column(String(40))
    user_id: Mapped[Any] = mapped_column(Integer)
    used_table: Mapped[str] = mapped_column(String(40))
    used_id: Mapped[int] = mapped_column(Integer)
    __table_args__ = (
        Index("ix_reference_user", "user_table", "user_id"),
        Index("ix_reference_used", "used_table", "used_id"),
    )
