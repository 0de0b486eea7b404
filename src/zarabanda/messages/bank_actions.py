"""Live actions on overlays, on pages of faders and buttons, and on action lists. By their number in the show."""

from __future__ import annotations

from typing import Annotated

import msgspec

from .ids import Action, ControlId, Number


class OverlayLevel(Action, frozen=True, tag="overlay-level"):
    """Move the fader of an overlay: how far it lies over what runs below, 0…1."""

    overlay: Number
    value: Annotated[float, msgspec.Meta(ge=0, le=1)]


class PressOverlay(Action, frozen=True, tag="overlay"):
    """Bring an overlay in, or out, in its own time."""

    overlay: Number
    on: bool = True


class ReleaseControl(Action, frozen=True, tag="release-control"):
    """Let go of the look that a fader or button holds, in the time in which it goes."""

    control: ControlId


class AskPage(Action, frozen=True, tag="show-page"):
    """Show a page of faders and buttons. holder: to whom, known by the web process; empty: to all."""

    page: Number
    holder: str = ""


class DoActions(Action, frozen=True, tag="run-actions"):
    """Run an action list from its beginning, or let go of it: one that runs until it is released is called off then. holder: who
    does, known by the web process."""

    actions: Number
    down: bool = True
    holder: str = ""


class CallOff(Action, frozen=True, tag="call-off"):
    """Call off what an action list has not done yet, and let go of what it holds."""

    actions: Number


BankAction = OverlayLevel | PressOverlay | ReleaseControl | AskPage | DoActions | CallOff
