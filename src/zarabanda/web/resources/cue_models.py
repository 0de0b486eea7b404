"""Bodies of the API on cue lists and cues."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from zarabanda.formats.cue_document import (
    CueEffect,
    CueListSettings,
    CueNumber,
    CuePixels,
    CueTimes,
    CueTrigger,
    FamilyName,
    FromPalette,
)
from zarabanda.formats.cue_message import CueMessage
from zarabanda.formats.effect_document import Number

from ..parts import HeadKeys, Id, Name, Part


class ListPath(BaseModel):
    """Which list."""

    list_id: Id


class CuePath(BaseModel):
    """Which cue."""

    cue_id: Id


class ThreadPath(BaseModel):
    """Which effect of which list."""

    list_id: Id
    thread: Id


class ListSummary(BaseModel):
    """A list among the others. words: how it is played; never_rests: it would go round in no time, and does not."""

    id: int
    name: str
    cues: int
    settings: CueListSettings
    words: str
    never_rests: bool


class ListsView(BaseModel):
    """All lists in their order."""

    lists: list[ListSummary]


class ListContent(Part):
    """A new list, or another name or settings for one."""

    name: Name | None = None
    settings: CueListSettings | None = None


class ListOrder(Part):
    """All lists in another order."""

    ids: Annotated[list[Id], Field(max_length=1000)]


class BarView(BaseModel):
    """The time of a family in s: from begin to end; up, down: where intensity ends each way."""

    family: FamilyName
    begin: float
    end: float
    up: float
    down: float


class MovesView(BaseModel):
    """Lights that move for a cue: in the dark before it, and in view; hidden_by: number of the cue that would hide it."""

    dark: int
    seconds: float
    seen: int
    hidden_by: float | None


class CueRowView(BaseModel):
    """A cue in its list. starts: what starts it, in words; changes: how many values it writes; sends: how many messages."""

    id: int
    number: float
    name: str
    note: str
    starts: str
    trigger: CueTrigger
    times: CueTimes
    bars: list[BarView]
    everything_else_out: bool
    states_everything: bool
    changes: int
    stops: int
    sends: int
    moves: MovesView


class ThreadView(BaseModel):
    """An effect of a list, from the cue that starts it to the one that stops it, by place; ends −1: it runs on."""

    thread: int
    effect_id: int
    name: str
    sentence: str
    begins: int
    ends: int
    changes: list[int]
    heads: list[str]


class ListView(ListSummary):
    """A list with its cues and effects. longest_s: of all bars."""

    rows: list[CueRowView]
    threads: list[ThreadView]
    longest_s: float


class CueEdited(BaseModel):
    """An edit that was done: the list to ask for anew, and the cue that is new, none: no single one."""

    list_id: int
    cue_id: int | None = None


class ContentLine(BaseModel):
    """Values of one attribute on some lights of a group. origin: number of the cue that they come from, none: this one."""

    attribute: str
    label: str
    family: FamilyName
    words: str
    colours: list[str]
    palette: str | None
    heads: list[str]
    written: bool
    origin: float | None
    only_here: bool


class ContentGroup(BaseModel):
    """What holds on the lights of a group."""

    name: str
    heads: int
    lines: list[ContentLine]


class CueEffectView(BaseModel):
    """An effect that runs in a cue, or stops there. state: starts, changes, runs or stops; began: number of the cue that started
    it; ends: of the one that stops it."""

    thread: int
    effect_id: int
    name: str
    sentence: str
    heads: int
    state: Literal["starts", "changes", "runs", "stops"]
    depth: float
    speed: float
    began: float
    ends: float | None


class MessageView(BaseModel):
    """A message of a cue, and as it is read; sent: s after the go."""

    message: CueMessage
    words: str
    sent: float


class CuePixelsView(BaseModel):
    """A pixel map that is on after a cue, or stops with it. state: comes in, changes, stops or runs on; from_cue: where it came
    in or was changed last; words: its name."""

    map: int
    picture: int
    words: str
    state: Literal["comes in", "changes", "stops", "runs on"]
    share: float
    over: bool | None
    from_cue: float


class CueContentView(BaseModel):
    """A cue with all that holds in it. endless: that its messages would come back to it without end, in words; empty: not."""

    id: int
    list_id: int
    number: float
    name: str
    note: str
    changes: int
    carried: int
    times: CueTimes
    ease: str
    space: str
    trigger: CueTrigger
    everything_else_out: bool
    states_everything: bool
    takes_over: bool
    dark_moves: bool
    seen_moves: list[str]
    moves: MovesView
    groups: list[ContentGroup]
    effects: list[CueEffectView]
    pixels: list[CuePixelsView]
    messages: list[MessageView]
    endless: str


class CuePixelsPut(Part):
    """All that a cue does to pixel maps."""

    pixels: Annotated[list[CuePixels], Field(max_length=100)]


class CueMessages(Part):
    """All messages of a cue, in their order."""

    messages: Annotated[list[CueMessage], Field(max_length=100)]


class NewCue(Part):
    """A cue recorded from the draft. after: the cue behind which it comes (none: the last); number: if it is to have this one;
    families, heads, effects: what of the draft is taken, none: all."""

    name: Annotated[str, Field(max_length=120)] = ""
    number: CueNumber | None = None
    after: Id | None = None
    families: list[FamilyName] | None = None
    heads: HeadKeys | None = None
    effects: bool = True
    everything_else_out: bool = False
    times: CueTimes | None = None


class RecordInto(Part):
    """The draft into a cue that is there."""

    how: Literal["merge", "replace", "take away"] = "merge"
    families: list[FamilyName] | None = None
    heads: HeadKeys | None = None
    effects: bool = True


class CueChange(Part):
    """What is to be otherwise in a cue; what is left out stays."""

    number: CueNumber | None = None
    name: Annotated[str, Field(max_length=120)] | None = None
    note: Annotated[str, Field(max_length=2000)] | None = None
    times: CueTimes | None = None
    ease: Annotated[str, Field(max_length=20)] | None = None
    space: Annotated[str, Field(max_length=20)] | None = None
    trigger: CueTrigger | None = None
    everything_else_out: bool | None = None
    states_everything: bool | None = None
    takes_over: bool | None = None
    dark_moves: bool | None = None
    seen_moves: HeadKeys | None = None


class ValueChange(Part):
    """Other values of an attribute in a cue. where: here, or where each value came from."""

    attribute: Annotated[str, Field(max_length=40)]
    heads: HeadKeys
    value: Number | str | FromPalette
    where: Literal["here", "origin"] = "here"


class ValueMark(Part):
    """What becomes of values in a cue: they stop here, hold only here, hold from here on, or are taken out of the cue."""

    attribute: Annotated[str, Field(max_length=40)]
    heads: HeadKeys
    mark: Literal["stops here", "only here", "from here on", "taken out"]


class ThreadChange(Part):
    """Where an effect of a list starts and stops; ends none: it runs on."""

    begins: Id
    ends: Id | None = None


class EffectInCue(Part):
    """What a cue does to an effect: by its thread, or a new one on heads."""

    change: CueEffect


class Renumbering(Part):
    """Other numbers for cues of a list (none: all)."""

    first: CueNumber = 1.0
    step: Annotated[float, Field(ge=0.001, le=1000)] = 1.0
    cues: list[Id] | None = None


class Pasting(Part):
    """Copies of cues, in their order, behind one (none: at the end)."""

    cues: Annotated[list[Id], Field(min_length=1, max_length=5000)]
    after: Id | None = None


class Splitting(Part):
    """What of a cue moves into one of its own behind it."""

    families: Annotated[list[FamilyName], Field(min_length=1)]


class ToUpdate(BaseModel):
    """Values changed by hand that came from one cue: where they can be put. here: the cue that the list is on."""

    list_id: int
    list_name: str
    cue_id: int
    number: float
    name: str
    values: int
    labels: list[str]
    here_id: int
    here: float


class UpdateView(BaseModel):
    """What was changed by hand, by the cue that each value on stage comes from; loose: values that come from no cue."""

    found: list[ToUpdate]
    loose: int


class UpdateChoice(Part):
    """Where values that came from a cue are put: there, or into the cue that the list is on."""

    cue_id: Id
    into: Id


class UpdateAsk(Part):
    """Choices; what is not named goes nowhere. clear: take back from the draft what was put into cues."""

    choices: list[UpdateChoice]
    clear: bool = True


class Difference(BaseModel):
    """Lights of a group (so many of them) of which a cue has another value than the stage has now."""

    attribute: str
    label: str
    group: str
    heads: int
    of: int
    stage: str
    cue: str
    stage_colours: list[str]
    cue_colours: list[str]


class Differences(BaseModel):
    """A cue compared with the stage."""

    lines: list[Difference]
