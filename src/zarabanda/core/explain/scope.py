"""The scope of an effect: the form of each layer over one cycle, and where in it every head is over time."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.effects.effect import Lanes, Path, Spread, Waveform
from zarabanda.core.effects.placement import place
from zarabanda.core.explain import weave
from zarabanda.core.rig import attributes, stage

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


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
    duty: float | None = None
    depth_per_unit: float | None = None


_DEPTH_PER_UNIT = {"above": 1.0, "below": -1.0, "centred": 2.0}
"""How much deeper a wave is when its crest is drawn up by one unit, by its relation to the base."""


def scopes(woven: weave.Woven, samples: int = 97) -> list[LayerScope]:
    """Scopes of all layers of a woven effect that act on its heads."""
    head_set, phases = woven.head_set, woven.phases()
    found = []
    for block, values in zip(woven.placed.blocks, _forms(woven, samples), strict=True):
        first = int(block.head[0])
        names = attributes.touched(block.layer.attribute)
        if block.layer.attribute in ("hue", "saturation") and head_set.mixes[first]:
            names = attributes.COMPOUND["colour"]
        rows = [attributes.INDEX[name] for name in names]
        mirrored = np.zeros(len(head_set.heads), bool)
        mirrored[block.head] = block.mirrored
        form, base = values[:, rows], head_set.base[rows, first]
        on_plane = (
            _on_plane(block.layer.form, head_set, first, np.vstack([form, base])) if isinstance(block.layer.form, Path) else None
        )
        if on_plane is not None:
            form, base = on_plane[:-1], on_plane[-1]
        form_of, anchor = block.layer.form, block.layer.anchor
        waves = isinstance(form_of, Waveform)
        found.append(
            LayerScope(
                block.number, names, form, head_set.low[rows, first], head_set.high[rows, first], base,
                phases[block.number], mirrored, on_plane is not None,
                form_of.duty if isinstance(form_of, Waveform) else None,
                _DEPTH_PER_UNIT.get(anchor.kind) if waves else None,
            )
        )  # fmt: skip
    return found


def _forms(woven: weave.Woven, samples: int) -> Floats:
    """Each layer that acts over one cycle, alone, on the first head that it acts on: (layers, samples, A), not clamped."""
    blocks = woven.placed.blocks
    head_set = _of_heads(woven.head_set, np.array([block.head[0] for block in blocks], np.int64))
    alone = replace(
        woven.effect, run="forward", drift=(100.0, 100.0), ends_after=0.0, lanes=Lanes(), spread=Spread(degrees=0.0), own={}
    )
    layers = [replace(block.layer, ratio=1.0, start=0.0, spread=None) for block in blocks]
    placed = [place(replace(alone, layers=(layer,)), np.array([n]), head_set.heads) for n, layer in enumerate(layers)]
    batches = Batches(placed, len(blocks), head_set.mixes, copies=samples)
    values = np.tile(head_set.base.ravel(), samples)
    theta = np.repeat(np.linspace(0, 1 - 1e-9, samples), len(blocks))
    batches.apply(values, Running(theta, np.ones(len(theta))))
    return values.reshape(samples, attributes.COUNT, len(blocks)).transpose(2, 0, 1)


def _on_plane(form: Path, head_set: weave.HeadSet, head: int, pan_tilt: Floats) -> Floats | None:
    """Where a head's beam lands on the plane of its path, (n, 2) in metres, for pan and tilt (n, 2); None off the stage."""
    if form.plane == "yoke" or head_set.heads.mounting is None:
        return None
    count, axis = len(pan_tilt), 2 if form.plane == "floor" else 1
    beams = stage.direction(pan_tilt[:, 0], pan_tilt[:, 1], np.repeat(head_set.heads.mounting[head][None], count, axis=0))
    points, hits = stage.landing(np.repeat(head_set.heads.places[head][None], count, axis=0), beams, axis, form.plane_at)
    return np.asarray(points[:, [0, 3 - axis]]) if hits.all() else None


def _of_heads(head_set: weave.HeadSet, chosen: Ints) -> weave.HeadSet:
    """The head set with some of its heads, each as often as it is chosen."""
    mounting = None if head_set.heads.mounting is None else head_set.heads.mounting[chosen]
    keys = [head_set.heads.keys[head] for head in chosen]
    heads = replace(
        head_set.heads, keys=keys, places=head_set.heads.places[chosen], has=head_set.heads.has[:, chosen], mounting=mounting
    )
    return weave.HeadSet(
        heads, head_set.low[:, chosen], head_set.high[:, chosen], head_set.base[:, chosen], head_set.mixes[chosen],
        None if head_set.led is None else head_set.led[chosen],
    )  # fmt: skip
