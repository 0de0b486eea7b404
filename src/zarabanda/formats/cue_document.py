"""A cue and a cue list as they are kept. One definition for the API, the database, requests and messages."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from zarabanda.core.colour.spaces import SPACES
from zarabanda.core.eases import EASES
from zarabanda.core.rig import attributes
from zarabanda.errors import shown

from .cue_message import CueMessage
from .effect_document import Number

Seconds = Annotated[float, Field(ge=0, le=3600, allow_inf_nan=False)]
HeadKey = Annotated[str, Field(min_length=1, max_length=40)]
Heads = Annotated[list[HeadKey], Field(max_length=20_000)]
FamilyName = Literal["intensity", "position", "colour", "beam"]
Cells = dict[str, Heads]
"""Heads by attribute; `colour` and `position` stand for their parts."""
CueNumber = Annotated[float, Field(ge=0, le=99_999, allow_inf_nan=False)]
KNOWN = [*attributes.BY_NAME, *attributes.COMPOUND]


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class FromPalette(_Part):
    """In place of a value: what a palette has there, by its number, in requests by its name."""

    palette: int | str


class IntensityTime(_Part):
    """Times of intensity, in s."""

    up: Seconds = 0.0
    down: Seconds = 0.0
    delay: Seconds = 0.0


class FamilyTime(_Part):
    """Times of a family, in s."""

    fade: Seconds = 0.0
    delay: Seconds = 0.0


class CueTimes(_Part):
    """Times of each family."""

    intensity: IntensityTime = Field(default_factory=IntensityTime)
    position: FamilyTime = Field(default_factory=FamilyTime)
    colour: FamilyTime = Field(default_factory=FamilyTime)
    beam: FamilyTime = Field(default_factory=FamilyTime)


class CueTrigger(_Part):
    """What starts a cue. wait: s after the one before has gone or arrived; tempo: of beat and bar, by number or name."""

    kind: Literal["go", "with", "after", "beat", "bar", "timecode"] = "go"
    wait: Seconds = 0.0
    tempo: int | str | None = None
    timecode: Annotated[str, Field(pattern=r"^(\d\d[:;]\d\d[:;]\d\d[:;]\d\d)?$")] = ""


class CueEffect(_Part):
    """What a cue does to an effect. thread: which one of its list, by number; of a start: the effect, by number or name, its
    heads (or its group) and families (none: all); depth: share of its own; speed: times its own."""

    do: Literal["start", "change", "stop"]
    thread: Annotated[int, Field(ge=1, le=100_000)]
    effect: int | str | None = None
    heads: Heads = []
    group_id: int | None = None
    families: list[FamilyName] | None = None
    depth: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] = 1.0
    speed: Annotated[float, Field(ge=0.01, le=16, allow_inf_nan=False)] = 1.0


class CuePixels(_Part):
    """What a cue does to a pixel map, by number or name. picture: of the library instead of its own layers, 0: its own; share:
    0…1; over: over the effects on its heads, or under them; none: as the map says."""

    do: Literal["start", "change", "stop"]
    map: int | str
    picture: int | str = 0
    share: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] = 1.0
    over: bool | None = None


class CueDocument(_Part):
    """What a cue changes, and how. values: by attribute and head, in natural units, `#rrggbb` or of a palette;
    dark_moves: whether lights are prepared for it while they are dark; seen_moves: heads for which not; messages: what it sends,
    in their order."""

    name: Annotated[str, Field(max_length=120)] = ""
    note: Annotated[str, Field(max_length=2000)] = ""
    values: dict[str, dict[HeadKey, Number | str | FromPalette]] = {}
    stops: Cells = {}
    only_here: Cells = {}
    states_everything: bool = False
    everything_else_out: bool = False
    takes_over: bool = True
    times: CueTimes = Field(default_factory=CueTimes)
    ease: str = "linear"
    space: str = ""
    trigger: CueTrigger = Field(default_factory=CueTrigger)
    effects: Annotated[list[CueEffect], Field(max_length=200)] = []
    pixels: Annotated[list[CuePixels], Field(max_length=100)] = []
    dark_moves: bool = True
    seen_moves: Heads = []
    messages: Annotated[list[CueMessage], Field(max_length=100)] = []

    @model_validator(mode="after")
    def _fits(self) -> CueDocument:
        for place in ("values", "stops", "only_here"):
            for name in getattr(self, place):
                if name not in KNOWN:
                    raise ValueError(f"{place}: there is no attribute {shown(name)}; use one of {', '.join(KNOWN)}")
        for n, one in enumerate(self.effects):
            if one.do == "start" and one.effect is None:
                raise ValueError(f"effects.{n}: say which effect is started")
        if self.ease not in EASES:
            raise ValueError(f"ease: there is no ease {shown(self.ease)}; use one of {', '.join(EASES)}")
        if self.space and self.space not in SPACES:
            raise ValueError(f"space: there is no way of colours {shown(self.space)}; use one of {', '.join(SPACES)}")
        return self


class BakedFrom(_Part):
    """What the cues of a list were baked from: an effect, by number, on heads; seconds, None: one closing cycle; rate in Hz;
    errors by attribute in its unit."""

    effect: int
    heads: Heads
    seconds: Seconds | None = None
    rate: Annotated[float, Field(gt=0, le=100, allow_inf_nan=False)] = 40.0
    errors: dict[str, Annotated[float, Field(gt=0, allow_inf_nan=False)]] = {}


class CueListSettings(_Part):
    """How a list is played. back: s; highest_wins: for intensity; fader: dims or uncovers; protected: from everything else out;
    ends: what becomes of it when its last cue has arrived, released in `ends_in` s; round_by: a list that goes round by itself
    follows each cue after so many s or beats of a tempo; baked: what its cues were made of."""

    highest_wins: bool = False
    protected: bool = False
    fader: Literal["dims", "uncovers"] = "dims"
    back: Seconds = 1.0
    ends: Literal["stays", "releases"] = "stays"
    ends_in: Seconds = 2.0
    goes_round: bool = False
    round_by: Literal["hand", "time", "tempo"] = "hand"
    round_every: Annotated[float, Field(gt=0, le=3600, allow_inf_nan=False)] = 1.0
    round_tempo: int | str | None = None
    round_order: Literal["forward", "backward", "back-and-forth", "shuffled"] = "forward"
    seed: Annotated[int, Field(ge=0, le=2**31 - 1)] = 1
    baked: BakedFrom | None = None
    for_what: Literal["songs", "faces", "house", "haze", "other"] = "songs"
