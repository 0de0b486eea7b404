"""Edits of a picture layer by path and value, with the changes of form that they entail."""

from __future__ import annotations

import copy
from typing import Any

from pydantic import ValidationError

from zarabanda.core.pixels.layers import EVERY_FIGURE
from zarabanda.core.pixels.places import MOTIONS
from zarabanda.errors import ZarabandaError, brief, shown

from .pixel_document import LayerDocument

Doc = dict[str, Any]
_COLOURS: dict[str, list[str]] = {
    "flames": ["#000000", "#7a0f00", "#ff5a00", "#ffd080"], "haze": ["#04102a", "#0f6f8f"], "slope": ["#1fb6c9", "#8a2fff"],
    "even": ["#ff7a2f"], "squares": ["#1fb6c9", "#0a2a6a"], "level": ["#1f9f5a", "#ffd030", "#ff3020"],
    "bands": ["#1f6fff", "#ff2f8f"], "glints": ["#fff2d8"], "gathering": ["#ffb35a"], "bodies": ["#ff7a2f", "#1fb6c9"],
    "letters": ["#fff2d8"],
}  # fmt: skip
_MOTION: dict[str, str] = {"bars": "travel", "rings": "grow", "rays": "turn", "bodies": "bounce", "letters": "travel"}
_JOIN: dict[str, str] = {"bars": "lighten", "rings": "lighten", "rays": "lighten", "glints": "lighten", "letters": "over"}


def new_layer(figure: str) -> LayerDocument:
    """A layer that can be seen at once: it moves, in colours that suit its figure."""
    if figure not in EVERY_FIGURE:
        raise ZarabandaError(f"There is no figure {shown(figure)}; use one of {', '.join(EVERY_FIGURE)}.", "figure")
    motion = _MOTION.get(figure, "still")
    over = "own" if figure in ("picture", "film") else "value"
    return LayerDocument.model_validate(
        {
            "figure": figure, "motion": motion, "motion_settings": {"direction": 180.0} if figure == "letters" else {},
            "colour": {"over": over, "stops": _COLOURS.get(figure, ["#0a2a6a", "#1fb6c9", "#ffffff"])},
            "join": _JOIN.get(figure, "over"),
        }
    )  # fmt: skip


def changed(layer: LayerDocument, path: str, value: Any) -> LayerDocument:
    """The layer with another value at a path such as `settings.number`. ZarabandaError says what is wrong with it."""
    document = layer.model_dump(mode="json")
    steps = path.split(".")
    if path == "figure" and value != layer.figure:
        document |= {"figure": value, "settings": _kept(layer.settings, value)}
        fresh = new_layer(value) if value in EVERY_FIGURE else None
        if fresh is not None and ("own" in (fresh.colour.over, layer.colour.over)) and fresh.colour.over != layer.colour.over:
            document["colour"] = {**document["colour"], "over": fresh.colour.over}
    elif path == "motion":
        names = {one.name for one in MOTIONS[value].settings} if value in MOTIONS else set[str]()
        kept = {name: one for name, one in layer.motion_settings.items() if name in names}
        document |= {"motion": value, "motion_settings": kept}
    elif path == "speed.kind":
        document["speed"] = {"kind": value}
    else:
        _put(document, steps, value, path)
    try:
        return LayerDocument.model_validate(document)
    except ValidationError as error:
        first = error.errors()[0]
        raise ZarabandaError(f"{brief(first['msg'].removeprefix('Value error, '))}.", path) from error


def _kept(settings: Doc, figure: str) -> Doc:
    """Values that another figure is set by, too, and that lie in its ranges."""
    if figure not in EVERY_FIGURE:
        return {}
    found = {}
    for one in EVERY_FIGURE[figure].settings:
        value = settings.get(one.name)
        is_number = isinstance(value, int | float) and one.kind in ("number", "whole") and one.low <= value <= one.high
        if is_number or (one.kind in ("text", "medium") and isinstance(value, str)):
            found[one.name] = value
    return found


def _put(document: Doc, steps: list[str], value: Any, path: str) -> None:
    at: Any = document
    for step in steps[:-1]:
        at = at.get(step) if isinstance(at, dict) else None
    if not isinstance(at, dict) or steps[-1] not in at:
        raise ZarabandaError(f"A layer has no {shown(path)}. Reload the page to see what is there.", "path")
    at[steps[-1]] = copy.deepcopy(value)
