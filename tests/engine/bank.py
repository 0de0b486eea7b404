"""A page of faders and buttons beside the busking page: looks, overlays, a special, and what else controls drive."""

from __future__ import annotations

from typing import Any

from tests.engine.busking import TOP, Page, parts
from zarabanda import targets
from zarabanda.messages import ActionListPart, ControlPart, DevicePart, LookPart, SpecialPart

ALL = ["1", "2", "3", "4"]
BLUE, GREEN, CIRCLE, WARM, DARK = 1, 2, 3, 4, 5
"""Looks, by number: three overlays in this order, and two to be held by controls."""
SINGER, LEFT_GROUP = 1, 7
LOOKS: dict[int, tuple[str, bool, dict[str, Any]]] = {
    BLUE: ("Blue", True, {"values": {"colour": dict.fromkeys(ALL, "#0000ff"), "zoom": dict.fromkeys(ALL, 40.0)}}),
    GREEN: ("Green", True, {"values": {"colour": dict.fromkeys(ALL[:2], "#00ff00")}, "in_s": 2.0, "out_s": 1.0}),
    CIRCLE: ("Circle", True, {"effects": [{"effect": 2, "heads": ALL}], "in_s": 1.0, "out_s": 1.0}),
    WARM: ("Warm", False, {"values": {"intensity": dict.fromkeys(ALL[:2], 60.0), "pan": dict.fromkeys(ALL[:2], 45.0)},
                           "effects": [{"effect": 1, "heads": ALL[:2]}], "in_s": 2.0, "out_s": 4.0}),
    DARK: ("Dark", False, {"values": {"intensity": {**dict.fromkeys(ALL[:3], 0.0), "4": 80.0}}, "in_s": 0.0, "out_s": 0.0}),
}  # fmt: skip
CONTROLS: dict[str, tuple[int, str, targets.Target]] = {
    "blue": (1, "fader", targets.UseLook(BLUE)), "green": (2, "latch", targets.UseLook(GREEN)),
    "circle": (3, "flash", targets.UseLook(CIRCLE)), "warm": (4, "latch", targets.UseLook(WARM)),
    "warm fader": (5, "fader", targets.UseLook(WARM)), "dark": (6, "flash", targets.UseLook(DARK)),
    "group": (7, "fader", targets.OnGroup(("1", "2"), LEFT_GROUP)), "alone": (8, "flash", targets.Alone(("1",))),
    "alone too": (9, "flash", targets.Alone(("1", "2"))), "level": (10, "fader", targets.OnList(1, "level")),
    "go": (11, "flash", targets.OnList(1)), "back": (12, "flash", targets.OnList(1, "back")),
    "pause": (13, "flash", targets.OnList(1, "pause")), "release": (14, "flash", targets.OnList(1, "release", 0.0)),
    "bpm": (15, "fader", targets.OnTempo(1)), "tap": (16, "flash", targets.OnTempo(1)),
    "singer": (17, "latch", targets.OnSpecials(SINGER)), "specials": (18, "fader", targets.OnSpecials()),
    "home": (19, "flash", targets.OnSpecials()), "master": (20, "fader", targets.Master()),
    "blackout": (21, "latch", targets.Master()), "row": (22, "fader", targets.OnRow(TOP)),
    "page": (23, "flash", targets.ShowPage(3)), "stop": (24, "flash", targets.StopEffects()),
    "out": (25, "flash", targets.ReleaseEverything(0.0)),
    "send": (26, "fader", targets.Send({"kind": "osc", "device": 1, "address": "/mix", "arguments": ""})),
    "gone": (27, "latch", targets.UseLook(99)), "swell": (28, "fader", targets.EffectOnHeads(1, ("3", "4"))),
    "hit": (29, "latch", targets.RunActions(1)), "held": (30, "flash", targets.RunActions(2)),
}  # fmt: skip


HIT, HELD_LIST, INNER = 1, 2, 3
"""Action lists, by number."""
ACTION_LISTS: dict[int, tuple[str, dict[str, Any]]] = {
    HIT: ("Hit", {"steps": [
        {"kind": "row", "row": 2, "do": "level", "value": 1.0, "wait": 0.25},
        {"kind": "pad", "row": 2, "pad": 1, "do": "press", "wait": 0.5},
        {"kind": "control", "control": 8, "do": "press", "value": 1.0, "wait": 0.0},
        {"kind": "overlay", "overlay": 1, "do": "level", "value": 0.5, "wait": 1.0},
        {"kind": "osc", "device": 1, "address": "/hit", "arguments": "1", "wait": 0.0},
        {"kind": "page", "page": 3, "wait": 0.25},
    ]}),
    HELD_LIST: ("Held", {"until": "released", "steps": [
        {"kind": "control", "control": 8, "do": "press", "value": 1.0, "wait": 0.0},
        {"kind": "actions", "actions": 3, "do": "run", "wait": 0.5},
        {"kind": "master", "do": "blackout", "value": 1.0, "wait": 5.0},
    ]}),
    INNER: ("Inner", {"steps": [
        {"kind": "tempo", "tempo": 1, "do": "half", "bpm": 120.0, "wait": 0.0},
        {"kind": "special", "special": 1, "do": "press", "value": 1.0, "wait": 0.1},
        {"kind": "list", "list": 1, "do": "go", "cue": None, "value": 1.0, "seconds": 2.0, "wait": 0.1},
    ]}),
}  # fmt: skip


def bank_parts(without: tuple[str, ...] = (), looks: dict[int, Any] | None = None) -> list[Any]:
    """Parts beside those of the busking page."""
    lit = {"intensity": dict.fromkeys(("3",), 100.0), "pan": {"3": 20.0}}
    there = {**LOOKS, **(looks or {})}
    return [
        DevicePart(1, "pixels", "OSC", "simulator"),
        SpecialPart(SINGER, "Singer", ("3",), lit, 0.5, 0.0, 0.5),
        *(LookPart(n, one[0], n, one[1], {"values": {}, **one[2]}) for n, one in there.items() if one is not None),
        *(ActionListPart(n, name, document) for n, (name, document) in ACTION_LISTS.items()),
        *(ControlPart(n, name, name, mode, "depth", 0.5, target) for name, (n, mode, target) in CONTROLS.items()
          if name not in without),
    ]  # fmt: skip


class Bank(Page):
    """A live state with both pages."""

    def made_of(self, *, without: tuple[str, ...] = (), looks: dict[int, Any] | None = None, **more: Any) -> list[Any]:
        return [*parts(**more), *bank_parts(without, looks)]

    def move(self, name: str, value: float, t: float) -> None:
        self.act({"do": "level", "control": f"control:{CONTROLS[name][0]}", "value": value}, t)

    def press(self, name: str, t: float, down: bool = True, holder: str = "a") -> None:
        self.act({"do": "press", "control": f"control:{CONTROLS[name][0]}", "down": down, "holder": holder}, t)
