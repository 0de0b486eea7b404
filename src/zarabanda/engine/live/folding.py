"""What a song is at a position: all that it does up to there, folded into a fresh state (docs/computation.md, "Timelines")."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping
from dataclasses import replace
from typing import Any, Protocol

from zarabanda.core.playback.going import Passage
from zarabanda.core.timecode.timeline import Occurrence, Timeline
from zarabanda.errors import ZarabandaError
from zarabanda.messages import (
    AnyAction,
    ControlId,
    GoTo,
    Level,
    ListLevel,
    OverlayLevel,
    PixelLevel,
    Press,
    PressFlash,
    PressOverlay,
    PressPad,
    PressPixels,
    RowDepth,
    RowLevel,
)

from ..controls import Control
from ..program import Program
from . import controls, cue_lists, flashes, overlays, pixels, rows
from .hands import plain
from .state import LiveState

HOLDER = "song"
"""Who holds what a song presses, with the number of the event behind it."""


class Moves(Protocol):
    """How a state moves on: see `advance`."""

    def advance(self, state: LiveState, t: float) -> LiveState:
        """To t."""

    def done(self, state: LiveState, t: float, before: LiveState | None = None) -> LiveState:
        """After something was done at t."""

    def send(self, state: LiveState, content: Mapping[str, Any], t: float) -> LiveState:
        """With a message sent."""

    def redone(self, state: LiveState, action: AnyAction, t: float) -> LiveState:
        """With what a hand did done again."""

    def released(self, state: LiveState, passage: Passage, t: float) -> LiveState:
        """With all that it holds going out."""


def fresh(program: Program, timeline: Timeline) -> LiveState:
    """Before all that a song does. Its beat grid counts the beats of all tempos."""
    return LiveState(program=program.for_songs, grid=timeline.grid, opened=True)


def occurred(state: LiveState, one: Occurrence, moves: Moves) -> LiveState:
    """After an occurrence, at its position. What cannot be done, since what it is on is gone, is left out: its track says so."""
    before = moves.advance(state, one.at)
    try:
        after = _DONE[one.what](before, one, moves)
    except (ZarabandaError, KeyError):
        return before
    return moves.done(after, one.at, before)


def _go(state: LiveState, one: Occurrence, moves: Moves) -> LiveState:
    return cue_lists.go_to(state, GoTo(_number(one.subject), one.event.cue), one.at)


def _number(subject: str) -> int:
    return int(subject.split(":")[1])


def _pressed(state: LiveState, one: Occurrence, moves: Moves) -> LiveState:
    holder, does, t = f"{HOLDER}:{one.event.id}", one.event.does, one.at
    kind, *rest = one.subject.split(":")
    down = one.what == "down"
    match kind:
        case "control":
            if does == "hold":
                return controls.press(state, Press(ControlId(one.subject), down, holder), t)
            return controls.turned(state, state.program.controls[ControlId(one.subject)], does == "on", t)
        case "pad":
            row, pad = int(rest[0]), int(rest[1])
            if does == "hold":
                return rows.press(state, PressPad(row, pad, down, holder), t)
            return rows.effects_on(state, state.program.rows[row].pads[pad], does == "on", t)
        case "flash":
            kind_of: Any = rest[1]  # checked as it was kept
            return flashes.press(state, PressFlash(int(rest[0]), kind_of, down, holder), t)
        case "pixels":
            use = PressPixels(int(rest[0]), does != "off" and down, int(rest[1]))
            if does == "hold":
                return pixels.held(state, (use.map, use.picture), down, t)
            return pixels.press(state, use, t)
        case "overlay":
            return overlays.press(state, PressOverlay(int(rest[0]), does != "off" and down), t)
    return state


def _level(state: LiveState, one: Occurrence) -> LiveState:
    """With a level at a point. A speed goes from there to that of the next: its phases are exact in between."""
    state = level_set(state, one.subject, one.value, one.at)
    control = state.program.controls.get(ControlId(one.subject))
    if control is None or not drives_speed(control) or one.to == one.value:
        return state
    return controls.speed_gliding(state, control, one.to, one.at, one.seconds)


def drives_speed(control: Control) -> bool:
    """Whether a fader drives the speed of an effect."""
    return control.plays_effect and control.mode == "fader" and control.job != "depth"


def level_shown(state: LiveState, subject: str, value: float, t: float) -> LiveState:
    """With a level where it is between its points; a speed is on its way there already."""
    control = state.program.controls.get(ControlId(subject))
    if control is None or not drives_speed(control):
        return level_set(state, subject, value, t)
    playing = state.playing.get(control.players[0])
    if control.job == "speed" or playing is None:
        return state.with_level(control.key, value)
    return state.with_level(control.key, value).with_playing(control.players[0], replace(playing, level=value))


def level_set(state: LiveState, subject: str, value: float, t: float) -> LiveState:
    """With a level at a value."""
    number = _number(subject)
    match subject.partition(":")[0]:
        case "control":
            return controls.level(state, Level(ControlId(subject), value), t)
        case "list-level":
            return cue_lists.list_level(state, ListLevel(number, value), t)
        case "row-level":
            return rows.level(state, RowLevel(number, value), t)
        case "row-depth":
            return rows.depth(state, RowDepth(number, value), t)
        case "pixels":
            return pixels.level(state, PixelLevel(number, value, int(subject.split(":")[2])), t)
        case "overlay":
            return overlays.level(state, OverlayLevel(number, value), t)
    return state


_DONE: dict[str, Callable[[LiveState, Occurrence, Moves], LiveState]] = {
    "go": _go,
    "down": _pressed,
    "up": _pressed,
    "level": lambda state, one, moves: _level(state, one),
    "message": lambda state, one, moves: moves.send(state, one.event.content, one.at),
    "tempo": lambda state, one, moves: state,
}


def folded_on(state: LiveState, occurrences: Iterable[Occurrence], p: float, hands: Collection[str], moves: Moves) -> LiveState:
    """After all that occurs, and at p. hands: subjects that hands hold: what the song does to these is left out."""
    for one in occurrences:
        if not hands or plain(one.subject, state.program) not in hands:
            state = occurred(state, one, moves)
    return moves.advance(state, p)


def song_at(program: Program, timeline: Timeline, p: float, hands: frozenset[str], moves: Moves) -> LiveState:
    """A song at a position, but for what hands hold."""
    found: LiveState = program.folds.at(timeline, p, hands, *fold_of(program, timeline, hands, moves))
    return found


def fold_of(
    program: Program, timeline: Timeline, hands: frozenset[str], moves: Moves
) -> tuple[Callable[[], LiveState], Callable[[LiveState, Iterable[Occurrence], float], LiveState]]:
    """How a song begins, and how it goes on: see `Folds`."""
    return (
        lambda: fresh(program, timeline),
        lambda state, occurrences, until: folded_on(state, occurrences, until, hands, moves),
    )
