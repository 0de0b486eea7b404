"""The geometries of a mode: which of them are cells, where these stand, and to which of them a channel belongs.

GDTF hangs a fixture: z is up and light goes down. Here a fixture stands (`core.rig.stage`): half a turn about y between them.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import NDArray

from .words import EMITTERS

Place = tuple[float, float, float]
_DEEPEST = 60
_APART_M = 0.1


@dataclass
class Geometry:
    """A geometry by its name: where it is in metres beside the fixture, those that it lies in, and its light, if it is one.

    refers: the geometry whose channels it has, where that is another; breaks: the addresses (number, offset from 1) of these.
    """

    name: str
    place: Place
    within: tuple[str, ...]
    beam: Any = None
    refers: str = ""
    breaks: tuple[tuple[int, int], ...] = ()

    def address(self, of_break: int | str) -> tuple[int, int]:
        """Which address, and from which slot of it on, its channels of a break have; `Overwrite`: of the last break."""
        if of_break == "Overwrite":
            return self.breaks[-1] if self.breaks else (1, 1)
        return int(of_break), dict(self.breaks).get(int(of_break), 1)


@dataclass
class Cells:
    """names: of the geometries that are cells, in their order; places: in metres; notes: what was made up."""

    names: list[str] = field(default_factory=list)
    places: list[Place] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)

    def by_geometry(self, geometries: Mapping[str, Geometry]) -> dict[str, int]:
        """The number of the cell that channels of each geometry belong to: it is one, lies in one, or has only this one in it.
        Those of the others belong to the whole, 0."""
        numbers = {name: n for n, name in enumerate(self.names, 1)}
        inside: dict[str, list[int]] = {}
        for name, number in numbers.items():
            for outer in geometries[name].within if name in geometries else ():
                inside.setdefault(outer, []).append(number)
        found = dict.fromkeys(geometries, 0) | {name: own[0] for name, own in inside.items() if len(own) == 1}
        for name, one in geometries.items():
            found[name] = next((numbers[outer] for outer in one.within if outer in numbers), found[name])
        return found | numbers


def geometries_of(fixture: Any, root_name: str) -> dict[str, Geometry]:
    """All geometries of a mode by name, those of references too."""
    roots = {one.name: one for one in _every(fixture.geometries, 0)}
    start = roots.get(root_name) or (fixture.geometries[0] if fixture.geometries else None)
    found: dict[str, Geometry] = {}
    if start is not None:
        for one in _walk(start, np.eye(4), (), roots, 0):
            found.setdefault(one.name, one)
    return found


def _every(geometries: Any, deep: int) -> Iterator[Any]:
    for one in geometries:
        yield one
        if deep < _DEEPEST:
            yield from _every(getattr(one, "geometries", ()), deep + 1)


def _walk(one: Any, at: NDArray[np.float64], within: tuple[str, ...], roots: Mapping[str, Any], deep: int) -> Iterator[Geometry]:
    at = at @ np.array(one.position.matrix, float)
    x, y, z = at[:3, 3].round(6).tolist()
    refers = hasattr(one, "breaks")
    meant = roots.get(str(one.geometry)) if refers else one
    breaks = tuple((row.dmx_break, row.dmx_offset.address) for row in one.breaks) if refers else ()
    beam = meant if hasattr(meant, "beam_angle") else None
    yield Geometry(str(one.name), (-x + 0.0, y, -z + 0.0), within, beam, str(one.geometry) if refers else "", breaks)
    if refers or deep > _DEEPEST:
        return
    for child in getattr(one, "geometries", ()):
        yield from _walk(child, at, (*within, str(one.name)), roots, deep + 1)


def cells_of(sources: Mapping[str, set[str]], geometries: Mapping[str, Geometry]) -> Cells:
    """Geometries that light alike, two or more, are cells. sources: what the channels of each geometry could drive, in the
    order of their slots."""
    lit = {name: frozenset(those & (EMITTERS | {"intensity"})) for name, those in sources.items()}
    alike = Counter(what for what in lit.values() if what)
    often = [(what, count) for what, count in alike.items() if count > 1]
    if not often:
        return Cells()
    chosen = max(often, key=lambda one: (bool(one[0] & EMITTERS), one[1]))[0]
    found = Cells([name for name, what in lit.items() if what == chosen])
    found.places = [geometries[name].place if name in geometries else (0.0, 0.0, 0.0) for name in found.names]
    if len(set(found.places)) < len(found.places):
        middle = (len(found.names) - 1) / 2
        found.places = [(round((n - middle) * _APART_M, 6), 0.0, 0.0) for n in range(len(found.names))]
        found.notes.append(f"some of its {len(found.names)} cells are in one place: they are drawn in a row, 0.1 m apart")
    return found
