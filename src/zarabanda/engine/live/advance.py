"""What falls due by itself: ends and fades have exact times, so that no result depends on when frames are made."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from zarabanda.core.playback.going import Passage
from zarabanda.core.playback.shares import INFINITY
from zarabanda.errors import ZarabandaError
from zarabanda.messages import AnyAction, LetGo, PlayerId

from ..messaging import CUE_HOLDS, CueMessage, action_of
from . import (
    action_lists,
    alone,
    controls,
    cue_lists,
    dark_moves,
    flashes,
    group_levels,
    holding,
    levels,
    overlays,
    pixels,
    rows,
    running,
    sending,
    songs,
    specials,
    sweeping,
    tempos,
)
from .folding import HOLDER
from .playing import Playing
from .state import LiveState

_OF_MESSAGES: dict[Any, Callable[[LiveState, Any, float], LiveState]] = {
    **controls.ACTIONS,
    **running.ACTIONS,
    **cue_lists.ACTIONS,
    **rows.ACTIONS,
    **tempos.ACTIONS,
    **specials.ACTIONS,
    **overlays.ACTIONS,
    **pixels.ACTIONS,
    **flashes.ACTIONS,
    **levels.ACTIONS,
    **action_lists.ACTIONS,
}
"""What cues, action lists and hands of a song can do to the show itself."""


def due(state: LiveState, playing: Playing) -> tuple[float, bool]:
    """When something that plays is over (infinity: never by itself), and whether it ends after its cycles, not by a fade."""
    faded = playing.out_at
    cycles = playing.instance.effect.ends_after
    ended = state.time_of(playing, cycles) if cycles > 0 else INFINITY
    return (ended, True) if ended <= faded else (faded, False)


def advance(state: LiveState, t: float) -> LiveState:
    """The state at t, after all that fell due by then, each at its stamp."""
    while True:
        at, _, number = min(cue_lists.due(state), default=(INFINITY, 0, 0))
        crossing = specials.due(state)
        sent_at, _, sender = min(sending.due(state), default=(INFINITY, 0, 0))
        pressed_at, order, row = min(rows.due(state), default=(INFINITY, 0, 0))
        step_at, running_list = min(action_lists.due(state), default=(INFINITY, 0))
        song_at, song, position = songs.next_due(state, first_due) if state.songs else (INFINITY, 0, 0.0)
        first = min(at, crossing, sent_at, pressed_at, step_at, song_at, state.dark_due)
        if first > t:
            return songs.advanced(_without_what_is_over(state, t), t, MOVES)
        state = _without_what_is_over(state, first)
        if crossing == first:
            state = specials.fall_due(state, first)
        elif at == first:
            state = done(cue_lists.follow(state, number, first), first)
        elif pressed_at == first:
            state = done(rows.fall_due(state, row, order, first), first)
        elif sent_at == first:
            state = done(_sent(state, sender, first), first)
        elif song_at == first:
            state = songs.fall_due(state, song, position, first, MOVES)
        elif step_at == first:
            state = done(action_lists.step_due(state, running_list, first, _step), first)
        else:
            state = specials.with_goals(dark_moves.fall_due(state, first))


def first_due(state: LiveState) -> float:
    """When something falls due next."""
    dues = (cue_lists.due(state), sending.due(state), rows.due(state), action_lists.due(state))
    return min(specials.due(state), state.dark_due, *(one[0] for each in dues for one in each))


def _sent(state: LiveState, number: int, t: float) -> LiveState:
    """With the message of a list that is due sent out, or done."""
    state, waiting = sending.taken(state, number, t)
    messages = state.program.messages.get(waiting.cue, ())
    if waiting.place >= len(messages):
        return state  # it was deleted while it waited
    whose = state.program.lists[number]
    cue = f"cue {whose.cues[whose.index[waiting.cue]].number:g}" if waiting.cue in whose.index else "a cue that is gone"
    return _acted(state, messages[waiting.place], t, CUE_HOLDS, f"A message of {whose.name}, {cue},")


def _step(state: LiveState, message: CueMessage, t: float, holder: str) -> LiveState:
    """With a step of an action list done."""
    name = state.program.action_lists[int(holder.partition(":")[2])].name
    return _acted(state, message, t, holder, f"A step of {name}")


def _acted(state: LiveState, message: CueMessage, t: float, holder: str, who: str) -> LiveState:
    """With a message sent out, or done as this holder; what cannot be done is told."""
    try:
        action = action_of(message.content, state.program.tempos, holder)
        if action is None:
            return state.with_(outbox=state.outbox.with_message(sending.Outward(message.device, message.content)))
        state = state.with_(outbox=state.outbox.counted(t))
        if state.outbox.count > sending.MOST_AT_ONCE:
            raise ZarabandaError("cues call each other without end. Give one of their messages a wait, or take it out.")
        return _OF_MESSAGES[type(action)](state, action, t)
    except ZarabandaError as error:
        text = f"{who} was not done: {error.message}"
        return state.with_(outbox=state.outbox.with_message(sending.Outward(0, text=text)))


_LOOKED_AT = ("program", "claims", "lists", "overlays", "busk")
"""Parts of the state that say which lights are dark, and what they come to, beside what plays."""


def _act_alike(before: Mapping[PlayerId, Playing], now: Mapping[PlayerId, Playing]) -> bool:
    """Whether the same plays on the same heads with the same fades: how much, and how fast, says nothing of the dark."""
    if before is now or len(before) != len(now):
        return before is now
    pairs = zip(before.items(), now.items(), strict=True)
    return all(
        one is two or (key == other and one.fades is two.fades and one.instance is two.instance and one.part is two.part)
        for (key, one), (other, two) in pairs
    )


def done(state: LiveState, t: float, before: LiveState | None = None) -> LiveState:
    """After something was done at t: with what nobody holds any more let go, and what waits in the dark knowing of it.

    before: the state until then, where that is known: what it leaves as it is needs no look at who is dark.
    """
    while state.let_go_of:
        gone = sorted(state.let_go_of)
        state = holding.let_go(state.with_(let_go_of=frozenset()), LetGo(holders=gone), t)
    same = before is not None and all(getattr(state, name) is getattr(before, name) for name in _LOOKED_AT)
    if same and before is not None and _act_alike(before.playing, state.playing):
        return state
    return specials.with_goals(dark_moves.watched(state, t))


def _without_what_is_over(state: LiveState, t: float) -> LiveState:
    """Without what was over by t. What ends after its cycles lets go of its control."""
    for one in (specials, flashes, overlays, pixels, alone, group_levels):
        state = one.tidied(state, t)
    claims = state.claims.advanced(t)
    if claims is not state.claims:
        state = state.with_(claims=claims)
    over = {key: ended for key, one in state.playing.items() for at, ended in [due(state, one)] if at <= t}
    if not over:
        return state
    ended = {key for key, by_cycles in over.items() if by_cycles}
    stopped = {key for key in ended if state.playing[key].instance.always}
    return state.without(over).with_controls_down(ended).with_(stopped=state.stopped | stopped)


class _Moves:
    """How the state within a song moves on: as any other."""

    def advance(self, state: LiveState, t: float) -> LiveState:
        return advance(state, t)

    def done(self, state: LiveState, t: float, before: LiveState | None = None) -> LiveState:
        return done(state, t, before)

    def send(self, state: LiveState, content: Mapping[str, Any], t: float) -> LiveState:
        return _acted(state, CueMessage(0.0, content), t, HOLDER, "A message of a song")

    def redone(self, state: LiveState, action: AnyAction, t: float) -> LiveState:
        act = _OF_MESSAGES.get(type(action))
        try:
            return done(act(state, action, t), t) if act is not None else state
        except ZarabandaError:  # what it was on is gone
            return state

    def released(self, state: LiveState, passage: Passage, t: float) -> LiveState:
        holders = sorted({one for who in state.held.values() for one in who})
        state = holding.let_go(state, LetGo(holders=holders), t)
        for whose in cue_lists.on_cues(state):
            state = cue_lists.released(state, whose, passage.fade_s(0, False), t)
        for key in list(state.playing):
            state = running.fade_out(state, key, t, passage.fade_s(0, False))
        return done(sweeping.swept(state, passage.releases(t), t), t)


MOVES = _Moves()
