"""What the API takes and gives of weaves, notices and scopes."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from ..parts import HeadKeys, Part


class WeaveAsk(Part):
    """Which heads (none: a made-up row), columns, attribute (`look`: as it will look; `colour`: the colour alone, as if the
    heads were at full), from which θ, how many cycles."""

    heads: HeadKeys = Field(default_factory=list)
    columns: Annotated[int, Field(ge=2, le=1024)] = 240
    attribute: str = "look"
    phantom: Annotated[int, Field(ge=1, le=100)] = 10
    cycles: Annotated[float, Field(gt=0, le=128)] | None = None
    start: Annotated[float, Field(ge=-1e7, le=1e7)] = 0.0
    notices: bool = False


class FixView(BaseModel):
    """A change of the effect that mends what a notice says."""

    operation: str
    path: str
    value: Any
    words: str


class NoticeView(BaseModel):
    """What is wrong or odd about an effect on these heads. note: sometimes wanted."""

    kind: str
    path: str
    text: str
    note: bool
    fix: FixView | None


class ScopeView(BaseModel):
    """The form of a layer over one cycle: `values` of each attribute in its unit, not clamped, `low`, `high` and `base`.

    mirrored: heads whose pan is mirrored. phases: base64 of rows × columns bytes, as in the weave: where each head is in the
    cycle (0–254), 255 at rest. Of waveforms: duty, and how much deeper the wave is for each unit that its crest is drawn up.
    """

    layer: int
    kind: Literal["wave", "path", "colour"]
    names: list[str]
    unit: str
    values: list[list[float]]
    low: list[float]
    high: list[float]
    base: list[float]
    mirrored: list[bool]
    phases: str
    duty: float | None
    depth_per_unit: float | None


class WeaveView(BaseModel):
    """A weave: rows of heads in lane order; pixels base64 of rows × columns × 3 bytes. repeats: cycle after cycle.

    offsets: of each row, in cycles (in a relay: turns) behind lane 0; shares: of each lane, of the whole spread (in a relay:
    of the handover); circuit: turns. black, white: what such pixels stand for, in `unit`.
    """

    heads: list[str]
    lanes: list[int]
    parts: list[int]
    count: int
    offsets: list[float]
    shares: list[float]
    circuit: float
    columns: int
    start: float
    cycles: float
    repeats: bool
    beats: float | None
    seconds: float
    attribute: str
    unit: str
    black: float
    white: float
    attributes: list[str]
    cut_off: dict[str, float]
    notices: list[NoticeView]
    scopes: list[ScopeView]
    pixels: str
