"""Packets that cannot be read, counted by what is wrong with them; bounded, whatever others send."""

from __future__ import annotations

import re

MOST_KINDS = 40
_NUMBER = re.compile(r"(0x)?[0-9a-f]*[0-9][0-9a-f]*")


class FaultCounts:
    """Texts that differ in their numbers alone are one kind.

    >>> counts = FaultCounts()
    >>> counts.count("12 bytes are too few"); counts.count("9 bytes are too few")
    >>> counts.by_kind
    {'… bytes are too few': 2}
    """

    def __init__(self) -> None:
        self.by_kind: dict[str, int] = {}
        self.last = ""

    @property
    def total(self) -> int:
        """All of them that were counted."""
        return sum(self.by_kind.values())

    def count(self, text: str) -> None:
        """One more."""
        self.last = text
        kind = _NUMBER.sub("…", text)
        if kind not in self.by_kind and len(self.by_kind) >= MOST_KINDS:
            kind = "others"
        self.by_kind[kind] = self.by_kind.get(kind, 0) + 1
