"""Songs on a time axis: timelines with their markers, tracks and events."""

from __future__ import annotations

from typing import Any

from sqlalchemy import JSON, Float, ForeignKey, Integer, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import NEVER_AGAIN, Base


class TimelineRow(Base):
    """A timeline, at its place in the running order. document: see `formats.timeline_document.TimelineDocument`."""

    __tablename__ = "timeline"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    position: Mapped[int] = mapped_column(Integer)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN

    def in_words(self) -> str:
        return f"the song “{self.name}”"


class MarkerRow(Base):
    """A marker: see `formats.timeline_document.MarkerDocument`. at, length in s."""

    __tablename__ = "marker"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    timeline_id: Mapped[int] = mapped_column(ForeignKey("timeline.id"), index=True)
    at: Mapped[float] = mapped_column(Float)
    length: Mapped[float] = mapped_column(Float, default=0.0)
    name: Mapped[str] = mapped_column(String(60))
    colour: Mapped[str] = mapped_column(String(7), default="")
    __table_args__ = NEVER_AGAIN


class TrackRow(Base):
    """A track of a timeline. document: see `formats.timeline_document.TrackDocument`.

    What it drives may go: its events stay where they are, say so, and play again when it comes back.
    """

    __tablename__ = "track"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    timeline_id: Mapped[int] = mapped_column(ForeignKey("timeline.id"), index=True)
    position: Mapped[int] = mapped_column(Integer)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN

    def in_words(self) -> str:
        return f"the track “{self.document.get('name', '')}”"


class EventRow(Base):
    """An event on a track. at, length in s; document: see `formats.timeline_document.EVENTS`."""

    __tablename__ = "event"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    track_id: Mapped[int] = mapped_column(ForeignKey("track.id"), index=True)
    at: Mapped[float] = mapped_column(Float)
    length: Mapped[float] = mapped_column(Float, default=0.0)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN
