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


class DraftValues(Part):
    """Values of attributes by head, natural units; null takes one back. preview: shown, not kept."""

    values: dict[str, dict[HeadKey, float | None]]
    preview: bool = False
    label: Annotated[str, Field(max_length=120)] = "Set values"


class OnDraft(Part):
    """An effect on heads."""

    effect_id: Id
    heads: HeadKeys
