"""Live actions on overlays. By their number in the show."""

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


LookAction = OverlayLevel | PressOverlay | ReleaseControl
