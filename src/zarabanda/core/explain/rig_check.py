"""What is odd about a rig: each with the fixtures that it concerns, in words, and what would mend it."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any

from zarabanda.core.rig import patch
from zarabanda.core.rig.modes import Place
from zarabanda.core.rig.rig import FixtureSpec

_NEAR_M = 0.02
_PARTNER_M = 0.15
_MOSTLY = 0.6


@dataclass(frozen=True)
class Odd:
    """kind: what it is; numbers: fixtures; mend: how its button is called, empty where there is none, and what it asks for."""

    kind: str
    numbers: tuple[int, ...]
    text: str
    mend: str = ""
    ask: dict[str, Any] = field(default_factory=dict)


def blocks_of(fixtures: Sequence[FixtureSpec]) -> list[patch.Block]:
    """The slots that fixtures take."""
    return [
        patch.Block(one.number, one.universe, one.address, one.mode.footprint)
        for one in fixtures
        if one.universe is not None and one.address is not None
    ]


def odd_of(fixtures: Sequence[FixtureSpec], carried: Collection[int] | None = None) -> list[Odd]:
    """All that is odd, what keeps light from coming first. carried: universes that some output carries; None: all."""
    return [
        *_overlaps(fixtures), *_without_address(fixtures), *_without_output(fixtures, carried), *_same_place(fixtures),
        *_without_partner(fixtures), *_without_intensity(fixtures),
    ]  # fmt: skip


def _overlaps(fixtures: Sequence[FixtureSpec]) -> list[Odd]:
    blocks, found = blocks_of(fixtures), []
    size = {one.number: one.mode.footprint for one in fixtures}
    for one in patch.overlaps(blocks):
        second = next(block for block in blocks if block.number == one.second)
        others = [block for block in blocks if block.number != one.second]
        universe, address = patch.next_free(others, [size[one.second]], (second.universe, second.address))[0]
        slots = f"{one.slots} slot{'' if one.slots == 1 else 's'}"
        found.append(
            Odd(
                "overlap", (one.second, one.first), f"{one.second} overlaps {one.first} by {slots} of universe {one.universe}; "
                f"{one.first} has them.", f"Move {one.second} to {universe}.{address}",
                {"numbers": [one.second], "how": "next free", "universe": second.universe, "address": second.address},
            )
        )  # fmt: skip
    return found


def _without_address(fixtures: Sequence[FixtureSpec]) -> list[Odd]:
    numbers = tuple(one.number for one in fixtures if one.universe is None or one.address is None)
    if not numbers:
        return []
    text = f"{_listed(numbers)} without an address: computed and seen here, but nothing is sent."
    return [Odd("no address", numbers, text, "Give the next free", {"numbers": list(numbers), "how": "next free"})]


def _without_output(fixtures: Sequence[FixtureSpec], carried: Collection[int] | None) -> list[Odd]:
    blocks = blocks_of(fixtures)
    lost = sorted({universe for one in blocks for universe in one.universes} - set(carried or ())) if carried is not None else []
    if not lost:
        return []
    numbers = tuple(one.number for one in blocks if not set(lost).isdisjoint(one.universes))
    which = f"Universe {lost[0]} goes" if len(lost) == 1 else f"{len(lost)} universes ({lost[0]} to {lost[-1]}) go"
    return [
        Odd("no output", numbers, f"{which} nowhere: no route carries {'it' if len(lost) == 1 else 'them'}. See Output, Routes.")
    ]


def _same_place(fixtures: Sequence[FixtureSpec]) -> list[Odd]:
    at = defaultdict[tuple[int, ...], list[int]](list)
    for one in fixtures:
        at[tuple(round(metres / _NEAR_M) for metres in one.place)].append(one.number)
    return [
        Odd("same place", tuple(numbers), f"{_listed(numbers)} stand at the same place: give them places, or orders by place "
            "cannot tell them apart.")
        for numbers in at.values()
        if len(numbers) > 1
    ]  # fmt: skip


def _without_partner(fixtures: Sequence[FixtureSpec]) -> list[Odd]:
    """Fixtures off the centre line with none on the other side, where most of their mode have one."""
    by_mode = defaultdict[str, list[FixtureSpec]](list)
    near = defaultdict[tuple[str, tuple[int, ...]], list[FixtureSpec]](list)
    for one in fixtures:
        if abs(one.place[0]) > _PARTNER_M:
            by_mode[one.mode.name].append(one)
            near[one.mode.name, _box(one.place)].append(one)
    found = []
    for name, alike in by_mode.items():
        alone = [
            one for one in alike if not any(_faces(one, other) for at in _boxes_facing(one) for other in near.get((name, at), ()))
        ]
        if alone and len(alone) < (1 - _MOSTLY) * len(alike):
            numbers = tuple(one.number for one in alone)
            found.append(Odd("no partner", numbers, f"{_listed(numbers)}: no partner on the other side of the centre line."))
    return found


def _box(place: Place) -> tuple[int, ...]:
    return tuple(int(metres // _PARTNER_M) for metres in place)


def _boxes_facing(one: FixtureSpec) -> Iterator[tuple[int, ...]]:
    """Boxes of space in which a partner can stand."""
    x, y, z = _box((-one.place[0], one.place[1], one.place[2]))
    return ((x + a, y + b, z + c) for a in (-1, 0, 1) for b in (-1, 0, 1) for c in (-1, 0, 1))


def _faces(one: FixtureSpec, other: FixtureSpec) -> bool:
    mirrored = (-one.place[0], one.place[1], one.place[2])
    return all(abs(a - b) < _PARTNER_M for a, b in zip(mirrored, other.place, strict=True))


def _without_intensity(fixtures: Sequence[FixtureSpec]) -> list[Odd]:
    """Modes whose level can neither be sent nor dim a colour."""
    dark = defaultdict[str, list[int]](list)
    for one in fixtures:
        able = {name for part in one.mode.parts for name in one.mode.attributes_of(part)}
        sources = {channel.source for channel in one.mode.channels}
        if one.mode.gives_light and "intensity" not in sources and "red" not in able and one.mode.emitters != "warm-cold":
            dark[one.mode.name].append(one.number)
    return [Odd("no intensity", tuple(numbers), f"{_listed(numbers)}: “{name}” has neither a channel for intensity nor a colour "
                "to dim.") for name, numbers in dark.items()]  # fmt: skip


def _listed(numbers: Sequence[int]) -> str:
    if len(numbers) == 1:
        return f"Fixture {numbers[0]}"
    first = ", ".join(map(str, numbers[:4]))
    return f"Fixtures {first}" + (f" and {len(numbers) - 4} more" if len(numbers) > 4 else "")
