"""What taking over changes, told row by row."""

from __future__ import annotations

from dataclasses import dataclass

from ..tables import (
    Base,
    BuskRow,
    ControlRow,
    CueRow,
    DraftEffect,
    DraftFan,
    DraftValue,
    EffectRow,
    Fixture,
    Group,
    LookRow,
    PaletteRow,
    PixelMapRow,
    SpecialRow,
)

CALLED: dict[type[Base], str] = {
    Fixture: "the rig", Group: "groups", PaletteRow: "palettes", EffectRow: "effects", CueRow: "cues", BuskRow: "rows",
    ControlRow: "faders and buttons", LookRow: "looks and overlays", SpecialRow: "specials", PixelMapRow: "pixel maps",
    DraftValue: "the draft", DraftEffect: "the draft", DraftFan: "the draft",
}  # fmt: skip
"""What changes, by table, in the order in which it is told."""


@dataclass(frozen=True)
class Told:
    """Something that changes. what: one of `CALLED`; name: which; lines: how, in words."""

    what: str
    name: str
    lines: tuple[str, ...]


@dataclass(frozen=True)
class Report:
    """What taking over does. told: everything that changes; pairs: for each pair what is different between its kinds."""

    told: tuple[Told, ...]
    pairs: tuple[tuple[str, ...], ...]

    @property
    def counts(self) -> dict[str, int]:
        """How many of each change."""
        found = dict.fromkeys(CALLED.values(), 0)
        for one in self.told:
            found[one.what] += 1
        return {what: count for what, count in found.items() if count}


def heads_in_words(count: int) -> str:
    """A number of heads."""
    return "1 head" if count == 1 else f"{count:,} heads"
