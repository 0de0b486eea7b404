"""The rig of the demo show: modes and fixtures of invented makes, standing on an invented stage."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from zarabanda.stock.making import Doc, cells, channels, grid

MAKER = "Pavana"


def moving(*rest: tuple[Any, ...]) -> list[Doc]:
    """Channels of a moving head, the rest behind pan, tilt, level and strobe."""
    return channels(("pan", 2, -270, 270), ("tilt", 2, -130, 130), ("intensity", 2, 0, 100), ("strobe", 1, 0, 25), *rest)


_CMY = (("cyan", 1, 0, 1), ("magenta", 1, 0, 1), ("yellow", 1, 0, 1))
_MOVING_LIMITS = {"tilt": (-130, 130, 25)}

WHEEL = [("open", (1, 1, 1)), ("red", (1, 0.05, 0.02)), ("amber", (1, 0.55, 0.05)), ("green", (0.1, 1, 0.15)),
         ("aqua", (0.1, 0.9, 1)), ("blue", (0.08, 0.15, 1)), ("violet", (0.55, 0.1, 1)), ("pink", (1, 0.3, 0.6))]  # fmt: skip


MODES: list[Doc] = [
    {"name": "Gallarda 300, 24 channels", "model": "Gallarda 300", "kind": "spot", "emitters": "cmy", "footprint": 24,
     "channels": moving(*_CMY, ("gobo", 1, 0, 7), ("", 1, 0, 0), ("prism", 1, 0, 100), ("zoom", 2, 6, 48), ("focus", 2, 0, 100),
                         ("iris", 1, 0, 100), ("frost", 1, 0, 100)),
     "limits": {**_MOVING_LIMITS, "zoom": (6, 48, 12)}},
    {"name": "Courante W, 16 channels", "model": "Courante W", "kind": "wash", "emitters": "rgbw", "footprint": 16,
     "channels": moving(("red", 1, 0, 1), ("green", 1, 0, 1), ("blue", 1, 0, 1), ("white", 1, 0, 1), ("zoom", 1, 8, 60)),
     "limits": {"tilt": (-130, 130, 10), "zoom": (8, 60, 26)}},
    {"name": "Giga B, 16 channels", "model": "Giga B", "kind": "beam", "emitters": "wheel", "footprint": 16, "wheel": WHEEL,
     "channels": moving(("wheel", 1, 0, 7), ("gobo", 1, 0, 7), ("prism", 1, 0, 100), ("frost", 1, 0, 100)),
     "limits": {"tilt": (-130, 130, 15)}, "beam_deg": 3},
    {"name": "Branle 5, 8 channels", "model": "Branle 5", "kind": "par", "emitters": "rgbaw", "footprint": 8, "beam_deg": 25,
     "channels": channels(("intensity", 1, 0, 100), ("red", 1, 0, 1), ("green", 1, 0, 1), ("blue", 1, 0, 1), ("amber", 1, 0, 1),
                           ("white", 1, 0, 1), ("strobe", 1, 0, 25))},
    {"name": "Chacona 12, 36 channels", "model": "Chacona 12", "kind": "batten", "emitters": "rgb", "footprint": 36,
     "channels": cells(12, "red", "green", "blue"), "cells": grid(12, 1, 0.09), "beam_deg": 15},
    {"name": "Alfarda 64, 192 channels", "model": "Alfarda 64", "kind": "wall", "emitters": "rgb", "footprint": 192,
     "channels": cells(64, "red", "green", "blue"), "cells": grid(8, 8, 0.125), "beam_deg": 120},
    {"name": "Folia F, 2 channels", "model": "Folia F", "kind": "profile", "footprint": 2, "light": (1, 0.9, 0.76),
     "beam_deg": 19, "channels": channels(("intensity", 2, 0, 100))},
    {"name": "Rebato, 2 channels", "model": "Rebato", "kind": "strobe", "footprint": 2, "beam_deg": 90,
     "channels": channels(("intensity", 1, 0, 100), ("strobe", 1, 0, 25))},
    {"name": "Bransle 2, 2 channels", "model": "Bransle 2", "kind": "blinder", "footprint": 2, "light": (1, 0.82, 0.58),
     "channels": cells(2, "intensity"), "cells": grid(2, 1, 0.3), "beam_deg": 60},
    {"name": "Bruma, 2 channels", "model": "Bruma", "kind": "haze", "footprint": 2,
     "channels": channels(("haze", 1, 0, 100), ("fan_speed", 1, 0, 100))},
    {"name": "Tarantela 10, 46 channels", "model": "Tarantela 10", "kind": "bar", "emitters": "rgbw", "footprint": 46,
     "channels": [*channels(("tilt", 2, -110, 110), ("intensity", 2, 0, 100), ("strobe", 1, 0, 25)),
                  *cells(10, "red", "green", "blue", "white", first=6)],
     "cells": grid(10, 1, 0.1), "limits": {"tilt": (-110, 110, 20)}, "beam_deg": 5},
]  # fmt: skip


def line(count: int, width: float) -> list[float]:
    """Places across in m, side by side about the middle."""
    return [round((n - (count - 1) / 2) * width / max(count - 1, 1), 3) for n in range(count)]


class Patch:
    """Gives out addresses one after another, in the next universe where one is full."""

    def __init__(self, modes: Sequence[Doc] = MODES) -> None:
        self.fixtures: list[Doc] = []
        self._universe, self._next = 1, 1
        self._footprint = {mode["name"]: mode["footprint"] for mode in modes}

    def add(self, number: int, name: str, mode: str, place: tuple[float, ...], turn: tuple[float, ...], **more: Any) -> None:
        """A fixture at the next free address."""
        size = self._footprint[mode]
        if self._next + size - 1 > 512:
            self.next_universe()
        self.fixtures.append(
            {"number": number, "name": name, "mode": mode, "place": place, "rotation": turn, "universe": self._universe,
             "address": self._next, **more}
        )  # fmt: skip
        self._next += size

    def next_universe(self) -> None:
        """The next ones begin a universe."""
        self._universe, self._next = self._universe + 1, 1


def fixtures() -> list[Doc]:
    """All fixtures, patched."""
    patch, names = Patch(), [mode["name"] for mode in MODES]
    spot, wash, beam, par, batten, wall, profile, strobe, blinder, haze, bar = names
    hanging = (0, 180, 0)
    for n, x in enumerate(line(10, 14.4)):
        patch.add(101 + n, "Rear spot", spot, (x, 6, 7.2), hanging)
    for n, x in enumerate(line(10, 12.6)):
        patch.add(201 + n, "Mid wash", wash, (x, 3, 6.2), hanging)
    patch.next_universe()
    for n, x in enumerate(line(8, 15)):
        patch.add(301 + n, "Deck beam", beam, (x, 4.5, 0.3), (0, 0, 0))
    for n in range(12):
        left = n < 6
        patch.add(401 + n, "Side ladder", par, (-9.2 if left else 9.2, 2, 1.2 + 0.9 * (n % 6)), (0, 105 if left else -105, 0))
    for n, x in enumerate(line(6, 9.5)):
        patch.add(501 + n, "Batten", batten, (x, 6.6, 0.5), (60, 0, 0), cell_order="reversed" if n in (1, 4) else "")
    for n, x in enumerate(line(6, 10)):
        patch.add(701 + n, "Front", profile, (x, -6, 6.8), (-126, 0, 0))
    for n, x in enumerate(line(4, 9.6)):
        patch.add(801 + n, "Strobe", strobe, (x, 6, 6.7), (100, 0, 0))
    for n, x in enumerate(line(4, 8.4)):
        patch.add(901 + n, "Crowd", blinder, (x, 3, 5.7), (114, 0, 0))
    patch.add(951, "Haze", haze, (-8.6, 5.5, 0.2), (0, 0, 0))
    for n in range(16):
        if n % 2 == 0:
            patch.next_universe()
        patch.add(601 + n, "Salt wall", wall, ((n % 8 - 3.5) * 1.0, 7.2, 2.35 - n // 8), (90, 0, 0))
    patch.next_universe()
    for n, x in enumerate(line(4, 7.5)):
        patch.add(321 + n, "Tilt bar", bar, (x, 1.2, 0.25), (0, 0, 0))
    return patch.fixtures
