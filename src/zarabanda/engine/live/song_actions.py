"""Actions on songs, and what hands do while a song is on stage (docs/computation.md, "Timelines")."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

import msgspec

from zarabanda.core.playback.cues import Times
from zarabanda.core.timecode.timeline import Timeline
from zarabanda.core.timecode.transport import Transport
from zarabanda.errors import ZarabandaError, shown
from zarabanda.messages import (
    AllWaves,
    AnyAction,
    Bpm,
    Chased,
    FollowTempo,
    GiveBack,
    GoTo,
    HoldTempo,
    LeaveSong,
    LetGo,
    LineUp,
    Locate,
    LoopSong,
    PlaySong,
    Press,
    RecordSong,
    ReleaseAll,
    Scrub,
    SongSpeed,
    StopAll,
    TakeTempo,
    Tap,
    TempoTimes,
)

from . import controls, cue_lists, holding, recording, running, songs, specials, tempos
from .folding import HOLDER, Moves, folded_on, fresh, song_at
from .gliding import GLIDE_S, Glide
from .hands import Hand, object_of, plain, subject_of
from .songs import Song, current, named, with_song
from .state import LiveState
from .tempo import Tempo

Do = Callable[[LiveState, Any, float], LiveState]

# songs


def _on_stage(state: LiveState, number: int, t: float, moves: Moves, p: float = 0.0) -> tuple[LiveState, Song]:
    """A song that is on stage from now on, standing at a position if it was not; another one leaves."""
    song = current(state)
    if song is not None and song.id == number:
        return state, song
    timeline = named(state, number)
    if song is not None:
        state = songs.left(state, song, songs.BEGINS_S, t, moves)
    state = _free_of(state, timeline, t)
    if timeline.begins_alone:
        state = cue_lists.everything_out(state, cue_lists.passage_of(state, Times.alike(songs.BEGINS_S)), t)
    song = Song(number, Transport(t, p), fresh(state.program, timeline), float("-inf"))
    state = songs.located(state.with_(songs=(*state.songs, song)), song, p, t, moves, messages=False)
    return state, state.songs[-1]


def _free_of(state: LiveState, timeline: Timeline, t: float) -> LiveState:
    """With hands letting go of the lists that a song plays: it has them now."""
    objects = {object_of(plain(one, state.program)) for one in timeline.subjects}
    theirs = [one for one in cue_lists.on_cues(state) if f"list:{one.id}" in objects]
    for whose in theirs:
        state = cue_lists.released(state, whose, songs.BEGINS_S, t)
    return state


def play(state: LiveState, action: PlaySong, t: float, moves: Moves) -> LiveState:
    """Let a song play, or stand. At its end it begins anew."""
    if not action.on:
        song = current(state)
        return songs.stopped(state, song, t) if song is not None and song.id == action.timeline else state
    state, song = _on_stage(state, action.timeline, t, moves)
    if song.done >= named(state, song.id).length:
        state = songs.located(state, song, 0.0, t, moves)
        song = state.songs[-1]
    return state if song.plays else songs.going(state, replace(song, follows=False), song.speed, t)


def locate(state: LiveState, action: Locate, t: float, moves: Moves) -> LiveState:
    """Go to a position."""
    timeline = named(state, action.timeline)
    p = min(action.position, timeline.length)
    song = current(state)
    if song is None or song.id != timeline.id:
        return _on_stage(state, timeline.id, t, moves, p)[0]
    return songs.located(state.with_(scrubbed=None), song, p, t, moves)


def speed(state: LiveState, action: SongSpeed, t: float, moves: Moves) -> LiveState:
    """Play faster or slower."""
    state, song = _on_stage(state, action.timeline, t, moves)
    song = replace(song, speed=action.speed)
    state = with_song(state, song)
    return songs.going(state, song, action.speed, t) if song.plays else state


def loop(state: LiveState, action: LoopSong, t: float, moves: Moves) -> LiveState:
    """Play a part over and over."""
    timeline = named(state, action.timeline)
    if action.end is None:
        song = current(state)
        return state if song is None or song.id != timeline.id else with_song(state, replace(song, loop=None))
    begin, end = action.begin, min(action.end, timeline.length)
    if end - begin < 0.1:
        raise ZarabandaError(f"A loop from {begin:.2f} s to {end:.2f} s has no length. Choose a part of at least 0.1 s.", "end")
    state, song = _on_stage(state, timeline.id, t, moves, begin)
    song = replace(song, loop=(begin, end))
    state = with_song(state, song)
    return state if begin <= song.done < end else songs.located(state, song, begin, t, moves, messages=False)


def leave(state: LiveState, action: LeaveSong, t: float, moves: Moves) -> LiveState:
    """Take the song off the stage."""
    song = current(state)
    return state if song is None else songs.left(state, song, action.seconds, t, moves)


def prepare(state: LiveState, number: int, p: float, moves: Moves) -> None:
    """Fold a song to a position, so that it is there when it is asked for."""
    timeline = state.program.timelines.get(number)
    if timeline is not None:
        song = current(state)
        hands = frozenset(song.hands) if song is not None and song.id == number else frozenset[str]()
        song_at(state.program, timeline, min(max(p, 0.0), timeline.length), hands, moves)


def scrub(state: LiveState, action: Scrub, t: float, moves: Moves) -> LiveState:
    """Show a position on screens alone."""
    if action.position is None:
        return state.with_(scrubbed=None)
    return state.with_(scrubbed=(named(state, action.timeline).id, action.position))


def scrubbed_state(state: LiveState, t: float, moves: Moves) -> LiveState | None:
    """What screens show while a position is looked at: that position, beneath what hands hold; None: nothing is looked at."""
    timeline = state.program.timelines.get(state.scrubbed[0]) if state.scrubbed is not None else None
    if timeline is None or state.scrubbed is None:
        return None
    p = min(max(state.scrubbed[1], 0.0), timeline.length)
    inner = song_at(state.program, timeline, p, frozenset(), moves)
    return state.with_(songs=(Song(timeline.id, Transport(t, p), inner, p),))


def chased(state: LiveState, action: Chased, t: float, moves: Moves) -> LiveState:
    """Follow incoming timecode: a little faster or slower, or by going there."""
    state, song = _on_stage(state, action.timeline, t, moves, max(action.position, 0.0))
    if not song.follows:
        song = replace(song, follows=True)
        state = with_song(state, song)
    if action.speed <= 0:
        return songs.stopped(state, song, t)
    there = action.position + (t - action.at) * action.speed
    if action.jump or not song.plays:
        if abs(there - song.transport.position_at(t)) > 1e-3:
            state = songs.located(state, song, action.position, t, moves)
        state = songs.going(state, state.songs[-1], action.speed, t)
        return with_song(state, replace(state.songs[-1], transport=Transport(action.at, action.position, action.speed)))
    off = there - song.transport.position_at(t)
    wanted = action.speed + off / CATCH_UP_S
    transport = replace(song.transport.going(max(wanted, 0.05), t), position=song.transport.position_at(t))
    return with_song(state, replace(song, transport=transport))


CATCH_UP_S = 0.25
"""In about so long a time a song that follows comes to where its timecode is."""

# hands


def give_back(state: LiveState, action: GiveBack, t: float, moves: Moves) -> LiveState:
    """Give back to the song what hands have taken."""
    song = current(state)
    if song is None:
        return state
    if action.subject is not None and action.subject not in song.hands:
        raise ZarabandaError("This is the song's already.", "subject")
    for subject in [action.subject] if action.subject is not None else list(song.hands):
        song = _given_back(song, subject, t, moves)
    touched = song.touched if action.subject is not None else frozenset[str]()
    return songs.leading(with_song(state, replace(song, touched=touched)), song, t)


def _given_back(song: Song, subject: str, t: float, moves: Moves) -> Song:
    """With one thing on its way to what the song has."""
    timeline = songs.timeline_of(song.inner, song.id)
    hands = {name: one for name, one in song.hands.items() if name != subject}
    inner, p, glides = song.inner, song.done, dict(song.gliding)
    if timeline is None:
        return replace(song, hands=hands)
    if subject.startswith("tempo:"):
        inner = inner.with_(tempos={n: own for n, own in inner.tempos.items() if n != int(subject[6:])})
        return replace(song, hands=hands, inner=inner)
    tracks = [one for one in timeline.tracks if plain(one.subject, inner.program) == subject and not one.muted]
    level = next((one for one in tracks if one.kind == "levels"), None)
    if level is not None and level.level_at(p) is not None:
        hand = song.hands[subject].action
        glides[subject] = Glide(t, float(getattr(hand, "value", level.level_at(p) or 0.0)))
        return replace(song, hands=hands, gliding=glides)
    # what the song would have by now
    wanted = folded_on(
        fresh(inner.program, timeline), [one for one in timeline.between(float("-inf"), p)
        if plain(one.subject, inner.program) == subject], p, (), moves,
    )  # fmt: skip
    return replace(song, hands=hands, inner=_as_in(inner, wanted, subject, p))


def _as_in(inner: LiveState, wanted: LiveState, subject: str, p: float) -> LiveState:
    """With a list or control where another state has it."""
    kind, _, number = subject.partition(":")
    if kind == "list":
        whose, own = inner.program.lists.get(int(number)), wanted.lists.get(int(number))
        if whose is None:
            return inner
        if own is None or own.cue is None:
            return cue_lists.released(inner, whose, GLIDE_S, p)
        return cue_lists.glided(inner, whose, own, GLIDE_S, p)
    control = inner.program.controls.get(subject)  # type: ignore[call-overload]  # a subject that is no control finds none
    if control is not None and control.mode != "fader":
        on = controls.is_on(wanted, control)
        holders = wanted.held.get(control.key, frozenset())
        return controls.turned(inner.with_holders(control.key, holders), control, on, p)
    return inner


def acted(state: LiveState, action: AnyAction, t: float, moves: Moves, table: dict[Any, Do]) -> LiveState:
    """After an action by hand while a song is on stage: on what the song plays it acts there, and is the hand's from then on."""
    song = current(state)
    plainly = table[type(action)]
    if song is None or type(action) in OF_SONGS:
        return plainly(state, action, t)
    if isinstance(action, LetGo):
        return _let_go(plainly(state, action, t), song, action, moves)
    if isinstance(action, ReleaseAll):
        return songs.left(plainly(state, action, t), song, action.seconds, t, moves)
    if isinstance(action, Tap | Bpm | TempoTimes | HoldTempo | FollowTempo):
        return _of_tempo(state, song, action, t, plainly)
    p = max(song.transport.position_at(t), song.done)
    if isinstance(action, StopAll | AllWaves | LineUp):
        act: Do = running.stop_all if isinstance(action, StopAll) else plainly
        return with_song(plainly(state, action, t), replace(song, inner=moves.done(act(song.inner, action, p), p)))
    key = getattr(action, "key", None)
    if key is not None and key in song.inner.playing:
        return with_song(state, replace(song, inner=moves.done(plainly(song.inner, action, p), p)))
    subject = subject_of(action, state.program)
    if not subject:
        return plainly(state, action, t)
    thing = object_of(subject)
    if thing not in songs.owned(song):
        touched = song.touched if thing in song.touched else song.touched | {thing}
        after = plainly(state, action, t)
        return after if touched is song.touched else with_song(after, replace(current(after) or song, touched=touched))
    inner = song.shown(t) if subject in {plain(one.subject, state.program) for one in _levels(song)} else song.inner
    inner = moves.done(plainly(inner, action, p), p)
    since = song.hands[subject].since if subject in song.hands else t
    hands = {**song.hands, subject: Hand(since, _lasting(action, inner))}
    glides = {name: one for name, one in song.gliding.items() if name != subject}
    changed = recording.taking(replace(song, inner=inner, hands=hands, gliding=glides), action, subject, p)
    return specials.with_goals(with_song(state, changed))


def _levels(song: Song) -> list[Any]:
    timeline = songs.timeline_of(song.inner, song.id)
    return list(timeline.levels) if timeline is not None else []


def _lasting(action: AnyAction, inner: LiveState) -> AnyAction | None:
    """What an action leaves: after a jump it is done again; None: nothing."""
    if isinstance(action, Press):
        control = inner.program.controls[action.control]
        return msgspec.structs.replace(action, down=True) if controls.is_on(inner, control) else None
    if getattr(action, "down", True) is False:
        return None
    list_number = getattr(action, "list", None)
    if list_number is not None and not hasattr(action, "value"):  # wherever it is by now
        cue = cue_lists.list_state(inner, list_number).cue
        return GoTo(list_number, cue) if cue is not None else None
    return action


def _let_go(state: LiveState, song: Song, action: LetGo, moves: Moves) -> LiveState:
    """With what hands held of a song let go; what it holds itself stays."""
    inner = song.inner
    holders = {one for who in inner.held.values() for one in who if not one.startswith(HOLDER)}
    gone = holders - set(action.but) if action.holders is None else holders & set(action.holders)
    if not gone:
        return state
    inner = holding.let_go(inner, LetGo(holders=sorted(gone)), song.done)
    return with_song(state, replace(song, inner=moves.done(inner, song.done)))


def _of_tempo(state: LiveState, song: Song, action: Any, t: float, plainly: Do) -> LiveState:
    """Tempos are the song's while it plays, until a hand takes them."""
    number, _ = tempos.tempo_named(state, action.tempo)
    if f"tempo:{number}" not in song.hands:
        if not song.plays:
            return plainly(state, action, t)
        name = named(state, song.id).name
        raise ZarabandaError(f"{name} drives the tempo {action.tempo}: take it first, then it is yours.", "tempo")
    p = max(song.transport.position_at(t), song.done)
    inner = song.inner
    if number in inner.tempos:
        inner = plainly(inner, action, p)
    return with_song(plainly(state, action, t), replace(song, inner=inner))


def take_tempo(state: LiveState, action: TakeTempo, t: float, moves: Moves) -> LiveState:
    """Take a tempo from the song: it goes on as it was, and can be tapped."""
    number, _ = tempos.tempo_named(state, action.tempo)
    song = current(state)
    timeline = songs.timeline_of(state, song.id) if song is not None else None
    if song is None or timeline is None:
        raise ZarabandaError(f"No song drives the tempo {shown(action.tempo)}: it is yours.", "tempo")
    p = max(song.transport.position_at(t), song.done)
    free = Tempo(timeline.grid.bpm_at(p), p, timeline.grid.beats(p))
    hands = {**song.hands, f"tempo:{number}": Hand(t)}
    return with_song(state, replace(song, inner=song.inner.with_(tempos={**song.inner.tempos, number: free}), hands=hands))


OF_SONGS: dict[Any, Callable[[LiveState, Any, float, Moves], LiveState]] = {
    PlaySong: play,
    Locate: locate,
    SongSpeed: speed,
    LoopSong: loop,
    LeaveSong: leave,
    Scrub: scrub,
    GiveBack: give_back,
    TakeTempo: take_tempo,
    RecordSong: recording.record,
    Chased: chased,
}
