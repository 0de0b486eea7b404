"""Everything that runs, batched: one evaluation a frame for all layers of all effects on all heads.

Layers of the same form are evaluated together (an *element* is one layer on one head), then applied in rounds, so that
each head's layers act in their order, each on the result of the one before. Built when what runs changes; never in a
frame. Values are one flat array: attribute × head, in natural units.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import DTypeLike, NDArray

from zarabanda.core.effects import phase
from zarabanda.core.effects.batch.elements import Arrangement, Batch, Phases, resource
from zarabanda.core.effects.batch.kinds import batch_key, make_batch
from zarabanda.core.effects.batch.pieces import BatchKey, Copies, Piece, Pieces
from zarabanda.core.effects.placement import Block, Placed
from zarabanda.core.rig import attributes

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class Running:
    """The live side of what runs, one entry an instance: θ in cycles, weight W 0…1 (of all families, or a column for each),
    phase shifts per layer in cycles."""

    theta: Floats
    weight: Floats
    shifts: Sequence[Sequence[float]] = ()

    @property
    def weights(self) -> Floats:
        """W by instance and family."""
        return self.weight if self.weight.ndim == 2 else np.repeat(self.weight[:, None], len(attributes.FAMILIES), axis=1)


@dataclass(frozen=True)
class _Rows:
    """Phases that elements share: one row a layer (with drift: a row for each key of the layer). Arrays (rows,)."""

    instance: Ints
    turning: Floats  # turns or cycles of the layer for each cycle of θ: ratio · speed
    start: Floats
    speed: Floats  # turns of a relay for each cycle of θ
    sign: Floats
    back_and_forth: NDArray[np.bool_]
    layer: list[tuple[int, int]]  # instance and layer number of each row
    drifting: list[tuple[slice, int, phase.Drift]]
    all_forward: bool

    def beside(self, copies: Copies) -> _Rows:
        """The rows of so many copies, one after another."""
        count, instances = copies.count, copies.instances
        return _Rows(
            instance=(self.instance + np.arange(count)[:, None] * instances).ravel(),
            turning=np.tile(self.turning, count),
            start=np.tile(self.start, count),
            speed=np.tile(self.speed, count),
            sign=np.tile(self.sign, count),
            back_and_forth=np.tile(self.back_and_forth, count),
            layer=self.layer,
            drifting=[
                (slice(part.start + copy * copies.rows, part.stop + copy * copies.rows), number + copy * instances, drift)
                for copy in range(count)
                for part, number, drift in self.drifting
            ],
            all_forward=self.all_forward,
        )


class Batches:
    """Placed effects over `heads` heads, evaluated by `apply`.

    copies: independent copies of all heads and instances, side by side (for times beside each other). Values are then
    (copies × attributes × heads) flat, θ and weights (copies × instances).
    """

    def __init__(
        self,
        placed: Sequence[Placed],
        heads: int,
        colour_mixing: NDArray[np.bool_],
        precision: DTypeLike = np.float64,
        copies: int = 1,
    ) -> None:
        """colour_mixing: (heads,) true where red, green and blue are mixed, so that hue goes by way of them.

        precision: of the values; phases are always in float64. float32 is twice as quick, and exact to 1/200 of a 16-bit step.
        """
        self._precision = precision
        self.heads = heads
        self.instances = len(placed) * copies
        blocks = [(number, block) for number, one in enumerate(placed) for block in one.blocks]
        rows, first_rows = _rows(placed, blocks)
        self._copies = Copies(copies, heads, len(rows.instance), len(placed))
        self._rows = rows.beside(self._copies)
        gathered: dict[BatchKey, list[Piece]] = {}
        for (number, block), first_row, turn in zip(blocks, first_rows, _rounds(blocks, heads), strict=True):
            effect = placed[number].effect
            row = np.full(len(block.head), first_row)
            if effect.drifts and not block.is_relay:
                row = first_row + np.unique(block.key, return_inverse=True)[1]
            mixes = colour_mixing[block.head]
            for kind in (True, False):
                chosen = mixes == kind
                if chosen.any():
                    piece = Piece(number, effect, block, row, turn, chosen)
                    gathered.setdefault(batch_key(block, effect, kind), []).append(piece)
        self._batches: list[Batch] = [
            make_batch(key, Pieces(pieces, self._copies, precision)) for key, pieces in gathered.items()
        ]
        self._batches.sort(key=lambda batch: -len(batch.row))  # large ones first: they have phases for parts of theirs
        known: dict[Arrangement, int] = {}
        for batch in self._batches:
            batch.share_phases(known)
        for batch in self._batches:
            batch.share_parts(known)
        self._order = _schedule(self._batches)
        self.touched = _touched(blocks, colour_mixing)
        """(A, N) true where some layer changes a value: only these can leave their range."""

    @property
    def count(self) -> int:
        """How many forms are computed apart."""
        return len(self._batches)

    def apply(self, values: Floats, running: Running) -> None:
        """Add what runs to `values` (flat, attribute × head, natural units), in place. Nothing is clamped."""
        if not self._batches:
            return
        phases = self._phases(running)
        weight = running.weights.astype(self._precision, copy=False)
        for batch in self._batches:
            batch.evaluate(phases, weight)
        for batch, chosen in self._order:
            batch.act(values, chosen)

    def where(self, running: Running) -> list[tuple[Ints, Ints, Floats]]:
        """Where heads are in their cycles: for each batch layer numbers, heads and phases 0…1, NaN at rest. (n,) each.

        Of copies: heads counted on through them.
        """
        phases, found = self._phases(running), []
        for batch in self._batches:
            turns = batch.where(phases)
            p = turns.p if turns.active is None else np.where(turns.active, turns.p, np.nan)
            copy = batch.instance // self._copies.instances
            found.append((batch.layer, batch.head + copy * self.heads, p))
        return found

    def lane_zero_phase(self, running: Running) -> dict[tuple[int, int], float]:
        """Phase of lane 0 of each (instance, layer), in cycles or turns: what an edit keeps."""
        row_phase = self._phases(running).row
        result: dict[tuple[int, int], float] = {}
        for layer, value in zip(self._rows.layer, row_phase, strict=False):
            result.setdefault(layer, float(value))
        return result

    def _phases(self, running: Running) -> Phases:
        rows = self._rows
        theta = running.theta[rows.instance]
        for part, number, drift in rows.drifting:
            speed = rows.speed[part.start]
            theta[part] = drift(running.theta[number] * speed) / speed
        raw = rows.turning * theta + rows.start
        if rows.all_forward:
            row = raw
        else:
            run = np.where(rows.back_and_forth, 1 - np.abs(1 - theta % 2), rows.sign * theta)
            row = rows.turning * run + rows.start
        if running.shifts:
            shift = np.array([_shift(running.shifts, place) for place in rows.layer])
            row, raw = row + shift, raw + shift
        return Phases(row, raw, bool((running.weight == 1).all()))


def _shift(shifts: Sequence[Sequence[float]], place: tuple[int, int]) -> float:
    instance, layer = place
    return shifts[instance][layer] if layer < len(shifts[instance]) else 0.0


def _rows(placed: Sequence[Placed], blocks: Sequence[tuple[int, Block]]) -> tuple[_Rows, list[int]]:
    first_rows: list[int] = []
    instance: list[int] = []
    turning: list[float] = []
    start: list[float] = []
    speed: list[float] = []
    sign: list[float] = []
    bouncing: list[bool] = []
    layer: list[tuple[int, int]] = []
    drifting: list[tuple[slice, int, phase.Drift]] = []
    for number, block in blocks:
        effect = placed[number].effect
        keys = np.unique(block.key) if effect.drifts and not block.is_relay else np.zeros(1, int)
        first, count = len(instance), len(keys)
        first_rows.append(first)
        instance += [number] * count
        turning += [block.turning] * count
        start += [0.0 if block.is_relay else block.layer.start / 360] * count
        speed += [block.turning / block.layer.ratio] * count
        sign += [-1.0 if effect.run == "backward" else 1.0] * count
        bouncing += [effect.run == "back-and-forth"] * count
        layer += [(number, block.number)] * count
        if effect.drifts:
            low, high = effect.drift
            drift = placed[number].drifts.of(low / 100, high / 100, effect.seed, keys)
            drifting.append((slice(first, first + count), number, drift))
    rows = _Rows(
        np.array(instance, np.int64),
        np.array(turning),
        np.array(start),
        np.array(speed),
        np.array(sign),
        np.array(bouncing, bool),
        layer,
        drifting,
        all_forward=all(value > 0 for value in sign) and not any(bouncing),
    )
    return rows, first_rows


def _rounds(blocks: Sequence[tuple[int, Block]], heads: int) -> list[Ints]:
    """For each block the round of each of its elements: how many earlier elements touch the same thing of the head."""
    if not blocks:
        return []
    resources = np.concatenate([resource(block.layer.attribute) * heads + block.head for _, block in blocks])
    order = np.argsort(resources, kind="stable")
    batched = resources[order]
    new = np.concatenate([[True], batched[1:] != batched[:-1]])
    begin = np.maximum.accumulate(np.where(new, np.arange(len(batched)), 0))
    turn = np.empty(len(resources), np.int64)
    turn[order] = np.arange(len(batched)) - begin
    ends = np.cumsum([len(block.head) for _, block in blocks])
    return np.split(turn, ends[:-1])


def _touched(blocks: Sequence[tuple[int, Block]], mixes: NDArray[np.bool_]) -> NDArray[np.bool_]:
    touched = np.zeros((attributes.COUNT, len(mixes)), bool)
    for _, block in blocks:
        heads = block.head
        if block.layer.attribute in ("hue", "saturation"):  # by way of red, green and blue where these are mixed
            touched[attributes.RED : attributes.BLUE + 1, heads[mixes[heads]]] = True
            heads = heads[~mixes[heads]]
        for name in attributes.touched(block.layer.attribute):
            touched[attributes.INDEX[name], heads] = True
    return touched


def _schedule(batches: Sequence[Batch]) -> list[tuple[Batch, Ints | slice]]:
    """Which elements of which batch act, round by round."""
    order: list[tuple[int, Batch, Ints | slice]] = []
    for batch in batches:
        if len(batch.rounds) == 1:
            order.append((batch.rounds[0], batch, slice(None)))
            continue
        order += [(turn, batch, np.flatnonzero(batch.turn == turn)) for turn in batch.rounds]
    order.sort(key=lambda item: item[0])
    return [(batch, chosen) for _, batch, chosen in order]
