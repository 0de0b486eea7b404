"""A kept look: values and effects as one thing, on a button, a fader, or as an overlay. One definition for API and database."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, model_validator

from zarabanda.errors import shown

from .cue_document import KNOWN, FamilyName, FromPalette, HeadKey, Heads
from .effect_document import Number

Seconds = Annotated[float, Field(ge=0, le=3600, allow_inf_nan=False)]


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class LookEffect(_Part):
    """An effect of a look, by its number. heads: in their order, or those of a group; families: None: all; depth: share of its
    own; speed: times its own."""

    effect: int
    heads: Heads = Field(default_factory=list)
    group_id: int | None = None
    families: list[FamilyName] | None = None
    depth: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] = 1.0
    speed: Annotated[float, Field(ge=0.01, le=16, allow_inf_nan=False)] = 1.0


class LookDocument(_Part):
    """values: by attribute and head, in natural units, `#rrggbb` or of a palette; in_s, out_s: in which it comes and goes where a
    button presses it."""

    values: dict[str, dict[HeadKey, Number | str | FromPalette]] = Field(default_factory=dict)
    effects: Annotated[list[LookEffect], Field(max_length=60)] = Field(default_factory=list)
    in_s: Seconds = 0.5
    out_s: Seconds = 1.0

    @model_validator(mode="after")
    def _fits(self) -> LookDocument:
        for name in self.values:
            if name not in KNOWN:
                raise ValueError(f"values: there is no attribute {shown(name)}; use one of {', '.join(KNOWN)}")
        return self

    @property
    def is_empty(self) -> bool:
        """Whether it holds nothing."""
        return not any(self.values.values()) and not self.effects
