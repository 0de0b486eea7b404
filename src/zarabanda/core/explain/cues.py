"""A cue explained: what holds in it and where that comes from, its times as bars, its effects as threads, what moves in view."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from weakref import WeakKeyDictionary

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.colour.spaces import rgb_to_hex
from zarabanda.core.explain.amounts import between
from zarabanda.core.playback.cue_list import CueList
from zarabanda.core.playback.dark import MOVE_S
from zarabanda.core.playback.tracking import Tracked
from zarabanda.core.rig import attributes
from zarabanda.core.rig.rig import Rig

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

MOST_COLOURS = 12
_RGB = [attributes.RED, attributes.GREEN, attributes.BLUE]


@dataclass(frozen=True)
class Line:
    """Values of one attribute (a colour is one) on heads that have them from the same cue.

    words: from where to where they go; colours: `#rrggbb` in the order of the heads, no more than twelve; palette: of which they
    all are, −1: of none; source: place of the cue that wrote them; written: by the cue itself; only_here: for one cue.
    """

    attribute: str
    label: str
    family: str
    words: str
    colours: tuple[str, ...]
    palette: int
    heads: tuple[str, ...]
    source: int
    written: bool
    only_here: bool


def lines(rig: Rig, whose: CueList, tracked: Tracked, heads: Ints) -> list[Line]:
    """What holds after a cue on these heads (numbers), changed values of a family first."""
    return _with_positions(_lines(rig, whose, tracked, heads))


def _with_positions(every: list[Line]) -> list[Line]:
    """Pan and tilt of the same palette on the same heads are one: the position."""
    found: list[Line] = []
    for one in every:
        pan = found[-1] if found else None
        same = pan is not None and pan.attribute == "pan" and one.attribute == "tilt"
        if same and pan is not None and 0 <= pan.palette == one.palette and (pan.heads, pan.source) == (one.heads, one.source):
            found[-1] = replace(pan, attribute="position", label="Position", words="")
        else:
            found.append(one)
    return found


def _lines(rig: Rig, whose: CueList, tracked: Tracked, heads: Ints) -> list[Line]:
    found: list[Line] = []
    only_here = np.zeros(tracked.values.size, bool)
    only_here[whose.cues[tracked.place].only_here] = True
    for attribute in attributes.ATTRIBUTES:
        row = attributes.INDEX[attribute.name]
        if row in _RGB[1:]:
            continue
        there = heads[~np.isnan(tracked.values[row, heads]) & rig.heads.has[row, heads]]
        for source in sorted(set(tracked.source[row, there].tolist())):
            own = there[tracked.source[row, there] == source]
            palettes = set(tracked.palettes[row, own].tolist())
            colour = row == attributes.RED
            values = tracked.values[row, own]
            found.append(
                Line(
                    "colour" if colour else attribute.name, "Colour" if colour else attribute.label, attribute.family,
                    "" if colour else between(values.min(), values.max(), attribute),
                    _colours(tracked, own) if colour else (),
                    palettes.pop() if len(palettes) == 1 else -1,
                    tuple(rig.heads.keys[head] for head in own.tolist()), source, bool(tracked.written[row, own].any()),
                    bool(only_here[row * len(rig) + own].any()),
                )
            )  # fmt: skip
    return found


def _colours(tracked: Tracked, heads: Ints) -> tuple[str, ...]:
    found = dict.fromkeys(rgb_to_hex(tracked.values[_RGB, head]) for head in heads.tolist())
    return tuple(found)[:MOST_COLOURS]


@dataclass(frozen=True)
class Bar:
    """The time of a family in a cue, in s: from `begin` to `end`; up, down: where intensity ends each way."""

    family: str
    begin: float
    end: float
    up: float = 0.0
    down: float = 0.0


def bars(whose: CueList, place: int) -> list[Bar]:
    """Times of the families in which a cue does something."""
    times, found = whose.cues[place].times, []
    families = whose.families(place)
    for family in attributes.FAMILIES:
        if family in families:
            delay, up, down = times.delay_of(family), times.fade_of(family, True), times.fade_of(family)
            found.append(Bar(family, delay, delay + max(up, down), delay + up, delay + down))
    return found


@dataclass(frozen=True)
class Thread:
    """An effect of a list: from the cue that starts it to the one that stops it (−1: none), by place; changes: between these."""

    thread: int
    begins: int
    ends: int
    changes: tuple[int, ...] = ()


def threads(whose: CueList) -> list[Thread]:
    """All effects of a list in the order in which they begin."""
    found: dict[int, Thread] = {}
    for place, cue in enumerate(whose.cues):
        for one in cue.effects:
            known = found.get(one.thread)
            if one.do == "start":
                found[one.thread] = Thread(one.thread, place, -1)
            elif known is not None and known.ends < 0:
                ends = place if one.do == "stop" else -1
                changes = (*known.changes, place) if one.do == "change" else known.changes
                found[one.thread] = Thread(one.thread, known.begins, ends, changes)
    return list(found.values())


@dataclass(frozen=True)
class Moves:
    """Lights that move for a cue. dark: how many heads are prepared in the dark before it, in so many s; seen: heads that move
    while they are lit; hidden_by: place of the latest cue before it in which all of these are dark, −1: none."""

    dark: int = 0
    seconds: float = 0.0
    seen: tuple[int, ...] = ()
    hidden_by: int = -1


def moves(rig: Rig, whose: CueList) -> list[Moves]:
    """For each cue of a list, played one after another. Found once for a list as it stands."""
    known = _MOVES.get(whose)
    if known is None or known[0] is not rig:
        known = _MOVES[whose] = (rig, _moves(rig, whose))
    return known[1]


_MOVES: WeakKeyDictionary[CueList, tuple[Rig, list[Moves]]] = WeakKeyDictionary()


def _moves(rig: Rig, whose: CueList) -> list[Moves]:
    """A cue can move only what it writes and what held in the cue before alone; what is not held any more goes unseen, or with
    its light."""
    home, size = rig.home.reshape(-1), rig.home.size
    held, shown = np.full(size, np.nan), np.full(size, np.nan)
    dark_last, passing, found = np.full(len(rig), -1), np.zeros(0, np.int64), list[Moves]()
    for place, cue in enumerate(whose.cues):
        cells = np.concatenate([cue.places, passing])
        old = np.where(np.isnan(shown[cells]), home[cells], shown[cells])
        shown[passing] = held[passing]
        held[cue.stops] = shown[cue.stops] = np.nan
        held[cue.places[cue.lasting]] = cue.numbers[cue.lasting]
        shown[cue.places] = cue.numbers
        new = np.where(np.isnan(shown[cells]), old, shown[cells])
        found.append(_moves_to(rig, whose, place, cells, new - old, dark_last) if place else Moves())
        dark_last[~whose.lit[place]] = place
        passing = cue.places[~cue.lasting]
    return found


def _moves_to(rig: Rig, whose: CueList, place: int, cells: Ints, ways: Floats, dark_last: Ints) -> Moves:
    """For one cue. ways: by how much each of some cells changes; dark_last: in which cue before each head was dark last, (N,)."""
    was, lit, cue = whose.lit[place - 1], whose.lit[place], whose.cues[place]
    rows, heads = cells // len(rig), cells % len(rig)
    turns = (rows == attributes.PAN) | (rows == attributes.TILT)
    seen = _once(heads[turns & (ways != 0) & was[heads] & lit[heads]], len(rig))
    waiting = lit & ~was & cue.dark_moves
    waiting[cue.seen_moves] = False
    moved = (ways != 0) & rig.heads.has.reshape(-1)[cells] & waiting[heads] & (rows != attributes.INTENSITY)
    dark = _once(heads[moved], len(rig))
    turning = turns & moved
    speeds = rig.speed[(rows[turning] == attributes.TILT).astype(int), heads[turning]]
    seconds = float((np.abs(ways[turning]) / speeds).max(initial=MOVE_S)) if len(dark) else 0.0
    return Moves(len(dark), seconds, tuple(seen.tolist()), _hidden_by(whose, seen, dark_last))


def _once(heads: Ints, count: int) -> Ints:
    """Each of these heads once, in order."""
    there = np.zeros(count, bool)
    there[heads] = True
    return np.flatnonzero(there)


def _hidden_by(whose: CueList, heads: Ints, dark_last: Ints) -> int:
    """The place of the latest cue in which all of these heads are dark, -1: none."""
    place = int(dark_last[heads].min()) if len(heads) else -1
    while place >= 0 and whose.lit[place, heads].any():
        place -= 1
    return place


def carried_count(tracked: Tracked) -> int:
    """How many values a cue carries on; a colour is one."""
    chosen = tracked.carried.copy()
    chosen[_RGB[1:]] = False
    return int(chosen.sum())


def by_group(groups: Sequence[tuple[str, Sequence[int]]], rig: Rig) -> list[tuple[str, Ints]]:
    """Heads by group, each in the first that has it, with the fixture that cells belong to; those of none at the end."""
    left = np.ones(len(rig), bool)
    found = []
    for name, heads in groups:
        cells = np.array(heads, np.int64)
        leaders = rig.leader[cells]
        every = dict.fromkeys([*leaders[leaders >= 0].tolist(), *cells.tolist()])
        own = np.array([head for head in every if left[head]], np.int64)
        left[own] = False
        if len(own):
            found.append((name, own))
    others = np.flatnonzero(left)
    return [*found, *([("Other lights", others)] if len(others) else [])]
