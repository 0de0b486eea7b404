"""A special as it is kept: which lights, where they are aimed, and what they are. One definition for the API and the database."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, model_validator

from zarabanda.core.rig import attributes
from zarabanda.errors import shown

from .cue_document import Heads

Seconds = Annotated[float, Field(ge=0, le=60, allow_inf_nan=False)]
Metres = Annotated[float, Field(ge=-1000, le=1000, allow_inf_nan=False)]
Percent = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]
Number = Annotated[float, Field(allow_inf_nan=False)]
Point = tuple[Metres, Metres, Metres]
Colour = Annotated[str, Field(pattern="^#[0-9a-fA-F]{6}$")]


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class Aim(_Part):
    """Where lights are aimed, one of both: place: a named place, by its number; point: x, y, z in m."""

    place: int | None = None
    point: Point | None = None

    @model_validator(mode="after")
    def _one_of_both(self) -> Aim:
        if (self.place is None) == (self.point is None):
            raise ValueError("say which place or which point it is aimed at, one of both")
        return self


class SpecialDocument(_Part):
    """heads: in their order; aim: None: where home points; level in %; colour; beam: its attributes in natural units, what is not
    set is home; out, move, up: times in s (docs/computation.md, "Specials")."""

    heads: Heads = Field(default_factory=list)
    aim: Aim | None = None
    level: Percent = 100.0
    colour: Colour = "#ffffff"
    beam: dict[str, Number] = Field(default_factory=dict)
    out: Seconds = 1.0
    move: Seconds = 0.0
    up: Seconds = 1.0

    @model_validator(mode="after")
    def _fits(self) -> SpecialDocument:
        able = [one.name for one in attributes.ATTRIBUTES if one.family == "beam"]
        for name in self.beam:
            if name not in able:
                raise ValueError(f"beam: there is no attribute {shown(name)}; use one of {', '.join(able)}")
        return self
