"""What the API takes and gives of taking a show over to other lights."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from ..parts import Done, Part
from .weave_models import WeaveView

RigId = Annotated[str, Field(pattern=r"^(this|ready:[a-z]{1,20}|show:[0-9a-f]{8})$")]
"""`this`: groups of the show's own rig; `ready:` a ready rig by its name; `show:` the rig of another show, by its number."""
Numbers = Annotated[list[Annotated[int, Field(ge=1, le=99_999)]], Field(max_length=20_000)]
Name = Annotated[str, Field(max_length=160)]


class OtherRig(BaseModel):
    """A rig that a show can go to."""

    id: str
    name: str
    lights: int


class OtherRigs(BaseModel):
    """Rigs that the open show can go to; the first is its own, for groups of it."""

    rigs: list[OtherRig]


class SidePart(Part):
    """Lights that are matched as one, in their order. group: the number of their group in the show, 0: none."""

    name: Name
    numbers: Numbers
    group: Annotated[int, Field(ge=0)] = 0


class SideView(BaseModel):
    """Lights that are matched as one. of_group: they are a group; kinds: what they are, in words."""

    name: str
    numbers: list[int]
    group: int
    of_group: bool
    kinds: str


class PairPart(Part):
    """Lights, and those that take over from them; null: none. way: from the middle, by place, by order, or by hand: `match` then
    gives each of the others the index of the light that it stands for, −1 none. repeats: where there are more, the row is
    repeated instead of spread."""

    source: SidePart
    target: SidePart | None = None
    way: Literal["middle", "place", "order", "hand"] = "middle"
    repeats: bool = False
    match: Annotated[list[Annotated[int, Field(ge=-1, le=20_000)]], Field(max_length=20_000)] = Field(default_factory=list)


class PairView(BaseModel):
    """How the lights of a pair are matched. mirrored: what was symmetrical stays so; sentence: that in words; differences:
    between their kinds."""

    match: list[int]
    mirrored: bool
    sentence: str
    differences: list[str]


class RigAsk(Part):
    """Which rig the show would go to."""

    rig: RigId


class Proposal(BaseModel):
    """Both rigs as lights that are matched as one, and pairs of them by name, kind and place. For groups of the own rig no pairs
    are proposed."""

    name: str
    before: list[SideView]
    after: list[SideView]
    pairs: list[PairPart]


class MatchAsk(Part):
    """Pairs to look at. chosen: the one whose weave is made, with an effect of the library, 0: none."""

    rig: RigId
    pairs: Annotated[list[PairPart], Field(max_length=200)]
    chosen: Annotated[int, Field(ge=0)] = 0
    effect: Annotated[int, Field(ge=0)] = 0


class MatchView(BaseModel):
    """The pairs as they would be matched, and the same weave on both sides of the chosen one, with a sentence on its symmetry."""

    pairs: list[PairView]
    here: WeaveView | None
    there: WeaveView | None
    sentence: str
    still_mirrored: bool


class TakeOverAsk(Part):
    """Take over. aims: positions are aimed at the same points on stage, else their angles are kept; preview: only tell."""

    rig: RigId
    pairs: Annotated[list[PairPart], Field(min_length=1, max_length=200)]
    aims: bool = True
    preview: bool = True


class ChangeView(BaseModel):
    """Something that changes, and how, in words."""

    what: str
    name: str
    lines: list[str]


class CountedView(BaseModel):
    """How many of a kind change."""

    what: str
    count: int


class TakenOver(Done):
    """What taking over changes, or would."""

    counts: list[CountedView]
    changes: list[ChangeView]
