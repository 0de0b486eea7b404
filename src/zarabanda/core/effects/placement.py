"""An effect laid on an ordered selection: lanes, offsets and turns as arrays, ready to be batched (`core.effects.batch`)."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects import lanes
from zarabanda.core.effects.effect import Effect, Layer, OwnHead, Spread, Stops
from zarabanda.core.effects.palette import Palette
from zarabanda.core.effects.phase import Drifts
from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.heads import Heads
from zarabanda.core.selection import orders

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

_HANGING = stage.rotation(*stage.MOUNTINGS["hanging"])


@dataclass(frozen=True)
class Block:
    """One layer on the heads it can act on; all arrays are (n,), in rank order.

    head: index in the rig; lane; key for random numbers; offset: own and ripple offset in cycles; depth: factor;
    mirrored: true where pan is mirrored; count: lanes L; circuit: length C of a circuit in turns (1 for a ripple);
    places (n, 3) metres and mounting (n, 3, 3), for paths on stage; stop_values (n, stops, attributes), NaN for the base,
    where stops go to palettes.
    """

    layer: Layer
    number: int
    spread: Spread
    head: Ints
    lane: Ints
    key: Ints
    offset: Floats
    depth: Floats
    mirrored: NDArray[np.bool_]
    count: int
    circuit: float
    back_and_forth: bool
    places: Floats
    mounting: Floats
    stop_values: Floats | None = None

    @property
    def family(self) -> int:
        """Number of the family of its attribute."""
        return attributes.FAMILIES.index(attributes.BY_NAME[attributes.touched(self.layer.attribute)[0]].family)

    @property
    def is_relay(self) -> bool:
        """Whether heads take turns."""
        return self.spread.kind == "relay"

    @property
    def turning(self) -> float:
        """Cycles (or turns) of the layer that go by with one cycle of θ: by its ratio, and by its circuit where speed counts
        these."""
        circuits = self.is_relay and self.spread.speed_counts == "circuits"
        return self.layer.ratio * (self.circuit if circuits else 1.0)

    @property
    def has_many_turns(self) -> bool:
        """Whether a lane can have more than one turn under way, or its turns change places."""
        return self.is_relay and (self.back_and_forth or self.spread.order == "shuffled")


_BY_HEAD = ("head", "lane", "key", "offset", "depth", "mirrored", "places", "mounting", "stop_values")
"""Arrays of a block with an entry a head."""


@dataclass(frozen=True)
class Placed:
    """An effect on a selection. order: (n,) rig indexes in rank order; lane: (n,) of each rank; blocks: its layers.

    drifts: how far cycles have come that each go at their own pace.
    """

    effect: Effect
    order: Ints
    lane: Ints
    part: Ints
    count: int
    blocks: tuple[Block, ...]
    drifts: Drifts

    def restricted(self, cells: Collection[tuple[str, str]], keys: Sequence[str], *, keep: bool) -> Placed:
        """On some of its heads alone, each in its lane. cells: (family, head key) on which it acts alone, or, without `keep`,
        does not act; keys: of the rig's heads."""
        blocks = []
        for block in self.blocks:
            family = attributes.FAMILIES[block.family]
            chosen = np.array([((family, keys[head]) in cells) == keep for head in block.head.tolist()], bool)
            if chosen.all():
                blocks.append(block)
            elif chosen.any():
                arrays = {name: getattr(block, name)[chosen] for name in _BY_HEAD if getattr(block, name) is not None}
                blocks.append(replace(block, **arrays))
        return replace(self, blocks=tuple(blocks))

    @property
    def first_cell(self) -> tuple[int, int] | None:
        """Attribute and head that stand for all of it in a small picture: of its first layer, on the first head in rank order."""
        if not self.blocks:
            return None
        first = self.blocks[0]
        return attributes.INDEX[attributes.touched(first.layer.attribute)[0]], int(first.head[0])


def circuit_turns(spread: Spread, count: int, back_and_forth: bool) -> float:
    """Length C of a circuit, in turns: max(L·h, 1), or max((2L − 2)·h, 1) when turns go back and forth."""
    turns = 2 * count - 2 if back_and_forth else count
    return max(turns * spread.handover, 1.0)


def place(effect: Effect, heads: Ints, rig: Heads, drifts: Drifts | None = None) -> Placed:
    """Lay `effect` on the heads (rig indexes in pick order, each once). drifts: of the placement that this one replaces.

    Heads that lack a layer's attribute keep their lane, so that the pattern is the same on all; they are just not moved.
    """
    setting = effect.lanes
    order = heads[orders.ordered(setting.order, rig.places[heads], effect.seed)]
    lane_map = lanes.lane_map(
        len(order),
        parts=setting.parts,
        mirror=setting.mirror,
        pack=setting.pack,
        repeat=setting.repeat,
        reverse=setting.travel == "reverse",
    )
    plain = OwnHead()
    own = [effect.own.get(rig.keys[head], plain) for head in order]
    stays = np.array([not head.left_out for head in own], bool)
    own_offset = np.array([head.offset / 360 for head in own])
    own_depth = np.array([head.depth for head in own])
    mounting = rig.mounting if rig.mounting is not None else np.broadcast_to(_HANGING, (len(rig), 3, 3))
    blocks = []
    for number, layer in enumerate(effect.layers):
        if layer.muted:
            continue
        acts = stays & rig.having(order, layer.attribute)
        if not acts.any():
            continue
        spread = layer.spread or effect.spread
        back = spread.kind == "relay" and setting.travel == "back-and-forth"
        divisor = lane_map.count if spread.fit == "closed" else max(lane_map.count - 1, 1)
        offset = spread.degrees / 360 * lane_map.lane / divisor + own_offset
        blocks.append(
            Block(
                layer=layer,
                number=number,
                spread=spread,
                head=order[acts],
                lane=lane_map.lane[acts],
                key=lane_map.key[acts],
                offset=offset[acts],
                depth=own_depth[acts],
                mirrored=(lane_map.backward & layer.mirror_pan)[acts],
                count=lane_map.count,
                circuit=circuit_turns(spread, lane_map.count, back) if spread.kind == "relay" else 1.0,
                back_and_forth=back,
                places=rig.places[order[acts]],
                mounting=mounting[order[acts]],
                stop_values=_stop_values(layer, rig, order[acts]),
            )
        )
    return Placed(effect, order, lane_map.lane, lane_map.part, lane_map.count, tuple(blocks), drifts or Drifts())


def _stop_values(layer: Layer, rig: Heads, heads: Ints) -> Floats | None:
    """What each head goes to at each stop, (n, stops, attributes), where that differs from head to head."""
    if not isinstance(layer.form, Stops) or not any(isinstance(stop.value, Palette) for stop in layer.form.stops):
        return None
    names = attributes.touched(layer.attribute)
    columns = []
    for stop in layer.form.stops:
        if isinstance(stop.value, Palette):
            columns.append(stop.value.on(rig, heads.tolist(), names))
        else:
            value = np.nan if stop.value is None else np.asarray(stop.value, float)
            columns.append(np.broadcast_to(value, (len(heads), len(names))))
    return np.stack(columns, axis=1)
