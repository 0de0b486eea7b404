"""What the API takes and gives of pages and their controls."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from zarabanda.formats.busk_document import Outward
from zarabanda.formats.cue_document import FamilyName

from ..parts import HeadKeys, Id, Name, Part

Mode = Literal["fader", "latch", "flash"]
Job = Literal["depth", "speed", "both"]
Place = Annotated[int, Field(ge=1, le=32)]
Seconds = Annotated[float, Field(ge=0, le=60)]
Kind = Literal[
    "effect", "look", "list", "group", "alone", "tempo", "special", "master", "row", "message", "stop-effects", "page",
    "actions", "release", "pixels",
]  # fmt: skip


class Driven(Part):
    """What a control drives: kind, and what of it that kind needs. number: of the effect, look, cue list, group, tempo, special
    (none: all of them), row, page, action list or pixel map; picture: on that, 0: its own layers; over: over effects, or under
    them; heads or group_id: of an effect, or who is alone; families: of an effect; do: to a list; family: of stop-effects, none:
    all; seconds: of a release."""

    kind: Kind
    number: Id | None = None
    heads: HeadKeys = Field(default_factory=list)
    group_id: Id | None = None
    families: Annotated[list[FamilyName], Field(min_length=1)] | None = None
    do: Literal["go", "back", "pause", "release", "level"] = "go"
    family: FamilyName | None = None
    message: Outward | None = None
    seconds: Seconds = 2.0
    picture: Id = 0
    over: bool | None = None


class NewControl(Part):
    """Something put on a fader or button."""

    place: Place
    mode: Mode
    name: Name
    drives: Driven
    job: Job = "depth"
    release_s: Seconds = 0.4


class ControlChange(Part):
    """What is to be changed of a control. page_id, place: to where it is moved; what is there already changes places with it."""

    name: Name | None = None
    mode: Mode | None = None
    job: Job | None = None
    release_s: Seconds | None = None
    drives: Driven | None = None
    page_id: Id | None = None
    place: Place | None = None


class PageName(Part):
    """A name of a page."""

    name: Name


class PageOrder(Part):
    """Pages in their order."""

    ids: Annotated[list[Id], Field(max_length=400)]


class ControlView(BaseModel):
    """A fader or button. on, does: what it acts on, and what it does there, in words; gone: what is not there any more; waits:
    for what it waits; group: whose heads it has, now and later; low, high, unit: what a fader goes from and to."""

    id: int
    key: str
    place: int
    mode: Mode
    name: str
    job: Job
    release_s: float
    drives: Driven
    on: str
    does: str
    gone: str
    waits: str
    heads: list[str]
    group: str | None
    low: float
    high: float
    unit: str


class PageView(BaseModel):
    """A page of faders and buttons."""

    id: int
    name: str
    controls: list[ControlView]


class PagesView(BaseModel):
    """All pages; faders, buttons: how many places each has; on_faders, on_buttons: kinds that each can have."""

    pages: list[PageView]
    faders: int
    buttons: int
    on_faders: list[Kind]
    on_buttons: list[Kind]
