"""Pixel maps, and the pictures of the library that fit any canvas."""

from __future__ import annotations

from typing import Any

from sqlalchemy import JSON, Integer, String
from sqlalchemy.orm import Mapped, mapped_column

from .base import NEVER_AGAIN, Base


class PixelMapRow(Base):
    """A pixel map, at its place among them. document: see `formats.pixel_document.PixelMapDocument`, with the numbers of palettes
    and tempos."""

    __tablename__ = "pixel_map"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    position: Mapped[int] = mapped_column(Integer)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN

    def in_words(self) -> str:
        return f"the pixel map “{self.name}”"


class PictureRow(Base):
    """A picture of the library. document: see `formats.pixel_document.StackDocument`, with the numbers of palettes and tempos."""

    __tablename__ = "picture"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80), unique=True)
    position: Mapped[int] = mapped_column(Integer)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    __table_args__ = NEVER_AGAIN

    def in_words(self) -> str:
        return f"the picture “{self.name}”"
