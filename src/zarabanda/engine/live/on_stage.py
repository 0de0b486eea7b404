"""All that is on stage as one state: what songs play, in the time of the clock, and what hands play over it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from zarabanda.core.playback.claims import Claims
from zarabanda.core.playback.shares import Timing, altered
from zarabanda.core.playback.strips import Strip
from zarabanda.messages import PlayerId

from .playing import Fade, Playing
from .tempo import Clock

if TYPE_CHECKING:
    from .cue_lists import ListState
    from .songs import Song
    from .state import LiveState


@dataclass(frozen=True)
class Shifted:
    """A clock whose time is `by` s later."""

    clock: Clock
    by: float

    def beats(self, t: float) -> float:
        """As `Clock.beats`."""
        return self.clock.beats(t - self.by)

    def time_of(self, beat: float) -> float:
        """As `Clock.time_of`."""
        return self.clock.time_of(beat) + self.by


def on_stage(state: LiveState, t: float) -> LiveState:
    """What is on stage at t. What comes of songs has stamps that are right as seen from t; nothing can be done to it."""
    for song in reversed(state.songs):
        state = _over(state, song, t)
    return state if not state.songs else state.with_(songs=())


def claims_of(state: LiveState) -> Claims:
    """All claims, those of songs beneath; with the stamps of each: for what does not look at time."""
    if not state.songs:
        return state.claims
    found = state.claims
    for song in reversed(state.songs):
        found = _together(song.inner.claims.strips, song.inner.claims, found)
    return found


def _over(state: LiveState, song: Song, t: float) -> LiveState:
    """A state over what a song plays."""
    p = song.transport.position_at(t)
    inner, by = song.shown(t), t - max(p, song.done)
    claims = _together([_strip(strip, by) for strip in inner.claims.strips], inner.claims, state.claims)
    playing = {key: _playing(one, inner.clock_of(one), by, song.ahead_of(key, t)) for key, one in inner.playing.items()}
    for key, one in state.playing.items():
        playing[PlayerId(f"{key}~") if key in playing else key] = one
    lists = {number: _list(inner, one, by) for number, one in inner.lists.items()}
    overlays = {
        number: replace(one, fader=_fade(one.fader, by), flash=_fade(one.flash, by), edited=one.edited + by)
        for number, one in inner.overlays.items()
    }
    maps = {
        use: replace(
            one, fader=_fade(one.fader, by), flash=_fade(one.flash, by), since=one.since + by,
            clock=Shifted(inner.grid, by) if inner.grid is not None else None, song=(song.id, by),
        )
        for use, one in inner.pixels.items()
    }  # fmt: skip
    rows = {number: replace(one, depth=_fade(one.depth, by)) for number, one in inner.rows.items()}
    groups = {number: replace(one, share=_fade(one.share, by)) for number, one in inner.group_levels.items()}
    flashing = tuple(replace(one, since=one.since + by, share=_fade(one.share, by)) for one in inner.busk.flashing)
    return state.with_(
        claims=claims,
        playing=playing,
        lists={**state.lists, **lists},
        overlays={**state.overlays, **overlays},
        pixels={**maps, **{use: one if one.song else replace(one, song=(song.id, by)) for use, one in state.pixels.items()}},
        rows={**state.rows, **rows},
        group_levels={**state.group_levels, **groups},
        levels={**state.levels, **inner.levels},
        held={**state.held, **inner.held},
        alone=(*(replace(one, share=_fade(one.share, by)) for one in inner.alone), *state.alone),
        actions={**state.actions, **{number: replace(one, began=one.began + by) for number, one in inner.actions.items()}},
        busk=state.busk.with_(flashing=(*flashing, *state.busk.flashing)) if flashing else state.busk,
        grand=state.grand * inner.grand,
        blackout=state.blackout or inner.blackout,
        stopped=state.stopped | inner.stopped,
    )


def _together(strips: Sequence[Strip], beneath: Claims, above: Claims) -> Claims:
    """Strips of claims beneath others. What is of one holder in both acts as it does in each."""
    ours = {strip.holder for strip in strips}
    both = ours & {strip.holder for strip in above.strips}
    over = [altered(one, holder=f"{one.holder}~") if one.holder in both else one for one in above.strips]
    manners = {
        f"{name}~" if name in both else name: one for name, one in above.manners.items() if name in both or name not in ours
    }
    return Claims((*strips, *over), {**beneath.manners, **manners})


def _strip(strip: Strip, by: float) -> Strip:
    return altered(strip, timing=_timing(strip.timing, by), laid=strip.laid + by, retargeted=strip.retargeted + by)


def _timing(timing: Timing, by: float) -> Timing:
    releases = tuple(
        altered(one, action=one.action + by, at=one.at + by, stands_at=one.stands_at + by) for one in timing.releases
    )
    return altered(
        timing, stamp=timing.stamp + by, stands_at=timing.stands_at + by, goes_at=timing.goes_at + by,
        paused_at=timing.paused_at + by, stops_at=timing.stops_at + by, releases=releases,
    )  # fmt: skip


def _fade(fade: Fade, by: float) -> Fade:
    earlier = None if fade.earlier is None else _fade(fade.earlier, by)
    return altered(fade, at=fade.at + by, paused_at=fade.paused_at + by, earlier=earlier)


def _playing(one: Playing, clock: Clock, by: float, ahead: float) -> Playing:
    return altered(
        one, started=one.started + by, fades=tuple(_fade(fade, by) for fade in one.fades), hand=_fade(one.hand, by),
        clock=Shifted(clock, by), shift=one.shift + ahead,
    )  # fmt: skip


def _list(inner: LiveState, one: ListState, by: float) -> ListState:
    follow_on = one.follow_on
    if follow_on is not None:
        follow_on = replace(follow_on, due=follow_on.due_at(inner) + by, beat=None)
    paused_at = None if one.paused_at is None else one.paused_at + by
    return replace(one, went_at=one.went_at + by, follow_on=follow_on, paused_at=paused_at, waiting=())
