"""A program played without clock and outputs: actions at their stamps, and what is on stage at any time after them."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects.batch.batches import Batches
from zarabanda.core.effects.placement import Placed
from zarabanda.core.playback.frame import Effects, Frame, Stage
from zarabanda.core.playback.ground import Base, base_at
from zarabanda.core.rig.rig import Rig
from zarabanda.messages import AnyAction

from .live import pixels, stand_ins
from .live.acts import act
from .live.advance import advance
from .live.looking import running_at
from .live.on_stage import on_stage
from .live.programs import take
from .live.specials import crossing
from .live.stages import Stages, levels_at
from .live.state import LiveState
from .program import Program

Floats = NDArray[np.float64]


class Offline:
    """Begins with a program at a time. Actions, programs and looks come in the order of their stamps."""

    def __init__(self, program: Program, begin: float = 0.0) -> None:
        self.state, _ = take(LiveState(), program, begin)
        self._frame, self._stages = Frame(program.rig), Stages()
        self._batches: tuple[Rig, list[Placed], Batches] | None = None

    def act(self, action: AnyAction, t: float) -> None:
        """One action at its stamp. ZarabandaError says what is wrong with it."""
        self.state = act(self.state, action, t)

    def take(self, program: Program, t: float) -> None:
        """Another program of the same rig, at a stamp."""
        self.state, _ = take(self.state, program, t)

    def at(self, t: float) -> Floats:
        """Values (A, N) on stage at t, in natural units; a buffer that the next look overwrites."""
        self.state = advance(self.state, t)
        state = on_stage(self.state, t)
        rig, every = state.program.rig, list(state.beneath_overlays.values())
        placed = [one.placed for one in every]
        if self._batches is None or self._batches[0] is not rig or [*map(id, self._batches[1])] != [*map(id, placed)]:
            self._batches = (rig, placed, Batches(placed, len(rig), rig.mixes))
        running = running_at(state, every, t)
        base, levels = Base(base_at(rig, state.claims, t)), levels_at(state, t)
        under: list[Stage] = [one.stage for one in pixels.stages(state, t, over=False)]
        stages: list[Stage] = [*under, Effects(self._batches[2], running)]
        stages += [over.stage for over in self._stages.at(state, t)]
        return self._frame.values(base, stages, levels, t, crossing(state), stand_ins.closing(self.state))

    def bytes(self, values: Floats) -> NDArray[np.uint8]:
        """What is sent for values (A, N): (universes, 512)."""
        return self._frame.bytes(values)
