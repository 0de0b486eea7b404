"""The tables of a show. Documents (effects, modes, selections) are JSON columns, checked by `formats` at the boundary."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import JSON, Boolean, DateTime, Float, ForeignKey, Index, Integer, String
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

from zarabanda import targets

NEVER_AGAIN = {"sqlite_autoincrement": True}
"""A number that a deleted row had is not given to another: what still plays by it must not become something else."""


class Base(DeclarativeBase):
    """All tables. Those with `in_history` are followed by undo; their rows have one key.

    Rows refer to each other by number, never by name: by foreign keys, and from within documents (see `references`).
    """

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
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(120), unique=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN


class Fixture(Base):
    """A fixture: place in m, rotation in degrees, universe 1…63999, address 1…512, or neither of the two.

    cell_order: how its cells are numbered, a name from `core.rig.cells.CELL_ORDERS`.
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


class Page(Base):
    """A page of faders and buttons."""

    __tablename__ = "page"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80))
    position: Mapped[int] = mapped_column(Integer)
    __table_args__ = NEVER_AGAIN


class ControlRow(Base):
    """A fader or button: where it is (page, row, place), how it acts, and what it drives (a target: see `targets`).

    row: faders or buttons; place: 1…; mode: fader, latch or flash; job: what a fader changes, depth, speed or both; release in s.
    """

    __tablename__ = "control"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    page_id: Mapped[int] = mapped_column(ForeignKey("page.id"))
    row: Mapped[str] = mapped_column(String(12))
    place: Mapped[int] = mapped_column(Integer)
    name: Mapped[str] = mapped_column(String(80))
    mode: Mapped[str] = mapped_column(String(12))
    job: Mapped[str] = mapped_column(String(12), default="depth")
    release_s: Mapped[float] = mapped_column(Float, default=0.4)
    target: Mapped[dict[str, Any]] = mapped_column(JSON)

    @property
    def effect_id(self) -> int:
        """The effect that it drives, 0: none."""
        target = targets.read(self.target)
        return target.effect_id if isinstance(target, targets.EffectOnHeads) else 0

    __table_args__ = (Index("ix_control_place", "page_id", "row", "place"), NEVER_AGAIN)


class BuskPage(Base):
    """A busking page: rows of groups."""

    __tablename__ = "busk_page"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    position: Mapped[int] = mapped_column(Integer)
    __table_args__ = NEVER_AGAIN


class BuskRow(Base):
    """A row of a busking page. kind: all, lights, messages or haze; document: see `formats.busk_document.BuskRowDocument`.

    A palette or an effect that goes leaves its pads where they are: they say so, and work again when it comes back.
    """

    __tablename__ = "busk_row"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    page_id: Mapped[int] = mapped_column(ForeignKey("busk_page.id"), index=True)
    position: Mapped[int] = mapped_column(Integer)
    name: Mapped[str] = mapped_column(String(80))
    kind: Mapped[str] = mapped_column(String(12))
    group_id: Mapped[int | None] = mapped_column(ForeignKey("head_group.id"), index=True, default=None)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN

    def in_words(self) -> str:
        return f"the row “{self.name}” of a busking page"


class CueListRow(Base):
    """A cue list. settings: see `formats.cue_document.CueListSettings`, with the numbers of tempos."""

    __tablename__ = "cue_list"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    position: Mapped[int] = mapped_column(Integer)
    settings: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN


class CueRow(Base):
    """A cue of a list. number: decimals order it between others; document: see `formats.cue_document.CueDocument`, with the
    numbers of palettes, effects and tempos."""

    __tablename__ = "cue"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    list_id: Mapped[int] = mapped_column(ForeignKey("cue_list.id"), index=True)
    number: Mapped[float] = mapped_column(Float)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN

    def in_words(self) -> str:
        name = self.document.get("name")
        return f"cue {self.number:g}" + (f" “{name}”" if name else "")


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
