"""From parts of the show to the rig that the core works with. What an edit leaves alone stays the same object."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace

import msgspec
import numpy as np

from zarabanda.core.rig.rig import FixtureSpec, Rig, build, repatched
from zarabanda.errors import ZarabandaError
from zarabanda.messages import AnyPart, FixturePart, ModePart

SUBJECTS = frozenset({"mode", "fixture"})
"""Parts that the rig is made of."""


class RigMaker:
    """Makes the rig from its parts, and keeps it: where only addresses changed, its heads are the same object."""

    def __init__(self) -> None:
        self._modes: dict[int, ModePart] = {}
        self._fixtures: dict[int, FixturePart] = {}
        self._specs: dict[int, tuple[FixturePart, ModePart, FixtureSpec]] = {}
        self.rig: Rig = build([])

    @property
    def fixtures(self) -> list[FixtureSpec]:
        """What the rig was made of."""
        return [spec for _, _, spec in self._specs.values()]

    def made(self, parts: Iterable[AnyPart]) -> Rig:
        """The rig of these parts; others are left out. Its heads are in the order of fixture numbers."""
        every = list(parts)
        modes = {one.id: one for one in every if isinstance(one, ModePart)}
        fixtures = {one.id: one for one in sorted((one for one in every if isinstance(one, FixturePart)), key=lambda one: one.id)}
        used = {one.mode for one in fixtures.values()}
        if missing := used - modes.keys():
            raise ZarabandaError(f"A fixture has the mode of number {min(missing)}, which is not there.")
        alike = _heads_are_alike(self._fixtures, fixtures) and all(self._modes.get(n) == modes[n] for n in used)
        self._take_specs(modes, fixtures)
        if not alike:
            self.rig = _with_same_keys(self.rig, build(self.fixtures))
        elif fixtures != self._fixtures:
            self.rig = repatched(self.rig, self.fixtures)
        self._modes, self._fixtures = modes, fixtures
        return self.rig

    def _take_specs(self, modes: Mapping[int, ModePart], fixtures: Mapping[int, FixturePart]) -> None:
        """Fixtures as the core takes them; those whose parts are the same objects as before are not made again."""
        now: dict[int, tuple[FixturePart, ModePart, FixtureSpec]] = {}
        for number, part in fixtures.items():
            known, mode = self._specs.get(number), modes[part.mode]
            if known is not None and known[0] is part and known[1] is mode:
                now[number] = known
            else:
                where = (part.place, part.rotation, part.universe, part.address, part.cell_order)
                now[number] = (part, mode, FixtureSpec(number, part.name, mode.mode, *where))
        self._specs = now  # at once: others read it meanwhile


def _heads_are_alike(before: Mapping[int, FixturePart], now: Mapping[int, FixturePart]) -> bool:
    """Whether fixtures differ in where they listen and how they are called alone."""
    return before.keys() == now.keys() and all(
        one is now[n] or msgspec.structs.replace(one, universe=None, address=None, name="")
        == msgspec.structs.replace(now[n], universe=None, address=None, name="")
        for n, one in before.items()
    )  # fmt: skip


def _with_same_keys(before: Rig, now: Rig) -> Rig:
    """The new rig; where heads are called and mix colour as before, they share the keys, by which that is seen at once."""
    if before.heads.keys == now.heads.keys and np.array_equal(before.mixes, now.mixes):
        return replace(now, heads=replace(now.heads, keys=before.heads.keys))
    return now


def rig_of(parts: Iterable[AnyPart]) -> Rig:
    """The rig of these parts, made anew."""
    return RigMaker().made(parts)
