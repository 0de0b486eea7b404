"""How a palette looks: its colours, its beams, its gobo and zoom."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from zarabanda.core.colour.spaces import rgb_to_hex
from zarabanda.core.effects.palette import Palette
from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.rig import Rig

_MOST_COLOURS, _MOST_BEAMS, _MOST_WORDS = 5, 7, 3
_RGB = attributes.COMPOUND["colour"]
_HIGH_M = 2.5
"""A light that hangs higher is drawn at the top, others at the floor."""
_SHORTEST = 0.2


@dataclass(frozen=True)
class Picture:
    """What a palette has: colours (hex), the commonest first; beams: from left to right, x of both ends of each,
    −1…1, and y of both, from 0 at the top to 1 at the floor; gobo
    slot, zoom in degrees, level in %; words: what else there is."""

    colours: tuple[str, ...]
    beams: tuple[tuple[float, float, float, float], ...]
    gobo: int | None
    zoom: float | None
    level: float | None
    words: str


def acting_on(rig: Rig, palette: Palette) -> list[int]:
    """Numbers of the heads of a rig that a palette acts on."""
    return np.flatnonzero(palette.acts(rig.heads, range(len(rig)), palette.names).any(axis=1)).tolist()


def picture_of(rig: Rig, palette: Palette, heads: list[int]) -> Picture:
    """A palette on the heads of a rig that it acts on: see `acting_on`."""
    names = palette.names

    def first(name: str) -> float | None:
        if name not in names:
            return None
        found = palette.on(rig.heads, heads, [name])[:, 0]
        found = found[~np.isnan(found)]
        return float(found[0]) if len(found) else palette.values.get(name)

    gobo = first("gobo")
    drawn = {*_RGB, "pan", "tilt", "gobo", "zoom", "intensity"}
    others = [attributes.BY_NAME[name] for name in names if name not in drawn]
    words = ", ".join(f"{one.label} {first(one.name) or 0:g} {one.unit}".strip() for one in others[:_MOST_WORDS])
    return Picture(
        _colours(rig, palette, heads), _beams(rig, palette, heads), None if gobo is None else int(gobo),
        first("zoom"), first("intensity"), words,
    )  # fmt: skip


def _colours(rig: Rig, palette: Palette, heads: list[int]) -> tuple[str, ...]:
    if not set(_RGB) <= set(palette.names):
        return ()
    if all(name in palette.values for name in _RGB) and not palette.own and not palette.models:
        return (rgb_to_hex(np.array([palette.values[name] for name in _RGB])),)
    values = palette.on(rig.heads, heads, _RGB)
    values = values[~np.isnan(values).any(axis=1)]
    if not len(values):
        return ()
    each, counts = np.unique(np.round(values, 3), axis=0, return_counts=True)
    return tuple(rgb_to_hex(each[n]) for n in np.argsort(-counts, kind="stable")[:_MOST_COLOURS])


def _beams(rig: Rig, palette: Palette, heads: list[int]) -> tuple[tuple[float, float, float, float], ...]:
    """Evenly chosen among the lights, as seen from the audience: each as long as it is seen."""
    if not {"pan", "tilt"} & set(palette.names):
        return ()
    values = palette.on(rig.heads, heads, ("pan", "tilt"))
    home = rig.home[[attributes.PAN, attributes.TILT]][:, heads].T
    values = np.where(np.isnan(values), home, values)
    moving = [n for n, head in enumerate(heads) if rig.heads.has[attributes.PAN, head]]
    if not moving:
        return ()
    x = rig.heads.places[heads][moving, 0]
    order = np.argsort(x, kind="stable")
    picked = order[np.unique(np.linspace(0, len(order) - 1, min(_MOST_BEAMS, len(order))).round().astype(int))]
    number = np.array(heads)[moving][picked]
    way = stage.direction(values[moving][picked, 0], values[moving][picked, 1], rig.mounting[number])
    width = max(float(np.ptp(x)), 1.0)
    starts = (x[picked] - x.min()) / width * 1.6 - 0.8 if len(picked) > 1 else np.zeros(1)
    drop = np.maximum(np.abs(way[:, 2]), 0.25)
    lean = np.clip(way[:, 0] / drop * 6 / width * 1.6, -1.2, 1.2)
    ends = np.clip(starts + lean, -1, 1)
    tops = np.where(rig.heads.places[number, 2] > _HIGH_M, 0.05, 0.95)
    fall = np.where(np.abs(way[:, 2]) < _SHORTEST, np.copysign(_SHORTEST, -way[:, 2]), -way[:, 2])
    bottoms = np.clip(tops + 0.9 * fall, 0, 1)
    columns = (starts.tolist(), ends.tolist(), tops.tolist(), bottoms.tolist())
    return tuple((round(a, 3), round(b, 3), round(c, 3), round(d, 3)) for a, b, c, d in zip(*columns, strict=True))
