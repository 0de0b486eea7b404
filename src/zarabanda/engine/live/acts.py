"""All actions by name, and doing one of them at its stamp."""

from __future__ import annotations

from collections.abc import Callable

from zarabanda.errors import ZarabandaError, shown

from . import controls, levels, running, tempos
from .advance import advance
from .running import Action
from .state import LiveState

ACTIONS: dict[str, Callable[[LiveState, Action, float], LiveState]] = {
    **controls.ACTIONS,
    **running.ACTIONS,
    **tempos.ACTIONS,
    **levels.ACTIONS,
}


def act(state: LiveState, action: Action, t: float) -> LiveState:
    """The state after one action, stamped t. What falls due by then comes before it. ZarabandaError says what is wrong."""
    name = action.get("do")
    handler = ACTIONS.get(name) if isinstance(name, str) else None
    if handler is None:
        raise ZarabandaError(f"There is no action {shown(name)}; use one of {', '.join(ACTIONS)}.", "do")
    return handler(advance(state, t), action, t)
