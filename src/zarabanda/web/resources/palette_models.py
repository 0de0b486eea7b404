"""What the API takes and gives of palettes."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from ..parts import Done, HeadKeys, Id, Name, Part

Scope = Literal["heads", "models", "any"]
Families = Annotated[list[Literal["intensity", "position", "colour", "beam"]], Field(min_length=1, max_length=4)]


class Beam(BaseModel):
    """A beam as seen from the audience: x of both ends, −1…1, and y, from 0 at the top to 1 at the floor."""

    start: float
    end: float
    top: float
    bottom: float


class PalettePicture(BaseModel):
    """What a palette looks like: its colours; where beams point from where they hang (x of each end, −1…1); gobo slot, zoom in
    degrees and level in %, where it has them; words: the values of others."""

    colours: list[str]
    beams: list[Beam]
    gobo: int | None
    zoom: float | None
    level: float | None
    words: str


class PaletteView(BaseModel):
    """A palette: its document, for which heads it was made, the kinds of head it acts on with how many there are, who uses it
    in words, and how it looks."""

    id: int
    name: str
    family: str
    set: str
    way: str
    scope: Scope
    document: dict[str, Any]
    acts_on: dict[str, int]
    used_by: list[str]
    picture: PalettePicture


class PalettesView(BaseModel):
    """All palettes."""

    palettes: list[PaletteView]


class PaletteContent(Part):
    """A palette's name and document."""

    name: Name
    document: dict[str, Any]


class RenamePalette(Part):
    """Another name, or another way of colours to it (empty: the show's)."""

    name: Name | None = None
    way: Annotated[str, Field(max_length=20)] | None = None


class KeepPalette(Part):
    """Keep what is set by hand on these heads (none: on all) as a palette, of some families; for: which heads it is made for."""

    name: Name
    heads: HeadKeys = Field(default_factory=list)
    families: Families
    scope: Scope = "any"


class UpdatePalette(Part):
    """Take what is set by hand on these heads (none: on all) into a palette."""

    heads: HeadKeys = Field(default_factory=list)


class PaletteOrder(Part):
    """Palettes by number, in the order they shall have."""

    ids: Annotated[list[Id], Field(max_length=10_000)]


class OtherPalette(Part):
    """Another palette."""

    other: Id


class Replacement(Part):
    """What takes the place of a palette wherever it is used: another palette, or (none) its values. delete: then it goes."""

    by: Id | None = None
    delete: bool = True


class ColourSet(Part):
    """A set of colours: how many; for all lights, and for each of these groups apart."""

    count: Literal[12, 15, 20]
    everyone: bool = True
    groups: Annotated[list[Id], Field(max_length=200, default_factory=list)]


class PositionSet(Part):
    """A set of positions for a group."""

    group: Id


class SetMade(Done):
    """Palettes that were made."""

    ids: list[int]


class ActsAsk(Part):
    """Heads of which is asked on how many each palette acts."""

    heads: HeadKeys


class ActsView(BaseModel):
    """On how many of the heads each palette acts, by its number."""

    acts: dict[int, int]


class PaletteFile(Part):
    """What was in a file: a set of palettes."""

    content: Any


class PalettesImported(BaseModel):
    """Palettes that came in, and what is wrong with the others."""

    palettes: list[str]
    refused: list[str]
