"""Lights that stand in for broken ones: at the end of a frame they do what those would do (docs/computation.md, "Stand-ins")."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import followed, matching
from zarabanda.core.rig.attributes import INTENSITY, PAN, TILT
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

_FULL = 100.0


class StandIns:
    """The last step of a frame. pairs: numbers of fixtures, the broken one and the one that stands in, each in one pair."""

    def __init__(self, rig: Rig, pairs: Sequence[tuple[int, int]]) -> None:
        self._rig, self.pairs = rig, tuple(pairs)
        self.source = np.full(rig.home.shape, -1, np.int64)
        """(A, N) for each value of a light that stands in the head whose value it takes; −1: none."""
        self._full = np.zeros(len(rig), bool)
        broken, standing = list[int](), list[int]()
        for light, by in self.pairs:
            old, new = (np.array(rig.heads.of_fixture[str(number)], np.int64) for number in (light, by))
            broken += old.tolist()
            standing += new.tolist()
            for head, row, at in _sources(rig, old, new):
                self.source[row, head] = at
        self.broken, self.standing = np.array(broken, np.int64), np.array(standing, np.int64)
        led = self.standing[rig.leader[self.standing] >= 0]
        self._full[led[self.source[INTENSITY, led] < 0]] = True  # the fixture's own level is that of its cells
        self._turned = np.flatnonzero((self.source[PAN] >= 0) & (self.source[TILT] >= 0))

    @cached_property
    def touched(self) -> Bools:
        """(A, N) true where it changes a value."""
        found = np.zeros(self._rig.home.shape, bool)
        found[:, self.standing] = True
        found[INTENSITY, self.broken] = True
        return found

    def apply(self, values: Floats) -> None:
        """Act on values (A, N) that are in range and scaled: the others' values, within what each can do; aimed at the same
        points; what the others have nothing of is home. Broken lights are dark."""
        rig = self._rig
        rows, heads = np.nonzero(self.source >= 0)
        taken = values[rows, self.source[rows, heads]].astype(float)
        turned = self._turned
        aimed = followed.aimed_alike(
            rig, self.source[TILT, turned], values[PAN, self.source[PAN, turned]].astype(float),
            values[TILT, self.source[TILT, turned]].astype(float), rig, turned,
        )  # fmt: skip
        values[:, self.standing] = rig.home[:, self.standing]
        values[rows, heads] = np.clip(taken, rig.low[rows, heads], rig.high[rows, heads])
        values[PAN, turned], values[TILT, turned] = aimed.pan, aimed.tilt
        values[INTENSITY, self._full] = _FULL
        values[INTENSITY, self.broken] = 0.0

    def words(self, head: int) -> str:
        """What a head does, in words; empty: what it always does."""
        number = self._rig.heads.keys[head].partition(".")[0]
        for light, by in self.pairs:
            if number == str(by):
                return f"stands in for {light}"
            if number == str(light):
                return f"{by} stands in for it"
        return ""


def _sources(rig: Rig, old: Ints, new: Ints) -> Iterator[tuple[int, int, int]]:
    """For heads of a fixture that stands in, and attributes that it has: (head, attribute, head of the broken one)."""
    has = rig.heads.has
    whole = next((int(head) for head in old if not rig.cell[head]), -1)
    cells, own = (fixture[rig.cell[fixture] > 0] for fixture in (old, new))
    alike = cells[matching.from_the_middle(len(cells), len(own))] if len(cells) and len(own) else cells
    of_cell = dict(zip(own.tolist(), alike.tolist(), strict=False))
    middle = int(cells[(len(cells) - 1) // 2]) if len(cells) else -1
    for head in new.tolist():
        near = of_cell.get(head, middle if not rig.cell[head] else -1)
        for row in np.flatnonzero(has[:, head]).tolist():
            for one in (near, whole) if rig.cell[head] else (whole, near):
                led = row == INTENSITY and rig.leader[head] >= 0 and one == whole
                if one >= 0 and has[row, one] and not led:
                    yield head, row, one
                    break


def can_stand_in(rig: Rig, light: int, by: int) -> bool:
    """Whether a fixture can do anything of what another one does."""
    able, other = (rig.heads.has[:, rig.heads.of_fixture[str(number)]].any(axis=1) for number in (light, by))
    return bool((able & other).any())
