"""What the API takes and gives of the draft."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from ..parts import Done, HeadKey, HeadKeys, Id, Part


class FrozenLook(Part):
    """What is frozen and shall be kept as values of the draft: `draft:3` or `control:5`."""

    key: Annotated[str, Field(pattern=r"^(draft|control):[0-9]{1,9}$")]


class DraftEffectView(BaseModel):
    """An effect that runs in the draft."""

    id: int
    effect_id: int
    name: str
    kept: bool
    heads: list[str]


class DraftView(BaseModel):
    """Values set by hand, and effects."""

    values: dict[str, dict[str, float]]
    effects: list[DraftEffectView]


class BaseAsk(Part):
    """Heads whose base is asked for."""

    heads: HeadKeys


class BaseValueView(BaseModel):
    """One attribute of chosen heads: see `core.explain.base.BaseValue`."""

    attribute: str
    label: str
    unit: str
    family: str
    heads: list[str]
    low: float
    high: float
    value: float
    least: float
    most: float
    mixed: bool
    by_hand: int


class BaseView(BaseModel):
    """The base of chosen heads, attribute by attribute. pointed_at: where on the floor those that move point, in metres."""

    values: list[BaseValueView]
    pointed_at: tuple[float, float, float] | None


class DraftValues(Part):
    """Values of attributes by head, natural units; null takes one back. preview: shown, not kept; fade_s: in which they go
    there on stage."""

    values: dict[str, dict[HeadKey, float | None]]
    preview: bool = False
    fade_s: Annotated[float, Field(ge=0, le=3600, allow_inf_nan=False)] = 0.0
    label: Annotated[str, Field(max_length=120)] = "Set values"


class HandPart(Part):
    """What is set by hand on heads. preview: shown, not kept; fade_s: in which they go there on stage."""

    heads: HeadKeys
    preview: bool = False
    fade_s: Annotated[float, Field(ge=0, le=3600, allow_inf_nan=False)] = 0.0


class ChangeValues(HandPart):
    """One attribute: as it was typed (`60`, `+10 %`), to a value, or by a difference that each head keeps."""

    attribute: Annotated[str, Field(max_length=40)]
    text: Annotated[str, Field(max_length=80)] | None = None
    to: Annotated[float, Field(allow_inf_nan=False)] | None = None
    by: Annotated[float, Field(allow_inf_nan=False)] | None = None


class TakeBack(Part):
    """Values of the draft to take back: of these attributes, on these heads; none: of all heads."""

    attributes: Annotated[list[Annotated[str, Field(max_length=40)]], Field(min_length=1, max_length=100)]
    heads: HeadKeys | None = None


class TakeFromStage(Part):
    """Heads whose values, as they are on stage now, become values of the draft; families: which of them."""

    heads: Annotated[HeadKeys, Field(min_length=1)]
    families: Annotated[list[Literal["intensity", "position", "colour", "beam"]], Field(min_length=1, max_length=4)]


Metres = Annotated[float, Field(ge=-200, le=200, allow_inf_nan=False)]


class AimLights(HandPart):
    """Point heads that move at a point on stage, in metres. amount: how far apart, in metres or degrees, for ways that fan."""

    way: Annotated[str, Field(max_length=40)] = "at one point"
    point: tuple[Metres, Metres, Metres]
    amount: Annotated[float, Field(ge=-360, le=360, allow_inf_nan=False)] = 0.0
    other_way: bool = False


class AimDone(Done):
    """What was done; unreached: heads that cannot reach their point; text: about them, in words."""

    moved: int
    unreached: list[str]
    text: str


class OnDraft(Part):
    """An effect on heads."""

    effect_id: Id
    heads: HeadKeys
