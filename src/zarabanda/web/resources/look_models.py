"""What the API takes and gives of kept looks and overlays."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from zarabanda.formats.cue_document import FamilyName

from ..parts import HeadKeys, Id, Name, Part

Seconds = Annotated[float, Field(ge=0, le=3600)]


class LookSource(Part):
    """Of what a look is made. source: what is set by hand, or what is on stage; families: of which, None: all; heads: on which,
    None: all; effects: whether those that run are kept, too."""

    source: Literal["draft", "stage"] = "draft"
    families: Annotated[list[FamilyName], Field(min_length=1)] | None = None
    heads: HeadKeys | None = None
    effects: bool = True


class NewLook(LookSource):
    """A new look. over: an overlay; in_s, out_s: in which it comes and goes."""

    name: Name
    over: bool = False
    in_s: Seconds = 0.5
    out_s: Seconds = 1.0


class LookChange(Part):
    """What is to be changed of a look."""

    name: Name | None = None
    over: bool | None = None
    in_s: Seconds | None = None
    out_s: Seconds | None = None


class LookOrder(Part):
    """Looks in their order."""

    ids: Annotated[list[Id], Field(max_length=1000)]


class LookView(BaseModel):
    """A look. content: what it holds, in words; families: in which; effects: their names; used_by: where it is."""

    id: int
    name: str
    over: bool
    in_s: float
    out_s: float
    content: str
    families: list[str]
    effects: list[str]
    used_by: list[str]


class LooksView(BaseModel):
    """All looks, in their order."""

    looks: list[LookView]
