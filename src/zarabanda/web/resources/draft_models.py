"""What the API takes and gives of the draft."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from ..parts import HeadKey, HeadKeys, Id, Part


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
    mixed: bool
    by_hand: int


class BaseView(BaseModel):
    """The base of chosen heads, attribute by attribute."""

    values: list[BaseValueView]


class DraftValues(Part):
    """Values of attributes by head, natural units; null takes one back. preview: shown, not kept; fade_s: in which they go
    there on stage."""

    values: dict[str, dict[HeadKey, float | None]]
    preview: bool = False
    fade_s: Annotated[float, Field(ge=0, le=3600, allow_inf_nan=False)] = 0.0
    label: Annotated[str, Field(max_length=120)] = "Set values"


class OnDraft(Part):
    """An effect on heads."""

    effect_id: Id
    heads: HeadKeys
