"""What acts after the effects of lists, rows, buttons and the draft, in its order: for frames, traces, and what is commanded."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects.batch.batches import Batches
from zarabanda.core.effects.placement import Placed
from zarabanda.core.playback.frame import Effects, GroupLevel, Levels
from zarabanda.core.playback.highlight import Highlight
from zarabanda.core.playback.trace import Over
from zarabanda.core.rig.rig import Rig

from . import alone, pixels
from .flashes import FlashStages
from .looking import look_below, running_at
from .playing import Playing
from .state import LiveState
from .two_colours import TwoColourStages

Floats = NDArray[np.float64]
Single = Callable[[Rig, Placed], Batches]
"""Makes, or knows, the batches of one effect alone."""


def _made(rig: Rig, placed: Placed) -> Batches:
    return Batches([placed], len(rig), rig.mixes)


class Stages:
    """Makes the stages of frames; keeps what stays from frame to frame."""

    def __init__(self, single: Single = _made) -> None:
        self._single = single
        self._flashes, self._two_colours = FlashStages(), TwoColourStages()
        self._highlighted: tuple[tuple[str, ...], Rig, Highlight] | None = None

    def at(self, state: LiveState, t: float) -> list[Over]:
        """All stages at t, in their order: two colours, pixel maps over effects, overlays, flashes, who is alone, and what is lit
        to be found."""
        found = list[Over]()
        two = self._two_colours.at(state, t)
        if two is not None:
            found.append(Over("two colours", "two colours", two))
        found += pixels.stages(state, t, over=True)
        found += self.overlays(state, t)
        flashes = self._flashes.at(state, t)
        if flashes is not None:
            held = ", ".join(dict.fromkeys(one.kind for one in state.busk.flashing))
            found.append(Over("flash", held, flashes))
        gate = alone.stage(state, t)
        if gate is not None:
            found.append(Over("alone", "alone while held", gate))
        if state.shown is not None:
            heads = state.shown.steps[state.shown.step(state, t)]
            found.append(Over("shown", "lit to be found", self._highlight(heads, state.program.rig)))
        return found

    def overlays(self, state: LiveState, t: float, below: float = float("inf")) -> list[Over]:
        """Overlays by their order, each with its effects behind its values; those before a position."""
        found = list[Over]()
        rig = state.program.rig
        for own in state.overlays_in_order:
            if own.look.position >= below:
                break
            found.append(Over("overlay", own.look.name, own.stage(t)))
            for playing in _effects_of(state, own.look.id):
                stage = Effects(self._single(rig, playing.placed), running_at(state, [playing], t))
                found.append(Over("overlay", f"{playing.instance.name}, {own.look.name}", stage))
        return found

    def _highlight(self, heads: tuple[str, ...], rig: Rig) -> Highlight:
        known = self._highlighted
        if known is None or known[0] != heads or known[1] is not rig:
            self._highlighted = known = (heads, rig, Highlight(rig, heads))
        return known[2]


def _effects_of(state: LiveState, overlay: int) -> Sequence[Playing]:
    return [one for one in state.playing.values() if one.instance.overlay_id == overlay]


def look_at(state: LiveState, t: float) -> Floats:
    """The look at t, (A, N): base, all effects, and what lies over them, but not what is lit only to be found."""
    return look_below(state, t, [one.stage for one in Stages().at(state.with_(shown=None), t)])


def look_beneath(state: LiveState, position: int, t: float) -> Floats:
    """What is beneath an overlay of a position."""
    two = TwoColourStages().at(state, t)
    below = [one.stage for one in (*pixels.stages(state, t, over=True), *Stages().overlays(state, t, position))]
    return look_below(state, t, below if two is None else [two, *below])


def levels_at(state: LiveState, t: float) -> Levels:
    """What scales intensity at the end."""
    shares = [(one.group, one.share.share(t)) for one in state.group_levels.values()]
    groups = tuple(GroupLevel(group.name, group.heads, share) for group, share in shares if share != 1)
    return Levels(state.grand, state.blackout, groups, _in_specials(state) if groups else frozenset())


def _in_specials(state: LiveState) -> frozenset[int]:
    """Heads that show a special, by number."""
    index, there = state.program.rig.heads.index, state.program.specials
    return frozenset(index[head] for head, gate in state.specials.gates.items() if gate.side in there and head in index)
