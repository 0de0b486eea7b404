"""Actions on what is shown on stage: heads lit to be found, one after another by hand or in tempo."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from zarabanda.errors import ZarabandaError
from zarabanda.messages import Highlight

from .state import LiveState
from .tempos import tempo_named


@dataclass(frozen=True)
class Shown:
    """What is shown. steps: heads of each; at: the step at beat `since` of a tempo, by which it goes on, or none.

    holder: whose browser asked for it; it ends when that is gone.
    """

    steps: tuple[tuple[str, ...], ...]
    at: int
    tempo: int | None
    since: float
    holder: str

    def step(self, state: LiveState, t: float) -> int:
        """The step that is shown at t, from 0 on."""
        on = self.at
        if self.tempo is not None and self.tempo in state.tempos:
            on += max(0, int(state.tempos[self.tempo].beats(t) - self.since))
        return on % len(self.steps)


def highlight(state: LiveState, action: Highlight, t: float) -> LiveState:
    """Show heads, or no more."""
    steps = tuple(tuple(step) for step in action.steps if step)
    if not steps:
        return state.with_(shown=None)
    if not 0 <= action.at < len(steps):
        raise ZarabandaError(f"There is no step {action.at + 1}; there are {len(steps)}.", "at")
    number, since = None, 0.0
    if action.tempo is not None:
        number, tempo = tempo_named(state, action.tempo)
        since = float(int(tempo.beats(t)))
    return state.with_(shown=Shown(steps, action.at, number, since, action.holder))


ACTIONS: dict[Any, Any] = {Highlight: highlight}
