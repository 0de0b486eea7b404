"""What is wrong or odd about an effect, as data: which value it concerns, what will be seen, and the fix.

All checks look at the effect on a head set (heads with ranges and base): they say what the audience would see.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour import spaces as colour
from zarabanda.core.effects.effect import Effect, Layer, Path, Stops, Waveform
from zarabanda.core.effects.placement import place
from zarabanda.core.explain import weave
from zarabanda.core.rig import attributes, stage

Floats = NDArray[np.float64]
Doc = dict[str, Any]

FRAME_RATE = 44.0
_SAMPLES, _FEWEST_SAMPLES, _VALUES = 240, 96, 12_000
_MOST_CYCLES = 16.0
_DENSE = 48.0
"""So many times a cycle show what goes on in it."""
_HAIR, _STILL = 1e-6, 1e-4
"""A hair beyond the range, as a share of it, is not cut off; what changes by less, in any unit, stands still."""


@dataclass(frozen=True)
class Fix:
    """A change of the document (operation, path, value: see `formats.effect_edit`), and what to write on its button."""

    path: str
    value: Any
    words: str
    operation: str = "set"


@dataclass(frozen=True)
class Notice:
    """kind; path of the value in the document; what will be seen; amount (share, Hz, °/s …); the fix.

    note: sometimes wanted; else a warning.
    """

    kind: str
    path: str
    text: str
    amount: float = 0.0
    fix: Fix | None = None
    note: bool = False


@dataclass(frozen=True)
class Look:
    """An effect as it was looked at, over `cycles` cycles. closing: cycles after which it is where it began; speeds: the
    fastest that heads pan and tilt, °/s."""

    woven: weave.Woven
    cycles: float
    seconds_per_cycle: float
    closing: float
    pan_speed: float = 240.0
    tilt_speed: float = 180.0

    @property
    def effect(self) -> Effect:
        """What is looked at."""
        return self.woven.effect

    @property
    def head_set(self) -> weave.HeadSet:
        """On which heads."""
        return self.woven.head_set

    def active_layers(self) -> Iterator[tuple[int, Layer]]:
        """Layers that act, with their numbers."""
        for number, layer in enumerate(self.effect.layers):
            if not layer.muted:
                yield number, layer

    def row(self, name: str) -> Floats:
        """Values (T, heads that have it) of an attribute."""
        index = attributes.INDEX[name]
        return self.woven.values[:, index][:, self.head_set.heads.has[index]]


def look(effect: Effect, head_set: weave.HeadSet, bpm: float, *, pan_speed: float = 240.0, tilt_speed: float = 180.0) -> Look:
    """Look at an effect on a head set over its closing cycles (16 at most). bpm: of its tempo; speeds: of the fixtures, °/s."""
    placed = place(effect, np.arange(len(head_set.heads)), head_set.heads)
    closing = weave.closing_cycles(effect, placed, most=1e6)
    samples = max(_FEWEST_SAMPLES, min(_SAMPLES, _VALUES // max(len(head_set.heads), 1)))
    cycles = min(max(closing, 1.0), _MOST_CYCLES)
    theta = np.arange(samples) / samples * cycles + 1e-6
    woven = weave.over_time(effect, head_set, theta, placed=placed)
    return Look(woven, cycles, weave.cycle_seconds(effect, bpm), closing, pan_speed, tilt_speed)


def look_at(woven: weave.Woven, cycles: float, bpm: float) -> Look:
    """Look at what is woven already, `cycles` long, where that shows each of its closing cycles well enough; else anew."""
    closing = weave.closing_cycles(woven.effect, woven.placed, most=1e6)
    if len(woven.theta) / cycles < _DENSE or cycles < min(closing, _MOST_CYCLES):
        return look(woven.effect, woven.head_set, bpm)
    return Look(woven, cycles, weave.cycle_seconds(woven.effect, bpm), closing)


def _dark(seen: Look) -> Iterator[Notice]:
    moves = any(layer.attribute != "intensity" for _, layer in seen.active_layers())
    levels, led = seen.row("intensity"), seen.head_set.led
    if led is not None and led.size and led.max() < 0.01:
        text = "The fixtures of these cells are dark: nothing of this will be seen. Take them whole, and raise their level."
        yield Notice("dark", "layers", text)
        return
    if moves and levels.size and levels.max() < 1.0:
        lit = next((n for n, layer in seen.active_layers() if layer.attribute == "intensity"), None)
        text = "The lights are dark: nothing of this will be seen."
        if lit is None:
            yield Notice("dark", "layers", text, fix=Fix("", _LIGHT, "Raise intensity to 60 % with it", "add-layer"))
        else:
            between = {"kind": "between", "low": 10.0, "high": 80.0}
            fix = Fix(f"layers.{lit}.anchor", between, "Let intensity go from 10 to 80 %")
            yield Notice("dark", f"layers.{lit}.anchor", text, fix=fix)


_LIGHT: Doc = {
    "attribute": "intensity",
    "form": {"kind": "stops", "stops": [{"value": 60.0, "travel": 0.0, "hold": 1.0, "ease": "snap", "relative": False}]},
}


def _opposite(layer: Layer, low_share: float, high_share: float) -> tuple[str, str] | None:
    """The relation to the base that is cut off less: (kind, words)."""
    if not isinstance(layer.form, Waveform) or layer.anchor.kind == "between":
        return None
    kind = "below" if high_share >= low_share else "above"
    return None if kind == layer.anchor.kind else (kind, f"Put it {kind} the base")


def _cut_off(seen: Look) -> Iterator[Notice]:
    for number, layer in seen.active_layers():
        for name in attributes.touched(layer.attribute):
            row = attributes.INDEX[name]
            has = seen.head_set.heads.has[row]
            if attributes.BY_NAME[name].circle or not has.any():
                continue
            raw = seen.woven.raw[:, row][:, has]
            hair = _HAIR * attributes.BY_NAME[name].span
            below = float((raw < seen.head_set.low[row, has] - hair).mean())
            above = float((raw > seen.head_set.high[row, has] + hair).mean())
            if below + above < 0.02:
                continue
            other = _opposite(layer, below, above)
            fix: Fix | None = None
            if other is not None:
                fix = Fix(f"layers.{number}.anchor.kind", *other)
            elif isinstance(layer.form, Waveform) and layer.anchor.depth > 0:
                depth = round(layer.anchor.depth / 2, 1)
                fix = Fix(f"layers.{number}.anchor.depth", depth, f"Halve the depth to {depth:g} {attributes.BY_NAME[name].unit}")
            where = "top" if above >= below else "bottom"
            share = below + above
            text = f"{share:.0%} of the wave is cut off: {name} is at its {where} there."
            yield Notice("cut-off", f"layers.{number}.anchor", text, share, fix)
            break


def _too_flat(layer: Layer) -> tuple[str, str, bool] | None:
    """Why the form of a layer moves nothing: where that is said, why, and whether a depth mends it. None: it moves."""
    if isinstance(layer.form, Path):
        flat = max(layer.form.width, layer.form.height) == 0
        return ("form.width", "the figure has no size", True) if flat else None
    if isinstance(layer.form, Stops):
        values = {(stop.value, stop.relative) for stop in layer.form.stops}
        if len(values) > 1 or len(layer.form.stops) == 1:  # one stop holds a value, and is meant to
            return None
        why = "every stop is the base itself" if (None, False) in values else "all stops are the same"
        return "form.stops", f"{why}; let them differ", False
    if layer.anchor.kind == "between":
        return ("anchor.high", "low and high are the same", True) if layer.anchor.high == layer.anchor.low else None
    return ("anchor.depth", "the depth is 0", True) if layer.anchor.depth == 0 else None


def _static(seen: Look) -> Iterator[Notice]:
    if not any(True for _ in seen.active_layers()):
        fix = Fix("layers.0.muted", False, "Let the first act")
        yield Notice("static", "layers", "Nothing moves: all layers are muted.", fix=fix)
        return
    flat = False
    for number, layer in seen.active_layers():
        why = _too_flat(layer)
        if why is None:
            continue
        flat = True
        place, text, by_depth = why
        row = attributes.BY_NAME[attributes.touched(layer.attribute)[0]]
        value = 20.0 if isinstance(layer.form, Path) else round(row.span * 0.4, 1)
        if layer.anchor.kind == "between" and isinstance(layer.form, Waveform):
            value = row.high if layer.anchor.low < row.high else row.low
        path = f"layers.{number}.{place}"
        words = f"Make it {value:g} {row.unit}" + (" deep" if place == "anchor.depth" else "")
        yield Notice("static", path, f"Nothing moves: {text}.", fix=Fix(path, value, words) if by_depth else None)
    rows = [attributes.INDEX[name] for name in weave.moved(seen.effect, seen.head_set)]
    values, raw = seen.woven.values[:, rows], seen.woven.raw[:, rows]
    if flat or (values.size and np.ptp(values, axis=0).max() >= _STILL):
        return
    held = all(isinstance(layer.form, Stops) and len(layer.form.stops) == 1 for _, layer in seen.active_layers())
    if not values.size:
        names = ", ".join(dict.fromkeys(layer.attribute for _, layer in seen.active_layers()))
        yield Notice("static", "layers", f"Nothing moves: none of these heads has {names}.")
    elif np.ptp(raw, axis=0).max() >= _STILL:
        yield Notice("static", "layers", "Nothing is seen to move: the whole wave lies beyond the range.")
    elif not held and not any(_white(seen)):  # that says why already
        yield Notice("static", "layers", "Nothing moves on these heads: what the layers go to is the same, or they cancel out.")


def _uneven(seen: Look) -> Iterator[Notice]:
    lanes, count = seen.effect.lanes, len(seen.head_set.heads)
    for path, size, words in (("lanes.parts", lanes.parts, "parts"), ("lanes.pack", lanes.pack, "packs of")):
        if size > 1 and count % size:
            what = f"{size} {words}" if words == "parts" else f"{words} {size}"
            yield Notice(
                "uneven", path, f"{count} heads do not divide into {what}: the last ones differ.", count % size, note=True
            )
    per_part = -(-count // max(lanes.parts, 1) // max(lanes.pack, 1))
    if lanes.repeat and per_part % lanes.repeat:
        text = f"The pattern of {lanes.repeat} does not fit {per_part} lanes: the last one is not whole."
        yield Notice("uneven", "lanes.repeat", text, per_part % lanes.repeat, note=True)


def _white(seen: Look) -> Iterator[Notice]:
    coloured = False
    for number, layer in seen.active_layers():
        coloured |= layer.attribute in ("colour", "red", "green", "blue", "saturation")
        if layer.attribute != "hue" or coloured:
            continue
        rgb = seen.head_set.base[[attributes.RED, attributes.GREEN, attributes.BLUE]].T[seen.head_set.mixes]
        if len(rgb) and colour.rgb_to_hsv(rgb)[:, 1].max() < 0.02:
            fix = Fix("", _SATURATE, "Make the base red first", "add-layer-first")
            yield Notice("white", f"layers.{number}.attribute", "The base is white: it has no hue to move.", fix=fix)


_SATURATE: Doc = {
    "attribute": "colour",
    "form": {"kind": "stops", "stops": [{"value": "#ff0000", "travel": 0.0, "hold": 1.0, "ease": "snap", "relative": False}]},
}


def _too_fast(seen: Look) -> Iterator[Notice]:
    place = "speed.seconds_per_cycle" if seen.effect.speed.kind == "time" else "speed.cycles_per_beat"
    fastest = max((layer.ratio for _, layer in seen.active_layers()), default=1.0) / seen.seconds_per_cycle
    if fastest > FRAME_RATE / 3:
        slower = _slower(seen, fastest / (FRAME_RATE / 3))
        text = f"{fastest:.1f} cycles a second are too fast for {FRAME_RATE:g} frames: it will look random."
        yield Notice("too-fast", place, text, fastest, slower)
    for name, limit in (("pan", seen.pan_speed), ("tilt", seen.tilt_speed)):
        values = seen.row(name)
        if not values.size or values.max() - values.min() < _STILL:
            continue
        step = seen.cycles / len(values) * seen.seconds_per_cycle
        speeds = np.abs(np.diff(values, axis=0)) / step
        # a jump (a square, a snap) is meant to be as fast as the head can
        fast = float(np.percentile(speeds, 95))
        if fast > limit:
            text = f"{name.capitalize()} would have to go {fast:.0f}° a second, but the heads can do about {limit:.0f}."
            yield Notice("too-fast", place, text, fast, _slower(seen, fast / limit))


def _slower(seen: Look, factor: float) -> Fix:
    speed = seen.effect.speed
    halvings = int(np.ceil(np.log2(max(factor, 1.0001))))
    if speed.kind == "time":
        value = round(speed.seconds_per_cycle * 2**halvings, 3)
        return Fix("speed.seconds_per_cycle", value, f"Take {value:g} s for a cycle")
    rate = speed.cycles_per_beat / 2**halvings
    return Fix("speed.cycles_per_beat", rate, f"Run at {1 / 2**halvings:g} of the speed")


def _non_closing(seen: Look) -> Iterator[Notice]:
    ratios = {layer.ratio for _, layer in seen.active_layers()}
    if len(ratios) > 1 and seen.closing > 64:
        odd = next(n for n, layer in seen.active_layers() if layer.ratio != 1)
        nearest = float(max(round(seen.effect.layers[odd].ratio * 4) / 4, 0.25))
        fix = Fix(f"layers.{odd}.ratio", nearest, f"Make it {nearest:g}× as fast")
        text = f"The layers meet again only after {seen.closing:.0f} cycles: the figure never seems to close."
        yield Notice("non-closing", f"layers.{odd}.ratio", text, seen.closing, fix, note=True)


def _unreachable(seen: Look) -> Iterator[Notice]:
    for number, layer in seen.active_layers():
        form = layer.form
        if not isinstance(form, Path) or form.plane == "yoke" or seen.head_set.heads.mounting is None:
            continue
        rows = [attributes.PAN, attributes.TILT]
        pan, tilt = seen.head_set.base[rows]
        directions = stage.direction(pan, tilt, seen.head_set.heads.mounting)
        axis = 2 if form.plane == "floor" else 1
        hits = stage.landing(seen.head_set.heads.places, directions, axis, form.plane_at)[1]
        if not hits.all():
            text = f"{int((~hits).sum())} beams do not reach the plane that the path lies on: they stay at their base."
            yield Notice("unreachable", f"layers.{number}.form.plane", text, float((~hits).mean()))


CHECKS: dict[str, Callable[[Look], Iterator[Notice]]] = {
    "dark": _dark,
    "cut-off": _cut_off,
    "static": _static,
    "uneven": _uneven,
    "white": _white,
    "too-fast": _too_fast,
    "non-closing": _non_closing,
    "unreachable": _unreachable,
}


def notices(seen: Look) -> list[Notice]:
    """All notices, warnings before notes."""
    found = [notice for check in CHECKS.values() for notice in check(seen)]
    return sorted(found, key=lambda notice: notice.note)
