"""Baked light as plain data and CSV: frames, or steps with the error reached; and read back. See docs/formats.md."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Annotated, Any, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict, Field, ValidationError, model_validator

from zarabanda.core.explain import bake as baking
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError, shown

from .effect_document import Number, faults
from .render_request import RenderRequest, effect_of, head_set_of

Doc = dict[str, Any]
Floats = NDArray[np.float64]
FORMAT = "zarabanda.baked/1"


def read_errors(texts: list[str]) -> dict[str, float]:
    """`attribute=value` texts as largest errors, in the attribute's unit."""
    errors = {}
    for text in texts:
        name, _, value = text.partition("=")
        if name not in attributes.BY_NAME:
            known = ", ".join(attributes.BY_NAME)
            raise ZarabandaError(f"There is no attribute {name!r} in --max-error {text}; use one of {known}.", "--max-error")
        try:
            errors[name] = float(value)
        except ValueError:
            errors[name] = -1.0
        if not 0 < errors[name] < 1e9:
            raise ZarabandaError(f"--max-error {text} needs a number above 0, as in {name}=0.5.", "--max-error")
    return errors


def bake(request: RenderRequest, rate: float, errors: dict[str, float]) -> Doc:
    """One closing cycle of the request's effect: frames at a rate, or steps for the attributes that have a largest error."""
    made = baking.frames(effect_of(request), head_set_of(request), request.bpm, rate)
    heads = [head.id for head in request.heads]
    return document(
        request.effect.name, made.seconds, rate, made.times, {name: (heads, own) for name, own in made.values.items()}, errors
    )


def document(
    name: str, seconds: float, rate: float, times: Floats, values: Mapping[str, tuple[Sequence[str], Floats]],
    errors: Mapping[str, float],
) -> Doc:  # fmt: skip
    """Frames at times (T,), or steps for the attributes that have a largest error in their unit. values: by attribute the heads
    that have it, and (T, heads) in natural units."""
    heads = list(dict.fromkeys(head for own, _ in values.values() for head in own))
    result: Doc = {
        "format": FORMAT, "name": name, "seconds": seconds, "rate": rate, "heads": heads, "times": times.tolist(),
        "frames": {}, "steps": {},
    }  # fmt: skip
    for attribute, (own, frames) in values.items():
        if attribute not in errors:
            place = {head: n for n, head in enumerate(own)}
            result["frames"][attribute] = [
                [float(row[place[head]]) if head in place else None for head in heads] for row in frames
            ]
            continue
        every = [baking.steps(times, np.asarray(frames[:, n], float), errors[attribute]) for n in range(len(own))]
        result["steps"][attribute] = {
            "unit": attributes.BY_NAME[attribute].unit,
            "max_error": errors[attribute],
            "error": max((one.error for one in every), default=0.0),
            "heads": {head: [one.times.tolist(), one.values.tolist()] for head, one in zip(own, every, strict=True)},
        }
    return result


def as_csv(result: Doc) -> str:
    """A row for each value: attribute, head, time in s, value."""
    lines = ["attribute,head,time,value\n"]
    for name, rows in result["frames"].items():
        for n, head in enumerate(result["heads"]):
            lines += [
                f"{name},{head},{t:.6g},{row[n]:.9g}\n"
                for t, row in zip(result["times"], rows, strict=True)
                if row[n] is not None
            ]
    for name, steps in result["steps"].items():
        for head, (times, values) in steps["heads"].items():
            lines += [f"{name},{head},{t:.6g},{value:.9g}\n" for t, value in zip(times, values, strict=True)]
    return "".join(lines)


# read back


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class StepsDocument(_Part):
    """Steps of an attribute: for each head times in s and values, joined by straight lines."""

    unit: str
    max_error: Number
    error: Number
    heads: dict[str, tuple[list[Number], list[Number]]]

    @model_validator(mode="after")
    def _fits(self) -> StepsDocument:
        for head, (times, values) in self.heads.items():
            if len(times) != len(values) or not times:
                raise ValueError(f"heads.{head}: {len(times)} times and {len(values)} values; there is one value for each time")
            late = next((n for n, (a, b) in enumerate(pairwise(times)) if b <= a), None)
            if late is not None:
                raise ValueError(f"heads.{head}: time {late + 2} is {times[late + 1]:g} s, not after {times[late]:g} s")
        return self


class BakedDocument(_Part):
    """A baked file: see docs/formats.md."""

    format: Literal["zarabanda.baked/1"]
    name: str
    seconds: Annotated[float, Field(gt=0, le=1e6, allow_inf_nan=False)]
    rate: Annotated[float, Field(gt=0, le=1000, allow_inf_nan=False)]
    heads: Annotated[list[str], Field(max_length=20_000)]
    times: list[Number]
    frames: dict[str, list[list[Number | None]]]
    steps: dict[str, StepsDocument]

    @model_validator(mode="after")
    def _fits(self) -> BakedDocument:
        for place in ("frames", "steps"):
            for name in getattr(self, place):
                if name not in attributes.BY_NAME:
                    raise ValueError(f"{place}: there is no attribute {shown(name)}; use one of {', '.join(attributes.BY_NAME)}")
        for name, rows in self.frames.items():
            if len(rows) != len(self.times):
                raise ValueError(f"frames.{name}: {len(rows)} rows for {len(self.times)} times; there is one row for each time")
            odd = next((n for n, row in enumerate(rows) if len(row) != len(self.heads)), None)
            if odd is not None:
                raise ValueError(f"frames.{name}: row {odd + 1} has {len(rows[odd])} values for {len(self.heads)} heads")
        return self

    def at(self, attribute: str, head: str, times: Floats) -> Floats:
        """Values of a head at times (T,), on straight lines between frames or steps."""
        if attribute in self.steps:
            own_times, own = self.steps[attribute].heads[head]
            return np.asarray(np.interp(times, own_times, own))
        column = self.heads.index(head)
        return np.asarray(np.interp(times, self.times, [float(row[column] or 0.0) for row in self.frames[attribute]]))


def read(data: object) -> BakedDocument:
    """A baked file; ZarabandaError says what is wrong, and where."""
    try:
        return BakedDocument.model_validate(data)
    except ValidationError as error:
        listed = faults(error)
        text = "; ".join(f"{place or 'the file'}: {what}" for place, what in listed[:5])
        raise ZarabandaError(f"This baked file cannot be read. {text}.", listed[0][0]) from error
