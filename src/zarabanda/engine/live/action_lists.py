"""Action lists: several things done at one press, each at its exact stamp (docs/computation.md, "Action lists")."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from zarabanda.core.playback.shares import INFINITY
from zarabanda.errors import ZarabandaError
from zarabanda.messages import ActionsTold, AskPage, CallOff, DoActions

from ..messaging import ActionList, CueMessage
from . import pages
from .state import LiveState

Doer = Callable[[LiveState, CueMessage, float, str], LiveState]
"""Does a step at a stamp, as this holder."""


@dataclass(frozen=True)
class ActionsState:
    """A run of an action list. began: stamp of the press; place: the next step; holders: hands that hold it; by: who pressed."""

    id: int
    began: float
    place: int = 0
    holders: frozenset[str] = frozenset()
    by: str = ""


def holder(number: int) -> str:
    """Who holds what an action list has pressed."""
    return f"actions:{number}"


def _list(state: LiveState, number: int) -> ActionList:
    found = state.program.action_lists.get(number)
    if found is None:
        raise ZarabandaError("This action list is not there any more. Reload the page to see what is there.", "actions")
    return found


def run(state: LiveState, action: DoActions, t: float) -> LiveState:
    """Run one from its beginning; or let go of it."""
    own = state.actions.get(action.actions)
    if not action.down:
        left = own.holders - {action.holder} if own is not None else frozenset()
        return let_go(state, action.actions, left, t)
    return started(state, action.actions, action.holder, _hand(state, action.holder), t)


def started(state: LiveState, number: int, who: str, by: str, t: float) -> LiveState:
    """With one running from its beginning, held by this holder; by: the hand that pressed, to whom pages are shown."""
    found, own = _list(state, number), state.actions.get(number)
    state = state if own is None else _off(state, found.id, t)
    held = frozenset({who}) | (own.holders if own is not None else frozenset())
    return state.with_(actions={**state.actions, found.id: ActionsState(found.id, t, 0, held, by)})


def _hand(state: LiveState, who: str) -> str:
    """The hand behind a holder: of an action list, who pressed that; empty: none."""
    kind, _, number = who.partition(":")
    if kind != "actions":
        return "" if who == "cue" else who
    own = state.actions.get(int(number))
    return own.by if own is not None else ""


def let_go(state: LiveState, number: int, holders: frozenset[str], t: float) -> LiveState:
    """With one in other hands: where none holds it any more, one that runs until it is released is called off."""
    own = state.actions.get(number)
    if own is None:
        return state
    if not holders and number in state.program.action_lists and _list(state, number).until_released:
        return _off(state, number, t)
    return state.with_(actions={**state.actions, number: replace(own, holders=holders)})


def call_off(state: LiveState, action: CallOff, t: float) -> LiveState:
    """Call one off."""
    return _off(state, action.actions, t)


def all_off(state: LiveState, t: float) -> LiveState:
    """With all that run called off, but for the one whose step does that, and those that have run it."""
    stays, asked = set[int](), {state.acting} - {0}
    while asked:
        stays |= asked
        holders = {one for number in asked if number in state.actions for one in state.actions[number].holders}
        asked = {int(one[8:]) for one in holders if one.startswith("actions:")} - stays
    for number in state.actions.keys() - stays:
        state = _off(state, number, t)
    return state


def _off(state: LiveState, number: int, t: float) -> LiveState:
    """Without a run; what it holds is let go by what falls due next."""
    left = {one: own for one, own in state.actions.items() if one != number}
    return state.with_(actions=left, let_go_of=state.let_go_of | {holder(number)} if number in state.actions else state.let_go_of)


def due_at(state: LiveState, own: ActionsState) -> float:
    """When the next step of a run is due; at its end: when that is; infinity: it waits to be released."""
    found = state.program.action_lists.get(own.id)
    if found is None:
        return own.began
    if own.place < len(found.steps):
        return own.began + found.steps[own.place].at
    if found.until_released:
        return INFINITY
    return own.began + (found.steps[-1].at if found.steps else 0.0)


def due(state: LiveState) -> list[tuple[float, int]]:
    """Runs that have something to do: stamp and number."""
    return [(due_at(state, own), number) for number, own in state.actions.items()]


def step_due(state: LiveState, number: int, t: float, does: Doer) -> LiveState:
    """With the next step of a run done at its stamp; at its end it is over."""
    own, found = state.actions[number], state.program.action_lists.get(number)
    if found is None or own.place >= len(found.steps):
        return _off(state, number, t)
    state = state.with_(actions={**state.actions, number: replace(own, place=own.place + 1)})
    return does(state.with_(acting=number), found.steps[own.place], t, holder(number)).with_(acting=0)


def show_page(state: LiveState, action: AskPage, t: float) -> LiveState:
    """Show a page, to who asks; asked for by an action list: to who pressed that."""
    return pages.shown(state, action.page, _hand(state, action.holder))


def told(state: LiveState) -> list[ActionsTold]:
    """Action lists that run."""
    found = []
    for number, own in state.actions.items():
        one = state.program.action_lists.get(number)
        if one is not None:
            at = due_at(state, own)
            found.append(ActionsTold(number, one.name, own.place, len(one.steps), at if at < INFINITY else None))
    return found


ACTIONS: dict[Any, Any] = {DoActions: run, CallOff: call_off, AskPage: show_page}
