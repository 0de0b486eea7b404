"""What falls due by itself: ends and fades have exact times, so that no result depends on when frames are made."""

from __future__ import annotations

from . import cue_lists, specials
from .state import INFINITY, LiveState, Playing


def due(state: LiveState, playing: Playing) -> tuple[float, bool]:
    """When something that plays is over (infinity: never by itself), and whether it ends after its cycles, not by a fade."""
    faded = playing.fade_at + playing.fade_s if playing.stopping else float("inf")
    cycles = playing.instance.effect.ends_after
    ended = state.time_of(playing, cycles) if cycles > 0 else float("inf")
    return (ended, True) if ended <= faded else (faded, False)


def advance(state: LiveState, t: float) -> LiveState:
    """The state at t, after all that fell due by then, each at its stamp."""
    while True:
        at, _, number = min(cue_lists.due(state), default=(INFINITY, 0, 0))
        crossing = specials.due(state)
        if min(at, crossing) > t:
            return _without_what_is_over(state, t)
        if crossing <= at:
            state = specials.fall_due(_without_what_is_over(state, crossing), crossing)
        else:
            state = specials.with_goals(cue_lists.follow(_without_what_is_over(state, at), number, at))


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
