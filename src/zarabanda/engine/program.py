"""What the engine works on: one immutable program, swapped in between two frames."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any

import numpy as np

from zarabanda.core.effects.effect import Effect
from zarabanda.core.effects.placement import Placed, place
from zarabanda.core.effects.variants import AS_IT_IS, Variant, varied
from zarabanda.core.playback.cue_list import CueList
from zarabanda.core.playback.kept_looks import KeptLook
from zarabanda.core.playback.looks import Floats, Ints, held
from zarabanda.core.playback.specials import Special
from zarabanda.core.rig.heads import Heads
from zarabanda.core.rig.rig import Rig, build
from zarabanda.core.timecode.timeline import Timeline
from zarabanda.messages import ControlId, DevicePart, PlayerId, RoutePart, TempoPart

from .controls import Control
from .folds import Folds
from .hearing import Sounds
from .messaging import ActionList, CueMessage
from .pixels import PixelMap, Stack
from .rows import ALL, Row


@dataclass(frozen=True)
class Instance:
    """An effect on a selection, that may play. always: plays as long as it is there; keys: of the rig's heads; list_id: the
    cue list that starts it, row_id: the row of a busking page that it plays on, overlay_id: the overlay that it is of, 0: none;
    depth: share of the effect's own, 0…1; speed: times its own; picked: its heads in pick order, of all `heads`."""

    key: PlayerId
    effect_id: int
    name: str
    source: str
    effect: Effect
    placed: Placed
    always: bool
    keys: Sequence[str] = ()
    list_id: int = 0
    depth: float = 1.0
    speed: float = 1.0
    row_id: int = 0
    overlay_id: int = 0
    picked: Ints | None = None
    heads: Heads | None = None

    @cached_property
    def _variants(self) -> dict[Variant, Instance]:
        return {}

    def varied(self, variant: Variant) -> Instance:
        """The same played another way; the same one again for the same way."""
        effect = varied(self.effect, variant) if variant != AS_IT_IS else self.effect
        if effect == self.effect or self.picked is None or self.heads is None:
            return self
        known = self._variants.get(variant)
        if known is None:
            placed = place(effect, self.picked, self.heads, self.placed.drifts)
            known = self._variants[variant] = replace(self, effect=effect, placed=placed)
        return known

    @cached_property
    def families(self) -> tuple[int, ...]:
        """Families in which it acts, by their number."""
        return tuple(sorted({block.family for block in self.placed.blocks}))


@dataclass(frozen=True)
class Program:
    """Everything that the show gives the engine. Swapped in whole, between two frames.

    draft: what is set by hand, (A, N), NaN where nothing is; draft_palettes: of which palette it is, by number, −1 of none;
    tempos: by number, in their order; opening: actions as plain data, done once; fade_s: in which values set by hand go where
    they go now; way: of colours, where a palette has none; ways: of those that have one, by their number.
    """

    rig: Rig
    revision: int
    draft: Floats
    draft_palettes: Ints
    instances: dict[PlayerId, Instance]
    controls: dict[ControlId, Control]
    tempos: dict[int, TempoPart]
    opening: tuple[Any, ...]
    let_go: tuple[PlayerId, ...] = ()
    written_back: tuple[PlayerId, ...] = ()
    """What the show holds now as hands had changed it live."""
    faults: tuple[str, ...] = ()
    """What of the show could not be read, in words."""
    fade_s: float = 0.0
    routes: tuple[RoutePart, ...] = ()
    way: str = "rgb"
    ways: Mapping[int, str] = field(default_factory=dict)
    lists: Mapping[int, CueList] = field(default_factory=dict)
    """Cue lists by number, in their order."""
    specials: Mapping[int, Special] = field(default_factory=dict)
    rows: Mapping[int, Row] = field(default_factory=dict)
    """Rows of busking pages by number, in their order."""
    looks: Mapping[int, KeptLook] = field(default_factory=dict)
    """Kept looks by number, in their order; those that are overlays lie over one another in it."""
    messages: Mapping[int, tuple[CueMessage, ...]] = field(default_factory=dict)
    """What cues send, by the number of the cue in the show."""
    maps: Mapping[int, PixelMap] = field(default_factory=dict)
    """Pixel maps by number."""
    pictures: Mapping[int, Stack] = field(default_factory=dict)
    """Pictures of the library by number."""
    sounds: Sounds = field(default_factory=Sounds)
    """What picture layers hear."""
    action_lists: Mapping[int, ActionList] = field(default_factory=dict)
    timelines: Mapping[int, Timeline] = field(default_factory=dict)
    """Songs by number, in their running order."""
    timecode_in: str = ""
    line_in: str = ""
    """Where timecode comes from."""
    folds: Folds = field(default_factory=Folds, compare=False)
    """What songs are at positions."""
    devices: tuple[DevicePart, ...] = ()
    session: str = ""
    show: str = ""
    """Which show of the library it is; another one begins anew."""
    """Who counts the revisions: another web process begins anew."""

    @cached_property
    def for_songs(self) -> Program:
        """What songs play by: without what is set by hand, or begins by itself."""
        instances = {key: one for key, one in self.instances.items() if not one.always}
        return replace(
            self, draft=np.full_like(self.draft, np.nan), draft_palettes=no_palettes(self.rig), instances=instances, opening=(),
            let_go=(), written_back=(), fade_s=0.0,
        )  # fmt: skip

    def top_of(self, row: Row) -> Row | None:
        """The row for all of the page of a row."""
        return next((one for one in self.rows.values() if one.page == row.page and one.kind == ALL), None)


def no_palettes(rig: Rig) -> Ints:
    """That nothing set by hand comes from a palette, (A, N); without memory of its own, since rigs can be large."""
    return np.broadcast_to(np.int64(-1), rig.home.shape)


EMPTY_RIG = build([])
EMPTY = Program(EMPTY_RIG, 0, held(EMPTY_RIG, {}), no_palettes(EMPTY_RIG), {}, {}, {}, ())
