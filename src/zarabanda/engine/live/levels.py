"""Actions on what lies over everything: grand master and blackout."""

from __future__ import annotations

from typing import Any

from zarabanda.errors import ZarabandaError, shown
from zarabanda.messages import Blackout, Grand

from .state import LiveState


def share(value: float, place: str) -> float:
    """A level 0…1, or a clear refusal."""
    if not 0 <= value <= 1:
        raise ZarabandaError(f"{shown(value)} is no level; give a number from 0 to 1.", place)
    return value


def grand(state: LiveState, action: Grand, t: float) -> LiveState:
    """Set the grand master."""
    return state.with_(grand=share(action.value, "value"))


def blackout(state: LiveState, action: Blackout, t: float) -> LiveState:
    """All light off, or not."""
    return state.with_(blackout=action.on)


ACTIONS: dict[Any, Any] = {Grand: grand, Blackout: blackout}
