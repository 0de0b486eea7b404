"""Waveform, spread and travel of all intensity effects at once, without a jump of phase."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from zarabanda.core.effects.variants import SHAPES, SPREADS, TRAVELS
from zarabanda.errors import ZarabandaError, shown
from zarabanda.messages import AllWaves

from .rows import revaried
from .state import LiveState

_KNOWN = {"shape": SHAPES, "spread": tuple(SPREADS), "travel": TRAVELS}


def all_waves(state: LiveState, action: AllWaves, t: float) -> LiveState:
    """Play all intensity effects so, those too that begin later; empty: as they are of their own."""
    asked = {name: getattr(action, name) for name in _KNOWN if getattr(action, name) is not None}
    for name, one in asked.items():
        if one and one not in _KNOWN[name]:
            raise ZarabandaError(f"There is no {name} {shown(one)}; use one of {', '.join(_KNOWN[name])}.", name)
    return revaried(state.with_(busk=state.busk.with_(variant=replace(state.busk.variant, **asked))), t)


ACTIONS: dict[Any, Any] = {AllWaves: all_waves}
