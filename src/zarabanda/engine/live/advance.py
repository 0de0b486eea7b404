"""What falls due by itself: ends and fades have exact times, so that no result depends on when frames are made."""

from __future__ import annotations

from zarabanda.core.playback.shares import INFINITY

from . import cue_lists, dark_moves, specials
from .playing import Playing
from .state import LiveState


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
        first = min(at, crossing, state.dark_due)
        if first > t:
            return _without_what_is_over(state, t)
        state = _without_what_is_over(state, first)
        if crossing == first:
            state = specials.fall_due(state, first)
        elif at == first:
            state = done(cue_lists.follow(state, number, first), first)
        else:
            state = specials.with_goals(dark_moves.fall_due(state, first))


def done(state: LiveState, t: float) -> LiveState:
    """After something was done at t: with what waits in the dark knowing of it."""
    return specials.with_goals(dark_moves.watched(state, t))


def _without_what_is_over(state: LiveState, t: float) -> LiveState:
    """Without what was over by t. What ends after its cycles lets go of its control."""
    state = specials.tidied(state, t)
    claims = state.claims.advanced(t)
    if claims is not state.claims:
        state = state.with_(claims=claims)
    over = {key: ended for key, one in state.playing.items() for at, ended in [due(state, one)] if at <= t}
    if not over:
        return state
    ended = {key for key, by_cycles in over.items() if by_cycles}
    stopped = {key for key in ended if state.playing[key].instance.always}
    return state.without(over).with_controls_down(ended).with_(stopped=state.stopped | stopped)
