"""Pairs of groups, of a rig and of another one: proposed by name, kind and place, and the match of their lights."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.rig import matching
from zarabanda.core.rig.modes import head_key, head_keys, lit_keys
from zarabanda.errors import ZarabandaError, brief

from .rigs import RigRows

Ints = NDArray[np.int64]
Way = Literal["middle", "place", "order", "hand"]
_LEAST = 2.0
_NAME, _KIND, _ABLE, _PLACE = 2.0, 1.5, 1.5, 1.0
"""What names, kinds, abilities and places that are alike count in a proposal."""
_NEAR_M = 4.0


@dataclass(frozen=True)
class Side:
    """Lights of a rig that are matched as one: a group's, or those of a model that no group has. numbers: in their order;
    group: its number in the show, 0: none."""

    name: str
    numbers: tuple[int, ...]
    group: int = 0
    of_group: bool = True


@dataclass(frozen=True)
class Pair:
    """Lights, and those of the other rig that take over from them; none: what they did goes. match: by hand: for each of the
    others the index of the light that it stands for; −1: none."""

    source: Side
    target: Side | None
    way: Way = "middle"
    repeats: bool = False
    match: tuple[int, ...] = ()


def sides(rig: RigRows) -> list[Side]:
    """Groups whose lights are not all in ones before; those of one kind first, large ones before small ones. Then what is in no
    group, by model."""
    taken, found = set[int](), list[Side]()
    groups = [Side(one.name, numbers_of(one.heads, rig), one.id) for one in rig.groups]
    mixed = {one: len({rig.mode_of[number].name for number in one.numbers}) > 1 for one in groups}
    for one in sorted((one for one in groups if one.numbers), key=lambda one: (mixed[one], -len(one.numbers))):
        if not taken.issuperset(one.numbers) and not (mixed[one] and taken.intersection(one.numbers)):
            found.append(one)
            taken.update(one.numbers)
    found.sort(key=groups.index)
    left: dict[str, list[int]] = {}
    for fixture in rig.fixtures:
        if fixture.number not in taken:
            left.setdefault(rig.modes[fixture.mode].model or fixture.mode, []).append(fixture.number)
    return found + [Side(f"{model}, in no group", tuple(numbers), of_group=False) for model, numbers in left.items()]


def side_of(rig: RigRows, numbers: Sequence[int], name: str, group: int = 0) -> Side:
    """Some lights of a rig. ZarabandaError where there are none, or one is not there."""
    for number in numbers:
        if number not in rig.mode_of:
            raise ZarabandaError(f"{brief(name, 60)}: there is no fixture {number} in that rig. Load the rigs anew.", "pairs")
    if not numbers:
        raise ZarabandaError(f"{brief(name, 60)} has no lights. Choose a group with lights.", "pairs")
    return Side(name, tuple(dict.fromkeys(numbers)), group)


def numbers_of(heads: Sequence[str], rig: RigRows) -> tuple[int, ...]:
    """The fixtures of heads, each once, in their order."""
    numbers = dict.fromkeys(int(key.partition(".")[0]) for key in heads)
    return tuple(number for number in numbers if number in rig.mode_of)


def proposed(before: RigRows, after: RigRows) -> list[Pair]:
    """A pair for each side of a rig: with the side of the other one that is most like it, or none."""
    here, there = sides(before), sides(after)
    scores = np.array([[_likeness(one, before, other, after) for other in there] for one in here]).reshape(len(here), len(there))
    found = matching.by_score(scores, _LEAST)
    return [Pair(one, there[at] if at >= 0 else None) for one, at in zip(here, found, strict=True)]


def _likeness(here: Side, before: RigRows, there: Side, after: RigRows) -> float:
    able = [_able(here, before), _able(there, after)]
    if not able[0] & able[1]:
        return 0.0
    names = [{word.rstrip("s") for word in re.findall(r"\w+", side.name.lower())} for side in (here, there)]
    kinds = [{rig.mode_of[number].kind for number in side.numbers} for side, rig in ((here, before), (there, after))]
    middles = [_places(side, rig).mean(axis=0) for side, rig in ((here, before), (there, after))]
    far = float(np.linalg.norm(middles[0] - middles[1]))
    return _NAME * _shared(*names) + _KIND * _shared(*kinds) + _ABLE * _shared(*able) + _PLACE / (1 + far / _NEAR_M)


def _shared(one: set[str], other: set[str]) -> float:
    return len(one & other) / max(len(one | other), 1)


def _able(side: Side, rig: RigRows) -> set[str]:
    modes = {rig.mode_of[number].name: rig.mode_of[number] for number in side.numbers}
    return {name for mode in modes.values() for part in mode.parts for name in mode.attributes_of(part)}


def common(pair: Pair, before: RigRows, after: RigRows) -> set[str]:
    """What both sides of a pair can do."""
    return _able(pair.source, before) & _able(pair.target, after) if pair.target else set()


def _places(side: Side, rig: RigRows) -> NDArray[np.float64]:
    return np.array([rig.places[number] for number in side.numbers], float)


def matched(pair: Pair, before: RigRows, after: RigRows) -> Ints:
    """For each light of the target the index of the one of the source that it stands for; −1: none. ZarabandaError where a match
    by hand does not fit."""
    if pair.target is None:
        return np.zeros(0, np.int64)
    n, m = len(pair.source.numbers), len(pair.target.numbers)
    if pair.way == "hand":
        if len(pair.match) != m or not all(-1 <= one < n for one in pair.match):
            raise ZarabandaError(
                f"{brief(pair.source.name, 60)}: a match by hand gives each of the {m} lights one of the {n}, or none.", "match"
            )
        return np.array(pair.match, np.int64)
    if pair.way == "place":
        return matching.by_place(_places(pair.source, before), _places(pair.target, after))
    if pair.way == "middle":
        return matching.from_the_middle_on_stage(_places(pair.source, before), _places(pair.target, after), repeats=pair.repeats)
    return matching.by_order(n, m, repeats=pair.repeats)


def is_mirrored(pair: Pair, before: RigRows, after: RigRows) -> bool:
    """Whether what was symmetrical on the source is so on the target."""
    match = matched(pair, before, after)
    if pair.target is None or (match < 0).any():
        return False
    return matching.is_mirrored(
        match, matching.partners(_places(pair.source, before)), matching.partners(_places(pair.target, after))
    )


def in_words(pair: Pair, before: RigRows, after: RigRows) -> str:
    """How the lights of a pair are matched, and whether what was symmetrical stays so, in a sentence or two."""
    if pair.target is None:
        return "Nothing takes over: what they did goes."
    n, m = len(pair.source.numbers), len(pair.target.numbers)
    if pair.way == "hand":
        said = "As drawn by hand."
    elif m > n:
        said = f"The row of {n} is repeated over {m}." if pair.repeats else f"The {n} are spread over {m}."
    elif m == n:
        said = "One for one."
    else:
        said = f"{m} take over from {_WHICH[pair.way]} of {n}."
    if is_mirrored(pair, before, after):
        return f"{said} Still mirrored."
    return f"{said} Not mirrored any more."


_WHICH: dict[Way, str] = {"middle": "the inner ones", "place": "the nearest ones", "order": "the first ones", "hand": "some"}


def facing(side: Side, rig: RigRows) -> dict[str, str]:
    """The head that faces each one of a side: of the light across, cells from their other end."""
    other = matching.partners(_places(side, rig)).tolist()
    found = dict[str, str]()
    for number, at in zip(side.numbers, other, strict=True):
        here, there = (lit_keys(one, rig.mode_of[one]) for one in (number, side.numbers[at]))
        found |= dict(zip(here, reversed(there), strict=False)) if len(here) == len(there) else {key: key for key in here}
    return found


@dataclass(frozen=True)
class Heads:
    """What becomes of heads. lists: by old key, the new ones in selections; came: by number of a fixture of the other rig,
    that of the one it stands for; old_rank, new_rank: places in rows that are repeated, where lists are put in order by them."""

    lists: Mapping[str, tuple[str, ...]]
    came: Mapping[int, int]
    old_rank: Mapping[str, int]
    new_rank: Mapping[str, int]


def heads_of(pairs: Sequence[Pair], before: RigRows, after: RigRows) -> Heads:
    """What becomes of all heads of the pairs. A light that is in several counts in the first."""
    came: dict[int, int] = {}
    old_rank: dict[str, int] = {}
    new_rank: dict[str, int] = {}
    for pair in pairs:
        if pair.target is None:
            continue
        for number, at in zip(pair.target.numbers, matched(pair, before, after).tolist(), strict=True):
            if at >= 0:
                came.setdefault(number, pair.source.numbers[at])
        if pair.repeats and len(pair.target.numbers) > len(pair.source.numbers):
            old_rank |= {key: n for n, key in enumerate(_every_key(pair.source.numbers, before))}
            new_rank |= {key: n for n, key in enumerate(_every_key(pair.target.numbers, after))}
    lists: dict[str, tuple[str, ...]] = {key: () for pair in pairs for key in _every_key(pair.source.numbers, before)}
    for number, old in came.items():
        parts = matching.parts_in_lists(before.mode_of[old], after.mode_of[number])
        for part, now in parts.items():
            lists[head_key(old, part)] += tuple(head_key(number, one) for one in now)
    return Heads(lists, came, old_rank, new_rank)


def _every_key(numbers: Sequence[int], rig: RigRows) -> list[str]:
    return [key for number in numbers for key in head_keys(number, rig.mode_of[number])]
