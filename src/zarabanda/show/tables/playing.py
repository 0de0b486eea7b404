"""What plays: pages, busking pages, cue lists, specials, kept looks."""

from __future__ import annotations

from typing import Any

from sqlalchemy import JSON, Boolean, Float, ForeignKey, Index, Integer, String
from sqlalchemy.orm import Mapped, mapped_column

from zarabanda import targets

from .base import NEVER_AGAIN, Base


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


class PlaceRow(Base):
    """A named place on stage, in m: where a singer stands, where the drums are."""

    __tablename__ = "place"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    x: Mapped[float] = mapped_column(Float)
    y: Mapped[float] = mapped_column(Float)
    z: Mapped[float] = mapped_column(Float, default=0.0)
    __table_args__ = NEVER_AGAIN


class SpecialRow(Base):
    """A special. document: see `formats.special_document.SpecialDocument`, with the number of a place."""

    __tablename__ = "special"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    position: Mapped[int] = mapped_column(Integer)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN


class LookRow(Base):
    """A kept look. over: an overlay, which lies over others by its position; document: see `formats.look_document.LookDocument`,
    with the numbers of palettes and effects."""

    __tablename__ = "look"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    position: Mapped[int] = mapped_column(Integer)
    over: Mapped[bool] = mapped_column(Boolean, default=False)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN

    def in_words(self) -> str:
        return f"the {'overlay' if self.over else 'look'} “{self.name}”"


class ActionListRow(Base):
    """An action list. document: see `formats.action_document.ActionListDocument`, with the numbers of what its steps are on."""

    __tablename__ = "action_list"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN
