"""What goes out when a cue puts everything else out, or a hand releases everything, beside cue lists: rows, looks, overlays."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass

from zarabanda.core.playback.going import Passage
from zarabanda.core.playback.shares import Release

from . import action_lists, looks_held, overlays, pixels, rows
from .state import LiveState


@dataclass(frozen=True)
class Sweep:
    """That everything else went out: when, and how."""

    at: float
    passage: Passage


def swept(state: LiveState, release: Mapping[str, Release], t: float, but: Collection[str] = ()) -> LiveState:
    """With rows, looks on controls, pixel maps and overlays going out in these times, and action lists called off. but: what
    stays, see `hands.object_of`."""
    state = action_lists.all_off(state, t)
    state = rows.let_go(state, [one for one in state.program.rows.values() if f"row:{one.id}" not in but], release, t)
    looks = (one for one in state.program.controls.values() if one.look is not None and not one.look.over)
    held = [one for one in looks if one.key not in but]
    state = looks_held.let_go(state, held, release, t)
    level = release["intensity"]
    state = pixels.out(state, level.seconds, t, but, delay=level.at - t)
    return overlays.out(state, level.at - t + level.seconds, t, but)
