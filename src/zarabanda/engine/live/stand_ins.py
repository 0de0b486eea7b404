"""Lights that stand in for broken ones, by hand and until they are given back."""

from __future__ import annotations

from typing import Any

from zarabanda.core.playback.stand_ins import StandIns, can_stand_in
from zarabanda.errors import ZarabandaError
from zarabanda.messages import StandIn

from ..program import Program
from .state import LiveState


def stand_in(state: LiveState, action: StandIn, t: float) -> LiveState:
    """Let a light stand in for another one, or give it back."""
    light, by = action.light, action.by
    others = {one: other for one, other in state.stand_ins.items() if one != light}
    if by is None:
        return state.with_(stand_ins=others)
    rig = state.program.rig
    for number, place in ((light, "light"), (by, "by")):
        if str(number) not in rig.heads.of_fixture:
            raise ZarabandaError(f"There is no light {number} in the rig.", place)
    if light == by:
        raise ZarabandaError(f"{by} cannot stand in for itself. Point at another light.", "by")
    if by in others:
        raise ZarabandaError(f"{others[by]} stands in for {by}: that one is broken itself. Point at another light.", "by")
    if by in others.values():
        other = next(one for one, standing in others.items() if standing == by)
        raise ZarabandaError(f"{by} stands in for {other} already. Point at another light.", "by")
    if light in others.values():
        other = next(one for one, standing in others.items() if standing == light)
        raise ZarabandaError(f"{light} stands in for {other}. Give it back first.", "light")
    if not can_stand_in(rig, light, by):
        raise ZarabandaError(f"{by} can do nothing of what {light} does. Point at another light.", "by")
    return state.with_(stand_ins={**others, light: by})


def there(pairs: dict[int, int], program: Program) -> dict[int, int]:
    """Those whose lights are there."""
    known = program.rig.heads.of_fixture
    return {light: by for light, by in pairs.items() if str(light) in known and str(by) in known}


def taken(state: LiveState, before: Program, t: float) -> LiveState:
    """After a new program was taken: lights that are gone stand in for nothing."""
    if not state.stand_ins or before.rig is state.program.rig:
        return state
    return state.with_(stand_ins=there(dict(state.stand_ins), state.program))


def closing(state: LiveState) -> StandIns | None:
    """The last step of a frame; None where no light stands in."""
    return StandIns(state.program.rig, list(state.stand_ins.items())) if state.stand_ins else None


ACTIONS: dict[Any, Any] = {StandIn: stand_in}
