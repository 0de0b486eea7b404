"""The songs of "Salt Light" as music: parts by bars, and what plays in each. See `sound` for how it is made audible."""

from __future__ import annotations

from dataclasses import dataclass

BEATS = 4


@dataclass(frozen=True)
class Section:
    """A part of a song. bar: with which it begins, from 1 on; plays: see `sound.PLAYERS`; colour: of its marker."""

    name: str
    bar: int
    plays: tuple[str, ...]
    colour: str = ""


@dataclass(frozen=True)
class Song:
    """A song. bars: how many; root: MIDI note of its key; chords: steps of the minor scale, one a bar, over and over."""

    name: str
    bpm: float
    seconds: float
    bars: int
    root: int
    chords: tuple[int, ...]
    sections: tuple[Section, ...]

    @property
    def bar_s(self) -> float:
        """How long a bar is."""
        return BEATS * 60 / self.bpm

    def at(self, bar: float, beat: float = 1) -> float:
        """Where a beat of a bar is, both from 1 on, in s."""
        return (bar - 1) * self.bar_s + (beat - 1) * 60 / self.bpm

    def ends(self, n: int) -> int:
        """The bar with which a section is over."""
        return self.sections[n + 1].bar if n + 1 < len(self.sections) else self.bars + 1


SAND, BLUE, CORAL, ROSE, LAGOON, HEATHER = "#b09a74", "#1846ff", "#ff4f3a", "#ff3c9b", "#18b8ff", "#a04bff"
SALTWORKS = Song(
    "Saltworks", 124.0, 185.0, 94, 38, (0, 0, 5, 6, 0, 3, 5, 4),
    (
        Section("arrival", 1, ("hats", "bass"), SAND),
        Section("figure", 13, ("drums", "hats", "bass", "chords"), BLUE),
        Section("turn", 31, ("drums", "toms", "bass", "chords"), ROSE),
        Section("stampede", 43, ("drums", "hats", "toms", "bass", "chords", "lead"), CORAL),
        Section("stillness", 65, ("chords",), HEATHER),
        Section("return", 79, ("drums", "hats", "bass", "chords", "lead"), LAGOON),
    ),
)  # fmt: skip
TIDE_CLOCK = Song(
    "Tide Clock", 96.0, 160.0, 63, 41, (0, 5, 3, 4),
    (
        Section("arrival", 1, ("chords",), SAND),
        Section("figure", 9, ("hats", "bass", "chords"), BLUE),
        Section("turn", 25, ("drums", "hats", "bass", "lead"), ROSE),
        Section("stampede", 37, ("drums", "hats", "toms", "bass", "chords", "lead"), CORAL),
        Section("stillness", 49, ("chords", "lead"), HEATHER),
        Section("return", 55, ("drums", "bass", "chords"), LAGOON),
    ),
)  # fmt: skip
LANTERN_FISH = Song(
    "Lantern Fish", 72.0, 140.0, 41, 36, (0, 2, 5, 4),
    (
        Section("arrival", 1, ("lead",), SAND),
        Section("figure", 7, ("chords", "lead"), BLUE),
        Section("turn", 17, ("hats", "bass", "chords"), ROSE),
        Section("stillness", 27, ("chords",), HEATHER),
        Section("return", 33, ("drums", "bass", "chords", "lead"), LAGOON),
    ),
)  # fmt: skip
SONGS = (TIDE_CLOCK, SALTWORKS, LANTERN_FISH)
