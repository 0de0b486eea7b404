"""A fan as it is kept: which attribute, over which heads in which order, by which rule."""

from __future__ import annotations

from typing import Annotated

import numpy as np
from pydantic import BaseModel, ConfigDict, Field, model_validator

from zarabanda.core.colour.spaces import hsv_to_rgb
from zarabanda.core.eases import EASES
from zarabanda.core.rig import attributes
from zarabanda.core.selection.fans import FIXED, Fan
from zarabanda.errors import shown

from .effect_document import Number

MOST_PARTS = 64
_ON_COLOUR = dict(zip(attributes.COMPOUND["colour"], range(3), strict=True))


class FanDocument(BaseModel):
    """start, end, bow: in the attribute's unit; see `core.selection.fans.Fan`. A fan of hue goes round the circle: on heads that
    mix red, green and blue it makes colours of this saturation and brightness, in %."""

    model_config = ConfigDict(extra="forbid")

    attribute: str
    heads: Annotated[list[Annotated[str, Field(max_length=40)]], Field(min_length=1, max_length=20_000)]
    start: Number
    end: Number
    bow: Number = 0.0
    fixed: str = "middle"
    ease: str = "linear"
    parts: Annotated[int, Field(ge=1, le=MOST_PARTS)] = 1
    mirror: bool = False
    saturation: Annotated[float, Field(ge=0, le=100)] = 100.0
    brightness: Annotated[float, Field(ge=0, le=100)] = 100.0

    @model_validator(mode="after")
    def _known(self) -> FanDocument:
        for what, name, known in (
            ("attribute", self.attribute, attributes.BY_NAME),
            ("fixed point", self.fixed, FIXED),
            ("ease", self.ease, EASES),
        ):
            if name not in known:
                raise ValueError(f"there is no {what} {shown(name)}; use one of {', '.join(known)}")
        return self

    @property
    def rule(self) -> Fan:
        """The rule as the core computes with it."""
        return Fan(self.start, self.end, self.bow, self.fixed, self.ease, self.parts, self.mirror)

    def values(self) -> dict[str, float]:
        """What each head has of the attribute, within the attribute's widest range."""
        row = attributes.BY_NAME[self.attribute]
        each = self.rule.values(len(self.heads))
        each = each % row.span if row.circle else np.clip(each, row.low, row.high)
        return dict(zip(self.heads, each.tolist(), strict=True))

    def values_of(self, attribute: str) -> dict[str, float]:
        """What each head has of this one: the fan's own, or a part of the colour that a fan of hue makes."""
        own = self.values()
        if attribute == self.attribute or self.attribute != "hue" or attribute not in _ON_COLOUR:
            return own
        hue = np.array(list(own.values()))
        hsv = np.stack([hue, np.full_like(hue, self.saturation / 100), np.full_like(hue, self.brightness / 100)], axis=-1)
        return dict(zip(own, hsv_to_rgb(hsv)[:, _ON_COLOUR[attribute]].tolist(), strict=True))
