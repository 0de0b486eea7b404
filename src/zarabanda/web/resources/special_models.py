"""What the API takes and gives of specials and named places."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from zarabanda.formats.special_document import Point, SpecialDocument

from ..parts import Id, Name, Part


class KeepSpecial(Part):
    """A special under a name; without one it gets a free one."""

    name: Name | None = None
    document: SpecialDocument


class SpecialOrder(Part):
    """Specials in their order."""

    ids: Annotated[list[Id], Field(max_length=200)]


class KeepPlace(Part):
    """A named place on stage: x, y, z in m."""

    name: Name
    point: Point


class AimAsk(Part):
    """Which lights are to be aimed where, to be told who reaches it."""

    document: SpecialDocument


class AimTold(BaseModel):
    """unreached: lights that cannot reach their aim, with by how many m their beams pass beside it; text: that in words, empty
    where all reach it."""

    unreached: dict[str, float]
    text: str


class SpecialView(BaseModel):
    """A special: its lights in words, where it is aimed in words and in m, and what cannot reach it."""

    id: int
    name: str
    document: SpecialDocument
    lights: str
    aimed_at: str
    point: tuple[float, float, float] | None
    aim: AimTold


class PlaceView(BaseModel):
    """A named place, and the specials that are aimed at it."""

    id: int
    name: str
    point: tuple[float, float, float]
    used_by: list[str]


class SpecialsView(BaseModel):
    """All specials and named places."""

    specials: list[SpecialView]
    places: list[PlaceView]
