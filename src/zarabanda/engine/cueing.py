"""Making cue lists from parts of the show: values as arrays on the rig. A cue that an edit leaves alone is not made again."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects.palette import Palette
from zarabanda.core.playback.cue_list import CueList, Round
from zarabanda.core.playback.cues import Cue, EffectChange, PixelChange, Times, Trigger
from zarabanda.core.playback.looks import held
from zarabanda.core.rig import attributes
from zarabanda.core.rig.heads import Heads
from zarabanda.core.rig.rig import Rig
from zarabanda.messages import CueListPart, CuePart, HeldValues, PaletteUse, PlayerId
from zarabanda.messages.looks import look_of

Ints = NDArray[np.int64]

SUBJECTS = frozenset({"cue", "cue-list"})
"""Parts that cue lists are made of."""


def player_of(list_id: int, thread: int) -> PlayerId:
    """The key of what plays a thread of a list."""
    return PlayerId(f"list:{list_id}:{thread}")


def list_of(key: PlayerId) -> int:
    """The list whose thread is played by this key; 0: none."""
    kind, _, rest = key.partition(":")
    return int(rest.partition(":")[0]) if kind == "list" else 0


def values_of(document: Mapping[str, Any]) -> HeldValues:
    """The values of a cue as messages have them: numbers by plain attribute, or the palette."""
    found: HeldValues = {}
    for name, heads in document.get("values", {}).items():
        for part, attribute in enumerate(attributes.touched(name)):
            own = found.setdefault(attribute, {})
            for head, value in heads.items():
                if isinstance(value, float):
                    own[head] = value
                elif isinstance(value, dict):
                    own[head] = PaletteUse(value["palette"])
                elif isinstance(value, str):
                    own[head] = int(value[1 + 2 * part : 3 + 2 * part], 16) / 255
                else:
                    own[head] = float(value)
    return found


@dataclass(frozen=True, eq=False)
class _Made:
    """A cue, and what it was made of: palettes by number, None where one is not there."""

    part: CuePart
    heads: Heads
    palettes: Mapping[int, Palette | None]
    cue: Cue

    def stands(self, part: CuePart, heads: Heads, palettes: Mapping[int, Palette]) -> bool:
        """Whether it would be made alike."""
        same = self.part is part and self.heads is heads
        return same and all(palettes.get(number) is one for number, one in self.palettes.items())


def families_of(document: Mapping[str, Any]) -> frozenset[str]:
    """Families in which the layers of an effect act."""
    acting = [layer for layer in document.get("layers", ()) if not layer.get("muted")]
    names = (attributes.touched(str(layer.get("attribute")))[0] for layer in acting)
    return frozenset(attributes.BY_NAME[name].family for name in names if name in attributes.BY_NAME)


class CueMaker:
    """Makes cue lists, and keeps what it made of each part."""

    def __init__(self) -> None:
        self._cues: dict[int, _Made] = {}
        self._lists: dict[int, tuple[CueListPart, CueList]] = {}

    def made(
        self,
        lists: Iterable[CueListPart],
        parts: Iterable[CuePart],
        palettes: Mapping[int, Palette],
        families: Mapping[int, frozenset[str]],
        rig: Rig,
    ) -> dict[int, CueList]:
        """All lists, in their order. families: in which each effect acts, by number."""
        by_list: dict[int, list[CuePart]] = {}
        for part in parts:
            by_list.setdefault(part.list_id, []).append(part)
        self._cues = {part.id: self._cue(part, palettes, rig) for every in by_list.values() for part in every}
        found = {}
        for one in sorted(lists, key=lambda one: (one.position, one.id)):
            own = sorted(by_list.get(one.id, ()), key=lambda part: part.number)
            cues = tuple(self._cues[part.id].cue for part in own)
            threads = {
                change["thread"]: frozenset(change.get("families") or families.get(change["effect"], attributes.FAMILIES))
                for part in own for change in part.document.get("effects", ()) if change["do"] == "start"
            }  # fmt: skip
            found[one.id] = self._list(one, cues, threads, rig)
        self._lists = {number: (made_of, made) for number, (made_of, made) in found.items()}
        return {number: made for number, (_, made) in found.items()}

    def _cue(self, part: CuePart, palettes: Mapping[int, Palette], rig: Rig) -> _Made:
        known = self._cues.get(part.id)
        if known is not None and known.stands(part, rig.heads, palettes):
            return known
        values = values_of(part.document)
        used = {value.palette for heads in values.values() for value in heads.values() if isinstance(value, PaletteUse)}
        return _Made(part, rig.heads, {number: palettes.get(number) for number in used}, cue_of(part, values, palettes, rig))

    def _list(
        self, part: CueListPart, cues: tuple[Cue, ...], threads: Mapping[int, frozenset[str]], rig: Rig
    ) -> tuple[CueListPart, CueList]:
        known = self._lists.get(part.id)
        if known is not None and known[0] is part and (known[1].shape, known[1].threads) == (rig.home.shape, threads):
            before = known[1].cues
            if len(before) == len(cues) and all(a is b for a, b in zip(before, cues, strict=True)):
                return known
        made = _list(part, cues, threads, rig)
        made.prepare(known[1] if known is not None else None)
        return part, made


def cue_of(part: CuePart, values: HeldValues, palettes: Mapping[int, Palette], rig: Rig) -> Cue:
    """A cue on a rig. Heads that the rig does not have are left out."""
    document = part.document
    look = held(rig, look_of(values, palettes))
    numbers = look.reshape(-1)
    places = np.flatnonzero(~np.isnan(numbers))
    of_palette = np.full(look.shape, -1, np.int64)
    for name, heads in values.items():
        row = attributes.INDEX[name]
        for head, value in heads.items():
            if isinstance(value, PaletteUse) and head in rig.heads.index:
                of_palette[row, rig.heads.index[head]] = value.palette
    trigger = document.get("trigger", {})
    return Cue(
        part.id, part.number, document.get("name", ""), places, numbers[places], of_palette.reshape(-1)[places],
        _places(document.get("stops", {}), rig), _places(document.get("only_here", {}), rig), len(rig),
        document.get("states_everything", False), document.get("everything_else_out", False),
        Times.from_document(document.get("times", {})), document.get("ease", "linear"), document.get("space", ""),
        Trigger(trigger.get("kind", "go"), trigger.get("wait", 0.0), trigger.get("tempo")),
        tuple(_effect_change(one) for one in document.get("effects", ())), document.get("takes_over", True),
        document.get("dark_moves", True),
        np.array([rig.heads.index[key] for key in document.get("seen_moves", ()) if key in rig.heads.index], np.int64),
        tuple(
            PixelChange(one["do"], (one["map"], one.get("picture", 0)), one.get("share", 1.0), one.get("over"))
            for one in document.get("pixels", ())
        ),
    )  # fmt: skip


def _effect_change(one: Mapping[str, Any]) -> EffectChange:
    return EffectChange(one["do"], one["thread"], one.get("depth", 1.0), one.get("speed", 1.0))


def _places(cells: Mapping[str, Iterable[str]], rig: Rig) -> Ints:
    """Flat places of cells."""
    found = [
        attributes.INDEX[attribute] * len(rig) + rig.heads.index[head]
        for name, heads in cells.items()
        for attribute in attributes.touched(name)
        for head in heads
        if head in rig.heads.index
    ]
    return np.array(sorted(set(found)), np.int64)


def _list(part: CueListPart, cues: tuple[Cue, ...], threads: Mapping[int, frozenset[str]], rig: Rig) -> CueList:
    settings = part.settings
    goes_round = Round(
        settings.get("round_by", "hand"), settings.get("round_every", 1.0), settings.get("round_tempo"),
        settings.get("round_order", "forward"), settings.get("seed", 1),
    )  # fmt: skip
    return CueList(
        part.id, part.name, cues, (rig.home.shape[0], rig.home.shape[1]), part.position, settings.get("highest_wins", False),
        settings.get("protected", False), settings.get("fader", "dims"), settings.get("back", 1.0),
        goes_round if settings.get("goes_round") else None,
        settings.get("ends_in", 2.0) if settings.get("ends") == "releases" else None, threads,
    )  # fmt: skip
