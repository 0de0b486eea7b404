"""Actions on what lies over everything: grand master and blackout."""

from __future__ import annotations

from typing import Any

from zarabanda.errors import ZarabandaError, shown

from .state import LiveState


def share(value: object, place: str) -> float:
    """A level 0…1, or a clear refusal."""
    if isinstance(value, bool) or not isinstance(value, int | float) or not 0 <= value <= 1:
        raise ZarabandaError(f"{shown(value)} is no level; give a number from 0 to 1.", place)
    return float(value)


def grand(state: LiveState, action: dict[str, Any], t: float) -> LiveState:
    """Set the grand master."""
    return state.with_(grand=share(action.get("value"), "value"))


def blackout(state: LiveState, action: dict[str, Any], t: float) -> LiveState:
    """All light off, or not."""
    return state.with_(blackout=bool(action.get("on")))


ACTIONS = {"grand": grand, "blackout": blackout}
