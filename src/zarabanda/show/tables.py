"""The tables of a show. Documents (effects, modes, selections) are JSON columns, checked by `formats` at the boundary."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import JSON, Boolean, DateTime, Float, ForeignKey, Integer, String
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """All tables. Those with `in_history` are followed by undo; their rows have one key."""

    in_history = True

    def in_words(self) -> str:
        """What a user would call this row."""
        name = getattr(self, "name", None)
        kind = self.__tablename__.replace("_", " ").removeprefix("head ")
        return f"the {kind} “{name}”" if name else f"the {kind}"


class Show(Base):
    """The show itself, one row. settings: opening actions and the like."""

    __tablename__ = "show"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    settings: Mapped[dict[str, Any]] = mapped_column(JSON, default=dict)


class Mode(Base):
    """A fixture's set of channels, as a mode document."""

    __tablename__ = "mode"
    name: Mapped[str] = mapped_column(String(120), primary_key=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)


class Fixture(Base):
    """A fixture: place in m, rotation in degrees, universe 1…63999, address 1…512."""

    __tablename__ = "fixture"
    number: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    mode: Mapped[str] = mapped_column(ForeignKey("mode.name"))
    x: Mapped[float] = mapped_column(Float)
    y: Mapped[float] = mapped_column(Float)
    z: Mapped[float] = mapped_column(Float)
    turn_x: Mapped[float] = mapped_column(Float, default=0.0)
    turn_y: Mapped[float] = mapped_column(Float, default=0.0)
    turn_z: Mapped[float] = mapped_column(Float, default=0.0)
    universe: Mapped[int] = mapped_column(Integer)
    address: Mapped[int] = mapped_column(Integer)
    reversed_cells: Mapped[bool] = mapped_column(Boolean, default=False)


class Group(Base):
    """A kept selection: head keys in their order."""

    __tablename__ = "head_group"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    heads: Mapped[list[str]] = mapped_column(JSON)
    position: Mapped[int] = mapped_column(Integer)


class TempoRow(Base):
    """A shared speed, with the BPM it has when the show opens."""

    __tablename__ = "tempo"
    name: Mapped[str] = mapped_column(String(80), primary_key=True)
    bpm: Mapped[float] = mapped_column(Float)
    position: Mapped[int] = mapped_column(Integer)


class EffectRow(Base):
    """An effect document. kept: in the library; else it belongs to the draft alone."""

    __tablename__ = "effect"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80))
    kept: Mapped[bool] = mapped_column(Boolean, default=False)
    favourite: Mapped[bool] = mapped_column(Boolean, default=False)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)


class PaletteRow(Base):
    """Kept values of one family, as a palette document."""

    __tablename__ = "palette"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    position: Mapped[int] = mapped_column(Integer)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)


class Page(Base):
    """A page of faders and buttons."""

    __tablename__ = "page"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80))
    position: Mapped[int] = mapped_column(Integer)


class ControlRow(Base):
    """A fader or button of a page, and the effect and heads it runs. mode: fader, latch or flash; release in s.

    job: what a fader changes, depth, speed or both; families: whose layers act, none for all.
    """

    __tablename__ = "control"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    page_id: Mapped[int] = mapped_column(ForeignKey("page.id"))
    place: Mapped[int] = mapped_column(Integer)
    name: Mapped[str] = mapped_column(String(80))
    mode: Mapped[str] = mapped_column(String(12))
    effect_id: Mapped[int] = mapped_column(ForeignKey("effect.id"))
    heads: Mapped[list[str]] = mapped_column(JSON)
    job: Mapped[str] = mapped_column(String(12), default="depth")
    families: Mapped[list[str] | None] = mapped_column(JSON, nullable=True)
    release_s: Mapped[float] = mapped_column(Float, default=0.4)


class DraftValue(Base):
    """Values set by hand of one attribute: natural value by head key."""

    __tablename__ = "draft_value"
    attribute: Mapped[str] = mapped_column(String(40), primary_key=True)
    heads: Mapped[dict[str, float]] = mapped_column(JSON)


class DraftEffect(Base):
    """An effect that runs in the draft, on head keys in their order."""

    __tablename__ = "draft_effect"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    effect_id: Mapped[int] = mapped_column(ForeignKey("effect.id"))
    heads: Mapped[list[str]] = mapped_column(JSON)

    def in_words(self) -> str:
        return "the draft"


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
