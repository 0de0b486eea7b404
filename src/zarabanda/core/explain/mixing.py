"""What lights really do for a colour: their emitters, flags or wheel, in words."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour.spaces import nearest_slot, rgb_to_hsv, rgb_to_rgbaw, rgb_to_rgbw
from zarabanda.core.rig.modes import EMITTERS, RGB, ModeSpec
from zarabanda.core.rig.rig import FixtureSpec, Rig

Floats = NDArray[np.float64]

_DIFFERS = 0.04
"""Distance in OKLab from which on a slot is told to differ."""
_SEEN = 0.005
"""Drive from which on an emitter is told."""
_DRIVES: dict[str, Callable[[Floats], Floats]] = {
    "rgb": lambda rgb: rgb,
    "cmy": lambda rgb: 1 - rgb,
    "rgbw": rgb_to_rgbw,
    "rgbaw": rgb_to_rgbaw,
}


@dataclass(frozen=True)
class Mixed:
    """What heads of one mode do for a colour. model: of which fixture; heads: how many; words: their emitters, flags or slot;
    exact: whether that is the colour; slots: of a wheel, name and drives of each."""

    model: str
    heads: int
    words: str
    exact: bool
    slots: tuple[tuple[str, RGB], ...] = ()


def mixed(rig: Rig, fixtures: Sequence[FixtureSpec], heads: Sequence[str], rgb: Floats) -> list[Mixed]:
    """For a colour (3,) of drives: one entry for each mode of these heads, in their order.

    fixtures: what the rig was built of.
    """
    counts: dict[int, int] = {}
    modes: dict[int, ModeSpec] = {}
    for key in heads:
        if key in rig.heads.index:
            mode = fixtures[int(rig.fixture[rig.heads.index[key]])].mode
            modes[id(mode)] = mode
            counts[id(mode)] = counts.get(id(mode), 0) + 1
    return [
        Mixed(mode.model or mode.kind, counts[key], *_does(mode, rgb), mode.wheel if mode.emitters == "wheel" else ())
        for key, mode in modes.items()
    ]


def _does(mode: ModeSpec, rgb: Floats) -> tuple[str, bool]:
    if mode.emitters in _DRIVES:
        drives = _DRIVES[mode.emitters](rgb[None])[0]
        named = zip(EMITTERS[mode.emitters], drives, strict=True)
        parts = [f"{name} {drive * 100:.0f} %" for name, drive in named if drive >= _SEEN]
        return ", ".join(parts) or ("flags open" if mode.emitters == "cmy" else "no light"), True
    if mode.emitters == "hue-saturation":
        hue, saturation, _ = rgb_to_hsv(rgb[None])[0]
        return f"hue {hue:.0f}°, saturation {saturation * 100:.0f} %", True
    if mode.emitters == "wheel" and mode.wheel:
        slot, difference = nearest_slot(rgb[None], np.array([colour for _, colour in mode.wheel]))
        exact = float(difference[0]) < _DIFFERS
        return f"{'wheel' if exact else 'nearest slot of the wheel'}: {mode.wheel[int(slot[0])][0]}", exact
    if mode.emitters == "warm-cold":
        return "white light only: warm and cold", False
    return "no colour of their own", False
