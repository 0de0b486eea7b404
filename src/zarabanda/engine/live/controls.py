"""Faders and buttons: what each does with what it drives, one entry a kind (see `zarabanda.targets`)."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from zarabanda.errors import ZarabandaError
from zarabanda.messages import (
    Back,
    Blackout,
    Bpm,
    CallOff,
    ControlId,
    DoActions,
    Go,
    Grand,
    Level,
    ListLevel,
    Pause,
    Press,
    PressOverlay,
    PressSpecial,
    ReleaseAll,
    ReleaseControl,
    Resume,
    RowDepth,
    SpecialsHome,
    SpecialsLevel,
    StopAll,
    Tap,
)
from zarabanda.messages import OverlayLevel as OverlayLevelAction
from zarabanda.messages import Release as ReleaseList
from zarabanda.targets import (
    BPM_HIGH,
    BPM_LOW,
    Alone,
    EffectOnHeads,
    Master,
    OnGroup,
    OnList,
    OnRow,
    OnSpecials,
    OnTempo,
    ReleaseEverything,
    RunActions,
    Send,
    ShowPage,
    StopEffects,
    UseLook,
    UsePixels,
)

from ..controls import Control, gone
from . import (
    action_lists,
    alone,
    cue_lists,
    group_levels,
    levels,
    looks_held,
    overlays,
    pages,
    pixel_controls,
    rows,
    running,
    sending,
    specials,
    tempos,
)
from .levels import share
from .running import at_rate, fade_out, start
from .state import LiveState

Mover = Callable[[LiveState, Control, float, float], LiveState]
"""Moves a fader to a value 0…1 at a stamp."""
Turner = Callable[[LiveState, Control, bool, float], LiveState]
"""Turns a button on or off at a stamp."""
Presser = Callable[[LiveState, Control, str, float], LiveState]
"""Does what a button does at once, by whom, at a stamp."""


def _control(state: LiveState, key: ControlId) -> Control:
    control = state.program.controls.get(key)
    if control is None:
        raise ZarabandaError("This control is no longer on the page. Reload the page to see what is there.", "control")
    return control


def _done(actions: dict[Any, Any], state: LiveState, action: Any, t: float) -> LiveState:
    """After an action of another subject."""
    after: LiveState = actions[type(action)](state, action, t)
    return after


def level(state: LiveState, action: Level, t: float) -> LiveState:
    """Move a fader."""
    control, value = _control(state, action.control), share(action.value, "value")
    if type(control.target) not in FADERS or not _on_fader(control):
        raise ZarabandaError(f"“{control.name}” is a button: press it.", "control")
    return FADERS[type(control.target)](state.with_level(control.key, value), control, value, t)


def press(state: LiveState, action: Press, t: float) -> LiveState:
    """Press a button, or let go of it. One that acts while it is held is on as long as somebody holds it."""
    control = _control(state, action.control)
    kind = type(control.target)
    if kind in MOMENTS and not _on_fader(control):
        return MOMENTS[kind](state, control, action.holder, t) if action.down else state
    if kind not in TURNS:
        raise ZarabandaError(f"“{control.name}” is a fader: move it.", "control")
    if control.mode == "latch":
        return turned(state, control, not is_on(state, control), t) if action.down else state
    holders = state.held.get(control.key, frozenset())
    return held_changed(state, control.key, holders | {action.holder} if action.down else holders - {action.holder}, t)


def release(state: LiveState, action: ReleaseControl, t: float) -> LiveState:
    """Let go of the look that a control holds, whoever holds the control."""
    control = _control(state, action.control)
    if control.look is None or control.look.over:
        return state
    return looks_held.turned(state.with_holders(control.key, frozenset()), control, False, t)


def _on_fader(control: Control) -> bool:
    return control.mode == "fader"


def held_changed(state: LiveState, key: ControlId, holders: frozenset[str], t: float) -> LiveState:
    """With a button that acts while it is held in other hands, or in none."""
    state = state.with_holders(key, holders)
    return turned(state, state.program.controls[key], bool(holders), t)


def turned(state: LiveState, control: Control, on: bool, t: float) -> LiveState:
    """With a button on or off."""
    return TURNS[type(control.target)](state.with_level(control.key, 1.0 if on else 0.0), control, on, t)


def is_on(state: LiveState, control: Control) -> bool:
    """Whether a button that stays on is on."""
    told = _ON.get(type(control.target))
    return told(state, control) if told is not None else state.levels.get(control.key, 0.0) > 0


def level_of(state: LiveState, control: Control) -> float:
    """Where a fader is, or a button: 0…1."""
    if _on_fader(control):
        told = _LEVELS.get(type(control.target))
        return told(state, control) if told is not None else state.levels.get(control.key, 0.0)
    return 1.0 if is_on(state, control) else 0.0


# an effect on heads


def _effect_level(state: LiveState, control: Control, value: float, t: float) -> LiveState:
    """At 0 what it drives is gone at once."""
    player = control.players[0]
    if player not in state.program.instances:
        raise gone(control)
    if value <= 0:
        return state.without([player])
    state = start(state, player, t, 1.0 if control.job == "speed" else value)
    playing = state.playing[player]
    speed = (1.0 if control.job == "depth" else value) * playing.instance.speed * playing.hand_speed
    return state.with_playing(player, at_rate(state, playing, speed, t))


def speed_gliding(state: LiveState, control: Control, value: float, t: float, seconds: float) -> LiveState:
    """With the speed of an effect on its way to what a fader at a value makes of it."""
    player = control.players[0]
    playing = state.playing.get(player)
    if playing is None:
        return state
    return state.with_playing(player, state.gliding_to(playing, value * playing.instance.speed * playing.hand_speed, t, seconds))


def _effect_on(state: LiveState, control: Control, on: bool, t: float) -> LiveState:
    player = control.players[0]
    if on and player not in state.program.instances:
        raise gone(control)
    return start(state, player, t) if on else fade_out(state, player, t, control.release_s)


# looks and overlays


def _look_level(state: LiveState, control: Control, value: float, t: float) -> LiveState:
    if control.look is None:
        raise gone(control)
    if control.look.over:
        return overlays.level(state, OverlayLevelAction(control.look.id, value), t)
    return looks_held.level(state, control, value, t)


def _look_on(state: LiveState, control: Control, on: bool, t: float) -> LiveState:
    if control.look is None:
        if on:
            raise gone(control)
        return state
    if not control.look.over:
        return looks_held.turned(state, control, on, t)
    if control.mode == "latch":
        return overlays.press(state, PressOverlay(control.look.id, on), t)
    held = any(one.look is control.look and one.key in state.held for one in state.program.controls.values())
    return overlays.held(state, control.look.id, held, t)


def _look_is_on(state: LiveState, control: Control) -> bool:
    if control.look is not None and control.look.over and control.mode == "latch":
        return overlays.is_in(state, control.look.id)
    return state.levels.get(control.key, 0.0) > 0


def _look_at_level(state: LiveState, control: Control) -> float:
    if control.look is not None and control.look.over:
        own = state.overlays.get(control.look.id)
        return own.fader.end if own is not None else 0.0
    return state.levels.get(control.key, 0.0)


# cue lists


def _of_list(control: Control, state: LiveState) -> OnList:
    assert isinstance(control.target, OnList)
    if control.target.list not in state.program.lists:
        raise gone(control)
    return control.target


def _list_level(state: LiveState, control: Control, value: float, t: float) -> LiveState:
    return cue_lists.list_level(state, ListLevel(_of_list(control, state).list, value), t)


def _list_press(state: LiveState, control: Control, holder: str, t: float) -> LiveState:
    target = _of_list(control, state)
    if target.do == "release":
        return cue_lists.release(state, ReleaseList(target.list, target.seconds), t)
    if target.do == "pause":
        paused = cue_lists.list_state(state, target.list).paused_at is not None
        return _done(cue_lists.ACTIONS, state, Resume(target.list) if paused else Pause(target.list), t)
    return _done(cue_lists.ACTIONS, state, Back(target.list) if target.do == "back" else Go(target.list), t)


# the others


def _group_level(state: LiveState, control: Control, value: float, t: float) -> LiveState:
    assert isinstance(control.target, OnGroup)
    return group_levels.level(state, control.target.group_id or 0, value, t)


def _tempo_name(state: LiveState, control: Control) -> str:
    part = state.program.tempos.get(control.target.tempo) if isinstance(control.target, OnTempo) else None
    if part is None:
        raise gone(control)
    return part.name


def _tempo_level(state: LiveState, control: Control, value: float, t: float) -> LiveState:
    bpm = round(BPM_LOW + (BPM_HIGH - BPM_LOW) * value, 1)
    return _done(tempos.ACTIONS, state, Bpm(_tempo_name(state, control), bpm), t)


def _tempo_at(state: LiveState, control: Control) -> float:
    tempo = state.tempos.get(control.target.tempo) if isinstance(control.target, OnTempo) else None
    return 0.0 if tempo is None else min(max((tempo.bpm - BPM_LOW) / (BPM_HIGH - BPM_LOW), 0.0), 1.0)


def _tap(state: LiveState, control: Control, holder: str, t: float) -> LiveState:
    return _done(tempos.ACTIONS, state, Tap(_tempo_name(state, control)), t)


def _specials_on(state: LiveState, control: Control, on: bool, t: float) -> LiveState:
    assert isinstance(control.target, OnSpecials)
    if control.target.special is None:
        return specials.home(state, SpecialsHome(), t) if on else state
    if control.target.special not in state.program.specials:
        raise gone(control)
    return specials.press_special(state, PressSpecial(control.target.special, on), t)


def _special_is_on(state: LiveState, control: Control) -> bool:
    return isinstance(control.target, OnSpecials) and control.target.special in state.specials.on


def _row_depth(state: LiveState, control: Control, value: float, t: float) -> LiveState:
    assert isinstance(control.target, OnRow)
    if control.target.row not in state.program.rows:
        raise gone(control)
    return rows.depth(state, RowDepth(control.target.row, value), t)


def _row_at(state: LiveState, control: Control) -> float:
    assert isinstance(control.target, OnRow)
    return rows.row_state(state, control.target.row).depth.end


def _send(state: LiveState, control: Control, value: float | None) -> LiveState:
    assert isinstance(control.target, Send)
    message = sending.with_value(control.target.message, value)
    device = int(message["device"])
    if all(one.id != device for one in state.program.devices):
        raise gone(control)
    return state.with_(outbox=state.outbox.with_message(sending.Outward(device, message)))


def _stop(state: LiveState, control: Control, holder: str, t: float) -> LiveState:
    assert isinstance(control.target, StopEffects)
    return running.stop_all(state, StopAll(control.target.family, control.release_s), t)


def _release(state: LiveState, control: Control, holder: str, t: float) -> LiveState:
    assert isinstance(control.target, ReleaseEverything)
    return cue_lists.release_all(state, ReleaseAll(control.target.seconds), t)


def _page(state: LiveState, control: Control, holder: str, t: float) -> LiveState:
    assert isinstance(control.target, ShowPage)
    return pages.shown(state, control.target.page, holder)


def _actions_on(state: LiveState, control: Control, on: bool, t: float) -> LiveState:
    """A latch calls off what still runs; one that is held lets go of it."""
    assert isinstance(control.target, RunActions)
    number = control.target.actions
    if number not in state.program.action_lists:
        if on:
            raise gone(control)
        return state
    if not on and control.mode == "latch":
        return action_lists.call_off(state, CallOff(number), t)
    if not on:
        return action_lists.run(state, DoActions(number, False, control.key), t)
    by = next(iter(sorted(state.held.get(control.key, ()))), "")
    return action_lists.started(state, number, control.key, by, t)


def _actions_run(state: LiveState, control: Control) -> bool:
    return isinstance(control.target, RunActions) and control.target.actions in state.actions


FADERS: dict[Any, Mover] = {
    EffectOnHeads: _effect_level,
    UseLook: _look_level,
    UsePixels: pixel_controls.level,
    OnList: _list_level,
    OnGroup: _group_level,
    OnTempo: _tempo_level,
    OnSpecials: lambda state, control, value, t: specials.specials_level(state, SpecialsLevel(value), t),
    Master: lambda state, control, value, t: levels.grand(state, Grand(value), t),
    OnRow: _row_depth,
    Send: lambda state, control, value, t: _send(state, control, value),
}
"""What faders do."""
TURNS: dict[Any, Turner] = {
    EffectOnHeads: _effect_on,
    UseLook: _look_on,
    UsePixels: pixel_controls.turned,
    OnSpecials: _specials_on,
    RunActions: _actions_on,
    Alone: lambda state, control, on, t: alone.held(state, control, on, t),
    Master: lambda state, control, on, t: levels.blackout(state, Blackout(on), t),
}
"""What buttons do that are on, or held."""
MOMENTS: dict[Any, Presser] = {
    StopEffects: _stop,
    OnList: _list_press,
    OnTempo: _tap,
    Send: lambda state, control, holder, t: _send(state, control, None),
    ShowPage: _page,
    ReleaseEverything: _release,
}
"""What buttons do at once."""
_LEVELS: dict[Any, Callable[[LiveState, Control], float]] = {
    UseLook: _look_at_level,
    UsePixels: pixel_controls.at,
    OnList: lambda state, control: cue_lists.list_state(state, control.target.list).level,  # type: ignore[union-attr]  # it is one
    OnGroup: lambda state, control: group_levels.level_of(state, control.target.group_id or 0),  # type: ignore[union-attr]  # it is one
    OnTempo: _tempo_at,
    OnSpecials: lambda state, control: state.specials.level,
    Master: lambda state, control: state.grand,
    OnRow: _row_at,
}
"""Where faders are that others can move, too."""
_ON: dict[Any, Callable[[LiveState, Control], bool]] = {
    UseLook: _look_is_on,
    UsePixels: pixel_controls.is_on,
    OnSpecials: _special_is_on,
    RunActions: _actions_run,
    Master: lambda state, control: state.blackout,
}
"""Whether buttons are on that others can turn, too."""
ACTIONS: dict[Any, Any] = {Level: level, Press: press, ReleaseControl: release}
