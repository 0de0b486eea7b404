"""A song over the busking page and the page of faders: a cue list with effects, presses and levels on a timeline."""

from __future__ import annotations

from collections.abc import Collection
from typing import Any

from tests.engine.bank import CONTROLS, Bank
from zarabanda.messages import CueListPart, CuePart, EventPart, TimelinePart, TrackPart

SONG, OTHER, VERSE = 1, 2, 9
"""Timelines, and the list of the first."""
LENGTH = 40.0
FADES = {"intensity": {"up": 2, "down": 1.5}, "position": {"fade": 3, "delay": 0.5}, "colour": {"fade": 2}, "beam": {}}
CUES: list[dict[str, Any]] = [
    {"values": {"intensity": {"1": 60.0, "3": 30.0}, "colour": {"1": "#ff0000"}}},
    {"values": {"intensity": {"2": 80.0}, "pan": {"1": 40.0, "3": -20.0}}, "space": "hsv-short",
     "effects": [{"do": "start", "thread": 1, "effect": 1, "heads": ["1", "2", "3"]}]},
    {"values": {"intensity": {"1": 0.0}, "colour": {"1": "#0000ff", "2": "#00ff00"}}, "trigger": {"kind": "after", "wait": 0.5},
     "effects": [{"do": "change", "thread": 1, "depth": 0.5, "speed": 2.0}]},
    {"everything_else_out": True, "values": {"intensity": {"4": 100.0}},
     "effects": [{"do": "start", "thread": 2, "effect": 2, "heads": ["4"]}]},
    {"values": {"intensity": {"1": 70.0, "4": 20.0}, "zoom": {"4": 12.0}}, "trigger": {"kind": "bar", "tempo": 1},
     "effects": [{"do": "stop", "thread": 1}]},
]  # fmt: skip
DRIVES = {
    "cues": f"list:{VERSE}", "warm": f"control:{CONTROLS['warm'][0]}", "dark": f"control:{CONTROLS['dark'][0]}",
    "red": "pad:2:1", "swell": "pad:2:5", "held": "pad:3:7", "flash": "flash:3:white", "blue": f"control:{CONTROLS['blue'][0]}",
    "row": "row-level:3", "depth": "row-depth:3", "fader": f"control:{CONTROLS['swell'][0]}", "level": f"list-level:{VERSE}",
    "green": "overlay:2",
}  # fmt: skip
KINDS = {
    "cues": "cues", **dict.fromkeys(("warm", "dark", "red", "swell", "held", "flash", "green"), "presses"),
    **dict.fromkeys(("blue", "row", "depth", "fader", "level"), "levels"), "sent": "messages",
}  # fmt: skip
Happens = tuple[str, float, dict[str, Any]]
"""What a track does at a position."""


def cue_id(number: int) -> int:
    return 900 + number


def song_parts(happens: list[Happens], armed: Collection[str] = (), **more: Any) -> list[Any]:
    """The list and the timeline: what happens, by track."""
    names = list(dict.fromkeys(name for name, _, _ in happens))
    document = {"length_s": LENGTH, "grid": {"first_s": 0.5, "changes": [{"beat": 0, "bpm": 120}, {"beat": 32, "bpm": 90}]},
                "begins_alone": False, **more}  # fmt: skip
    tracks = [
        TrackPart(n, SONG, n, {"name": name, "kind": KINDS[name], "drives": DRIVES.get(name, "device:1"), "armed": name in armed})
        for n, name in enumerate(names, 1)
    ]
    events = [
        EventPart(n, names.index(name) + 1, at, one.get("length", 0.0), {k: v for k, v in one.items() if k != "length"})
        for n, (name, at, one) in enumerate(happens, 1)
    ]
    cues = [CuePart(cue_id(n), VERSE, float(n), {"times": FADES, **one}) for n, one in enumerate(CUES, 1)]
    other = TimelinePart(OTHER, "Other", 2, {"length_s": 10.0, "grid": {}})
    return [CueListPart(VERSE, "Verse", 9, {}), *cues, TimelinePart(SONG, "Song", 1, document), other, *tracks, *events]


class Stage(Bank):
    """Both pages and a song."""

    def __init__(self, happens: list[Happens], **settings: Any) -> None:
        self.happens, self.settings, self.armed = happens, settings, set[str]()
        super().__init__()

    def made_of(self, **more: Any) -> list[Any]:
        return [*super().made_of(**more), *song_parts(self.happens, self.armed, **self.settings)]

    def locate(self, p: float, t: float) -> None:
        self.act({"do": "locate", "timeline": SONG, "position": p}, t)

    def play(self, t: float, on: bool = True) -> None:
        self.act({"do": "play-song", "timeline": SONG, "on": on}, t)
