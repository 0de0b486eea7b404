"""Levels of groups: moved by faders, apart from what plays (docs/computation.md, "The order of a frame", 5)."""

from __future__ import annotations

from dataclasses import dataclass, replace

from zarabanda.core.playback.frame import GroupLevel
from zarabanda.targets import OnGroup

from ..program import Program
from .playing import Fade
from .state import DEFAULT_RELEASE_S, LiveState


@dataclass(frozen=True)
class LevelOfGroup:
    """Where a group is, and which heads it has."""

    group: GroupLevel
    share: Fade


def faders_of(program: Program) -> dict[int, GroupLevel]:
    """Groups that faders are on, by number."""
    return {
        control.target.group_id: control.group
        for control in program.controls.values()
        if isinstance(control.target, OnGroup) and control.group is not None and control.target.group_id is not None
    }


def level(state: LiveState, number: int, value: float, t: float) -> LiveState:
    """Move the level of a group."""
    group = faders_of(state.program)[number]
    levels = {**state.group_levels, number: LevelOfGroup(group, Fade(value, value, t))}
    return tidied(state.with_(group_levels=levels), t)


def level_of(state: LiveState, number: int) -> float:
    """Where the level of a group is; full where no fader was moved."""
    own = state.group_levels.get(number)
    return 1.0 if own is None else own.share.end


def tidied(state: LiveState, t: float) -> LiveState:
    """Without those that are at full."""
    left = {n: one for n, one in state.group_levels.items() if one.share.end < 1 or one.share.arrives > t}
    return state if len(left) == len(state.group_levels) else state.with_(group_levels=left)


def taken(state: LiveState, before: Program, t: float) -> LiveState:
    """After a new program was taken: groups on the heads that they have by now; what no fader is on any more goes to full."""
    if before.controls is state.program.controls or not state.group_levels:
        return state
    there, levels = faders_of(state.program), dict(state.group_levels)
    for number, own in state.group_levels.items():
        if number in there:
            levels[number] = replace(own, group=there[number])
        elif before.rig.heads.keys is state.program.rig.heads.keys:
            levels[number] = replace(own, share=own.share.to(1.0, t, DEFAULT_RELEASE_S)) if own.share.end < 1 else own
        else:
            del levels[number]
    return tidied(state.with_(group_levels=levels), t)
