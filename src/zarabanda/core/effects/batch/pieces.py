"""Elements that are computed together, before they are a batch: pieces of blocks, as columns with an entry an element."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import DTypeLike, NDArray

from zarabanda.core.effects.effect import Effect
from zarabanda.core.effects.placement import Block
from zarabanda.core.rig import attributes

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]


@dataclass(frozen=True)
class BatchKey:
    """What must be equal for elements to be computed together.

    kind: how they act (`kinds.KINDS`); how: `ripple`, `relay`, or `many` turns at once; alone: of a block that is computed by
    itself, else 0; form: what of the form must be the same; on: `plain`, `circle`, or `hue` and `saturation` by way of red,
    green and blue; space: of stops with colours.
    """

    kind: str
    how: str
    alone: int
    form: Hashable
    on: str = "plain"
    space: str = "rgb"


@dataclass(frozen=True, eq=False)
class Piece:
    """Elements of one block. instance: number of its effect among what runs; row, turn (n,): phase row and round of each
    element of the block; chosen (n,): which of them are meant."""

    instance: int
    effect: Effect
    block: Block
    row: Ints
    turn: Ints
    chosen: Bools


@dataclass(frozen=True)
class Copies:
    """How independent copies of all heads and instances lie side by side, for times beside each other.

    count: copies; heads, rows, instances: of one copy. Values are (count × attributes × heads) flat.
    """

    count: int
    heads: int
    rows: int
    instances: int

    @property
    def stride(self) -> int:
        """From one copy to the next in the values."""
        return attributes.COUNT * self.heads


class Pieces:
    """The pieces of a batch, laid side by side as often as there are copies.

    precision: of what is computed from the phases on; offsets and circuits stay exact, since phases grow with time.
    size: elements of one copy; first: any of the pieces.
    """

    def __init__(self, pieces: Sequence[Piece], copies: Copies, precision: DTypeLike) -> None:
        self._pieces, self.copies, self.precision = pieces, copies, precision
        self._sizes = [int(piece.chosen.sum()) for piece in pieces]
        self.size, self.first = sum(self._sizes), pieces[0]
        self._copy = np.repeat(np.arange(copies.count), self.size)

    def each(self, value: Callable[[Piece], NDArray[Any]], *, exact: bool = False) -> NDArray[Any]:
        """A column of what blocks say of their elements."""
        one = np.concatenate([value(piece)[piece.chosen] for piece in self._pieces])
        return self._column(one, exact)

    def of_block(self, value: Callable[[Piece], float], *, exact: bool = False) -> Floats:
        """A column of one number of each block."""
        numbers = np.array([float(value(piece)) for piece in self._pieces])
        return self._column(np.repeat(numbers, self._sizes), exact)

    def _column(self, one: NDArray[Any], exact: bool) -> NDArray[Any]:
        if one.dtype == np.float64 and not exact:
            one = one.astype(self.precision)
        if is_even(one):
            return np.broadcast_to(one[0], self.size * self.copies.count)
        return np.tile(one, (self.copies.count, *[1] * (one.ndim - 1))) if self.copies.count > 1 else one

    def table(self, numbers: Floats) -> Floats:
        """Numbers that elements look up."""
        return numbers.astype(self.precision)

    def rows(self) -> tuple[Ints, Ints, Ints]:
        """Phase row of each element; the different ones of them; and which of these each element has."""
        one = np.concatenate([piece.row[piece.chosen] for piece in self._pieces])
        own, pattern = different(one)
        return self._apart(one, self.copies.rows), self._each_copy(own, self.copies.rows), self._apart(pattern, len(own))

    def instances(self) -> tuple[Ints, Ints]:
        """Instance of each element, and the different ones."""
        one = np.repeat(np.array([piece.instance for piece in self._pieces], np.int64), self._sizes)
        return self._apart(one, self.copies.instances), self._each_copy(different(one)[0], self.copies.instances)

    def target(self, row: int | Callable[[Piece], int]) -> Ints:
        """Where the elements act in the values. row: attribute, by its number."""
        rows = [row if isinstance(row, int) else row(piece) for piece in self._pieces]
        heads = self.copies.heads
        one = [at * heads + piece.block.head[piece.chosen] for at, piece in zip(rows, self._pieces, strict=True)]
        return np.tile(np.concatenate(one), self.copies.count) + self._copy * self.copies.stride

    def _apart(self, one: Ints, apart: int) -> Ints:
        if is_even(one) and (apart == 0 or self.copies.count == 1):
            return np.broadcast_to(one[0], self.size * self.copies.count)
        return np.tile(one, self.copies.count) + self._copy * apart

    def _each_copy(self, one: Ints, apart: int) -> Ints:
        return (one + np.arange(self.copies.count)[:, None] * apart).ravel()


def is_even(column: NDArray[Any]) -> bool:
    """Whether all entries are the same number: then it is kept once, which is quicker to compute with (and read only)."""
    return column.ndim == 1 and len(column) > 0 and bool((column == column[0]).all())


def different(numbers: Ints) -> tuple[Ints, Ints]:
    """The different ones of some numbers, rising, and which of them each is; most often there is but one."""
    if (numbers == numbers[0]).all():
        return numbers[:1], np.zeros(len(numbers), np.int64)
    return np.unique(numbers, return_inverse=True)
