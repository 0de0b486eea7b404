"""What the API takes and gives of busking pages."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from zarabanda.formats.busk_document import MOST_PADS, Kind, OnMap, Outward, PadId, PadName, Section

from ..parts import Id, Name, Part


class BuskPadView(BaseModel):
    """A pad. name: as it is read; palette, effect, pixels: which it has; colours: of a colour palette, as `#rrggbb`; moves:
    families that an effect moves; message: what is sent, in words; gone: why it cannot act, in words; own_name: as it was
    given."""

    id: int
    name: str
    own_name: str
    palette: int | None
    effect: int | None
    pixels: OnMap | None
    colours: list[str]
    moves: list[str]
    while_held: bool
    message: str
    sends: Outward | None
    gone: str


class BuskRowView(BaseModel):
    """A row. lights: how many, in words; heads: keys, in their order; can: sections that make sense for them; carries: those that
    it shows; waits: why it cannot act, in words."""

    id: int
    kind: Kind
    name: str
    group_id: int | None
    lights: str
    heads: list[str]
    can: list[Section]
    carries: list[Section]
    colour: list[BuskPadView]
    position: list[BuskPadView]
    beam: list[BuskPadView]
    effects: list[BuskPadView]
    messages: list[BuskPadView]
    tempo: int | None
    colour_tempo: int | None
    go_list: int | None
    waits: str


class BuskPageView(BaseModel):
    """A busking page with its rows, the top row first."""

    id: int
    name: str
    rows: list[BuskRowView]


class BuskView(BaseModel):
    """All busking pages. clashes: palettes of colours that are hard on the eye beside each other, by number."""

    pages: list[BuskPageView]
    clashes: dict[int, list[int]]


class ProposedView(BaseModel):
    """A group as a row of a new page: see `busk_maker.Proposed`."""

    id: int
    name: str
    lights: str
    kind: Kind
    carries: list[Section]
    on: bool


class ProposalView(BaseModel):
    """All groups, in the order of the stage."""

    groups: list[ProposedView]


class NewBuskRow(Part):
    """A group that shall be a row. carries: sections beside its level; none given: all that make sense for its lights."""

    group_id: Id
    carries: Annotated[list[Section], Field(max_length=5)] | None = None


class NewBuskPage(Part):
    """A page made from groups, in this order. colours: one set that all rows take from, or a set for each group."""

    name: Name
    rows: Annotated[list[NewBuskRow], Field(min_length=1, max_length=39)]
    colours: Literal["all", "each"] = "all"


class BuskPageName(Part):
    """Another name for a page."""

    name: Name


class BuskOrder(Part):
    """Rows by number, in the order that they shall have below the top row."""

    ids: Annotated[list[Id], Field(max_length=100)]


class AddBuskRow(Part):
    """A row more: of a group, or for messages, by a name."""

    group_id: Id | None = None
    name: Name | None = None


class ChangeBuskRow(Part):
    """Another name, group, sections, tempo by whose beats presses wait; of the top row the tempo of the two colours,
    and the list that Space plays (0: none)."""

    name: Name | None = None
    group_id: Id | None = None
    carries: Annotated[list[Section], Field(max_length=5)] | None = None
    tempo: Id | None = None
    colour_tempo: Id | None = None
    go_list: Id | None = None


class PadContent(Part):
    """A pad of a section: one with a number stays the same pad, one without is new."""

    id: PadId | None = None
    name: PadName = ""
    palette: Id | None = None
    effect: Id | None = None
    pixels: OnMap | None = None
    while_held: bool = False
    message: Outward | None = None


class BuskPads(Part):
    """All pads of a section, in their order."""

    section: Section
    pads: Annotated[list[PadContent], Field(max_length=MOST_PADS)]


class KeepTempo(Part):
    """The BPM that a tempo has when the show opens, and to which it can be set back."""

    tempo: Name
    bpm: Annotated[float, Field(ge=10, le=400, allow_inf_nan=False)]
