"""What goes out when a cue puts everything else out, or a hand releases everything, beside cue lists: rows, looks, overlays."""

from __future__ import annotations

from collections.abc import Mapping

from zarabanda.core.playback.shares import Release

from . import action_lists, looks_held, overlays, rows
from .state import LiveState


def swept(state: LiveState, release: Mapping[str, Release], t: float) -> LiveState:
    """With rows, looks on controls and overlays going out in these times, and action lists called off."""
    state = action_lists.all_off(state, t)
    state = rows.let_go(state, state.program.rows.values(), release, t)
    held = [one for one in state.program.controls.values() if one.look is not None and not one.look.over]
    state = looks_held.let_go(state, held, release, t)
    level = release["intensity"]
    return overlays.out(state, level.at - t + level.seconds, t)
