"""Kept looks on a rig: what they claim, and how an overlay lays them over what runs (docs/computation.md, "Kept looks")."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects.palette import Palette
from zarabanda.core.playback.cues import Times
from zarabanda.core.playback.going import Passage, by_way
from zarabanda.core.playback.looks import Cells, Look, cells_of, held, places
from zarabanda.core.playback.strips import RETARGET_S, STRAIGHT, mixed
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]


@dataclass(frozen=True, eq=False)
class KeptLook:
    """A kept look on a rig. over: an overlay; claims: cells with the way that their colours go; touched (A, N): where it has
    values; effects: how many; in_s, out_s: in which it comes and goes."""

    id: int
    name: str
    position: int
    over: bool
    claims: tuple[tuple[str, Cells], ...]
    touched: Bools
    effects: int
    in_s: float
    out_s: float

    @property
    def rounds_a_hue(self) -> bool:
        """Whether any colour goes by a way round the hues, for which what is beneath must be known."""
        return any(cells.kind == "hue" or (cells.kind == "colour" and way not in STRAIGHT) for way, cells in self.claims)


def kept_look(
    rig: Rig, number: int, name: str, position: int, over: bool, look: Look, ways: Mapping[int, str], way: str,
    numbers: Mapping[Palette, int], effects: int, in_s: float, out_s: float,
) -> KeptLook:  # fmt: skip
    """A look on the heads that can do what it says. ways: of colours, by the number of their palette; way: of all others."""
    values = np.where(rig.heads.has, held(rig, look), np.nan)
    of_palette = np.full(values.shape, -1, np.int64)
    for attribute, heads in look.items():
        rows = [attributes.INDEX[one] for one in attributes.touched(attribute)]
        for head, value in heads.items():
            if isinstance(value, Palette) and head in rig.heads.index:
                of_palette[rows, rig.heads.index[head]] = numbers.get(value, -1)
    chosen = ~np.isnan(values)
    passage = Passage(Times(), ways=ways, show_way=way)
    claims = tuple((one, cells) for one, part in by_way(chosen, of_palette, passage) for cells in cells_of(values, part))
    return KeptLook(number, name, position, over, claims, chosen, effects, in_s, out_s)


@dataclass(frozen=True, eq=False)
class Laid:
    """A stage of the frame: the values of an overlay, over what runs below, by a share 0…1.

    beneath (A, N): what was beneath when it came up, for ways round a hue; None: colours go straight. before: the look as it was
    until an edit `since` s ago, from which it goes in 0.2 s.
    """

    look: KeptLook
    share: float
    beneath: Floats | None = None
    before: KeptLook | None = None
    since: float = RETARGET_S

    @property
    def touched(self) -> Bools:
        """Where it has values, or had some."""
        return self.look.touched if self.before is None else self.look.touched | self.before.touched

    def apply(self, values: Floats) -> None:
        """Lay it over values (A, N)."""
        if self.before is not None and self.since < RETARGET_S:
            was = values.copy()
            _lay(self.before, was, self.share, self.beneath)
            _lay(self.look, values, self.share, self.beneath)
            values += (1 - self.since / RETARGET_S) * (was - values)
        else:
            _lay(self.look, values, self.share, self.beneath)


def _lay(look: KeptLook, values: Floats, share: float, beneath: Floats | None) -> None:
    if share <= 0:
        return
    flat, count = values.reshape(-1), values.shape[1]
    for way, cells in look.claims:
        at = places(cells.cells, cells.kind, count)
        if cells.kind == "step" or share >= 1:
            flat[at] = cells.targets
        else:
            origin = None if beneath is None else beneath.reshape(-1)[at]
            flat[at] = mixed(cells.kind, flat[at], cells.targets, share, way, origin)
