"""Slots held by hand, for testing: over everything, and never kept."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.errors import ZarabandaError
from zarabanda.messages import HoldSlot

from .state import LiveState

_MOST = 512


def hold_slot(state: LiveState, action: HoldSlot, t: float) -> LiveState:
    """Hold a slot at a value, or let go of it."""
    place = action.universe, action.slot
    held = {other: one for other, one in state.held_slots.items() if other != place}
    if action.value is not None:
        if action.universe not in state.program.rig.universes:
            raise ZarabandaError(f"No fixture is in universe {action.universe}, so it is not sent.", "universe")
        if len(held) >= _MOST:
            raise ZarabandaError(f"{_MOST} slots are held already. Let go of them first.", "slot")
        held[place] = action.value, action.holder
    return state.with_(held_slots=held)


def with_held(state: LiveState, data: NDArray[np.uint8]) -> NDArray[np.uint8]:
    """The bytes (universes, 512) with what is held in them: the same array where nothing is."""
    if not state.held_slots:
        return data
    rows = {universe: row for row, universe in enumerate(state.program.rig.universes)}
    held = data.copy()
    for (universe, slot), (value, _) in state.held_slots.items():
        if universe in rows:
            held[rows[universe], slot - 1] = value
    return held


ACTIONS: dict[Any, Any] = {HoldSlot: hold_slot}
