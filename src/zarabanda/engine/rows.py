"""Making the rows of busking pages from parts of the show: what each pad claims, as arrays on the rig, and what it plays."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects.palette import Palette
from zarabanda.core.playback.looks import Cells, cells_of, held
from zarabanda.core.rig import attributes
from zarabanda.core.rig.abilities import whole
from zarabanda.core.rig.heads import Heads
from zarabanda.core.rig.rig import Rig
from zarabanda.messages import BuskRowPart, PlayerId
from zarabanda.targets import EffectOnHeads

Ints = NDArray[np.int64]

ALL, LIGHTS = "all", "lights"
"""Kinds of rows that act on lights."""
LEVEL = "level"
"""What a row holds by its fader."""


def player_of(row: int, pad: int, on: int) -> PlayerId:
    """The key of what plays the effect of a pad on a row."""
    return PlayerId(f"row:{row}:{pad}:{on}")


def row_of(key: PlayerId) -> int:
    """The row on which a pad's effect is played by this key; 0: it is of no pad."""
    kind, *numbers = key.partition("~")[0].split(":")
    return int(numbers[2]) if kind == "row" else 0


@dataclass(frozen=True, eq=False)
class Pad:
    """A pad. section: colour, position, beam, effects or messages; claims: cells by what holds them (beam: each attribute);
    palette, effect: which, by number; pixels: map and picture that it brings in instead of an effect; players: what it plays, on
    each row that can do it; while_held: acts while it is held; message: what it sends; gone: why it cannot act, in words."""

    id: int
    section: str
    name: str
    palette: int = 0
    effect: int = 0
    claims: Mapping[str, tuple[Cells, ...]] = field(default_factory=dict)
    players: tuple[PlayerId, ...] = ()
    while_held: bool = False
    message: Mapping[str, Any] | None = None
    gone: str = ""
    pixels: tuple[int, int] | None = None


@dataclass(frozen=True, eq=False)
class Row:
    """A row. lit: its heads in the order of its group; heads: these and those that lead or turn them; on: rows that it acts on,
    by number (the top row: all rows of lights of its page); level: what its fader claims; tempo, colour_tempo: by number."""

    id: int
    page: int
    position: int
    name: str
    kind: str
    lit: Ints
    heads: Ints
    on: tuple[int, ...]
    level: tuple[Cells, ...]
    pads: Mapping[int, Pad]
    tempo: int | None = None
    colour_tempo: int | None = None

    def holder(self, what: str) -> str:
        """The holder of what it holds: level, colour, position, or an attribute of beam."""
        return f"row:{self.id}:{what}"


def held_as(attribute: str) -> str:
    """What of a row holds an attribute: its family; each attribute of beam is held apart."""
    family = attributes.BY_NAME[attribute].family
    return attribute if family == "beam" else family


def _in_order(parts: Iterable[BuskRowPart]) -> list[BuskRowPart]:
    return sorted(parts, key=lambda part: (part.page_id, part.position, part.id))


def targets_of(parts: Iterable[BuskRowPart]) -> Iterator[tuple[PlayerId, BuskRowPart, str, EffectOnHeads]]:
    """Everything that effect pads may play: the key, the part, where it is in words, and the effect on heads."""
    every = _in_order(parts)
    for part in every:
        for pad in part.document.get("effects", ()):
            for on in _acts_on(part, every) if not pad.get("pixels") else ():
                if on.heads:
                    source = on.name if on is part else f"{part.name}, {on.name}"
                    yield player_of(part.id, pad["id"], on.id), part, source, EffectOnHeads(pad["effect"], on.heads)


def _acts_on(part: BuskRowPart, every: Sequence[BuskRowPart]) -> list[BuskRowPart]:
    if part.kind != ALL:
        return [part] if part.kind == LIGHTS else []
    return [one for one in every if one.page_id == part.page_id and one.kind == LIGHTS]


@dataclass(frozen=True, eq=False)
class _Made:
    """A pad's claims, and what they were made of."""

    heads: Heads
    on: bytes
    palette: Palette
    claims: Mapping[str, tuple[Cells, ...]]


class RowMaker:
    """Makes rows, and keeps what it made of each pad."""

    def __init__(self) -> None:
        self._pads: dict[tuple[int, int], _Made] = {}

    def made(
        self, parts: Iterable[BuskRowPart], palettes: Mapping[int, Palette], effects: Iterable[int], rig: Rig
    ) -> dict[int, Row]:
        """All rows, in their order. palettes, effects: those that there are, by number."""
        every = _in_order(parts)
        known, before, self._pads = set(effects), self._pads, {}
        return {part.id: self._row(part, every, palettes, known, rig, before) for part in every}

    def _row(
        self, part: BuskRowPart, every: Sequence[BuskRowPart], palettes: Mapping[int, Palette], effects: set[int], rig: Rig,
        before: Mapping[tuple[int, int], _Made],
    ) -> Row:  # fmt: skip
        acting = _acts_on(part, every)
        keys = dict.fromkeys(key for one in acting or [part] for key in one.heads)
        lit = np.array([rig.heads.index[key] for key in keys if key in rig.heads.index], np.int64)
        heads = np.array(list(dict.fromkeys([*lit.tolist(), *whole(rig, lit).tolist()])), np.int64)
        on = tuple(one.id for one in acting)
        pads: dict[int, Pad] = {}
        for section in ("colour", "position", "beam"):
            for pad in part.document.get(section, ()):
                palette = palettes.get(pad["palette"])
                if palette is None:
                    pads[pad["id"]] = Pad(pad["id"], section, pad.get("name", ""), pad["palette"], gone="its palette is gone")
                    continue
                made = before.get((part.id, pad["id"]))
                if made is None or made.heads is not rig.heads or made.palette is not palette or made.on != heads.tobytes():
                    made = _Made(rig.heads, heads.tobytes(), palette, _claims(rig, palette, heads, section))
                self._pads[part.id, pad["id"]] = made
                nothing = "" if made.claims else "it does nothing on these lights"
                pads[pad["id"]] = Pad(
                    pad["id"], section, pad.get("name") or palette.name, pad["palette"], claims=made.claims, gone=nothing
                )
        for pad in part.document.get("effects", ()):
            if pad.get("pixels"):
                use = pad["pixels"]["map"], pad["pixels"]["picture"]
                pads[pad["id"]] = Pad(
                    pad["id"], "effects", pad.get("name", ""), while_held=pad.get("while_held", False), pixels=use
                )
                continue
            there = pad["effect"] in effects
            players = tuple(player_of(part.id, pad["id"], one.id) for one in acting if one.heads) if there else ()
            pads[pad["id"]] = Pad(
                pad["id"], "effects", pad.get("name", ""), effect=pad["effect"], players=players,
                while_held=pad.get("while_held", False), gone="" if there else "its effect is gone",
            )  # fmt: skip
        for pad in part.document.get("messages", ()):
            pads[pad["id"]] = Pad(pad["id"], "messages", pad.get("name", ""), message=pad["message"])
        level = () if part.kind != LIGHTS else _level(rig, heads)
        return Row(
            part.id, part.page_id, part.position, part.name, part.kind, lit, heads, on, level, pads,
            part.document.get("tempo"), part.document.get("colour_tempo"),
        )  # fmt: skip


def _level(rig: Rig, heads: Ints) -> tuple[Cells, ...]:
    """Full intensity, of heads that nothing leads: of a fixture with a level of its own that one, which scales its cells'."""
    able = np.sort(heads[rig.heads.has[attributes.INTENSITY, heads] & ~rig.led[heads]])
    if not len(able):
        return ()
    full = rig.high[attributes.INTENSITY, able]
    return (Cells("intensity", "number", attributes.INTENSITY * len(rig) + able, full[:, None]),)


def _claims(rig: Rig, palette: Palette, heads: Ints, section: str) -> dict[str, tuple[Cells, ...]]:
    """What a palette sets on heads, by what holds it; of the section's family alone."""
    keys = [rig.heads.keys[head] for head in heads.tolist()]
    names = [name for name in palette.names if attributes.BY_NAME[name].family == section]
    values = held(rig, {name: dict.fromkeys(keys, palette) for name in names})
    chosen = ~np.isnan(values) & rig.heads.has
    found: dict[str, tuple[Cells, ...]] = {}
    for what in dict.fromkeys(map(held_as, names)):
        rows = np.array([held_as(one.name) == what for one in attributes.ATTRIBUTES])
        cells = tuple(cells_of(values, chosen & rows[:, None]))
        if cells:
            found[what] = cells
    return found
