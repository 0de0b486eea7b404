"""What the API takes and gives of the draft."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from ..parts import Done, HeadKey, HeadKeys, Id, Part


class FrozenLook(Part):
    """What is frozen and shall be kept as values of the draft: `draft:3` or `control:5`."""

    key: Annotated[str, Field(pattern=r"^(draft|control|list:[0-9]{1,9}):[0-9]{1,9}$")]


class DraftEffectView(BaseModel):
    """An effect that runs in the draft."""

    id: int
    effect_id: int
    name: str
    kept: bool
    heads: list[str]


class DraftedView(BaseModel):
    """Values set by hand of one attribute that come from the same: see `core.explain.drafted.Drafted`."""

    label: str
    family: str
    attributes: list[str]
    source: str
    words: str
    heads: list[str]


class FanView(BaseModel):
    """A fan: see `formats.fan_document.FanDocument`. values: of its heads, in their order; low, high: the range they have."""

    id: int
    attribute: str
    label: str
    unit: str
    heads: list[str]
    values: list[float]
    low: float
    high: float
    fixed: str
    ease: str
    parts: int
    mirror: bool
    words: str


class DraftView(BaseModel):
    """Values set by hand, in numbers and listed in words, the fans among them, and effects."""

    values: dict[str, dict[str, float]]
    listed: list[DraftedView]
    fans: list[FanView]
    effects: list[DraftEffectView]


class MakeFan(Part):
    """Spread an attribute over heads, in their order, from what they have now. amount: from the first to the last."""

    attribute: Annotated[str, Field(max_length=40)]
    heads: Annotated[HeadKeys, Field(min_length=1)]
    fixed: Annotated[str, Field(max_length=20)] = "middle"
    amount: Annotated[float, Field(ge=-2000, le=2000, allow_inf_nan=False)] = 0.0


class ChangeFan(Part):
    """A fan's rule or order. heads: the same ones in another order; drag: a head, and the value that it is dragged to; amount:
    from the first to the last. preview: shown, not kept."""

    fixed: Annotated[str, Field(max_length=20)] | None = None
    ease: Annotated[str, Field(max_length=20)] | None = None
    parts: Annotated[int, Field(ge=1, le=64)] | None = None
    mirror: bool | None = None
    heads: HeadKeys | None = None
    drag: tuple[HeadKey, Annotated[float, Field(allow_inf_nan=False)]] | None = None
    amount: Annotated[float, Field(ge=-2000, le=2000, allow_inf_nan=False)] | None = None
    preview: bool = False


class BaseAsk(Part):
    """Heads whose base is asked for."""

    heads: HeadKeys


class SlotView(BaseModel):
    """A slot of a wheel. picture: one of our own by its name, the hash of one at `/api/kinds/pictures/HASH.png`, or ""."""

    name: str
    picture: str


class BaseValueView(BaseModel):
    """One attribute of chosen heads: see `core.explain.base.BaseValue`. slots: what is in those of a wheel, by name."""

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
    source: str
    slots: list[SlotView]


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


class UsePalette(HandPart):
    """Set what a palette has on heads; none: on those that it has values of their own for."""

    palette: Id
    heads: HeadKeys = Field(default_factory=list)


class PaletteSet(Done):
    """On how many heads a palette was set, and of how many: in words."""

    acts: int
    of: int
    text: str


class ChangeValues(HandPart):
    """One attribute: as it was typed (`60`, `+10 %`), to a value, or by a difference that each head keeps."""

    attribute: Annotated[str, Field(max_length=40)]
    text: Annotated[str, Field(max_length=80)] | None = None
    to: Annotated[float, Field(allow_inf_nan=False)] | None = None
    by: Annotated[float, Field(allow_inf_nan=False)] | None = None


class ChangeDone(Done):
    """What was done; limited: in words, where values stop at the end of what heads can do."""

    limited: str = ""


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
