"""A scene beside the rig: which fixture is which, what is new, changed or gone."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from scipy.spatial import cKDTree

from zarabanda.core.rig import stage

from .reading import SceneFixture

NEAR_M = 0.25
"""So near together two places are meant to be the same."""
_SAME_M, _SAME_TURN = 0.005, 2e-3
Fields = dict[str, Any]
"""Of a fixture, by the names of its columns, `mode` by the name of the mode."""


@dataclass
class Comparison:
    """pairs: number in the rig and fixture of the scene; new: of the scene; gone: numbers of the rig."""

    pairs: list[tuple[int, SceneFixture]] = field(default_factory=list)
    new: list[SceneFixture] = field(default_factory=list)
    gone: list[int] = field(default_factory=list)


def compare(rig: Mapping[int, Fields], scene: Sequence[SceneFixture], first: str) -> Comparison:
    """Match by number and by place. first: `number` or `place`; what neither finds is new, or gone.

    By place the nearest two within `NEAR_M` belong together, then the next nearest, each once.
    """
    ways = {"number": (_by_number, _by_place), "place": (_by_place, _by_number)}[first]
    open_rig, open_scene, pairs = dict(rig), dict(enumerate(scene)), {}
    for way in ways:
        for number, n in way(open_rig, open_scene):
            pairs[n] = number
            del open_rig[number], open_scene[n]
    return Comparison([(pairs[n], scene[n]) for n in sorted(pairs)], list(open_scene.values()), sorted(open_rig))


Pairs = list[tuple[int, int]]


def _by_number(rig: Mapping[int, Fields], scene: Mapping[int, SceneFixture]) -> Pairs:
    first: dict[int, int] = {}
    for n, one in scene.items():
        if one.number is not None and one.number in rig:
            first.setdefault(one.number, n)
    return list(first.items())


def _by_place(rig: Mapping[int, Fields], scene: Mapping[int, SceneFixture]) -> Pairs:
    if not rig or not scene:
        return []
    numbers, others = list(rig), list(scene)
    here = cKDTree(np.array([[rig[n]["x"], rig[n]["y"], rig[n]["z"]] for n in numbers]))
    there = cKDTree(np.array([scene[n].place for n in others]))
    near = here.sparse_distance_matrix(there, NEAR_M, output_type="ndarray")
    taken_here, taken_there, found = set[int](), set[int](), []
    for i, j, _ in sorted(near.tolist(), key=lambda row: (round(row[2], 6), row[0], row[1])):
        if i not in taken_here and j not in taken_there:
            taken_here.add(i)
            taken_there.add(j)
            found.append((numbers[i], others[j]))
    return found


def fields_of(one: SceneFixture, mode: str) -> Fields:
    """Columns of a fixture as the scene has them; what it does not say is left out."""
    turns = dict(zip(("turn_x", "turn_y", "turn_z"), one.rotation, strict=True))
    found: Fields = dict(zip("xyz", one.place, strict=True)) | turns | {"layer": one.layer, "class_name": one.class_name}
    found |= {"uuid": one.uuid, "mode": mode}
    if one.universe is not None:
        found |= {"universe": one.universe, "address": one.address}
    if one.name:
        found["name"] = one.name
    return found


def changes(now: Fields, wanted: Fields) -> Fields:
    """What is not so already: places count from half a centimetre, turns by where they point."""
    found = {name: value for name, value in wanted.items() if now[name] != value}
    if all(abs(now[axis] - wanted[axis]) <= _SAME_M for axis in "xyz"):
        found = {name: value for name, value in found.items() if name not in "xyz"}
    turns = ("turn_x", "turn_y", "turn_z")
    same = stage.rotation(*(now[name] for name in turns)) - stage.rotation(*(wanted[name] for name in turns))
    if np.abs(same).max() <= _SAME_TURN:
        found = {name: value for name, value in found.items() if name not in turns}
    return {} if found.keys() == {"uuid"} else found


_WORDS: dict[str, str] = {"number": "number", "name": "name", "mode": "mode", "layer": "layer", "class_name": "class"}


def in_words(number: int, now: Fields, change: Fields) -> str:
    """A change, such as `101: x −7.2 → −7 m; address 1.1 → 2.1`."""
    said = [f"{axis} {now[axis]:g} → {change[axis]:g} m" for axis in "xyz" if axis in change]
    if {"turn_x", "turn_y", "turn_z"} & change.keys():
        said.append("turned")
    if {"universe", "address"} & change.keys():
        said.append(f"address {_address(now)} → {_address(now | change)}")
    said += [f"{word} {now[name] or '—'} → {change[name] or '—'}" for name, word in _WORDS.items() if name in change]
    return f"{number}: {'; '.join(said)}"


def _address(fields: Fields) -> str:
    return "none" if fields["universe"] is None else f"{fields['universe']}.{fields['address']}"


def free_numbers(wanted: Iterable[int | None], taken: set[int]) -> list[int]:
    """A number for each: the wanted one, or the next that is free behind it."""
    found = []
    for one in wanted:
        number = one or 1
        while number in taken:
            number += 1
        taken.add(number)
        found.append(number)
    return found
