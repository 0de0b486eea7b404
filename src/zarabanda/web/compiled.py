"""What the web process keeps of the show as compiled, for pictures and previews: routes, rig, cue lists."""

from __future__ import annotations

import threading
from collections.abc import Iterable, Mapping
from typing import TypeVar

from zarabanda.core.effects.palette import Palette
from zarabanda.core.playback.cue_list import CueList
from zarabanda.core.rig.rig import FixtureSpec, Rig
from zarabanda.engine.cueing import SUBJECTS as OF_CUES
from zarabanda.engine.cueing import CueMaker, families_of
from zarabanda.engine.decoding import SUBJECTS as OF_RIG
from zarabanda.engine.decoding import RigMaker
from zarabanda.messages import AnyPart, CueListPart, CuePart, EffectPart, PalettePart, PartKey, RoutePart


class Compiled:
    """Routes, rig and cue lists of the show as it was kept last."""

    def __init__(self) -> None:
        self._rig_maker, self._cue_maker = RigMaker(), CueMaker()
        self._of_rig, self._of_cues = dict[PartKey, AnyPart](), dict[PartKey, AnyPart]()
        self._palettes = dict[PartKey, PalettePart]()
        self._effects = dict[PartKey, EffectPart]()
        self._lists: dict[int, CueList] | None = None
        self._making = threading.Lock()
        self._taken, self._edition = threading.Condition(), 0
        self.rig: Rig = self._rig_maker.rig
        self.routes: list[RoutePart] = []

    @property
    def fixtures(self) -> list[FixtureSpec]:
        """What the rig is made of, by number."""
        return self._rig_maker.fixtures

    def take_in(self, parts: Iterable[AnyPart], gone: Iterable[PartKey], *, whole: bool) -> None:
        """Keep what there is by now. The rig is built anew when it has changed, cue lists when they are asked for."""
        parts, gone = list(parts), set(gone)
        routes = _now({one.key: one for one in self.routes}, [one for one in parts if isinstance(one, RoutePart)], gone, whole)
        self.routes = sorted(routes.values(), key=lambda one: one.id)
        of_rig = _now(self._of_rig, [one for one in parts if one.key[0] in OF_RIG], gone, whole)
        palettes = _now(self._palettes, [one for one in parts if isinstance(one, PalettePart)], gone, whole)
        effects = _now(self._effects, [one for one in parts if isinstance(one, EffectPart)], gone, whole)
        of_cues = _now(self._of_cues, [one for one in parts if one.key[0] in OF_CUES], gone, whole)
        with self._making:
            if of_rig != self._of_rig:
                self._of_rig = of_rig
                self.rig = self._rig_maker.made(of_rig.values())
                self._lists = None
            if palettes != self._palettes or of_cues != self._of_cues or effects != self._effects:
                self._palettes, self._of_cues, self._effects, self._lists = palettes, of_cues, effects, None
        with self._taken:
            self._edition += 1
            self._taken.notify_all()

    @property
    def edition(self) -> int:
        """Counts what was taken in."""
        return self._edition

    def wait_for_another(self, edition: int, patience_s: float) -> None:
        """Wait until something was taken in after that edition, no longer than that."""
        with self._taken:
            self._taken.wait_for(lambda: self._edition != edition, patience_s)

    def prepare(self) -> bool:
        """Make the cue lists before somebody asks for them; False: there is nothing more to do."""
        _ = self.lists
        return False

    @property
    def lists(self) -> Mapping[int, CueList]:
        """Cue lists by number, in their order."""
        with self._making:
            if self._lists is None:
                every = self._of_cues.values()
                palettes = {
                    one.id: Palette(one.name, one.values, one.own, one.models, one.way) for one in self._palettes.values()
                }
                self._lists = self._cue_maker.made(
                    (one for one in every if isinstance(one, CueListPart)),
                    (one for one in every if isinstance(one, CuePart)),
                    palettes, {one.id: families_of(one.document) for one in self._effects.values()}, self.rig,
                )  # fmt: skip
            return self._lists


P = TypeVar("P", bound=AnyPart)


def _now(before: Mapping[PartKey, P], parts: Iterable[P], gone: set[PartKey], whole: bool) -> dict[PartKey, P]:
    kept = {} if whole else {key: part for key, part in before.items() if key not in gone}
    return kept | {part.key: part for part in parts}
