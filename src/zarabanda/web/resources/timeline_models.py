"""What the API takes and gives of timelines."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from zarabanda.formats.timeline_document import MarkerDocument, TimelineDocument, TrackDocument

from ..parts import Id, Name, Part

Seconds = Annotated[float, Field(ge=-14_400, le=14_400, allow_inf_nan=False)]
EventIds = Annotated[list[Id], Field(max_length=20_000)]


class TimelinePath(BaseModel):
    """Which song."""

    timeline_id: Id


class MarkerPath(BaseModel):
    """Which marker."""

    marker_id: Id


class TrackPath(BaseModel):
    """Which track."""

    track_id: Id


class KeepTimeline(Part):
    """A song under a name."""

    name: Name
    document: TimelineDocument


class RunningOrder(Part):
    """Songs, or tracks, in this order."""

    order: Annotated[list[Id], Field(max_length=1000)]


class SongView(BaseModel):
    """A song in the running order. begins: its first label; ends: the label behind its last; sound: what its sound is called."""

    id: int
    name: str
    length_s: float
    bpm: float
    clock: str
    rate: str
    begins: str
    ends: str
    sound: str
    events: int


class SongsView(BaseModel):
    """All songs, in their running order."""

    songs: list[SongView]


class MarkerView(MarkerDocument):
    """A marker."""

    id: int


class TrackView(BaseModel):
    """A track. drives: what it drives in words, empty: that is gone."""

    id: int
    document: TrackDocument
    drives: str


class SongEventView(BaseModel):
    """An event: number and name of a cue, what a press did, the value of a level, a message in words. gone: what it is on is not
    there."""

    id: int
    track_id: int
    at: float
    length: float
    what: str
    words: str
    gone: bool
    document: dict[str, Any]


class CueChoice(BaseModel):
    """A cue that an event can go to."""

    id: int
    list_id: int
    number: float
    name: str


class TimelineView(BaseModel):
    """A song, whole. sound_is_there: its file is in the media folder; bars: where each bar begins, s; first_bar: which the
    first of these is, counted from 1 at the beginning of the grid."""

    id: int
    name: str
    document: TimelineDocument
    sound_is_there: bool
    bars: list[float]
    first_bar: int
    markers: list[MarkerView]
    tracks: list[TrackView]
    events: list[SongEventView]
    cues: list[CueChoice]


class DrivableView(BaseModel):
    """Something that a track can drive: its subject, in words, and where it is."""

    subject: str
    what: str
    of: str


class DrivablesView(BaseModel):
    """What tracks of a kind can drive."""

    drivables: list[DrivableView]


class KindQuery(BaseModel):
    """Of which kind of track."""

    kind: Literal["cues", "presses", "levels", "messages"]


class NewEventBody(Part):
    """An event that is to be made."""

    track_id: Id
    at: Seconds
    length: Seconds = 0.0
    document: dict[str, Any]


class NewEvents(Part):
    """Events that are to be made."""

    events: Annotated[list[NewEventBody], Field(max_length=20_000)]


class EventChange(Part):
    """What of an event becomes another."""

    id: Id
    at: Seconds | None = None
    length: Seconds | None = None
    track_id: Id | None = None
    document: dict[str, Any] | None = None


class EventChanges(Part):
    """Changes of events. words: what is done, for undo."""

    changes: Annotated[list[EventChange], Field(max_length=20_000)]
    words: Annotated[str, Field(max_length=80)] = "Change events"


class ChosenEvents(Part):
    """Some events."""

    events: EventIds


class NudgeEvents(ChosenEvents):
    """Events moved by a time, s."""

    seconds: Seconds


class QuantiseEvents(ChosenEvents):
    """Events brought towards the nearest beat, bar or frame. strength: share of the way, 0…1."""

    unit: Literal["beat", "bar", "frame"] = "beat"
    strength: Annotated[float, Field(ge=0, le=1)] = 1.0


class CopyEvents(ChosenEvents):
    """Copies of events, the first at a position; without one: at the next marker. cut: events that go with it."""

    at: Seconds | None = None
    cut: EventIds = Field(default_factory=list)


class TimeBody(Part):
    """Time put in at a position, s, or, below 0, taken out."""

    at: Seconds
    seconds: Seconds


class KeepRecording(Part):
    """replaces: what was on armed tracks while it recorded goes; else it is added to."""

    replaces: bool = False


class EventsEdited(BaseModel):
    """What was done: events that are new or otherwise now, and numbers of those that are gone. revision: of the show since."""

    done: str
    revision: int = 0
    events: list[SongEventView]
    gone: list[int]


class GridBody(Part):
    """The beat grid of a song: taps on beats (positions in s), a beat dragged to a position, or a tempo from a beat on."""

    do: Literal["tapped", "drag", "tempo", "no-tempo"]
    taps: Annotated[list[Seconds], Field(max_length=2000)] = Field(default_factory=list)
    beat: Annotated[float, Field(ge=-1000, le=100_000)] = 0.0
    at: Seconds = 0.0
    bpm: Annotated[float, Field(ge=1, le=1000)] = 120.0


class TapsBody(Part):
    """Taps on beats of a song: positions in s."""

    taps: Annotated[list[Seconds], Field(max_length=2000)]


class LatenessView(BaseModel):
    """How late taps are, and how much they wander, s."""

    late_s: float
    wanders_s: float


class MarkersText(BaseModel):
    """Markers as CSV: position, length, name, colour."""

    text: Annotated[str, Field(max_length=200_000)]


class SoundView(BaseModel):
    """A sound that was taken in. notices: what is odd about it."""

    done: str
    notices: list[str]


class OutlineQuery(BaseModel):
    """How many of the finest blocks make one: the level, from 0 on."""

    level: Annotated[int, Field(ge=0, le=20)] = 0


class SoundPath(BaseModel):
    """Which sound, by its hash."""

    hash: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]


class OutlineView(BaseModel):
    """What outlines of a sound there are: how long a block of each level is, in s, and how many."""

    seconds: float
    block_s: list[float]
    blocks: list[int]
