"""The render request: an effect on made-up heads at given times, as JSON; its answer is values per attribute."""

from __future__ import annotations

from typing import Annotated, Literal

import numpy as np
from pydantic import BaseModel, ConfigDict, Field, ValidationError, model_validator

from zarabanda.core.effects.effect import Effect
from zarabanda.core.explain import weave
from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.heads import Heads
from zarabanda.errors import ZarabandaError, shown

from .effect_document import EffectDocument, Number, faults
from .palette_document import PaletteDocument


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class HeadPlace(_Part):
    """A head, its place in metres, and how it is mounted (for paths on stage)."""

    id: str
    mounting: Literal["hanging", "standing", "on the left", "on the right"] = "hanging"
    x: Number = 0.0
    y: Number = 0.0
    z: Number = 0.0


class RenderRequest(_Part):
    """heads in pick order; base: one value for all heads; limits: range by attribute; times in s since the start."""

    name: str = ""
    heads: Annotated[list[HeadPlace], Field(min_length=1, max_length=10_000)]
    base: dict[str, Number]
    limits: dict[str, tuple[Number, Number]] = {}
    bpm: Annotated[float, Field(gt=0, le=1000, allow_inf_nan=False)] = 120.0
    palettes: dict[str, PaletteDocument] = {}
    effect: EffectDocument
    times: Annotated[list[Number], Field(min_length=1, max_length=100_000)]

    @model_validator(mode="after")
    def _known(self) -> RenderRequest:
        for place, names in (("base", self.base), ("limits", self.limits)):
            for name in names:
                if name not in attributes.BY_NAME:
                    raise ValueError(f"{place}: there is no attribute {shown(name)}; use one of {', '.join(attributes.BY_NAME)}")
        for name, (low, high) in self.limits.items():
            if low > high:
                raise ValueError(f"limits of {name} go from low to high, but {low:g} is above {high:g}; swap them")
        for name, place in self.effect.palettes().items():
            if name not in self.palettes:
                known = ", ".join(self.palettes) or "none is given"
                raise ValueError(f"effect.{place}: there is no palette {shown(name)} under palettes ({known}); add it there")
        keys = [head.id for head in self.heads]
        if len(set(keys)) != len(keys):
            raise ValueError("two heads have the same id; give each its own")
        return self


def read(data: object) -> RenderRequest:
    """A render request from plain data, or a clear error with the paths of its faults."""
    try:
        return RenderRequest.model_validate(data)
    except ValidationError as error:
        listed = faults(error)
        text = "; ".join(f"{place or 'the request'}: {what}" for place, what in listed[:5])
        raise ZarabandaError(f"The render request cannot be read. {text}.", listed[0][0]) from error


def head_set_of(request: RenderRequest) -> weave.HeadSet:
    """The request's heads with their ranges and base."""
    count = len(request.heads)
    low, high, base = (
        np.repeat(np.array([getattr(a, name) for a in attributes.ATTRIBUTES], float)[:, None], count, axis=1)
        for name in ("low", "high", "home")
    )
    has = np.zeros((attributes.COUNT, count), bool)
    for name, value in request.base.items():
        row = attributes.INDEX[name]
        base[row], has[row] = value, True
    for name, (lowest, highest) in request.limits.items():
        low[attributes.INDEX[name]], high[attributes.INDEX[name]] = lowest, highest
    places = np.array([[head.x, head.y, head.z] for head in request.heads])
    # a head that has its own hue keeps it; one without mixes it from red, green and blue
    mixes = has[attributes.RED] & ~has[attributes.HUE] & ~has[attributes.SATURATION]
    mounting = np.stack([stage.rotation(*stage.MOUNTINGS[head.mounting]) for head in request.heads])
    return weave.HeadSet(Heads([h.id for h in request.heads], places, has, mounting), low, high, base, mixes)


def effect_of(request: RenderRequest) -> Effect:
    """The request's effect, with its palettes."""
    return request.effect.to_core({name: one.to_core(name) for name, one in request.palettes.items()})


def render(request: RenderRequest) -> dict[str, list[list[float]]]:
    """{attribute: [[value per head, in pick order] per time]} for the attributes that the effect touches."""
    effect, head_set = effect_of(request), head_set_of(request)
    theta = weave.theta_at(effect, np.array(request.times), request.bpm)
    values = weave.over_time(effect, head_set, theta).values
    return {name: values[:, attributes.INDEX[name]].tolist() for name in weave.moved(effect, head_set)}


def csv_lines(request: RenderRequest, values: dict[str, list[list[float]]]) -> list[str]:
    """The answer as CSV: time, attribute, then a column for each head."""
    lines = [",".join(["time", "attribute", *(head.id for head in request.heads)]) + "\n"]
    for name, rows in values.items():
        lines += [
            ",".join([f"{t:.6g}", name, *(f"{value:.9g}" for value in row)]) + "\n"
            for t, row in zip(request.times, rows, strict=True)
        ]
    return lines
