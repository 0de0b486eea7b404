"""The rig as arrays: what each head can do, where it stands, and which slots it listens to. Built when the patch changes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import attributes, stage
from zarabanda.core.rig.heads import Heads

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]
Place = tuple[float, float, float]
"""x, y, z in metres; also: turns around them in degrees."""
RGB = tuple[float, float, float]

EMITTERS: dict[str, tuple[str, ...]] = {
    "none": (),
    "rgb": ("red", "green", "blue"),
    "rgbw": ("red", "green", "blue", "white"),
    "rgbaw": ("red", "green", "blue", "amber", "white"),
    "cmy": ("cyan", "magenta", "yellow"),
    "hue-saturation": ("hue", "saturation"),
    "wheel": ("wheel",),
}
"""How a fixture makes colour, and the names of the channels it has for that."""


@dataclass(frozen=True, slots=True)
class Channel:
    """One channel of a mode. slots: offsets from the address, coarse first (1–3 of them: 8, 16 or 24 bits).

    source: an attribute or a name from EMITTERS; low, high: natural value at DMX 0 and at full; cell: 1… or 0 for all.
    """

    source: str
    slots: tuple[int, ...]
    low: float = 0.0
    high: float = 1.0
    inverted: bool = False
    cell: int = 0


@dataclass(frozen=True)
class ModeSpec:
    """A fixture's set of channels. limits: narrower ranges and home values (low, high, home) by attribute."""

    name: str
    kind: str
    emitters: str
    channels: tuple[Channel, ...]
    footprint: int
    limits: dict[str, tuple[float, float, float]] = field(default_factory=dict)
    wheel: tuple[tuple[str, RGB], ...] = ()
    light: RGB = (1.0, 1.0, 1.0)
    cells: tuple[Place, ...] = ()
    beam_deg: float = 20.0

    def attributes(self) -> list[str]:
        """Attributes of each head in this mode: from its channels; intensity and colour wherever it gives light."""
        named = [c.source for c in self.channels if c.source in attributes.BY_NAME]
        if self.emitters != "none":
            named = [n for n in named if n not in ("hue", "saturation", "red", "green", "blue")]
            named += ["red", "green", "blue"]
        if self.kind != "haze":
            named.append("intensity")
        return [a.name for a in attributes.ATTRIBUTES if a.name in named]


@dataclass(frozen=True)
class FixtureSpec:
    """A fixture: its number, mode, place in metres, rotation in degrees, universe (1…) and address (1…512)."""

    number: int
    name: str
    mode: ModeSpec
    place: Place
    rotation: Place = (0.0, 0.0, 0.0)
    universe: int = 1
    address: int = 1
    reversed_cells: bool = False


@dataclass(frozen=True)
class Output:
    """Index arrays from values to slots. All (channels,): source index into values + emitter drives, scale, slots.

    Slots are flat: universe row × 512 + offset; -1 where a channel has no such byte.
    """

    source: Ints
    low: Floats
    span: Floats
    bits: Ints
    coarse: Ints
    middle: Ints
    fine: Ints


@dataclass(frozen=True)
class Rig:
    """All heads, N of them, and the universes that carry them.

    low, high, home: (A, N) in natural units. mounting (N, 3, 3). emitter_heads: heads by kind of emitter.
    dims: (N,) heads whose intensity has no channel and scales their colour. light: (N, 3) drive of heads without colour.
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
    subtractive: Bools
    emitter_heads: dict[str, Ints]
    wheels: tuple[Floats, ...]
    wheel_of: Ints
    universes: tuple[int, ...]
    output: Output

    def __len__(self) -> int:
        return len(self.heads)


def head_key(number: int, cell: int) -> str:
    """What a head is called: the fixture's number, and the cell's after a point.

    >>> head_key(501, 3)
    '501.3'
    """
    return f"{number}.{cell}" if cell else str(number)


def build(fixtures: Sequence[FixtureSpec]) -> Rig:
    """Compile fixtures (checked before: no slots shared, all within 512) to arrays."""
    keys, places, fixture_of, cells, kinds, mounts, light, beams = [], [], [], [], [], [], [], []
    for index, fixture in enumerate(fixtures):
        turn = stage.rotation(*fixture.rotation)
        count = len(fixture.mode.cells)
        for cell in range(max(count, 1)):
            own = fixture.mode.cells[count - 1 - cell if fixture.reversed_cells else cell] if count else (0, 0, 0)
            keys.append(head_key(fixture.number, cell + 1 if count else 0))
            places.append(np.asarray(fixture.place) + turn @ np.asarray(own, float))
            fixture_of.append(index)
            cells.append(cell + 1 if count else 0)
            kinds.append(fixture.mode.kind)
            mounts.append(turn)
            light.append(fixture.mode.light)
            beams.append(fixture.mode.beam_deg)
    total = len(keys)
    has = np.zeros((attributes.COUNT, total), bool)
    low, high, home = (
        np.repeat(np.array([getattr(a, name) for a in attributes.ATTRIBUTES], float)[:, None], total, axis=1)
        for name in ("low", "high", "home")
    )
    fixture_index = np.array(fixture_of, np.int64)
    for index, fixture in enumerate(fixtures):
        own_heads = np.flatnonzero(fixture_index == index)
        for name in fixture.mode.attributes():
            has[attributes.INDEX[name], own_heads] = True
        for name, (lowest, highest, rest) in fixture.mode.limits.items():
            row = attributes.INDEX[name]
            low[row, own_heads], high[row, own_heads], home[row, own_heads] = lowest, highest, rest
    emitters = np.array([fixtures[i].mode.emitters for i in fixture_of])
    emitter_heads = {name: np.flatnonzero(emitters == name) for name in EMITTERS if (emitters == name).any()}
    wheels = tuple(
        {fixture.mode.wheel: np.array([c for _, c in fixture.mode.wheel]) for fixture in fixtures if fixture.mode.wheel}.values()
    )
    wheel_names = list({fixture.mode.wheel: None for fixture in fixtures if fixture.mode.wheel})
    wheel_of = np.array([wheel_names.index(w) if (w := fixtures[i].mode.wheel) else -1 for i in fixture_of], np.int64)
    dimmed = np.array([any(c.source == "intensity" for c in fixtures[i].mode.channels) for i in fixture_of], bool).reshape(total)
    universes = tuple(sorted({fixture.universe for fixture in fixtures}))
    return Rig(
        heads=Heads(keys, np.array(places, float).reshape(total, 3), has, np.array(mounts, float).reshape(total, 3, 3)),
        fixture=fixture_index,
        cell=np.array(cells, np.int64),
        kind=tuple(kinds),
        low=low,
        high=high,
        home=home,
        mounting=np.array(mounts, float).reshape(total, 3, 3),
        light=np.array(light, float).reshape(total, 3),
        beam_deg=np.array(beams, float),
        mixes=has[attributes.RED],
        dims=~dimmed & has[attributes.INTENSITY],
        subtractive=emitters == "cmy",
        emitter_heads=emitter_heads,
        wheels=wheels,
        wheel_of=wheel_of,
        universes=universes,
        output=_output(fixtures, fixture_index, emitter_heads, universes, total),
    )


def emitter_rows(emitter_heads: dict[str, Ints]) -> dict[str, tuple[int, int]]:
    """Where each kind's drives start among all drives (behind the values), and how many heads: drives are (names, heads)."""
    rows, at = {}, 0
    for name, heads in emitter_heads.items():
        rows[name] = (at, len(heads))
        at += len(EMITTERS[name]) * len(heads)
    return rows


def _output(
    fixtures: Sequence[FixtureSpec], fixture_of: Ints, emitter_heads: dict[str, Ints], universes: tuple[int, ...], total: int
) -> Output:
    rows = emitter_rows(emitter_heads)
    position = {kind: {int(head): n for n, head in enumerate(heads)} for kind, heads in emitter_heads.items()}
    source, low, span, bits, slots = [], [], [], [], []
    for index, fixture in enumerate(fixtures):
        mode = fixture.mode
        heads = np.flatnonzero(fixture_of == index)
        first_slot = universes.index(fixture.universe) * 512 + fixture.address - 1
        names = EMITTERS[mode.emitters]
        for channel in mode.channels:
            # a cell's channel drives that cell; a channel for all follows the first
            head = int(heads[max(channel.cell - 1, 0)])
            if channel.source in names:
                start, count = rows[mode.emitters]
                drive = names.index(channel.source) * count + position[mode.emitters][head]
                source.append(attributes.COUNT * total + start + drive)
            else:
                source.append(attributes.INDEX[channel.source] * total + head)
            ends = (channel.high, channel.low) if channel.inverted else (channel.low, channel.high)
            low.append(ends[0])
            span.append(ends[1] - ends[0])
            bits.append(8 * len(channel.slots))
            slots.append([first_slot + slot for slot in channel.slots] + [-1] * (3 - len(channel.slots)))
    table = np.array(slots, np.int64).reshape(-1, 3)
    return Output(
        np.array(source, np.int64), np.array(low, float), np.array(span, float), np.array(bits, np.int64),
        table[:, 0], table[:, 1], table[:, 2],
    )  # fmt: skip
