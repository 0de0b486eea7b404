"""What the API takes and gives of the rig and selections."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from ..parts import HeadKeys, Part


class PartView(BaseModel):
    """A head of every fixture in a mode. part: the number of the cell, 0 the fixture itself; what it can do."""

    part: int
    attributes: list[str]


class ModeView(BaseModel):
    """A mode. label: what tells it from other modes of its model; footprint: slots; cells: how many; parts: its heads."""

    id: int
    name: str
    label: str
    maker: str
    model: str
    kind: str
    footprint: int
    cells: int
    parts: list[PartView]


class FixtureView(BaseModel):
    """A fixture of the patch. groups: that have some of its heads."""

    number: int
    name: str
    mode_id: int
    universe: int | None
    address: int | None
    place: tuple[float, float, float]
    rotation: tuple[float, float, float]
    cell_order: str
    notes: str
    groups: list[int]


class RigView(BaseModel):
    """The rig. number: as in the header of live frames. places: x, y, z of each head in m, one after another; heads are in
    the order of fixture numbers, within each in that of the parts of its mode."""

    number: int
    fixtures: list[FixtureView]
    modes: list[ModeView]
    places: list[float]


class SelectionText(Part):
    """A selection in words, on top of a current one. cells: fixtures are taken as their cells."""

    text: Annotated[str, Field(max_length=500)]
    current: HeadKeys = Field(default_factory=list)
    cells: bool = False


class SelectionOrder(Part):
    """Heads to put in order."""

    heads: HeadKeys
    order: Annotated[list[str], Field(min_length=1, max_length=8)]


class SelectionView(BaseModel):
    """Heads in their order."""

    heads: list[str]
