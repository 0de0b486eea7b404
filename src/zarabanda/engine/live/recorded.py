"""A recording that plays over everything, until it is taken out or has come to its end."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from zarabanda.messages import PlayRecording

from .state import LiveState


@dataclass(frozen=True)
class Recorded:
    """Which recording, since when, how long it is in s, and whether it goes round."""

    name: str
    since: float
    seconds: float
    loops: bool

    def position(self, t: float) -> float:
        """Where it is, in s."""
        p = max(0.0, t - self.since)
        return p % self.seconds if self.loops and self.seconds > 0 else min(p, self.seconds)


def play_recording(state: LiveState, action: PlayRecording, t: float) -> LiveState:
    """Let a recording play from its beginning, or take out the one that plays."""
    if not action.name:
        return state.with_(recorded=None)
    return state.with_(recorded=Recorded(action.name, t, action.seconds, action.loops))


def advanced(state: LiveState, t: float) -> LiveState:
    """Without a recording that has come to its end."""
    own = state.recorded
    return state if own is None or own.loops or t < own.since + own.seconds else state.with_(recorded=None)


ACTIONS: dict[Any, Any] = {PlayRecording: play_recording}
