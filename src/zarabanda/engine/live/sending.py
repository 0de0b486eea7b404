"""Messages of cues: what waits to be sent, at exact stamps, and what is on its way out (docs/computation.md, "Cue lists")."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Any

from zarabanda.core.playback.shares import INFINITY

if TYPE_CHECKING:
    from .cue_lists import ListState
    from .state import LiveState

MOST_AT_ONCE = 200
"""Actions of cues at one stamp; more can only be cues that call each other without end."""


@dataclass(frozen=True)
class Waiting:
    """A message that waits. cue: whose, by its number in the show; place: which of its messages; due: its stamp."""

    cue: int
    place: int
    due: float


@dataclass(frozen=True)
class Outward:
    """What is on its way out to a device, or what could not be done. device: by its number; content: see `formats.cue_message`;
    text: why it was not done, in words."""

    device: int
    content: Mapping[str, Any] = field(default_factory=dict)
    text: str = ""


@dataclass(frozen=True)
class Outbox:
    """What was sent and is not out yet; count: of actions done at the stamp `at`."""

    messages: tuple[Outward, ...] = ()
    at: float = -INFINITY
    count: int = 0

    def with_message(self, message: Outward) -> Outbox:
        """With one more."""
        return replace(self, messages=(*self.messages, message))

    def counted(self, t: float) -> Outbox:
        """With one action more at a stamp."""
        return replace(self, at=t, count=self.count + 1 if t == self.at else 1)


def with_value(message: Mapping[str, Any], value: float | None) -> Mapping[str, Any]:
    """A message with what a fader says, 0…1, as its value; None: as it is."""
    if value is None:
        return message
    if message["kind"] == "osc":
        return {**message, "arguments": f"{message.get('arguments', '')} {value:.4f}".strip()}
    return {**message, "value": round(127 * value)}


def armed(state: LiveState, own: ListState, cue: int, t: float) -> ListState:
    """A list that has gone to a cue at t, with the cue's messages waiting behind those that do already."""
    more = tuple(Waiting(cue, n, t + one.at) for n, one in enumerate(state.program.messages.get(cue, ())))
    return replace(own, waiting=(*own.waiting, *more)) if more else own


def called_off(state: LiveState, own: ListState) -> tuple[Waiting, ...]:
    """What still waits once the rest is called off: ends of what was begun."""
    return tuple(one for one in own.waiting if ends_something(state, one))


def ends_something(state: LiveState, one: Waiting) -> bool:
    """Whether a message is sent whatever happens to its list."""
    messages = state.program.messages.get(one.cue, ())
    return one.place < len(messages) and messages[one.place].ends_something


def due(state: LiveState) -> list[tuple[float, int, int]]:
    """Messages that wait: stamp, order of the list in the show, and list. A list that is paused sends ends alone."""
    found = []
    for number, own in state.lists.items():
        whose = state.program.lists.get(number)
        able = [one.due for one in own.waiting if own.paused_at is None or ends_something(state, one)]
        if whose is not None and able:
            found.append((min(able), whose.position, number))
    return found


def taken(state: LiveState, number: int, t: float) -> tuple[LiveState, Waiting]:
    """The first message of a list that is due at t, and the state without it."""
    own = state.lists[number]
    able = (one for one in own.waiting if one.due <= t and (own.paused_at is None or ends_something(state, one)))
    first = min(able, key=lambda one: one.due)
    rest = tuple(one for one in own.waiting if one is not first)
    return state.with_(lists={**state.lists, number: replace(own, waiting=rest)}), first
