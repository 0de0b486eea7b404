"""How lists and values of heads follow to other lights: aimed at the same points, limited, and what was done to them noted."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Any

import numpy as np

from zarabanda.core.rig import abilities, attributes, followed, matching
from zarabanda.core.rig.modes import head_key

from ..head_keys import Renaming, Values
from .pairs import Heads
from .rigs import RigRows

TURNS = ("pan", "tilt")
_SAID_BY_RED = ("green", "blue")


class Follow(Renaming):
    """What `Heads` says, applied to lists and values. aims: positions are aimed at the same points, else angles are kept."""

    def __init__(self, heads: Heads, before: RigRows, after: RigRows, *, aims: bool) -> None:
        super().__init__(())
        self._each = heads.lists
        self._heads, self._before, self._after, self._aims = heads, before, after, aims
        self._of: dict[str, dict[str, tuple[str, ...]]] = {}
        self.noted: Counter[str] = Counter()

    def taken(self) -> Counter[str]:
        """What was noted since the last time: how often each happened."""
        noted, self.noted = self.noted, Counter()
        return noted

    # lists

    def keys(self, heads: Sequence[str]) -> list[str]:
        """The lights that follow, in the order of those they follow. Where a row is repeated and the list ran along it, so does
        the new one."""
        found = super().keys(heads)
        old = [self._heads.old_rank.get(key, -1) for key in heads]
        if len(old) > 1 and min(old) >= 0 and found:
            rising = all(a < b for a, b in pairwise(old))
            falling = all(a > b for a, b in pairwise(old))
            if rising or falling:
                found.sort(key=self._heads.new_rank.__getitem__, reverse=falling)
        return found

    # values

    def values(self, by_head: Mapping[str, Any]) -> dict[str, Any]:
        """Values by head: those that follow come before what the same head has already."""
        found: dict[str, Any] = {}
        for key, value in by_head.items():
            for new in self._each.get(key, ()):
                found.setdefault(new, value)
        for key, value in by_head.items():
            if key not in self._each:
                found.setdefault(key, value)
        return found

    def look(self, values: Values) -> dict[str, dict[str, Any]]:
        """Values by attribute and head."""
        turned = self._turned(values) if self._aims else {}
        found = {}
        for name, by_head in values.items():
            moved = turned[name] if name in turned else self._carried(name, by_head)
            if moved:
                found[name] = self._in_range(name, moved)
        return found

    def own(self, by_head: Values) -> dict[str, dict[str, Any]]:
        """Values by head and attribute."""
        by_name: dict[str, dict[str, Any]] = {}
        for head, values in by_head.items():
            for name, value in values.items():
                by_name.setdefault(name, {})[head] = value
        found: dict[str, dict[str, Any]] = {}
        for name, heads in self.look(by_name).items():
            for head, value in heads.items():
                found.setdefault(head, {})[name] = value
        return found

    def targets(self, attribute: str) -> dict[str, tuple[str, ...]]:
        """Heads that take over values of an attribute, by old key; those of `colour` and `position` likewise."""
        if attribute not in self._of:
            plain = attributes.touched(attribute)[0]
            made, parts = dict.fromkeys(self._each, ()), dict[tuple[int, int], matching.Parts]()
            grown: dict[str, list[str]] = {}
            for number, old in self._heads.came.items():
                modes = self._before.mode_of[old], self._after.mode_of[number]
                pair = id(modes[0]), id(modes[1])
                if pair not in parts:
                    parts[pair] = matching.parts_in_values(*modes, plain)
                for part, now in parts[pair].items():
                    grown.setdefault(head_key(old, part), []).extend(head_key(number, one) for one in now)
            self._of[attribute] = made | {key: tuple(now) for key, now in grown.items()}
        return self._of[attribute]

    def _carried(self, name: str, by_head: Mapping[str, Any]) -> dict[str, Any]:
        """Values of one attribute on the heads that follow."""
        targets = self.targets(name)
        found: dict[str, Any] = {}
        for key, value in by_head.items():
            now = targets.get(key, ())
            if not now and self._each.get(key) and name not in _SAID_BY_RED:
                self.noted[f"no {_called(name)} there"] += 1
            for new in now:
                found.setdefault(new, value)
        for key, value in by_head.items():
            if key not in targets:
                found.setdefault(key, value)
        return found

    def _in_range(self, name: str, values: dict[str, Any]) -> dict[str, Any]:
        if name not in attributes.BY_NAME:
            return values
        index = self._after.rig.heads.index
        plain = [key for key, value in values.items() if isinstance(value, int | float) and key in index]
        if not plain:
            return values
        lights = abilities.numbers(self._after.rig, plain)
        numbers = np.array([values[key] for key in plain], float)
        made = followed.limited(self._after.rig, name, lights, numbers)
        for n in np.flatnonzero(made.changed).tolist():
            values[plain[n]] = float(made.values[n])
        if made.changed.any():
            self.noted[f"{_called(name)} limited to what they can do"] += int(made.changed.sum())
        return values

    def _turned(self, values: Values) -> dict[str, dict[str, Any]]:
        """Pan and tilt of the new heads where both were numbers; other values as they would be without."""
        pans, tilts = (values.get(name, {}) for name in TURNS)
        pairs = [
            (key, new)
            for key in pans
            if _is_number(pans[key]) and _is_number(tilts.get(key))
            for new in self.targets("tilt").get(key, ())
            if new in self._after.rig.heads.index
        ]
        if not pairs:
            return {}
        old, new = (list(one) for one in zip(*pairs, strict=True))
        lights, others = abilities.numbers(self._before.rig, old), abilities.numbers(self._after.rig, new)
        pan, tilt = (np.array([one[key] for key in old], float) for one in (pans, tilts))
        made = followed.aimed_alike(self._before.rig, lights, pan, tilt, self._after.rig, others)
        self.noted["aimed at the same point"] += len(pairs)
        if not made.reached.all():
            self.noted["cannot reach the point: aimed as near to it as they can"] += int((~made.reached).sum())
        found = {}
        for name, numbers in zip(TURNS, (made.pan, made.tilt), strict=True):
            aimed: dict[str, Any] = {}
            for key, value in zip(new, numbers.round(4).tolist(), strict=True):
                aimed.setdefault(key, value)
            for key, value in values[name].items():
                for one in self.targets(name).get(key, () if key in self._each else (key,)):
                    aimed.setdefault(one, value)
            found[name] = aimed
        return found


def _is_number(value: Any) -> bool:
    return isinstance(value, int | float) and not isinstance(value, bool)


def _called(name: str) -> str:
    """What an attribute is called within a sentence."""
    return (
        attributes.BY_NAME[name].label.lower() if name in attributes.BY_NAME and name != "red" else name.replace("red", "colour")
    )
