"""What songs are at positions, kept as it is asked for: check-points from which a position is soon reached."""

from __future__ import annotations

import threading
from bisect import bisect_right
from collections.abc import Callable, Iterable, Mapping
from typing import Any

from zarabanda.core.timecode.timeline import Occurrence, Timeline

KEPT_EVERY_S = 4.0
"""So often, in s of the song, what it is there is kept."""
_KEPT = 12
"""For so many songs, and sets of what hands hold of them."""
Key = tuple[int, frozenset[str]]
"""A timeline, and subjects that it leaves to hands."""
Fold = Callable[[Any, Iterable[Occurrence], float], Any]
"""A state after some occurrences, and at a position."""


class Folds:
    """For one program. Used by the loop, and by who prepares jumps for it."""

    def __init__(self) -> None:
        self._kept: dict[Key, list[tuple[float, Any]]] = {}
        self._latest: dict[Key, tuple[float, Any]] = {}
        self._turn = threading.Lock()

    def at(self, timeline: Timeline, p: float, hands: frozenset[str], fresh: Callable[[], Any], fold: Fold) -> Any:
        """The state of a song at a position, from the check-point before it. fresh: before all that it does."""
        key = timeline.id, hands
        with self._turn:
            latest = self._latest.get(key)
            if latest is not None and latest[0] == p:
                return latest[1]
            kept = self._of(key, fresh)
            while (following := max(kept[-1][0] + KEPT_EVERY_S, KEPT_EVERY_S)) <= p:
                at, state = kept[-1]
                kept.append((following, fold(state, timeline.between(at, following), following)))
            at, state = kept[bisect_right([one for one, _ in kept], p) - 1]
            found = fold(state, timeline.between(at, p), p)
            self._latest[key] = p, found
            return found

    def go_on(self, timeline: Timeline, hands: frozenset[str], fresh: Callable[[], Any], fold: Fold) -> bool:
        """Make the next check-point of a song, without keeping others from what is there; whether there was one to be made."""
        with self._turn:
            kept = self._of((timeline.id, hands), fresh)
            last = kept[-1]
        following = max(last[0] + KEPT_EVERY_S, KEPT_EVERY_S)
        if following > timeline.length:
            return False
        made = (following, fold(last[1], timeline.between(last[0], following), following))
        with self._turn:
            if kept[-1] is last:  # nobody was quicker
                kept.append(made)
        return True

    def _of(self, key: Key, fresh: Callable[[], Any]) -> list[tuple[float, Any]]:
        """The check-points of a song, now the last to go."""
        kept = self._kept.pop(key, None) or [(float("-inf"), fresh())]
        self._kept[key] = kept
        for old in list(self._kept)[:-_KEPT]:
            self._kept.pop(old)
            self._latest.pop(old, None)
        return kept

    def carried(self, before: Mapping[int, Timeline], now: Mapping[int, Timeline], moved: Callable[[Any], Any]) -> Folds:
        """For a program in which nothing but timelines differs: what lies before the first difference is kept. moved: a state in
        that program."""
        carried = Folds()
        with self._turn:
            every = [(key, list(kept)) for key, kept in self._kept.items()]
        for (number, hands), kept in every:
            old, new = before.get(number), now.get(number)
            if old is not None and new is not None and old.grid == new.grid:
                until = first_difference(old, new)
                carried._kept[number, hands] = [(at, moved(state)) for at, state in kept if at < until]
        return carried


def first_difference(one: Timeline, other: Timeline) -> float:
    """From which position on two timelines do not do the same; infinity: they do."""
    if one is other:
        return float("inf")
    for mine, theirs in zip(one.occurrences, other.occurrences, strict=False):
        if mine is not theirs and mine != theirs:
            return min(mine.at, theirs.at)
    shorter, longer = sorted((one.occurrences, other.occurrences), key=len)
    return longer[len(shorter)].at if len(longer) > len(shorter) else float("inf")
