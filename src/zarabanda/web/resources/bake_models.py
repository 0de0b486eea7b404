"""What the API takes and gives of light that is baked."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from zarabanda.core.rig import attributes

from ..parts import HeadKeys, Part

Number = Annotated[int, Field(ge=1)]
Format = Literal["json", "csv", "dmx", "dmx-csv", "midi", "weave-png", "weave-svg", "gif", "mp4"]
FORMATS: dict[str, tuple[str, str]] = {
    "json": ("json", "application/json"), "csv": ("csv", "text/csv"), "dmx": ("frames", "application/octet-stream"),
    "dmx-csv": ("dmx.csv", "text/csv"), "midi": ("mid", "audio/midi"), "weave-png": ("png", "image/png"),
    "weave-svg": ("svg", "image/svg+xml"), "gif": ("gif", "image/gif"), "mp4": ("mp4", "video/mp4"),
}  # fmt: skip
"""Ending and type of each kind of file."""


class BakeAsk(Part):
    """What is baked. kind: an effect (with heads, or a group), a cue, a map (with a picture, 0: its own layers), a song (from
    `begin` s on); seconds: None: one closing cycle of an effect; rate in Hz; errors: by attribute in its unit: steps instead of
    frames."""

    kind: Literal["effect", "cue", "map", "song"]
    number: Number
    heads: HeadKeys = Field(default_factory=list)
    group_id: int | None = None
    picture: Annotated[int, Field(ge=0)] = 0
    begin: Annotated[float, Field(ge=0, le=86_400, allow_inf_nan=False)] = 0.0
    seconds: Annotated[float, Field(gt=0, allow_inf_nan=False)] | None = None
    rate: Annotated[float, Field(ge=1, le=100, allow_inf_nan=False)] = 40.0
    errors: Annotated[
        dict[str, Annotated[float, Field(gt=0, le=1e6, allow_inf_nan=False)]], Field(max_length=attributes.COUNT)
    ] = Field(default_factory=dict)


class BakeFile(BakeAsk):
    """The same, as a file."""

    format: Format


class BakeCues(BakeAsk):
    """The same, as a new cue list."""

    name: Annotated[str, Field(min_length=1, max_length=80)]


class CurvePoint(BaseModel):
    """So many steps, in all heads, for a largest error in the attribute's unit."""

    error: float
    steps: int


class BakedAttribute(BaseModel):
    """An attribute of a bake: heads that have it, width of its range, steps and the error reached; None: frames are kept."""

    name: str
    label: str
    unit: str
    heads: int
    span: float
    steps: int | None
    error: float | None


class BakeView(BaseModel):
    """A bake as it would be. words: what is to know of its length; closes: it ends where it began; cues: how many a list of them
    would have, None: too many, or no effect; cue_errors: what they would be off, in words."""

    name: str
    seconds: float
    closes: bool
    words: str
    frames: int
    heads: list[str]
    attributes: list[BakedAttribute]
    cues: int | None
    cue_errors: str


class CurveAsk(BakeAsk):
    """The same, for one attribute."""

    attribute: str


class BakeCurve(BaseModel):
    """Steps against error, the smallest error first."""

    points: list[CurvePoint]
