"""What the resource `shows` takes and gives."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from ..parts import Done, Part

Name = Annotated[str, Field(min_length=1, max_length=120)]
Identity = Annotated[str, Field(pattern="^[0-9a-f]{8}$")]


class ShowEntryView(BaseModel):
    """A show of the library. opened, deleted: s since 1970, 0: never; size in bytes; picture: when it was made, 0: none."""

    id: str
    name: str
    opened: float
    deleted: float
    size: int
    fixtures: int
    picture: int


class ShowsView(BaseModel):
    """All shows. open: the one that is; on_stage: what is on stage now, and would end with another show, in words; rigs: ready
    ones to begin with; bin_days: so long a deleted show can be taken back."""

    open: str
    shows: list[ShowEntryView]
    bin: list[ShowEntryView]
    rigs: list[str]
    on_stage: str
    bin_days: int


class NewShow(Part):
    """A show to be made: empty, on a ready rig, or the demo."""

    name: Name
    begin: Literal["empty", "demo", "pars", "club", "stage"] = "empty"


class ShowName(Part):
    """A name."""

    name: Name


class Made(Done):
    """A show was made."""

    id: str


class CountView(BaseModel):
    """So many of something: now, and in the file."""

    what: str
    now: int
    then: int


class CopyView(BaseModel):
    """A copy. at: s since 1970; why: it was made, in words."""

    file: str
    at: int
    why: str


class CopiesView(BaseModel):
    """All copies of a show, the newest first."""

    copies: list[CopyView]


class ShowPartView(BaseModel):
    """Something that can be chosen: kind is a table's name, `what` it in words."""

    kind: str
    what: str
    id: int
    name: str


class PartsView(BaseModel):
    """All that can be chosen of a show, kind after kind."""

    parts: list[ShowPartView]


class PartChosen(Part):
    """One of them."""

    kind: Annotated[str, Field(max_length=40)]
    id: int


class PartsChosen(Part):
    """What is to come in; with preview it is only told what would. matched: groups of this show's lights take over from those of
    that show, else lights are the same by their numbers."""

    chosen: Annotated[list[PartChosen], Field(min_length=1, max_length=2000)]
    matched: bool = False
    preview: bool = True


class ComingView(BaseModel):
    """What comes in, or is matched by its name here. was: its name there; needed_by: what refers to it, empty: it was chosen."""

    what: str
    name: str
    was: str
    needed_by: str


class PartsReport(Done):
    """What comes in, what is matched, and which fixtures it uses that are not in this rig. groups: which of this show's lights
    take over from which, in words."""

    coming: list[ComingView]
    matched: list[ComingView]
    fixtures: list[int]
    groups: list[str]


class CopyLook(BaseModel):
    """What is in a copy, beside what the show has now. missing: how many of its media are not in the media folder."""

    name: str
    counts: list[CountView]
    missing: int
