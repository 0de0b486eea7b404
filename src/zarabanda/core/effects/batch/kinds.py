"""Which elements are computed together, and by which kind of batch: one entry a kind."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np
from numpy.typing import DTypeLike

from zarabanda.core.clamp import to_unit
from zarabanda.core.colour import spaces as colour
from zarabanda.core.effects.batch.elements import (
    Batch,
    Chosen,
    Floats,
    Item,
    Lie,
    Phases,
    put_rows,
    red_targets,
    rows_at,
)
from zarabanda.core.effects.batch.paths import Paths, StagePaths
from zarabanda.core.effects.batch.stops import ColourStops, NumberStops, PositionStops
from zarabanda.core.effects.batch.waves import Adding, Between
from zarabanda.core.effects.effect import Effect, Path, Stops
from zarabanda.core.effects.placement import Block


def batch_key(block: Block, effect: Effect, mixes_colour: bool) -> tuple[Any, ...]:
    """What must be equal for two blocks to be computed together. mixes_colour: heads that mix red, green and blue."""
    layer, form = block.layer, block.layer.form
    how = "many" if block.has_many_turns else "relay" if block.is_relay else "ripple"
    alone = id(block) if block.has_many_turns else 0
    by_hsv = mixes_colour and layer.attribute in ("hue", "saturation")
    on = layer.attribute if by_hsv else "circle" if layer.attribute == "hue" else "plain"
    if isinstance(form, Path):
        if form.plane != "yoke":
            return ("stage path", how, alone, form, "plain")
        same: Any = form if form.path in ("polygon", "free") else form.path
        return ("path", how, alone, same, "plain")
    if isinstance(form, Stops):
        if layer.attribute == "colour":
            return ("colour", how, alone, form, effect.colour_space)
        if layer.attribute == "position":
            return ("position stops", how, alone, form, "plain")
        return ("stops", how, alone, form, on)
    shape = form.shape
    same = form if shape == "curve" else "soft" if shape == "square" and form.softness > 0 else shape
    return ("between" if layer.anchor.kind == "between" else "wave", how, alone, same, on)


class _ThroughHsv(Batch):
    """Hue and saturation on heads that mix red, green and blue: there to HSV, an inner batch acts, and back."""

    def __init__(self, key: tuple[Any, ...], items: Sequence[Item], effects: Sequence[Effect], heads: int) -> None:
        super().__init__(key, items, effects, heads)
        hue = key[4] == "hue"
        self.column = 0 if hue else 1
        self._into = colour.rgb_to_hue_planes if hue else colour.rgb_to_hsv_planes
        self._back = colour.hue_to_rgb_planes if hue else colour.hsv_to_rgb_planes
        self.inner = _KINDS[key[0]](key, items, effects, heads)
        self.target = red_targets(items, heads)
        self.stride = heads
        self._places = np.arange(len(self.target), dtype=np.int64)

    def set_precision(self, precision: DTypeLike) -> None:
        super().set_precision(precision)
        self.inner.set_precision(precision)

    def share_phases(self, lies: dict[Lie, int]) -> None:
        self.inner.share_phases(lies)

    def share_parts(self, lies: Mapping[Lie, int]) -> None:
        self.inner.share_parts(lies)

    def settle(self) -> None:
        self.inner.settle()

    def tiled(self, copies: int, stride: int, rows: int, instances: int) -> Batch:
        other = super().tiled(copies, stride, rows, instances)
        assert isinstance(other, _ThroughHsv)
        other.inner = self.inner.tiled(copies, stride, rows, instances)
        other._places = np.arange(len(other.target), dtype=np.int64)
        return other

    def evaluate(self, phases: Phases, weight: Floats) -> None:
        self.inner.evaluate(phases, weight)
        self.inner.target = self._places

    def act(self, values: Floats, chosen: Chosen) -> None:
        place = self.place(chosen)
        planes = to_unit(np.array(rows_at(values, place, self.stride)))
        changed = list(self._into(planes))
        column = changed[self.column]
        if self.column == 1:
            column *= 100
        if isinstance(chosen, slice):
            self.inner.act(column, chosen)
        else:
            whole = np.zeros(len(self.target), values.dtype)
            whole[chosen] = column
            self.inner.act(whole, chosen)
            changed[self.column] = column = whole[chosen]
        if self.column == 1:
            column /= 100
            to_unit(column)
        silent = None if self.inner.at_full else self.inner.weight[chosen] == 0
        if silent is not None and silent.any():  # these add nothing, not even the limits of a colour
            before = np.array(rows_at(values, place, self.stride))
            put_rows(values, place, self.stride, np.where(silent, before, self._back(*changed)))
        elif isinstance(place, slice):
            self._back(changed[0], changed[1], changed[2], rows_at(values, place, self.stride))
        else:
            put_rows(values, place, self.stride, self._back(*changed))


_KINDS: dict[str, type[Batch]] = {
    "wave": Adding,
    "between": Between,
    "stops": NumberStops,
    "colour": ColourStops,
    "position stops": PositionStops,
    "path": Paths,
    "stage path": StagePaths,
}


def make_batch(
    key: tuple[Any, ...],
    items: Sequence[Item],
    effects: Sequence[Effect],
    heads: int,
    *,
    precision: DTypeLike = np.float64,
) -> Batch:
    """The batch for a key made by `batch_key`. precision: of what is computed from the phases on."""
    kind = _ThroughHsv if key[4] in ("hue", "saturation") else _KINDS[key[0]]
    batch = kind(key, items, effects, heads)
    if precision is not np.float64:
        batch.set_precision(precision)
    batch.settle()
    return batch
