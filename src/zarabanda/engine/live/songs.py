"""Songs on stage: each plays in a state of its own, whose time is its position (docs/computation.md, "Timelines")."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Any

from zarabanda.core.playback.cues import Times
from zarabanda.core.playback.shares import INFINITY
from zarabanda.core.timecode.timeline import Timeline
from zarabanda.core.timecode.transport import Transport
from zarabanda.errors import ZarabandaError
from zarabanda.messages import PlayerId

from . import cue_lists, pages, pixels, specials, tempos
from .ahead import AT_ONE, Ahead
from .folding import Moves, folded_on, level_set, level_shown, occurred, song_at
from .gliding import Glide
from .hands import Hand, object_of, plain
from .sending import Outward
from .state import LiveState
from .tempo import Tempo

if TYPE_CHECKING:
    from .recording import Recording

BEGINS_S = 1.0
"""So soon everything else is out where a song begins alone, and what a song has left."""
_HAIR_S = 1e-9


@dataclass(frozen=True)
class Song:
    """A song on stage. id: of its timeline; inner: what it plays, at the position `done`; speed: that hands have chosen; hands:
    subjects that hands have taken, with what they did last; touched: what else hands have done since it began, by object;
    loop: from where to where it plays over and over; leaving: it goes out; ahead: of effects that moved on while it stood;
    gliding: subjects that were given back, on their way to what the song has; follows: incoming timecode; recording: of hands."""

    id: int
    transport: Transport
    inner: LiveState
    done: float
    speed: float = 1.0
    hands: Mapping[str, Hand] = field(default_factory=dict)
    touched: frozenset[str] = frozenset()
    loop: tuple[float, float] | None = None
    leaving: bool = False
    ahead: Ahead = AT_ONE
    gliding: Mapping[str, Glide] = field(default_factory=dict)
    follows: bool = False
    recording: Recording | None = None

    @property
    def plays(self) -> bool:
        """Whether it goes on."""
        return self.transport.speed > 0

    def shown(self, t: float) -> LiveState:
        """What it plays at t, with levels that move where they are then."""
        p = max(self.transport.position_at(t), self.done)
        inner, timeline = self.inner, timeline_of(self.inner, self.id)
        for track in timeline.levels if timeline is not None and not self.leaving else ():
            subject = plain(track.subject, inner.program)
            value = track.level_at(p)
            if value is None or subject in self.hands:
                continue
            glide = self.gliding.get(subject)
            if glide is not None:
                inner = level_set(inner, track.subject, glide.at(value, t), p)
            elif track.moves_at(p):
                inner = level_shown(inner, track.subject, value, p)
        return inner

    def ahead_of(self, key: PlayerId, t: float) -> float:
        """How far an effect is ahead of the song, in cycles of its θ."""
        return self.ahead.theta(self.inner, key, t)


def timeline_of(state: LiveState, number: int) -> Timeline | None:
    """A timeline by its number."""
    return state.program.timelines.get(number)


def named(state: LiveState, number: int) -> Timeline:
    """A timeline, or a clear refusal."""
    found = timeline_of(state, number)
    if found is None:
        raise ZarabandaError("This song is not there any more. Reload the page to see what is there.", "timeline")
    return found


def current(state: LiveState) -> Song | None:
    """The song that plays, or stands."""
    return state.songs[-1] if state.songs and not state.songs[-1].leaving else None


def with_song(state: LiveState, song: Song) -> LiveState:
    """With a song elsewhere."""
    return state.with_(songs=tuple(song if one.id == song.id and one.leaving == song.leaving else one for one in state.songs))


def owned(song: Song) -> Collection[str]:
    """Things of the show that a song plays, by `hands.object_of`."""
    timeline, inner = timeline_of(song.inner, song.id), song.inner
    found = {object_of(plain(one, inner.program)) for one in timeline.subjects} if timeline is not None else set[str]()
    found |= {f"list:{number}" for number, own in inner.lists.items() if own.cue is not None}
    found |= {f"overlay:{number}" for number in inner.overlays} | {pixels.object_of(use) for use in inner.pixels}
    return found | {f"row:{number}" for number, own in inner.rows.items() if own.pressed}


# moving on


def next_due(state: LiveState, first_due: Any) -> tuple[float, int, float]:
    """When something comes in a song by itself: stamp, its place among the songs, and the position. first_due: of a state."""
    found = (INFINITY, 0, 0.0)
    for n, song in enumerate(state.songs):
        at = min(first_due(song.inner), INFINITY)
        timeline = timeline_of(state, song.id)
        if timeline is not None and not song.leaving:
            end = song.loop[1] if song.loop is not None and song.done <= song.loop[1] else timeline.length
            at = min(at, timeline.next_at(song.done), end if end > song.done else INFINITY)
        if at < INFINITY and song.plays:
            found = min(found, (max(song.transport.time_of(max(at, song.transport.position)), song.transport.at), n, at))
    return found


def fall_due(state: LiveState, place: int, p: float, t: float, moves: Moves) -> LiveState:
    """With a song at a position where something comes."""
    song = state.songs[place]
    state = played(state, song, p, t, moves)
    timeline = timeline_of(state, song.id)
    if timeline is None or song.leaving:
        return state
    song = state.songs[place]
    if song.loop is not None and abs(p - song.loop[1]) <= _HAIR_S:
        return located(state, song, song.loop[0], t, moves, messages=False)
    if abs(p - timeline.length) <= _HAIR_S:
        return stopped(state, song, t)
    return state


def played(state: LiveState, song: Song, p: float, t: float, moves: Moves) -> LiveState:
    """With all done in a song up to a position, which it comes to at t."""
    timeline, inner = timeline_of(state, song.id), song.inner
    swept = inner.swept
    led = False
    for one in timeline.between(song.done, p) if timeline is not None and not song.leaving else ():
        if plain(one.subject, inner.program) not in song.hands:
            inner = occurred(inner, one, moves)
        led = led or one.what == "tempo"
    inner = moves.advance(inner, max(p, song.done))
    changed = replace(song, inner=inner, done=max(p, song.done))
    state = with_song(state, changed)
    if inner.swept is not swept and inner.swept is not None:
        stamp = song.transport.stamp_of(inner.swept.at, t)
        state = cue_lists.everything_out(state, inner.swept.passage, stamp, kept(changed))
    if led:
        state = leading(state, changed, t)
    return specials.with_goals(_drained(state, changed))


def kept(song: Song) -> Collection[str]:
    """What a song's “everything else goes out” leaves alone: what hands hold."""
    return {*song.touched, *(object_of(one) for one in song.hands)}


def _drained(state: LiveState, song: Song) -> LiveState:
    """With what a song sends on its way out, and the page that it asks for shown."""
    inner = song.inner
    if inner.page is not None:
        state = pages.shown(state, inner.page.page, "")
    if not inner.outbox.messages and inner.page is None:
        return state
    outbox = replace(state.outbox, messages=(*state.outbox.messages, *inner.outbox.messages))
    inner = inner.with_(outbox=replace(inner.outbox, messages=()), page=None)
    return with_song(state.with_(outbox=outbox), replace(song, inner=inner))


def advanced(state: LiveState, t: float, moves: Moves) -> LiveState:
    """With all songs at t, after all that came in them by then; without those that are out."""
    for song in state.songs:
        p, timeline = song.transport.position_at(t), timeline_of(state, song.id)
        waits = timeline is not None and not song.leaving and timeline.between(song.done, p)
        if p > song.done and (waits or moves.advance(song.inner, p) is not song.inner):
            state = played(state, song, p, t, moves)
        if song.gliding and all(one.over_at <= t for one in song.gliding.values()):
            now = next(one for one in state.songs if one.id == song.id and one.leaving == song.leaving)
            state = with_song(state, replace(now, gliding={}))
    staying = tuple(one for one in state.songs if not (one.leaving and _is_out(one)))
    return state if len(staying) == len(state.songs) else state.with_(songs=staying)


def led(state: LiveState, t: float, by: float, moves: Moves) -> LiveState:
    """As songs are seen by the time that a frame is there: those that play so many s ahead, for this frame alone."""
    found = []
    for song in state.songs:
        p = song.transport.position_at(t) + by * song.transport.speed
        timeline = timeline_of(state, song.id)
        if not song.plays or timeline is None or song.leaving or p <= song.done:
            found.append(song)
            continue
        inner = folded_on(song.inner, timeline.between(song.done, p), p, song.hands.keys(), moves)
        found.append(replace(song, inner=inner, done=p, transport=song.transport.placed(p, t)))
    return state.with_(songs=tuple(found)) if found else state


def _is_out(song: Song) -> bool:
    inner = song.inner
    return not (inner.claims.strips or inner.playing or inner.overlays or inner.pixels or inner.busk.flashing or inner.alone)


# going elsewhere


def located(state: LiveState, song: Song, p: float, t: float, moves: Moves, *, messages: bool = True) -> LiveState:
    """With a song at a position, as if it had been played to there. messages: whether those are sent that say how things are."""
    timeline = named(state, song.id)
    p = min(max(p, 0.0), timeline.length)
    inner = song_at(state.program, timeline, p, frozenset(song.hands), moves)
    sent = state_messages(inner.outbox.messages) if messages else ()
    inner = inner.with_(outbox=replace(inner.outbox, messages=()), page=None)
    for hand in song.hands.values():
        if hand.action is not None:
            inner = moves.redone(inner, hand.action, p)
    inner = with_taken_tempos(inner, song.inner.tempos, p)
    recording = song.recording
    if recording is not None:  # it goes on elsewhere
        recording = replace(recording, spans=(*recording.spans, (recording.since, song.transport.position_at(t))), since=p)
    song = replace(song, transport=song.transport.placed(p, t), inner=inner, done=p, gliding={}, recording=recording)
    song = replace(song, ahead=AT_ONE if song.plays or not timeline.keeps_moving else Ahead(t, timeline.grid.bpm_at(p)))
    state = with_song(state.with_(outbox=replace(state.outbox, messages=(*state.outbox.messages, *sent))), song)
    if inner.swept is not None:
        state = cue_lists.everything_out(state, inner.swept.passage, t, kept(song))
    return specials.with_goals(leading(state, song, t))


def state_messages(messages: Collection[Outward]) -> tuple[Outward, ...]:
    """Of all messages up to a jump those that say how things are: the latest for each target."""
    latest = dict[tuple[int, tuple[Any, ...]], Outward]()
    for one in messages:
        if one.content.get("is_state"):
            where = tuple(one.content.get(name) for name in ("kind", "channel", "controller", "note", "address", "command", "to"))
            latest.pop((one.device, where), None)
            latest[one.device, where] = one
    return tuple(latest.values())


def with_taken_tempos(inner: LiveState, taken: Mapping[int, Tempo], p: float) -> LiveState:
    """With the tempos that hands have taken going on as they do, from the beats of the grid there."""
    beat = inner.grid.beats(p) if inner.grid is not None else 0.0
    return inner.with_(tempos={number: Tempo(own.bpm, p, beat, held=own.held) for number, own in taken.items()})


def going(state: LiveState, song: Song, speed: float, t: float) -> LiveState:
    """With a song playing at a speed from t on. Effects that moved on while it stood come back onto its grid within a beat."""
    timeline = timeline_of(state, song.id)
    ahead = song.ahead
    if timeline is not None and not song.plays:
        ahead = ahead.coming_back(song.inner, t, 60 / (timeline.grid.bpm_at(song.done) * speed))
    changed = replace(song, transport=song.transport.going(speed, t), ahead=ahead)
    return leading(with_song(state, changed), changed, t)


def stopped(state: LiveState, song: Song, t: float) -> LiveState:
    """With a song standing from t on."""
    timeline = timeline_of(state, song.id)
    if not song.plays:
        return state
    ahead = AT_ONE
    if timeline is not None and timeline.keeps_moving:
        ahead = song.ahead.standing(song.inner, timeline.grid.bpm_at(song.done), t)
    transport = replace(song.transport.going(0.0, t), position=max(song.transport.position_at(t), song.done))
    return with_song(state, replace(song, transport=transport, ahead=ahead))


def leading(state: LiveState, song: Song, t: float) -> LiveState:
    """With the tempos of hands on the beats of a song, caught up within a beat, but for those that hands have taken."""
    timeline = timeline_of(state, song.id)
    if timeline is None or not song.plays or song.leaving:
        return state
    p = song.transport.position_at(t)
    bpm, beat = timeline.grid.bpm_at(p + _HAIR_S) * song.transport.speed, timeline.grid.beats(p)
    for number, own in state.tempos.items():
        if f"tempo:{number}" in song.hands or number in state.follows:
            continue
        nearest = beat + round(own.beats(t) - beat)
        led = Tempo(bpm, t, nearest)
        if abs(own.beats(t) - nearest) > _HAIR_S or abs(own.rate - led.rate) > _HAIR_S:
            state = tempos.with_tempo(state, number, own.going_on(t).joining(led, t), t)
    return state


def left(state: LiveState, song: Song, seconds: float, t: float, moves: Moves) -> LiveState:
    """With a song going out in a time."""
    inner = song.inner
    passage = cue_lists.passage_of(inner, Times.alike(seconds))
    p = max(song.transport.position_at(t), song.done)
    inner = moves.released(inner, passage, p)
    going_out = replace(song, transport=Transport(t, p, 1.0), inner=inner, done=p, leaving=True, hands={}, gliding={}, loop=None)
    others = tuple(one for one in state.songs if one is not song)
    return state.with_(songs=(*others, going_out))
