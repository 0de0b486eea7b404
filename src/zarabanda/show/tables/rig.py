"""The rig, and where it sends."""

from __future__ import annotations

from typing import Any

from sqlalchemy import JSON, Boolean, Float, ForeignKey, Integer, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import NEVER_AGAIN, Base


class Mode(Base):
    """A fixture's set of channels, as a mode document."""

    __tablename__ = "mode"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(120), unique=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN


class Fixture(Base):
    """A fixture: place in m, rotation in degrees, universe 1…63999, address 1…512, or neither of the two.

    cell_order: how its cells are numbered, a name from `core.rig.cells.CELL_ORDERS`; layer, class_name: where other programs have
    put it; uuid: what they know it by.
    """

    __tablename__ = "fixture"
    number: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    mode_id: Mapped[int] = mapped_column(ForeignKey("mode.id"), index=True)
    x: Mapped[float] = mapped_column(Float)
    y: Mapped[float] = mapped_column(Float)
    z: Mapped[float] = mapped_column(Float)
    turn_x: Mapped[float] = mapped_column(Float, default=0.0)
    turn_y: Mapped[float] = mapped_column(Float, default=0.0)
    turn_z: Mapped[float] = mapped_column(Float, default=0.0)
    universe: Mapped[int | None] = mapped_column(Integer, default=None)
    address: Mapped[int | None] = mapped_column(Integer, default=None)
    cell_order: Mapped[str] = mapped_column(String(60), default="")
    notes: Mapped[str] = mapped_column(String(400), default="")
    layer: Mapped[str] = mapped_column(String(80), default="", server_default="")
    class_name: Mapped[str] = mapped_column(String(80), default="", server_default="")
    uuid: Mapped[str] = mapped_column(String(36), default="", server_default="")

    def in_words(self) -> str:
        return f"fixture {self.number}"


class Group(Base):
    """A kept selection: head keys in their order. rule: of which group it was made, and how; None: by hand."""

    __tablename__ = "head_group"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    heads: Mapped[list[str]] = mapped_column(JSON)
    position: Mapped[int] = mapped_column(Integer)
    rule: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True), default=None)
    __table_args__ = NEVER_AGAIN


class RouteRow(Base):
    """Which universes go where, as a route document; on: whether it sends."""

    __tablename__ = "route"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    on: Mapped[bool] = mapped_column(Boolean, default=False)
    __table_args__ = NEVER_AGAIN

    def in_words(self) -> str:
        return f"the route to {self.document.get('to', 'somewhere')}"


class DeviceRow(Base):
    """An outside device that cues send messages to, as a device document."""

    __tablename__ = "device"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN
