"""What was baked as cues of a list: one for each step, which all its values share, each following the one before."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.explain import bake
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError
from zarabanda.formats.cue_document import CueDocument, CueTimes, CueTrigger, FamilyTime, FromPalette, IntensityTime

from .sources import Baked

Floats = NDArray[np.float64]
MOST_CUES = 500
DEFAULT_SHARE = 0.02
"""Of its range: how far an attribute may be off where nothing is said."""


@dataclass(frozen=True)
class Joint:
    """Steps that all values share. kept: numbers of frames; errors: reached, by attribute in its unit."""

    kept: NDArray[np.int64]
    errors: dict[str, float]


def joint(baked: Baked, errors: Mapping[str, float]) -> Joint:
    """The fewest steps with which every attribute stays within its error; 2 % of its range where none is given."""
    cells = [(row, n) for row in baked.moved for n in np.flatnonzero(baked.has(row)).tolist()]
    values = np.stack([baked.values[:, row, n] for row, n in cells], axis=1).astype(float)
    names = [attributes.ATTRIBUTES[row].name for row, _ in cells]
    allowed = np.array([
        errors.get(name, DEFAULT_SHARE * float(baked.spans(row)[n])) for (row, n), name in zip(cells, names, strict=True)
    ])  # fmt: skip
    kept = bake.kept_frames(baked.times, values, allowed)
    off = bake.off_by(baked.times, values, kept)
    return Joint(kept, {name: float(off[[one == name for one in names]].max()) for name in dict.fromkeys(names)})


def documents(baked: Baked, steps: Joint, *, closes: bool) -> list[CueDocument]:
    """A cue a step: its values reached in a straight fade from the step before. Where it closes, the last step leads round to the
    first, which then needs no time. ZarabandaError where there are too many."""
    if len(steps.kept) > MOST_CUES:
        raise ZarabandaError(
            f"That would be {len(steps.kept):,} cues; {MOST_CUES} are possible. Allow a larger error, or choose less time.",
            "errors",
        )
    times = baked.times[steps.kept]
    found = []
    for place, at in enumerate(steps.kept.tolist()):
        fade = float(times[place] - times[place - 1]) if place else 0.0
        values: dict[str, dict[str, float | str | FromPalette]] = {
            attributes.ATTRIBUTES[row].name: {
                key: round(float(baked.values[at, row, n]), 5)
                for n, key in enumerate(baked.keys) if baked.rig.heads.has[row, baked.heads[n]]
            }
            for row in baked.moved
        }  # fmt: skip
        family = FamilyTime(fade=fade)
        found.append(
            CueDocument(
                name=f"{times[place]:.2f} s", values={name: heads for name, heads in values.items() if heads}, space="rgb",
                times=CueTimes(intensity=IntensityTime(up=fade, down=fade), position=family, colour=family, beam=family),
                trigger=CueTrigger(kind="after" if place or closes else "go"), dark_moves=False,
            )
        )  # fmt: skip
    return found
