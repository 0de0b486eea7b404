"""The rig as arrays: what each head can do, where it stands, and which slots it listens to. Built when the patch changes."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.cells import arranged
from zarabanda.core.rig.curves import Curve
from zarabanda.core.rig.heads import Heads
from zarabanda.core.rig.modes import EMITTERS, Channel, ModeSpec, Place, head_key
from zarabanda.core.rig.patch import SLOTS

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]


@dataclass(frozen=True)
class FixtureSpec:
    """A fixture: its number, mode, place in metres, rotation in degrees, universe (1…) and address (1…512).

    Without universe and address it is computed, and sends nothing. cell_order: a name from `cells.CELL_ORDERS`.
    """

    number: int
    name: str
    mode: ModeSpec
    place: Place
    rotation: Place = (0.0, 0.0, 0.0)
    universe: int | None = 1
    address: int | None = 1
    cell_order: str = ""


@dataclass(frozen=True)
class Output:
    """Index arrays from values to slots. All (channels,): source index into values + emitter drives, scale, slots.

    Slots are flat: universe row × 512 + offset; -1 where a channel has no such byte. Channels with a curve have their own
    sources, behind all others: curved_from (C,) says of which value, curved_by (C,) by which of `curves`, each with its bits and
    whether it is of slots. rests: slots (R,) that no channel drives, and their bytes (R,).
    """

    source: Ints
    low: Floats
    span: Floats
    bits: Ints
    coarse: Ints
    middle: Ints
    fine: Ints
    curved_from: Ints
    curved_by: Ints
    curves: tuple[tuple[Curve, int, bool], ...]
    rests: tuple[Ints, Ints]


@dataclass(frozen=True)
class Rig:
    """All heads, N of them, and the universes that carry them.

    low, high, home: (A, N) in natural units. mounting (N, 3, 3). emitter_heads: heads by kind of emitter.
    dims: (N,) heads whose intensity has no channel and scales their colour. light: (N, 3) drive of heads without colour.
    leader: (N,) for a cell, the head of its fixture where it has one, else −1: levels of both are multiplied.
    body: (N,) the head whose pan and tilt turn this one. whitened: (N,) whose emitters make white of a temperature, without
    a channel for it.
    """

    heads: Heads
    fixture: Ints
    cell: Ints
    kind: tuple[str, ...]
    low: Floats
    high: Floats
    home: Floats
    mounting: Floats
    light: Floats
    beam_deg: Floats
    mixes: Bools
    dims: Bools
    leader: Ints
    body: Ints
    whitened: Bools
    subtractive: Bools
    emitter_heads: dict[str, Ints]
    wheels: tuple[Floats, ...]
    wheel_of: Ints
    universes: tuple[int, ...]
    output: Output
    speed: Floats

    def __len__(self) -> int:
        return len(self.heads)

    @cached_property
    def led(self) -> Bools:
        """(N,) cells of a fixture that is a head of its own."""
        return self.leader >= 0

    @cached_property
    def unled(self) -> Ints | slice:
        """All other heads: those whose level is scaled by what scales all light."""
        return np.flatnonzero(~self.led) if self.led.any() else slice(None)


class _Template:
    """What all fixtures of a mode have in common: n heads and c channels, numbered within the fixture."""

    def __init__(self, mode: ModeSpec) -> None:
        self.mode, self.parts = mode, mode.parts
        count = len(self.parts)
        self.places = np.array([mode.cells[part - 1] if part else (0, 0, 0) for part in self.parts], float)
        able = [set(mode.attributes_of(part)) for part in self.parts]
        self.has = np.array([[row.name in names for names in able] for row in attributes.ATTRIBUTES], bool)
        self.low, self.high, self.home = (
            np.repeat(np.array([getattr(row, end) for row in attributes.ATTRIBUTES], float)[:, None], count, axis=1)
            for end in ("low", "high", "home")
        )
        for channel in mode.channels:
            if channel.source in attributes.BY_NAME and attributes.BY_NAME[channel.source].stepped:
                row = attributes.INDEX[channel.source]
                self.low[row], self.high[row] = channel.ends  # of a wheel there is what it has slots for
        for name, ends in mode.limits.items():
            row = attributes.INDEX[name]
            self.low[row], self.high[row], self.home[row] = ends
        leads = mode.leads
        self.leader = np.where(np.arange(count) > 0, 0, -1) if leads else np.full(count, -1)
        if leads:  # cells stand at full: the level of the whole alone brings them up
            self.home[attributes.INTENSITY, 1:] = self.high[attributes.INTENSITY, 1:]
        moves = self.has[attributes.PAN] | self.has[attributes.TILT]
        self.body = np.where(~moves & (self.leader >= 0) & moves[0], 0, np.arange(count))
        sources = [{channel.source for channel in mode.channels_of(part)} for part in self.parts]
        self.dimmed = np.array(["intensity" in names for names in sources], bool)
        self.coloured = np.array([bool(names & set(EMITTERS[mode.emitters])) for names in sources], bool)
        self.whitened = self.coloured & (bool(mode.virtual) or mode.emitters == "warm-cold")
        self.levelled = self.dimmed & (self.leader >= 0) & ~self.dimmed[0]
        self._channels(mode.channels)

    def _channels(self, channels: Sequence[Channel]) -> None:
        names = EMITTERS[self.mode.emitters]
        first = self.parts[0]
        self.head = np.array([channel.cell - first if self.mode.cells else 0 for channel in channels], np.int64)
        self.drive = np.array([names.index(one.source) if one.source in names else -1 for one in channels], np.int64)
        self.row = np.array([attributes.INDEX.get(one.source, -1) for one in channels], np.int64)
        carries_both = np.array([one.source == "intensity" for one in channels], bool) & self.levelled[self.head]
        ends = np.array([(one.high, one.low) if one.inverted else (one.low, one.high) for one in channels], float).reshape(-1, 2)
        ends[carries_both] /= 100
        self.through_level = carries_both
        self.ends = ends
        self.bits = np.array([8 * len(one.slots) for one in channels], np.int64)
        self.slots = np.array([[*one.slots, *[-1] * (3 - len(one.slots))] for one in channels], np.int64).reshape(-1, 3)
        self.curves = [(one.curve, 8 * len(one.slots), _stepped(one.source)) if one.curve else None for one in channels]
        self.rests = np.array(self.mode.rests, np.int64).reshape(-1, 2)


class _Layout:
    """Where the heads of each fixture are among all N of them."""

    def __init__(self, fixtures: Sequence[FixtureSpec]) -> None:
        known: dict[int, _Template] = {}
        for fixture in fixtures:
            if id(fixture.mode) not in known:
                known[id(fixture.mode)] = _Template(fixture.mode)
        self.fixtures = fixtures
        self.templates = [known[id(fixture.mode)] for fixture in fixtures]
        counts = np.array([len(one.parts) for one in self.templates], np.int64)
        self.total = int(counts.sum())
        self.first = np.cumsum(counts) - counts
        self.fixture_of = np.repeat(np.arange(len(fixtures)), counts)

    def patched(self, row_of: Mapping[int, int]) -> Iterator[tuple[_Template, Ints, Ints]]:
        """For each mode: fixtures that have an address, (n,), and the slot at which each begins, through all universes, (n,)."""
        found: dict[int, tuple[_Template, list[int], list[int]]] = {}
        for n, (fixture, template) in enumerate(zip(self.fixtures, self.templates, strict=True)):
            if fixture.universe is not None and fixture.address is not None:
                _, those, begin = found.setdefault(id(template), (template, [], []))
                those.append(n)
                begin.append(row_of[fixture.universe] * SLOTS + fixture.address - 1)
        return ((template, np.array(those), np.array(begin)) for template, those, begin in found.values())

    def beside(self, name: str, *, rows: int | None = None) -> NDArray[Any]:
        """An array of all templates, head after head: (N,), or (rows, N)."""
        every = [getattr(one, name) for one in self.templates]
        return np.concatenate(every, axis=-1) if every else np.zeros((rows, 0) if rows is not None else 0)

    def heads(self, name: str) -> Ints:
        """An array of head numbers within the fixture, (N,), −1 for none, as numbers among all."""
        own = self.beside(name).astype(np.int64)
        return np.where(own >= 0, own + self.first[self.fixture_of], -1)

    def of_modes(self, values: Sequence[Any]) -> NDArray[np.float64]:
        """A value of each fixture, head after head."""
        return np.array(values, float)[self.fixture_of] if values else np.zeros(0)


def build(fixtures: Sequence[FixtureSpec]) -> Rig:
    """Compile fixtures, in the order of their heads, to arrays. Where slots are shared, the fixture that comes first has them."""
    layout = _Layout(fixtures)
    total, modes = layout.total, [one.mode for one in fixtures]
    has = layout.beside("has", rows=attributes.COUNT).astype(bool)
    turns = _turns(fixtures)
    own = [_own_places(fixture, template) for fixture, template in zip(fixtures, layout.templates, strict=True)]
    local = np.concatenate([np.zeros((0, 3)), *own])
    stands = np.array([one.place for one in fixtures], float).reshape(-1, 3)
    mounting = turns[layout.fixture_of]
    cells = np.array([part for one in layout.templates for part in one.parts], np.int64)
    coloured = layout.beside("coloured").astype(bool)
    emitters = np.where(coloured, np.array([mode.emitters for mode in modes], object)[layout.fixture_of], "none")
    emitter_heads = {name: np.flatnonzero(emitters == name) for name in EMITTERS if name != "none" and (emitters == name).any()}
    if len(levelled := np.flatnonzero(layout.beside("levelled"))):
        emitter_heads["level"] = levelled
    wheels = list(dict.fromkeys(mode.wheel for mode in modes if mode.wheel))
    wheel_of = layout.of_modes([wheels.index(mode.wheel) if mode.wheel else -1 for mode in modes]).astype(np.int64)
    leader = layout.heads("leader")
    light = layout.of_modes([mode.light for mode in modes]).reshape(total, 3)
    light[leader[leader >= 0]] = 0  # what leads cells gives no light of its own
    universes = _universes(fixtures)
    return Rig(
        heads=Heads(
            [head_key(one.number, part) for one, its in zip(fixtures, layout.templates, strict=True) for part in its.parts],
            stands[layout.fixture_of] + np.einsum("nij,nj->ni", mounting, local), has, mounting,
            [modes[n].model or modes[n].kind for n in layout.fixture_of],
        ),
        fixture=layout.fixture_of,
        cell=cells,
        kind=tuple(modes[n].kind for n in layout.fixture_of),
        low=layout.beside("low", rows=attributes.COUNT),
        high=layout.beside("high", rows=attributes.COUNT),
        home=layout.beside("home", rows=attributes.COUNT),
        mounting=mounting,
        light=light,
        beam_deg=layout.of_modes([mode.beam_deg for mode in modes]),
        mixes=has[attributes.RED],
        dims=~layout.beside("dimmed").astype(bool) & has[attributes.INTENSITY],
        leader=leader,
        body=layout.heads("body"),
        whitened=layout.beside("whitened").astype(bool),
        subtractive=emitters == "cmy",
        emitter_heads=emitter_heads,
        wheels=tuple(np.array([colour for _, colour in wheel]) for wheel in wheels),
        wheel_of=np.where(emitters == "wheel", wheel_of, -1),
        universes=universes,
        output=_output(layout, emitter_heads, universes),
        speed=np.stack([layout.of_modes([getattr(mode, name) for mode in modes]) for name in ("pan_speed", "tilt_speed")]),
    )  # fmt: skip


def repatched(rig: Rig, fixtures: Sequence[FixtureSpec]) -> Rig:
    """The same heads at other addresses: quick, and what plays on them need not be looked at again."""
    universes = _universes(fixtures)
    return replace(rig, universes=universes, output=_output(_Layout(fixtures), rig.emitter_heads, universes))


def _universes(fixtures: Sequence[FixtureSpec]) -> tuple[int, ...]:
    found = set[int]()
    for one in fixtures:
        if one.universe is not None and one.address is not None:
            found.update(range(one.universe, one.universe + (one.address + one.mode.footprint - 2) // SLOTS + 1))
    return tuple(sorted(found))


def _turns(fixtures: Sequence[FixtureSpec]) -> Floats:
    known = {one.rotation: stage.rotation(*one.rotation) for one in fixtures}
    return np.array([known[one.rotation] for one in fixtures], float).reshape(-1, 3, 3)


def _own_places(fixture: FixtureSpec, template: _Template) -> Floats:
    if not fixture.cell_order:
        return template.places
    ahead = len(template.parts) - len(fixture.mode.cells)
    cells = template.places[ahead:]
    return np.concatenate([template.places[:ahead], cells[arranged(cells, fixture.cell_order)]])


def emitter_rows(emitter_heads: dict[str, Ints]) -> dict[str, tuple[int, int]]:
    """Where each kind's drives start among all drives (behind the values), and how many heads: drives are (names, heads)."""
    rows, at = {}, 0
    for name, heads in emitter_heads.items():
        rows[name] = (at, len(heads))
        at += len(EMITTERS[name]) * len(heads)
    return rows


def straight_sources(count: int, emitter_heads: dict[str, Ints]) -> int:
    """How many values and drives channels can come from straight; what comes by a curve lies behind them. count: of heads."""
    return attributes.COUNT * count + sum(len(EMITTERS[name]) * len(heads) for name, heads in emitter_heads.items())


def _output(layout: _Layout, emitter_heads: dict[str, Ints], universes: tuple[int, ...]) -> Output:
    rows = emitter_rows(emitter_heads)
    position = {name: np.full(layout.total, -1) for name in emitter_heads}
    for name, heads in emitter_heads.items():
        position[name][heads] = np.arange(len(heads))
    row_of = {number: n for n, number in enumerate(universes)}
    sources, bits, numbers = [np.zeros(0, np.int64)], [np.zeros(0, np.int64)], [np.zeros(0, np.int64)]
    ends, slots = [np.zeros((0, 2))], [np.zeros((0, 3), np.int64)]
    curves: dict[tuple[Curve, int, bool], int] = {}
    by, rests = [np.zeros(0, np.int64)], [np.zeros((0, 2), np.int64)]
    behind = attributes.COUNT * layout.total
    for one, those, begin in layout.patched(row_of):
        head = one.head + layout.first[those][:, None]
        source = one.row * layout.total + head
        if (one.drive >= 0).any():
            start, count = rows[one.mode.emitters]
            source = np.where(one.drive >= 0, behind + start + one.drive * count + position[one.mode.emitters][head], source)
        if one.through_level.any():
            source = np.where(one.through_level, behind + rows["level"][0] + position["level"][head], source)
        sources.append(source.ravel())
        ends.append(np.tile(one.ends, (len(those), 1)))
        bits.append(np.tile(one.bits, len(those)))
        numbers.append(np.repeat(those, len(one.bits)))
        by.append(np.tile([curves.setdefault(curve, len(curves)) if curve else -1 for curve in one.curves], len(those)))
        rests.append((one.rests + np.stack([begin, np.zeros_like(begin)], axis=1)[:, None]).reshape(-1, 2))
        slots.append(np.where(one.slots >= 0, one.slots + begin[:, None, None], -1).reshape(-1, 3))
    by_fixture = np.argsort(np.concatenate(numbers), kind="stable")
    free = _first_come(np.concatenate(slots)[by_fixture])
    source, table, size, curve = (np.concatenate(every)[by_fixture][free] for every in (sources, slots, bits, by))
    end = np.concatenate(ends)[by_fixture][free]
    curved = np.flatnonzero(curve >= 0)
    curved_from = source[curved]
    source[curved] = straight_sources(layout.total, emitter_heads) + np.arange(len(curved))
    end[curved] = 0, 1
    rest = np.concatenate(rests)
    return Output(
        source, end[:, 0], end[:, 1] - end[:, 0], size, table[:, 0], table[:, 1], table[:, 2],
        curved_from, curve[curved], tuple(curves), (rest[:, 0], rest[:, 1]),
    )  # fmt: skip


def _stepped(source: str) -> bool:
    return source == "wheel" or (source in attributes.BY_NAME and attributes.BY_NAME[source].stepped)


def _first_come(slots: Ints) -> Bools:
    """Which channels have all their slots to themselves or came first. slots: (channels, 3), −1 for none. (channels,)"""
    claimed = np.where(slots >= 0, slots, -1).ravel()
    first = np.zeros(len(claimed), bool)
    first[np.unique(claimed, return_index=True)[1]] = True
    return np.asarray((first | (claimed < 0)).reshape(slots.shape).all(axis=1))
