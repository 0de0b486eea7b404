"""What the API takes and gives of the rig and selections."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from ..parts import HeadKeys, Part


class HeadView(BaseModel):
    """A head: its fixture, place in metres, what it is and what it can do."""

    key: str
    fixture: int
    cell: int
    kind: str
    place: tuple[float, float, float]
    attributes: list[str]


class FixtureView(BaseModel):
    """A fixture of the patch."""

    number: int
    name: str
    maker: str
    model: str
    mode: str
    kind: str
    heads: int
    universe: int
    address: int
    footprint: int
    place: tuple[float, float, float]


class RigView(BaseModel):
    """The rig. number: as in the header of live frames, whose heads come in this order."""

    number: int
    fixtures: list[FixtureView]
    heads: list[HeadView]


class SelectionText(Part):
    """A selection in words, on top of a current one."""

    text: Annotated[str, Field(max_length=500)]
    current: HeadKeys = Field(default_factory=list)


class SelectionOrder(Part):
    """Heads to put in order."""

    heads: HeadKeys
    order: Annotated[list[str], Field(min_length=1, max_length=8)]


class SelectionView(BaseModel):
    """Heads in their order."""

    heads: list[str]
