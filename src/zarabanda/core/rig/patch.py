"""Addresses: which slots fixtures take, where they overlap, what is free. Pure arithmetic on universes of 512 slots.

Slots are counted through all universes: slot 0 is the first of universe 1, slot 512 the first of universe 2. A fixture of
at most 512 slots lies within one universe; a larger one begins at the first slot of one and goes on in the next.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from zarabanda.errors import ZarabandaError

SLOTS = 512
"""Of a universe."""
LAST_UNIVERSE = 63_999
"""E1.31, 6.2.7."""
Address = tuple[int, int]
"""Universe 1…, address 1…512."""


@dataclass(frozen=True, slots=True)
class Block:
    """The slots of a fixture. size: how many."""

    number: int
    universe: int
    address: int
    size: int

    @property
    def first(self) -> int:
        """Its first slot, counted through all universes."""
        return (self.universe - 1) * SLOTS + self.address - 1

    @property
    def end(self) -> int:
        """The slot after its last."""
        return self.first + self.size

    @property
    def universes(self) -> range:
        """Universes that it lies in."""
        return range(self.universe, (self.end - 1) // SLOTS + 2)


@dataclass(frozen=True, slots=True)
class Overlap:
    """Two fixtures that share slots: the one that has them (the first), the one that does not answer there, how many."""

    first: int
    second: int
    universe: int
    slots: int


def address_of(slot: int) -> Address:
    """Universe and address of a slot.

    >>> address_of(512)
    (2, 1)
    """
    return slot // SLOTS + 1, slot % SLOTS + 1


def check(number: int, universe: int, address: int, size: int) -> None:
    """Refuse an address at which a fixture does not fit, saying which is the last possible."""
    if not 1 <= universe <= LAST_UNIVERSE:
        raise ZarabandaError(f"There is no universe {universe}; universes go from 1 to {LAST_UNIVERSE}.", "universe")
    if not 1 <= address <= SLOTS:
        raise ZarabandaError(f"There is no address {address}; addresses go from 1 to {SLOTS}.", "address")
    if size > SLOTS and address != 1:
        raise ZarabandaError(
            f"Fixture {number} needs {size} slots, more than one universe has: it begins at address 1 and goes on in the next "
            "universe.",
            "address",
        )
    if size <= SLOTS and address + size - 1 > SLOTS:
        raise ZarabandaError(
            f"Fixture {number} needs {size} slots: from address {address} on it would go beyond {SLOTS}. Its last possible "
            f"address is {SLOTS + 1 - size}.",
            "address",
        )


def overlaps(blocks: Iterable[Block]) -> list[Overlap]:
    """Pairs of fixtures that share slots, by place. The one with the smaller number has them."""
    found, open_ones = [], list[Block]()
    for block in sorted(blocks, key=lambda one: (one.first, one.number)):
        open_ones = [one for one in open_ones if one.end > block.first]
        for other in open_ones:
            first, second = sorted((other, block), key=lambda one: one.number)
            shared = min(other.end, block.end) - block.first
            found.append(Overlap(first.number, second.number, address_of(block.first)[0], shared))
        open_ones.append(block)
    return found


def fits_from(slot: int, size: int) -> int:
    """The first slot from this one on at which a fixture of this size may begin."""
    if size > SLOTS:
        return -(-slot // SLOTS) * SLOTS
    return slot if slot % SLOTS + size <= SLOTS else (slot // SLOTS + 1) * SLOTS


def next_free(blocks: Iterable[Block], sizes: Sequence[int], start: Address = (1, 1)) -> list[Address]:
    """Where fixtures of these sizes fit, one after another from `start` on, between what is there.

    >>> next_free([Block(1, 1, 4, 3)], [3, 4, 500])
    [(1, 1), (1, 7), (1, 11)]
    """
    taken = sorted((one.first, one.end) for one in blocks)
    at, n, found = (start[0] - 1) * SLOTS + start[1] - 1, 0, []
    for size in sizes:
        at = fits_from(at, size)
        while True:
            while n < len(taken) and taken[n][1] <= at:
                n += 1
            ahead = next((span for span in taken[n:] if span[1] > at), None)
            if ahead is None or ahead[0] >= at + size:
                break
            at = fits_from(ahead[1], size)
        found.append(address_of(at))
        at += size
    if found and found[-1][0] > LAST_UNIVERSE:
        raise ZarabandaError(f"There is no room for {len(sizes)} fixtures before the last universe, {LAST_UNIVERSE}.", "address")
    return found


def in_order(sizes: Sequence[int], start: Address) -> list[Address]:
    """Addresses one after another from `start` on, whatever is there; each in the next universe where one is full."""
    return next_free([], sizes, start)
