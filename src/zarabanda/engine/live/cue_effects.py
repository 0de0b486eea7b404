"""Effects of cue lists: what a go does to them, and to those of others (docs/computation.md, "Cue lists")."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import replace
from math import isclose

from zarabanda.core.playback.cue_list import CueList
from zarabanda.core.playback.going import Passage
from zarabanda.core.playback.tracking import RunningEffect, Tracked
from zarabanda.core.rig import attributes
from zarabanda.messages import PlayerId

from ..cueing import player_of
from .playing import Cells, Fade, Playing
from .state import LiveState


def of_list(state: LiveState, whose: CueList) -> Iterator[tuple[PlayerId, Playing]]:
    """What plays of a list, and has not been taken over."""
    return ((key, one) for key, one in state.playing.items() if one.instance.list_id == whose.id and not one.only)


def faded_out(state: LiveState, keys: list[PlayerId], passage: Passage, t: float) -> LiveState:
    """With these on their way out, in the time of each family."""
    for key in keys:
        playing = state.playing[key]
        if not playing.stopping:
            state = state.with_playing(key, _faded(playing, 0.0, passage, t))
    return state


def gone_to(state: LiveState, whose: CueList, place: int, passage: Passage, t: float) -> LiveState:
    """With the effects of a list that run after the cue at a place."""
    wanted, written = whose.effects_after(place), {one.thread for one in whose.cues[place].effects if one.do == "start"}
    wanted = {
        thread: one for thread, one in wanted.items()
        if player_of(whose.id, thread) in state.program.instances
        and (thread in written or player_of(whose.id, thread) not in state.stopped)
    }  # fmt: skip
    ended = [key for key, _ in of_list(state, whose) if key not in {player_of(whose.id, thread) for thread in wanted}]
    state = faded_out(state, ended, passage, t)
    for thread, one in wanted.items():
        key = player_of(whose.id, thread)
        playing = state.playing.get(key)
        if playing is None or playing.stopping:
            state = _started(state.without([key]), whose, key, one, passage, t)
        else:
            state = state.with_playing(key, _changed(state, playing, one, passage, t))
    return state.with_(stopped=state.stopped - {player_of(whose.id, thread) for thread in written})


def _started(state: LiveState, whose: CueList, key: PlayerId, one: RunningEffect, passage: Passage, t: float) -> LiveState:
    instance = state.instance(key)
    beat = state.clock(instance).beats(t)
    silent = (Fade(0.0, 0.0, t),) * len(attributes.FAMILIES)
    playing = Playing(instance, t, beat, fades=silent, rate=one.speed, cue=whose.cues[one.began].id)
    return state.with_playing(key, _faded(playing, one.depth, passage, t))


def _changed(state: LiveState, playing: Playing, one: RunningEffect, passage: Passage, t: float) -> Playing:
    """Going to the depth and the speed that it has after a cue."""
    acting = set(playing.instance.families) - playing.silenced
    if not all(isclose(playing.fades[number].end, one.depth) for number in acting):
        playing = _faded(playing, one.depth, passage, t)
    rate = one.speed * playing.hand_speed
    if not isclose(playing.rate, rate):
        seconds = max((passage.fade_s(number, True) for number in playing.instance.families), default=0.0)
        playing = state.gliding_to(playing, rate, t, seconds)
    return playing


def _faded(playing: Playing, share: float, passage: Passage, t: float) -> Playing:
    """On the way to a share, each family in its time."""
    fades = [
        fade if number in playing.silenced
        else fade.to(share, t, passage.fade_s(number, share > fade.share(t)), delay=passage.delay_s(number), ease=passage.ease)
        for number, fade in enumerate(playing.fades)
    ]  # fmt: skip
    return replace(playing, fades=tuple(fades))


def taken_over(state: LiveState, whose: CueList, to: Tracked, passage: Passage, t: float) -> LiveState:
    """With effects of other lists faded out on the heads and in the families that a cue writes."""
    of_others = [
        (key, one) for key, one in state.playing.items() if one.instance.list_id not in (0, whose.id) and not one.stopping
    ]
    written = _written(state, to) if of_others else frozenset()
    for key, playing in of_others:
        acts = _cells(state, playing)
        taken = acts & written
        if not taken:
            continue
        if taken == acts:
            state = faded_out(state, [key], passage, t)
            continue
        part = playing.part - taken if playing.only else playing.part | taken
        leaving = PlayerId(f"{playing.instance.key}~{_free_number(state, playing.instance.key)}")
        out = _faded(replace(playing, part=taken, only=True), 0.0, passage, t)
        state = state.with_playing(key, replace(playing, part=part)).with_playing(leaving, out)
    return state


def _free_number(state: LiveState, key: PlayerId) -> int:
    return next(n for n in range(1, len(state.playing) + 2) if f"{key}~{n}" not in state.playing)


def _cells(state: LiveState, playing: Playing) -> Cells:
    keys = state.program.rig.heads.keys
    return frozenset(
        (attributes.FAMILIES[block.family], keys[head]) for block in playing.placed.blocks for head in block.head.tolist()
    )


def _written(state: LiveState, to: Tracked) -> Cells:
    keys = state.program.rig.heads.keys
    found: set[tuple[str, str]] = set()
    for row, attribute in enumerate(attributes.ATTRIBUTES):
        found.update((attribute.family, keys[head]) for head in to.written[row].nonzero()[0].tolist())
    return frozenset(found)


def with_clock(state: LiveState, whose: CueList, change: Callable[[Fade], Fade]) -> LiveState:
    """With the fades of a list's effects paused or going on."""
    for key, playing in list(state.playing.items()):
        if playing.instance.list_id == whose.id:
            state = state.with_playing(key, replace(playing, fades=tuple(change(fade) for fade in playing.fades)))
    return state
