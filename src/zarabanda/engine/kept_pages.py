"""Overlays, who is alone, and levels of groups, as they are written into the journal, and back."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

import msgspec
import numpy as np

from zarabanda.messages import ControlId

from .kept_lists import FadeEntry, fade_read, fade_written
from .live.action_lists import ActionsState
from .live.alone import AloneState
from .live.group_levels import LevelOfGroup, faders_of
from .live.overlays import OverlayState
from .live.state import LiveState
from .program import Program


class OverlayEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `overlays.OverlayState`. beneath: bytes of little-endian numbers."""

    fader: FadeEntry
    flash: FadeEntry
    beneath: bytes | None


class ActionsEntry(msgspec.Struct, forbid_unknown_fields=True):
    """See `action_lists.ActionsState`."""

    id: int
    began: float
    place: int
    holders: list[str]
    by: str


class PagesEntry(msgspec.Struct, forbid_unknown_fields=True):
    """overlays, groups: by number; alone: by the control that is held; actions: that run."""

    overlays: dict[int, OverlayEntry]
    alone: list[tuple[ControlId, FadeEntry]]
    groups: dict[int, FadeEntry]
    actions: list[ActionsEntry]


def written(state: LiveState) -> PagesEntry:
    """As an entry."""
    overlays = {
        number: OverlayEntry(
            fade_written(one.fader), fade_written(one.flash),
            None if one.beneath is None else np.asarray(one.beneath, "<f8").tobytes(),
        )
        for number, one in state.overlays.items()
    }  # fmt: skip
    alone = [(one.key, fade_written(one.share)) for one in state.alone]
    groups = {number: fade_written(one.share) for number, one in state.group_levels.items()}
    actions = [ActionsEntry(one.id, one.began, one.place, sorted(one.holders), one.by) for one in state.actions.values()]
    return PagesEntry(overlays, alone, groups, actions)


def read(entry: PagesEntry, program: Program, moved: float) -> dict[str, Any]:
    """Parts of the live state as they were, with all times moved; without what is not there any more."""
    shape = program.rig.home.shape
    overlays = {}
    for number, one in entry.overlays.items():
        look = program.looks.get(number)
        if look is not None and look.over:
            beneath = None if one.beneath is None else np.frombuffer(one.beneath, "<f8")
            fits = beneath is not None and beneath.size == program.rig.home.size
            overlays[number] = OverlayState(
                look, fade_read(one.fader, moved), fade_read(one.flash, moved),
                beneath.reshape(shape) if beneath is not None and fits else None,
            )  # fmt: skip
    groups = faders_of(program)
    return {
        "overlays": overlays,
        "alone": tuple(AloneState(key, fade_read(one, moved)) for key, one in entry.alone if key in program.controls),
        "actions": {
            one.id: ActionsState(one.id, one.began + moved, one.place, frozenset(one.holders), one.by)
            for one in entry.actions
            if one.id in program.action_lists
        },
        "group_levels": {n: LevelOfGroup(groups[n], fade_read(one, moved)) for n, one in entry.groups.items() if n in groups},
    }


def times(entry: PagesEntry) -> Iterable[float]:
    """All numbers that must be finite."""
    fades: list[FadeEntry] = [one for _, one in entry.alone]
    fades += entry.groups.values()
    for overlay in entry.overlays.values():
        fades += [overlay.fader, overlay.flash]
    numbers = [value for one in fades for value in (one.start, one.end, one.at, one.seconds)]
    return [*numbers, *(one.began for one in entry.actions)]
