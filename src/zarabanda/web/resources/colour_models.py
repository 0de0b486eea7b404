"""What the API takes and gives of colours."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from ..parts import HeadKeys, Part
from .draft_models import HandPart

HexColour = Annotated[str, Field(pattern=r"^#[0-9a-fA-F]{6}$")]


class ColourRead(Part):
    """A colour as it was picked: with which picker, and its numbers; or `#rrggbb`."""

    picker: Annotated[str, Field(max_length=20)] | None = None
    numbers: Annotated[list[Annotated[float, Field(allow_inf_nan=False)]], Field(max_length=3, default_factory=list)]
    hex: Annotated[str, Field(max_length=20)] | None = None


class ReadColour(ColourRead):
    """A colour to read, and the heads of which is asked what they do for it."""

    heads: HeadKeys = Field(default_factory=list)


class SetColour(HandPart, ColourRead):
    """Set a colour on heads."""


class WheelSlot(BaseModel):
    """A slot of a wheel and its colour, `#rrggbb`."""

    name: str
    hex: str


class MixedView(BaseModel):
    """What lights really do for a colour: see `core.explain.mixing.Mixed`."""

    model: str
    heads: int
    words: str
    exact: bool
    slots: list[WheelSlot]


class ColourView(BaseModel):
    """A colour in every picker's numbers, in words, and what the asked lights do for it."""

    hex: str
    words: str
    numbers: dict[str, list[float]]
    lights: list[MixedView]


class PickerPart(BaseModel):
    """One number of a picker."""

    label: str
    unit: str
    low: float
    high: float
    circle: bool


class PickerView(BaseModel):
    """A way to pick a colour."""

    name: str
    label: str
    parts: list[PickerPart]


class SeenWay(BaseModel):
    """What is seen on a way: `#rrggbb` each; middle: in words and numbers; passes: hues on the way; dip: in % of white."""

    strip: list[str]
    middle: str
    passes: list[str]
    dip: float


class WayView(BaseModel):
    """A way between two colours, as seen on lights that add light, and on those that filter it."""

    name: str
    label: str
    adds: SeenWay
    filters: SeenWay


class WaysAsk(Part):
    """Two colours."""

    start: HexColour
    end: HexColour


class WaysView(BaseModel):
    """Ways between two colours, in every space."""

    ways: list[WayView]
    way: str


class OnWay(Part):
    """Heads that are shown on a way."""

    way: Annotated[str, Field(max_length=20)]
    heads: HeadKeys


class ShowOnWay(Part):
    """Show heads at a share of ways between two colours, as long as it is looked at."""

    start: HexColour
    end: HexColour
    share: Annotated[float, Field(ge=0, le=1)]
    on: Annotated[list[OnWay], Field(min_length=1, max_length=8)]


class ShowWay(Part):
    """The show's way of colours."""

    way: Annotated[str, Field(max_length=20)]
