"""Overlays: looks and effects mixed in over what runs below, and back out (docs/computation.md, "Kept looks")."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.playback.kept_looks import KeptLook, Laid
from zarabanda.core.playback.shares import INFINITY
from zarabanda.errors import ZarabandaError
from zarabanda.messages import OverlayLevel, OverlayTold, PressOverlay

from ..looks import overlay_player
from ..program import Program
from .following import EDITED_S
from .playing import OUT, Fade, out_at
from .running import start
from .stages import look_beneath
from .state import DEFAULT_RELEASE_S, LiveState

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class OverlayState:
    """An overlay that is in, or on a way. look: as it is laid now; fader: where its level is or goes; flash: what hands that hold
    it add; beneath: what was under it when it came up, for ways round a hue; before: the look until an edit, at the stamp
    `edited`."""

    look: KeptLook
    fader: Fade = OUT
    flash: Fade = OUT
    beneath: Floats | None = field(default=None, compare=False)
    before: KeptLook | None = None
    edited: float = -INFINITY

    def share(self, t: float) -> float:
        """How far it lies over what runs below, 0…1."""
        return max(self.fader.share(t), self.flash.share(t))

    @property
    def out_at(self) -> float:
        """When it is out; infinity while it is in or held."""
        return out_at(self.fader, self.flash)

    def stage(self, t: float) -> Laid:
        """Its values in a frame."""
        return Laid(self.look, self.share(t), self.beneath, self.before, t - self.edited)


def overlay(state: LiveState, number: int) -> KeptLook:
    """An overlay by its number, or a clear refusal."""
    look = state.program.looks.get(number)
    if look is None or not look.over:
        raise ZarabandaError("This overlay is not there any more. Reload the page to see what is there.", "overlay")
    return look


def level(state: LiveState, action: OverlayLevel, t: float) -> LiveState:
    """Move the fader of an overlay."""
    return _changed(state, overlay(state, action.overlay), t, fader=Fade(action.value, action.value, t))


def press(state: LiveState, action: PressOverlay, t: float) -> LiveState:
    """Bring one in or out, in its own time."""
    look = overlay(state, action.overlay)
    now = state.overlays[look.id].fader if look.id in state.overlays else OUT
    end, seconds = (1.0, look.in_s) if action.on else (0.0, look.out_s)
    return _changed(state, look, t, fader=now.to(end, t, seconds))


def held(state: LiveState, number: int, on: bool, t: float) -> LiveState:
    """One held by hands, or by none any more."""
    look = overlay(state, number)
    now = state.overlays[number].flash if number in state.overlays else OUT
    return _changed(state, look, t, flash=now.to(1.0, t, look.in_s) if on else now.to(0.0, t, look.out_s))


def is_in(state: LiveState, number: int) -> bool:
    """Whether an overlay is in, or on its way in, by its fader."""
    return number in state.overlays and state.overlays[number].fader.end > 0


def brought_back(state: LiveState, was: LiveState, t: float) -> LiveState:
    """With overlays in again that were in before, and are out or on their way out by now."""
    for number, before in was.overlays.items():
        look = state.program.looks.get(number)
        if look is not None and before.fader.end > 0 and not is_in(state, number):
            now = state.overlays[number].fader if number in state.overlays else OUT
            state = _changed(state, look, t, fader=now.to(before.fader.end, t, EDITED_S))
    return state


def _changed(
    state: LiveState, look: KeptLook, t: float, *, fader: Fade | None = None, flash: Fade | None = None
) -> LiveState:  # fmt: skip
    own = state.overlays.get(look.id)
    new = own or OverlayState(look)
    new = replace(new, fader=fader or new.fader, flash=flash or new.flash)
    if own is not None:
        return tidied(_with(state, new), t)
    if new.out_at <= t:
        return state
    if look.rounds_a_hue:
        new = replace(new, beneath=look_beneath(state, look.position, t))
    return _with_effects(_with(state, new), look, t)


def _with(state: LiveState, own: OverlayState) -> LiveState:
    return state.with_(overlays={**state.overlays, own.look.id: own})


def _with_effects(state: LiveState, look: KeptLook, t: float) -> LiveState:
    """With all effects of an overlay playing."""
    for n in range(look.effects):
        key = overlay_player(look.id, n)
        if key in state.program.instances and key not in state.playing:
            state = start(state, key, t)
    return state


def out(state: LiveState, seconds: float, t: float, but: Collection[str] = ()) -> LiveState:
    """With all overlays on their way out in a time; what hands hold stays until they let go. but: what stays, by its object."""
    for number, own in state.overlays.items():
        if own.fader.end > 0 and f"overlay:{number}" not in but:
            state = _with(state, replace(own, fader=own.fader.to(0.0, t, seconds)))
    return tidied(state, t)


def tidied(state: LiveState, t: float) -> LiveState:
    """Without overlays that are out, and what they played."""
    gone = {number for number, own in state.overlays.items() if own.out_at <= t}
    if not gone:
        return state
    keys = [key for key, one in state.playing.items() if one.instance.overlay_id in gone]
    return state.without(keys).with_(overlays={number: own for number, own in state.overlays.items() if number not in gone})


def taken(state: LiveState, before: Program, t: float) -> LiveState:
    """After a new program was taken: an overlay that was edited goes to what it is by now in 0.2 s, one that is gone goes out."""
    if before.looks is state.program.looks:
        return state
    same = before.rig.heads.keys is state.program.rig.heads.keys
    for number, own in state.overlays.items():
        look = state.program.looks.get(number)
        if look is None or not look.over:
            seconds = DEFAULT_RELEASE_S if same else 0.0
            own = replace(own, fader=own.fader.to(0.0, t, seconds), flash=own.flash.to(0.0, t, seconds))
            state = _with(state, own)
        elif look is not own.look:
            changes: dict[str, Any] = {"before": own.look, "edited": t} if same else {"before": None, "beneath": None}
            state = _with_effects(_with(state, replace(own, look=look, **changes)), look, t)
    return tidied(state, t)


def told(state: LiveState, t: float) -> list[OverlayTold]:
    """All overlays, in their order."""
    found = []
    for look in state.program.looks.values():
        if look.over:
            own = state.overlays.get(look.id, OverlayState(look))
            moving = [one.arrives for one in (own.fader, own.flash) if one.arrives > t and one.start != one.end]
            on = own.fader.end > 0 or own.flash.end > 0
            found.append(OverlayTold(look.id, look.name, own.fader.end, own.share(t), on, max(moving, default=None)))
    return found


ACTIONS: dict[Any, Any] = {OverlayLevel: level, PressOverlay: press}
