"""Which elements are computed together, and by which kind of batch: one entry a kind."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from zarabanda.core.clamp import to_unit
from zarabanda.core.colour import spaces as colour
from zarabanda.core.effects.batch.elements import Arrangement, Batch, Chosen, Floats, Phases, put_rows, rows_at
from zarabanda.core.effects.batch.paths import Paths, StagePaths
from zarabanda.core.effects.batch.pieces import BatchKey, Pieces
from zarabanda.core.effects.batch.stops import ColourStops, NumberStops, PositionStops
from zarabanda.core.effects.batch.waves import Adding, Between
from zarabanda.core.effects.effect import Effect, Path, Stops
from zarabanda.core.effects.placement import Block
from zarabanda.core.rig import attributes

_STOPS = {"colour": "colour", "position": "position stops"}
"""Kinds of stops by the layer's attribute; of all others: `stops`."""


def batch_key(block: Block, effect: Effect, mixes_colour: bool) -> BatchKey:
    """What elements of a block have in common with others. mixes_colour: heads that mix red, green and blue."""
    layer, form = block.layer, block.layer.form
    how = "many" if block.has_many_turns else "relay" if block.is_relay else "ripple"
    alone = id(block) if block.has_many_turns else 0
    if isinstance(form, Path):
        if form.plane != "yoke":
            return BatchKey("stage path", how, alone, form)
        return BatchKey("path", how, alone, form if form.path in ("polygon", "free") else form.path)
    by_hsv = mixes_colour and layer.attribute in ("hue", "saturation")
    on = layer.attribute if by_hsv else "circle" if layer.attribute == "hue" else "plain"
    if isinstance(form, Stops):
        kind = _STOPS.get(layer.attribute, "stops")
        return BatchKey(kind, how, alone, form, on, effect.colour_space if kind == "colour" else "rgb")
    same = form if form.shape == "curve" else "soft" if form.shape == "square" and form.softness > 0 else form.shape
    return BatchKey("between" if layer.anchor.kind == "between" else "wave", how, alone, same, on)


class _ThroughHsv(Batch):
    """Hue and saturation on heads that mix red, green and blue: there to HSV, an inner batch acts, and back."""

    def __init__(self, key: BatchKey, pieces: Pieces) -> None:
        super().__init__(key, pieces)
        hue = key.on == "hue"
        self.column = 0 if hue else 1
        self._into = colour.rgb_to_hue_planes if hue else colour.rgb_to_hsv_planes
        self._back = colour.hue_to_rgb_planes if hue else colour.hsv_to_rgb_planes
        self.target, self.stride = pieces.target(attributes.RED), pieces.copies.heads
        self.inner = KINDS[key.kind](key, pieces)
        self.inner.target = np.arange(len(self.target), dtype=np.int64)

    def share_phases(self, known: dict[Arrangement, int]) -> None:
        self.inner.share_phases(known)

    def share_parts(self, known: Mapping[Arrangement, int]) -> None:
        self.inner.share_parts(known)

    def evaluate(self, phases: Phases, weight: Floats) -> None:
        self.inner.evaluate(phases, weight)

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


KINDS: dict[str, type[Batch]] = {
    "wave": Adding,
    "between": Between,
    "stops": NumberStops,
    "colour": ColourStops,
    "position stops": PositionStops,
    "path": Paths,
    "stage path": StagePaths,
}


def make_batch(key: BatchKey, pieces: Pieces) -> Batch:
    """The batch for a key made by `batch_key`."""
    kind = _ThroughHsv if key.on in ("hue", "saturation") else KINDS[key.kind]
    return kind(key, pieces)
