"""Taking a new program between two frames: what plays goes on at its phase, what is gone fades out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from zarabanda.errors import ZarabandaError, shown
from zarabanda.messages import PlayerId, TempoPart, action

from ..program import Program
from . import draft, group_levels, list_edits, looks_held, overlays, pixels, row_edits, songs, specials, stand_ins, tempos
from .acts import act
from .advance import MOVES, advance, done
from .blind import withheld
from .phases import keeping_phase
from .playing import Playing
from .running import start, written_back
from .state import DEFAULT_RELEASE_S, LiveState
from .tempo import Tempo


def order_in(state: LiveState, program: Program) -> list[PlayerId]:
    """Keys of what will play once this program is taken, oldest first."""
    waiting = withheld(state, program)
    order = [
        key
        for key, one in state.playing.items()
        if key not in program.let_go
        and (key in program.instances or program.rig.heads.keys is state.program.rig.heads.keys)
        and (key in waiting or not _returns(state, key, one, program))
    ]
    new = (key for key, one in program.instances.items() if one.always and key not in state.stopped and key not in order)
    return order + [key for key in new if key not in waiting]


def _returns(state: LiveState, key: PlayerId, playing: Playing, program: Program) -> bool:
    """Whether something of the draft that was fading out is there again: it starts anew."""
    instance = program.instances.get(key)
    return instance is not None and instance.always and playing.stopping and key not in state.stopped


def take(state: LiveState, program: Program, t: float) -> tuple[LiveState, list[str]]:
    """The state with a new program, and what was wrong with its opening actions, if they were due."""
    state = advance(state, t)
    if state.program.show and program.show not in ("", state.program.show):
        state = LiveState(grand=state.grand, blackout=state.blackout)  # another show: nothing of this one goes on
    old, waiting = state.program, withheld(state, program)
    same_heads = old.rig.heads.keys is program.rig.heads.keys
    kept = {
        key: one for key, one in state.playing.items() if key not in program.let_go and (key in program.instances or same_heads)
    }
    blind = state.blind is not None
    claims = draft.kept(state.claims, old, program) if blind else draft.claimed(state.claims, old, program, t)
    state = state.with_(program=program, playing=kept, claims=claims).with_controls_down(program.let_go)
    state = _tempos(state, old.tempos, program.tempos, t)
    for key, playing in kept.items():
        instance = state.instance(key) if key in program.instances else None
        if key in program.written_back and instance is not None:
            playing = written_back(state, playing, instance, t)
            state = state.with_playing(key, playing)
        if key in waiting and same_heads:
            continue
        if instance is None:
            state = state if playing.stopping else state.with_playing(key, playing.fading(0.0, DEFAULT_RELEASE_S, t))
        elif instance is not playing.instance:
            state = state.with_playing(key, keeping_phase(state, playing, instance, t))
    state = state.with_(
        stopped=state.stopped & program.instances.keys(),
        held={key: who for key, who in state.held.items() if key in program.controls or not key.startswith("control:")},
    )
    for key, instance in program.instances.items():
        if key in waiting:
            continue
        waits = key not in state.playing or _returns(state, key, state.playing[key], program)
        if instance.always and key not in state.stopped and waits:
            state = start(state, key, t)
    for one in (list_edits, row_edits, looks_held, overlays, pixels, group_levels, specials, stand_ins):
        state = one.taken(state, old, t)
    state = _songs(state, t)
    state = done(state, t)
    return _opened(state, t) if program.revision and not state.opened else (state, [])


def _songs(state: LiveState, t: float) -> LiveState:
    """With songs playing by the program as it is by now; one that is gone goes out."""
    scrubbed = state.scrubbed if state.scrubbed is not None and state.scrubbed[0] in state.program.timelines else None
    state = state.with_(scrubbed=scrubbed)
    for song in state.songs:
        p = max(song.transport.position_at(t), song.done)
        if song.inner.program is not state.program.for_songs:
            inner, _ = take(song.inner, state.program.for_songs, p)
            timeline = state.program.timelines.get(song.id)
            if timeline is not None:
                inner = inner.with_(grid=timeline.grid)
            state = songs.with_song(state, replace(song, inner=inner, done=p))
        if song.id not in state.program.timelines and not song.leaving:
            now = next(one for one in state.songs if one.id == song.id and not one.leaving)
            state = songs.left(state, now, DEFAULT_RELEASE_S, t, MOVES)
    return state


def _tempos(state: LiveState, before: Mapping[int, TempoPart], now: Mapping[int, TempoPart], t: float) -> LiveState:
    """Tempos of the show: those that are gone go, and a BPM that was changed there acts at once, also on what follows it."""
    kept = now if state.grid is None else {number: part for number, part in now.items() if number in state.tempos}
    playing = {number: state.tempos.get(number, Tempo(part.bpm, since=t)) for number, part in kept.items()}
    follows = {number: one for number, one in state.follows.items() if number in now and one.main in now}
    state = state.with_(tempos=playing, follows=follows)
    for number, part in kept.items():
        if before.get(number, part).bpm != part.bpm:
            state = tempos.with_tempo(state, number, state.tempos[number].with_bpm(part.bpm, t), t)
    return state


def _opened(state: LiveState, t: float) -> tuple[LiveState, list[str]]:
    """After the opening actions, done once; one that cannot be done keeps none of the others from it."""
    state, wrong = state.with_(opened=True), []
    for document in state.program.opening:
        try:
            state = act(state, action(document), t)
        except ZarabandaError as error:
            name = document.get("do") if isinstance(document, dict) else document
            wrong.append(f"When the show opened, {shown(name)} could not be done: {error.message}")
    return state, wrong
