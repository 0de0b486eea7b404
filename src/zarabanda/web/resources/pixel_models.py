"""What the API takes and gives of pixel maps, pictures and media."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import BaseModel, Field

from zarabanda.formats.pixel_document import CanvasDocument, LayerDocument, PixelMapDocument

from ..parts import Id, Name, Part
from .effect_models import SentencePart


class NewPixelMap(Part):
    """A new map: its canvas; a layer at once, of this figure or picture of the library; None: none."""

    name: Name
    canvas: CanvasDocument
    figure: str | None = None
    picture: Id | None = None


class MapChange(Part):
    """What is to be changed of a map. Layers have edits of their own."""

    name: Name | None = None
    canvas: CanvasDocument | None = None
    acts: str | None = None
    over_effects: bool | None = None
    in_s: Annotated[float, Field(ge=0, le=3600)] | None = None
    out_s: Annotated[float, Field(ge=0, le=3600)] | None = None


class NewLayer(Part):
    """A new layer on top: of a figure, the layers of a picture of the library, or a medium."""

    figure: str | None = None
    picture: Id | None = None
    medium: Annotated[str, Field(max_length=64)] | None = None


class LayerChange(Part):
    """Another value at a path of a layer, such as `settings.number`; preview: on stage, not kept."""

    path: Annotated[str, Field(max_length=80)]
    value: Any = None
    preview: bool = False


class LayersOrder(Part):
    """Layers in their order, the lowest first."""

    ids: Annotated[list[Id], Field(max_length=64)]


class IntoCue(Part):
    """A map to come in with a cue of a list."""

    list: Id
    picture: Id = 0
    over: bool | None = None


class NewPicture(Part):
    """Layers of a map to be kept in the library; none: all of them."""

    name: Name
    map: Id
    layers: Annotated[list[Id], Field(max_length=64)] = Field(default_factory=list)


class PictureName(Part):
    """Another name."""

    name: Name


class LayerView(BaseModel):
    """A layer with its sentence; summary: in a few words; settings: slots for what the sentence does not say; edition: tells
    whether its picture is another."""

    id: int
    name: str
    summary: str
    join: str
    document: LayerDocument
    sentence: list[SentencePart]
    settings: list[SentencePart]
    edition: str


class MapView(BaseModel):
    """A map, from the lowest layer to the one on top. cells: how many are there, of so many asked for; words: of its canvas;
    edition: tells whether its cells are others."""

    id: int
    name: str
    cells: int
    asked: int
    words: str
    document: PixelMapDocument
    sentence: list[SentencePart]
    layers: list[LayerView]
    used_by: list[str]
    edition: str


class CellsView(BaseModel):
    """The cells of a map. width, height: of its canvas, the longer is 1; rows: about how many lie one below another; heads: which
    each is, by its number in live frames, and its key; areas: left, top, right and bottom of each, one after another."""

    width: float
    height: float
    rows: int
    heads: list[int]
    keys: list[str]
    areas: list[float]


class PictureView(BaseModel):
    """A picture of the library."""

    id: int
    name: str
    words: str
    used_by: list[str]
    edition: str


class PixelsView(BaseModel):
    """Maps, without layers, and pictures, in their order."""

    maps: list[MapName]
    pictures: list[PictureView]


class MapName(BaseModel):
    """A map by its name."""

    id: int
    name: str
    cells: int


class MapKept(BaseModel):
    """A map as it is by now."""

    map: MapView
    done: str


class EntryView(BaseModel):
    """An entry of a table, as it is chosen."""

    name: str
    label: str


class TablesView(BaseModel):
    """Figures, motions, what colours go by, ways to join, what a map acts on, orders of cells on a grid, and of
    the cells of a fixture."""

    figures: list[EntryView]
    motions: list[EntryView]
    overs: list[EntryView]
    joins: list[EntryView]
    acts: list[EntryView]
    orders: list[EntryView]
    cell_orders: list[EntryView]


class MediumView(BaseModel):
    """A picture or film, and what uses it."""

    hash: str
    name: str
    kind: str
    width: int
    height: int
    seconds: float
    rate: float
    transparent: bool
    used_by: list[str]


class MediaView(BaseModel):
    """All media, by name."""

    media: list[MediumView]


class MediumKept(BaseModel):
    """A medium that was taken in."""

    medium: MediumView
    done: str
