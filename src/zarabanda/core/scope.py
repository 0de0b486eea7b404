"""The scope of an effect: the form of each layer over one cycle, and where in it every head is over time."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from . import attributes, stage, weave
from .effect import Effect, Lanes, Path, Spread
from .placement import place
from .plan import Plan, Running

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class LayerScope:
    """One layer on the first head that it acts on. values: (samples, plain attributes) over p = 0…1, natural units, not
    clamped; low, high, base: (plain attributes,); phases: (T, N) of all heads, NaN at rest; mirrored: (N,). Of a path that
    lies on stage the values and the base are in metres on its plane, across and onwards (or up)."""

    number: int
    names: tuple[str, ...]
    values: Floats
    low: Floats
    high: Floats
    base: Floats
    phases: Floats
    mirrored: NDArray[np.bool_]
    metres: bool = False


def scopes(effect: Effect, stand: weave.Stand, theta: Floats, samples: int = 97) -> list[LayerScope]:
    """Scopes of all layers that act on these heads. theta: (T,) cycles, for the phases."""
    heads = len(stand.heads)
    placed = place(effect, np.arange(heads), stand.heads)
    plan = Plan([placed], heads, stand.mixes).tiled(len(theta))
    phases: dict[int, Floats] = {}
    for numbers, who, p in plan.where(Running(theta, np.ones(len(theta)))):
        for number in np.unique(numbers):
            own = phases.setdefault(int(number), np.full(len(theta) * heads, np.nan))
            own[who[numbers == number]] = p[numbers == number]
    alone = replace(
        effect, run="forward", drift=(100.0, 100.0), ends_after=0.0, lanes=Lanes(), spread=Spread(degrees=0.0), own={}
    )
    found = []
    for block in placed.blocks:
        layer = replace(effect.layers[block.number], ratio=1.0, start=0.0, spread=None)
        one = _first(stand, int(block.head[0]))
        _, _, raw = weave.over_time(replace(alone, layers=(layer,)), one, np.linspace(0, 1 - 1e-9, samples))
        names = attributes.touched(layer.attribute)
        if layer.attribute in ("hue", "saturation") and stand.mixes[block.head[0]]:
            names = attributes.COMPOUND["colour"]
        rows = [attributes.INDEX[name] for name in names]
        mirrored = np.zeros(heads, bool)
        mirrored[block.head] = block.mirrored
        values, base = raw[:, rows, 0], one.base[rows, 0]
        on_plane = _on_plane(layer.form, one, np.vstack([values, base])) if isinstance(layer.form, Path) else None
        if on_plane is not None:
            values, base = on_plane[:-1], on_plane[-1]
        found.append(
            LayerScope(
                block.number, names, values, one.low[rows, 0], one.high[rows, 0], base,
                phases[block.number].reshape(len(theta), heads),
                mirrored,
                on_plane is not None,
            )
        )  # fmt: skip
    return found


def _on_plane(form: Path, one: weave.Stand, pan_tilt: Floats) -> Floats | None:
    """Where a head's beam lands on the plane of its path, (n, 2) in metres, for pan and tilt (n, 2); None off the stage."""
    if form.plane == "yoke" or one.heads.mounting is None:
        return None
    count, axis = len(pan_tilt), 2 if form.plane == "floor" else 1
    mounting = np.repeat(one.heads.mounting, count, axis=0)
    beams = stage.direction(pan_tilt[:, 0], pan_tilt[:, 1], mounting)
    points, hits = stage.landing(np.repeat(one.heads.places, count, axis=0), beams, axis, form.plane_at)
    return np.asarray(points[:, [0, 3 - axis]]) if hits.all() else None


def _first(stand: weave.Stand, head: int) -> weave.Stand:
    """The stand with one of its heads alone."""
    chosen = np.array([head])
    mounting = None if stand.heads.mounting is None else stand.heads.mounting[chosen]
    heads = replace(
        stand.heads, keys=[stand.heads.keys[head]], places=stand.heads.places[chosen], has=stand.heads.has[:, chosen],
        mounting=mounting,
    )  # fmt: skip
    return weave.Stand(heads, stand.low[:, chosen], stand.high[:, chosen], stand.base[:, chosen], stand.mixes[chosen])
