"""Baked effects as plain data and CSV: frames, or steps with the error reached. See docs/formats.md."""

from __future__ import annotations

from typing import Any

from zarabanda.core.explain import bake as baking
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError

from .render_request import RenderRequest, effect_of, head_set_of

Doc = dict[str, Any]


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
    result: Doc = {
        "format": "zarabanda.baked/1", "name": request.effect.name, "seconds": made.seconds, "rate": rate, "heads": heads,
        "times": made.times.tolist(), "frames": {}, "steps": {},
    }  # fmt: skip
    for name, values in made.values.items():
        if name not in errors:
            result["frames"][name] = values.tolist()
            continue
        every = [baking.steps(made.times, values[:, n], errors[name]) for n in range(len(heads))]
        result["steps"][name] = {
            "unit": attributes.BY_NAME[name].unit,
            "max_error": errors[name],
            "error": max(one.error for one in every),
            "heads": {head: [one.times.tolist(), one.values.tolist()] for head, one in zip(heads, every, strict=True)},
        }
    return result


def as_csv(result: Doc) -> str:
    """A row for each value: attribute, head, time in s, value."""
    lines = ["attribute,head,time,value\n"]
    for name, rows in result["frames"].items():
        for n, head in enumerate(result["heads"]):
            lines += [f"{name},{head},{t:.6g},{row[n]:.9g}\n" for t, row in zip(result["times"], rows, strict=True)]
    for name, steps in result["steps"].items():
        for head, (times, values) in steps["heads"].items():
            lines += [f"{name},{head},{t:.6g},{value:.9g}\n" for t, value in zip(times, values, strict=True)]
    return "".join(lines)
