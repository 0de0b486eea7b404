"""What the API takes and gives of palettes."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel

from ..parts import Name, Part


class PaletteView(BaseModel):
    """A palette: its document, and the kinds of head it acts on, with how many of them there are."""

    id: int
    name: str
    document: dict[str, Any]
    acts_on: dict[str, int]


class PalettesView(BaseModel):
    """All palettes."""

    palettes: list[PaletteView]


class PaletteContent(Part):
    """A palette's name and document."""

    name: Name
    document: dict[str, Any]
