"""Edits of an effect document by path and value, with the changes of form that they entail."""

from __future__ import annotations

import copy
import math
import re
from collections.abc import Callable, Sequence
from typing import Any

from zarabanda.core.effects import waveforms
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError, brief, shown

from .effect_document import MAX_LAYERS, EffectDocument, read

Doc = dict[str, Any]

_DEPTHS = {"intensity": 70.0, "pan": 60.0, "tilt": 40.0, "hue": 120.0, "saturation": 60.0, "zoom": 20.0, "strobe": 10.0}
_DEFAULT_COLOURS = ("#ff3b2f", "#2f6bff")
_DEFAULT_CURVE = [[0.0, 0.0], [0.25, 1.0], [0.6, 0.35], [1.0, 0.0]]
_DEFAULT_FREE = [[-1.0, -0.6], [-0.2, 1.0], [0.4, -0.2], [1.0, 0.8], [0.6, -1.0]]


def _waveform(shape: str) -> Doc:
    form: Doc = {"kind": "waveform", "shape": shape}
    if shape == "curve":
        form |= {"points": copy.deepcopy(_DEFAULT_CURVE), "interpolation": "smooth"}
    if shape == "square":
        form |= {"duty": 0.5, "softness": 0.0}
    return form


def _depth(attribute: str) -> Doc:
    row = attributes.BY_NAME[attribute]
    kind = "centred" if row.family in ("position", "colour") else "above"
    return {"kind": kind, "depth": _DEPTHS.get(attribute, row.span * 0.5)}


def new_layer(attribute: str) -> Doc:
    """A layer that can be seen at once: never depth 0."""
    if attribute == "position":
        return {"attribute": attribute, "form": {"kind": "path", "path": "circle", "width": 40.0, "height": 20.0}}
    if attribute == "colour":
        stops = [{"value": value, "travel": 1.0, "hold": 0.0, "ease": "smooth"} for value in _DEFAULT_COLOURS]
        return {"attribute": attribute, "form": {"kind": "stops", "stops": stops}}
    if attribute not in attributes.BY_NAME:
        names = ", ".join([*attributes.BY_NAME, *attributes.COMPOUND])
        raise ZarabandaError(f"There is no attribute {shown(attribute)}; use one of {names}.", "attribute")
    wave = "swell" if _depth(attribute)["kind"] == "above" else "sine"
    return {"attribute": attribute, "form": _waveform(wave), "anchor": _depth(attribute)}


def new_effect(attribute: str, name: str, spread: str = "ripple") -> EffectDocument:
    """An effect of one layer, on the beat of Movement. spread: ripple, or relay (its heads one after another)."""
    return read({"name": name, "layers": [new_layer(attribute)], "spread": {"kind": spread}})


def _set_attribute(document: Doc, layer: Doc, value: str) -> None:
    fresh = new_layer(value)
    same_kind = fresh["form"]["kind"] == layer["form"]["kind"] == "waveform"
    kept: Doc = {key: layer[key] for key in ("ratio", "start", "spread", "muted") if key in layer}
    if same_kind:
        kept["form"] = layer["form"]
    layer.clear()
    layer.update(fresh | kept)


def position_stops(palettes: Sequence[str]) -> Doc:
    """A form that goes from one kept position to another: to the first two of these palettes, or the base where there are
    fewer."""
    goals: list[Any] = [*({"palette": name} for name in palettes[:2]), "base", "base"][:2]
    return {"kind": "stops", "stops": [{"value": goal, "travel": 1.0, "hold": 1.0, "ease": "smooth"} for goal in goals]}


def _set_form(document: Doc, layer: Doc, value: str) -> None:
    if layer["attribute"] == "position" and value == "stops":
        layer["form"] = position_stops(())
        return
    if layer["attribute"] == "position" and layer["form"]["kind"] == "stops":
        layer["form"] = new_layer("position")["form"]
    if layer["form"]["kind"] == "path":
        layer["form"]["path"] = value
        if value == "free" and not layer["form"].get("points"):
            layer["form"]["points"] = copy.deepcopy(_DEFAULT_FREE)
        return
    if value == "stops":
        row = attributes.BY_NAME[layer["attribute"]]
        levels = (row.low + row.span * share for share in (0.2, 0.8))
        stops = [{"value": round(v, 2), "travel": 1.0, "hold": 1.0, "ease": "smooth"} for v in levels]
        layer["form"] = {"kind": "stops", "stops": stops}
        layer.pop("anchor", None)
        return
    if value not in waveforms.ALL_SHAPES:
        raise ZarabandaError(f"There is no waveform {shown(value)}; use one of {', '.join(waveforms.ALL_SHAPES)}.", "form")
    layer["form"] = _waveform(value)
    layer.setdefault("anchor", _depth(layer["attribute"]))


def _set_anchor(document: Doc, layer: Doc, value: str) -> None:
    old, row = layer.get("anchor") or {}, attributes.BY_NAME[layer["attribute"]]
    if value == "between":
        depth = min(float(old.get("depth", row.span / 2)), row.span)
        middle = min(max(row.home, row.low + depth / 2), row.high - depth / 2)
        layer["anchor"] = {"kind": value, "low": middle - depth / 2, "high": middle + depth / 2}
    else:
        usual = float(_depth(row.name)["depth"])
        before = old["high"] - old["low"] if old.get("kind") == "between" else old.get("depth", usual)
        layer["anchor"] = {"kind": value, "depth": abs(float(before)) or usual}


def _set_plane(document: Doc, layer: Doc, value: str) -> None:
    form = layer["form"]
    was_on_stage, is_on_stage = form.get("plane", "yoke") != "yoke", value != "yoke"
    form["plane"] = value
    if was_on_stage != is_on_stage:  # degrees and metres are not the same size
        form |= {"width": 3.0, "height": 2.0} if is_on_stage else {"width": 40.0, "height": 20.0}


_ON_LAYER: dict[str, Callable[[Doc, Doc, str], None]] = {
    "attribute": _set_attribute,
    "form": _set_form,
    "anchor.kind": _set_anchor,
    "form.plane": _set_plane,
}


def _set_spread_kind(document: Doc, value: str) -> None:
    document["spread"] = {"kind": value}
    if value == "ripple" and document["lanes"].get("travel") == "back-and-forth":
        document["lanes"]["travel"] = "forward"


def _set_speed_kind(document: Doc, value: str) -> None:
    if value == "time":
        document["speed"] = {"kind": "time", "seconds_per_cycle": 2.0}
    else:
        document["speed"] = {"kind": "tempo", "tempo": "Movement", "cycles_per_beat": 0.5, "sync": "beat"}


def _set_parts(document: Doc, value: int) -> None:
    first_time = document["lanes"].get("parts", 1) == 1
    document["lanes"] |= {"parts": value} | ({"mirror": True} if first_time and value != 1 else {})


_ON_EFFECT: dict[str, Callable[[Doc, Any], None]] = {
    "spread.kind": _set_spread_kind,
    "speed.kind": _set_speed_kind,
    "lanes.parts": _set_parts,
}


def _layer_at(document: Doc, number: str) -> Doc:
    layers = document["layers"]
    if not re.fullmatch(r"[0-9]{1,4}", number) or int(number) >= len(layers):
        raise ZarabandaError(f"There is no layer {number[:40]}; this effect has {len(layers)}.", "path")
    layer: Doc = layers[int(number)]
    return layer


def _set(document: Doc, path: str, value: Any) -> None:
    if path in _ON_EFFECT:
        _ON_EFFECT[path](document, value)
        return
    parts = path.split(".")
    if parts[0] == "layers" and len(parts) > 2:
        rest = ".".join(parts[2:])
        if rest in _ON_LAYER and isinstance(value, str):
            _ON_LAYER[rest](document, _layer_at(document, parts[1]), value)
            return
    place: Any = document
    for part in parts[:-1]:
        try:
            place = place[int(part)] if isinstance(place, list) else place.setdefault(part, {})
        except (ValueError, IndexError, AttributeError) as error:
            raise ZarabandaError(f"The effect has no place “{path}”.", path) from error
    last = parts[-1]
    if isinstance(place, list) and re.fullmatch(r"[0-9]{1,4}", last) and int(last) < len(place):
        place[int(last)] = value
    elif isinstance(place, dict):
        place[last] = value
    else:
        raise ZarabandaError(f"The effect has no place “{path}”.", path)


def _add_layer(document: Doc, path: str, value: Any) -> None:
    if len(document["layers"]) >= MAX_LAYERS:
        raise ZarabandaError(f"An effect has at most {MAX_LAYERS} layers. Put the next one into a second effect.", "layers")
    made = copy.deepcopy(value) if isinstance(value, dict) else new_layer(str(value))
    document["layers"].insert(0 if path == "first" else len(document["layers"]), made)


def _add_layer_first(document: Doc, path: str, value: Any) -> None:
    _add_layer(document, "first", value)


def _remove_layer(document: Doc, path: str, value: Any) -> None:
    _layer_at(document, str(value))
    if len(document["layers"]) == 1:
        raise ZarabandaError("An effect needs a layer. Delete the effect instead, or change this layer.", "layers")
    del document["layers"][int(value)]


def _duplicate_layer(document: Doc, path: str, value: Any) -> None:
    layer = _layer_at(document, str(value))
    document["layers"].insert(int(value) + 1, copy.deepcopy(layer))


def _move_layer(document: Doc, path: str, value: Any) -> None:
    layer = _layer_at(document, path)
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
        raise ZarabandaError(f"Give the place to move the layer to, 0 to {len(document['layers']) - 1}.", "value")
    del document["layers"][int(path)]
    document["layers"].insert(max(0, min(int(value), len(document["layers"]))), layer)


def _solo_layer(document: Doc, path: str, value: Any) -> None:
    """One layer alone; asked again, all of them."""
    alone = _layer_at(document, str(value))
    others = [layer for layer in document["layers"] if layer is not alone]
    already = not alone.get("muted") and all(layer.get("muted") for layer in others)
    alone["muted"] = False
    for layer in others:
        layer["muted"] = not already


def _set_own(document: Doc, path: str, value: Any) -> None:
    """What one head does apart: path is the head; value replaces those parts that it names; None takes all back."""
    own = document.setdefault("own", {})
    if value is None:
        own.pop(path, None)
        return
    if not isinstance(value, dict):
        raise ZarabandaError("What a head does apart is given by offset (degrees), depth (0 to 2) or left_out.", "value")
    own[path] = {**own.get(path, {}), **value}
    if all(own[path].get(key, usual) == usual for key, usual in (("offset", 0), ("depth", 1), ("left_out", False))):
        del own[path]


def _reset_own(document: Doc, path: str, value: Any) -> None:
    document["own"] = {}


def _replace(document: Doc, path: str, value: Any) -> None:
    """Another document's content under this one's name."""
    if not isinstance(value, dict):
        raise ZarabandaError("Give the whole document that it shall be replaced with.", "value")
    name = document["name"]
    document.clear()
    document.update(copy.deepcopy(value) | {"name": name})


OPERATIONS: dict[str, Callable[[Doc, str, Any], None]] = {
    "set": _set,
    "add-layer": _add_layer,
    "add-layer-first": _add_layer_first,
    "remove-layer": _remove_layer,
    "duplicate-layer": _duplicate_layer,
    "move-layer": _move_layer,
    "solo-layer": _solo_layer,
    "set-own": _set_own,
    "reset-own": _reset_own,
    "replace": _replace,
}


def change(document: Doc, operation: str, path: str, value: Any) -> EffectDocument:
    """A changed copy of a document, checked. operation: one of OPERATIONS; path: where (a layer's number to move it)."""
    changed = copy.deepcopy(document)
    changed.setdefault("lanes", {})
    changed.setdefault("spread", {"kind": "ripple"})
    try:
        OPERATIONS[operation](changed, path, value)
    except (KeyError, TypeError, ValueError, AttributeError, IndexError) as error:
        what = f"{brief(repr(value), 60)} at “{brief(path, 60)}”"
        raise ZarabandaError(f"This does not fit the effect: {what}. Change attribute or form first.", "path") from error
    return read(changed)


def scaled(document: Doc, depth: float, speed: float) -> Doc:
    """A document with so much of its depth (0…1), and so many times its speed. What is not relative to a base has no depth."""
    layers = [_shallower(layer, depth, n + 1) for n, layer in enumerate(document["layers"])]
    own = document["speed"]
    if own["kind"] == "tempo":
        own = {**own, "cycles_per_beat": own["cycles_per_beat"] * speed}
    else:
        own = {**own, "seconds_per_cycle": own["seconds_per_cycle"] / speed}
    return {**document, "layers": layers, "speed": own}


def _shallower(layer: Doc, depth: float, number: int) -> Doc:
    if depth == 1:
        return layer
    if layer["form"]["kind"] == "path" and layer["form"].get("plane", "yoke") == "yoke":
        sizes = {name: layer["form"][name] * depth for name in ("width", "height")}
        return {**layer, "form": {**layer["form"], **sizes}}
    if layer.get("anchor") and layer["anchor"]["kind"] != "between":
        return {**layer, "anchor": {**layer["anchor"], "depth": layer["anchor"]["depth"] * depth}}
    raise ZarabandaError(
        f"Layer {number} goes all the way to its values, whatever is beneath: an effect cannot hold less of that. Write it into "
        "the cue or the control instead.", "into"
    )  # fmt: skip
