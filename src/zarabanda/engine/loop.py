"""The frame loop: absolute deadlines without drift, one frame each, late frames counted and never queued."""

from __future__ import annotations

import gc
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.frame import Frame, Levels
from zarabanda.core.placement import Placed
from zarabanda.core.plan import Plan, Running
from zarabanda.core.rig import Rig
from zarabanda.errors import ZarabandaError
from zarabanda.outputs.base import Output

from .program import EMPTY, Program
from .state import LiveState

MIN_RATE, MAX_RATE, DEFAULT_RATE = 20.0, 44.0, 44.0


PRECISION = np.float32
"""Of values in the loop: twice as quick as float64, and far finer than a 16-bit step."""
_PLANS_KEPT = 8


@dataclass
class Health:
    """How the loop is doing. Times in ms of the newest frames; late: deadlines that were missed and left out."""

    frames: int = 0
    late: int = 0
    errors: int = 0
    last_error: str = ""
    times_ms: deque[float] = field(default_factory=lambda: deque(maxlen=512))

    def report(self, rate: float) -> dict[str, Any]:
        """Plain data for the screen."""
        times = np.array(self.times_ms) if self.times_ms else np.zeros(1)
        return {
            "rate": rate, "frames": self.frames, "late": self.late, "errors": self.errors, "last_error": self.last_error,
            "median_ms": float(np.median(times)), "p99_ms": float(np.percentile(times, 99)),
        }  # fmt: skip


@dataclass(frozen=True)
class Snapshot:
    """One frame as it went out. values (A, N) are a buffer that the next frame overwrites."""

    number: int
    t: float
    values: NDArray[np.float64]
    data: NDArray[np.uint8]
    program: Program
    running: list[tuple[str, float, float]]


class Loop:
    """Runs a live state at a rate. Clock and sleep are passed in; other threads use `post` and `swap` only."""

    def __init__(
        self,
        state: LiveState,
        outputs: list[Output],
        *,
        clock: Callable[[], float],
        sleep: Callable[[float], None],
        rate: float = DEFAULT_RATE,
    ) -> None:
        if not MIN_RATE <= rate <= MAX_RATE:
            raise ZarabandaError(f"{rate:g} Hz is no frame rate; give {MIN_RATE:g} to {MAX_RATE:g} Hz.")
        self.state, self.outputs, self.rate = state, outputs, rate
        self.health = Health()
        self.on_frame: Callable[[Snapshot], None] = lambda snapshot: None
        self.on_change: Callable[[], None] = lambda: None
        self.on_refused: Callable[[dict[str, Any], str], None] = lambda action, text: None
        self._clock, self._sleep = clock, sleep
        self._actions: deque[tuple[float, dict[str, Any]]] = deque()
        self._swapped: deque[Program] = deque()
        self._frame = Frame(EMPTY.rig, PRECISION)
        self._plan = Plan([], 0, EMPTY.rig.mixes, PRECISION)
        self._plans: dict[tuple[int, ...], tuple[list[Placed], Plan]] = {}
        self._order: list[str] = []
        self._stopping = False

    # for other threads

    def post(self, action: dict[str, Any]) -> None:
        """An action, stamped now; acts on the next frame."""
        self._actions.append((self._clock(), action))

    def swap(self, program: Program) -> None:
        """A new program; swapped in between two frames."""
        self._swapped.append(program)

    def stop(self) -> None:
        """End `run` after the frame under way."""
        self._stopping = True

    # the loop

    def run(self) -> None:
        """Frame after frame until stopped; then the outputs end their streams."""
        period = 1 / self.rate
        gc.collect()
        gc.freeze()
        gc.disable()  # collected below, in the pause of a frame, never within one
        deadline = self._clock() + period
        while not self._stopping:
            self._sleep(max(0.0, deadline - self._clock()))
            self.tick(self._clock())
            if self.health.frames % 64 == 0:
                gc.collect(1)
            now = self._clock()
            deadline += period
            if now > deadline:
                missed = int((now - deadline) / period) + 1
                self.health.late += missed
                deadline += missed * period
        gc.enable()
        for output in self.outputs:
            output.close(self.state.program.rig.universes)

    def tick(self, t: float) -> None:
        """One frame at t: actions, program, values, bytes, out."""
        begun = self._clock()
        try:
            self._take_in(t)
            snapshot = self._compute(t)
            for output in self.outputs:
                output.send(snapshot.program.rig.universes, snapshot.data, begun)
            self.health.frames += 1
            self.health.times_ms.append((self._clock() - begun) * 1000)
            self.on_frame(snapshot)
        except Exception as error:  # the lights go on, whatever happens: the fault is counted and shown
            self.health.errors += 1
            self.health.last_error = f"{type(error).__name__}: {error}"

    def _take_in(self, t: float) -> None:
        program = None
        while self._swapped:
            program = self._swapped.popleft()
        if program is not None:
            self._fit(program.rig)
            self.state.swap(program, t)
            self.on_change()
        acted = False
        while self._actions:
            stamp, action = self._actions.popleft()
            try:
                self.state.act(action, stamp)
                acted = True
            except ZarabandaError as error:
                self.on_refused(action, error.message)
        self.state.settle(t)
        if acted or self.state.changed:
            self.on_change()

    def _compute(self, t: float) -> Snapshot:
        state = self.state
        program = state.program
        self._fit(program.rig)
        if state.changed:
            self._order = list(state.playing)
            self._plan = self._plan_of([state.playing[key].instance.placed for key in self._order])
            state.changed = False
        every = [state.playing[key] for key in self._order]
        theta = [state.theta(one, t) for one in every]
        weight = [one.weight(t) for one in every]
        shifts = [one.layer_shifts for one in every] if any(any(one.layer_shifts) for one in every) else ()
        running = Running(np.array(theta), np.array(weight), shifts)
        values = self._frame.values(program.base, self._plan, running, Levels(state.grand, state.blackout))
        data = self._frame.bytes(values)
        return Snapshot(self.health.frames, t, values, data, program, list(zip(self._order, theta, weight, strict=True)))

    def _fit(self, rig: Rig) -> None:
        """Compute for this rig from now on."""
        if self._frame.rig is not rig:
            self._frame = Frame(rig, PRECISION)
            self._plans.clear()

    def _plan_of(self, placed: list[Placed]) -> Plan:
        """The plan of what plays. What played lately comes again (a fader goes up and down): its plan is still there."""
        key = tuple(map(id, placed))  # none is used twice, since what is placed is kept with its plan
        known = self._plans.pop(key, None) or (placed, Plan(placed, len(self._frame.rig), self._frame.rig.mixes, PRECISION))
        self._plans[key] = known  # the latest is the last
        if len(self._plans) > _PLANS_KEPT:
            del self._plans[next(iter(self._plans))]
        return known[1]
