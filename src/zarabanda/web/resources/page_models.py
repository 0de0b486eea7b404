"""What the API takes and gives of pages and their controls."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from ..parts import HeadKeys, Id, Name, Part


class NewControl(Part):
    """An effect on a fader or button: on heads, or on a group, whose heads it then follows; or a button that stops effects, all
    or those of one family."""

    place: Annotated[int, Field(ge=1, le=24)]
    mode: Literal["fader", "latch", "flash"]
    name: Name
    effect_id: Id | None = None
    stops: Literal["all", "intensity", "position", "colour", "beam"] | None = None
    heads: HeadKeys = Field(default_factory=list)
    group_id: Id | None = None
    job: Literal["depth", "speed", "both"] = "depth"
    families: Annotated[list[Literal["intensity", "position", "colour", "beam"]], Field(min_length=1)] | None = None
    release_s: Annotated[float, Field(ge=0, le=30)] = 0.4


class ControlView(BaseModel):
    """A fader or button. group: whose heads it has, now and later; waits: for what, in words, where it cannot play."""

    id: int
    key: str
    place: int
    mode: str
    name: str
    effect_id: int | None
    effect: str
    stops: str | None
    heads: list[str]
    group: str | None
    waits: str
    job: str
    families: list[str] | None


class PageView(BaseModel):
    """A page of faders and buttons."""

    id: int
    name: str
    controls: list[ControlView]


class PagesView(BaseModel):
    """All pages."""

    pages: list[PageView]
