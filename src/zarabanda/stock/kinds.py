"""Plain kinds of fixtures that come with every show, from the simplest mode of each to the fullest."""

from __future__ import annotations

from functools import cache

from zarabanda.formats.rig_document import ModeDocument

from .making import Doc, cells, channels, grid, mode, of

LEVEL, LEVEL_16 = ("intensity", 1, 0, 100), ("intensity", 2, 0, 100)
STROBE = ("strobe", 1, 0, 25)
RGB, RGBW, RGBAW = of("red", "green", "blue"), of("red", "green", "blue", "white"), of("red", "green", "blue", "amber", "white")
CMY = of("cyan", "magenta", "yellow")
TURN_8 = [("pan", 1, -270, 270), ("tilt", 1, -130, 130)]
TURN = [("pan", 2, -270, 270), ("tilt", 2, -130, 130)]
WHITES = {"virtual": ["temperature", "tint", "white_mix"]}
TILTED = {"tilt": (-130, 130, 20)}
WHEEL = [("open", (1, 1, 1)), ("red", (1, 0.05, 0.03)), ("orange", (1, 0.45, 0.05)), ("yellow", (1, 0.9, 0.1)),
         ("green", (0.1, 1, 0.15)), ("cyan", (0.1, 0.9, 1)), ("blue", (0.08, 0.15, 1)), ("magenta", (1, 0.15, 0.8))]  # fmt: skip


def _par(model: str, emitters: str, colours: list[tuple[str, int, float, float]]) -> list[Doc]:
    more = {"emitters": emitters, "beam_deg": 25}
    return [
        mode(model, "par", channels(*colours), **more),
        mode(model, "par", channels(LEVEL, *colours), **more),
        mode(model, "par", channels(LEVEL, *colours, STROBE), **more),
    ]


def _bar(model: str, kind: str, count: int, pitch: float, emitters: str, *names: str, beam_deg: float = 15) -> Doc:
    more = {"emitters": emitters, "cells": grid(count, 1, pitch), "beam_deg": beam_deg}
    return mode(model, kind, cells(count, *names), **more)


def _tile(side: int) -> Doc:
    rows = cells(side * side, "red", "green", "blue")
    more = {"emitters": "rgb", "cells": grid(side, side, 1 / side), "beam_deg": 120}
    return mode(f"Tile {side} × {side} RGB", "wall", rows, **more)


MODES: list[Doc] = [
    mode("Dimmer", "profile", channels(LEVEL), light=(1, 0.85, 0.65), beam_deg=25),
    mode("Dimmer", "profile", channels(LEVEL_16), light=(1, 0.85, 0.65), beam_deg=25),
    *[mode(f"Dimmer pack {count}", "blinder", cells(count, "intensity"), cells=grid(count, 1, 0.5),
           light=(1, 0.85, 0.65), beam_deg=25) for count in (4, 12)],
    mode("Profile white", "profile", channels(LEVEL_16, ("temperature", 1, 2700, 6500)), beam_deg=19,
         limits={"temperature": (2700, 6500, 4000)}),
    *[mode("Par warm and cold white", "par", channels(*rows, *of("warm", "cold")), emitters="warm-cold", beam_deg=25,
           limits={"temperature": (2700, 6500, 4000)})
      for rows in ([], [LEVEL])],
    *_par("Par RGB", "rgb", RGB),
    *_par("Par RGBW", "rgbw", RGBW),
    *_par("Par RGBAW", "rgbaw", RGBAW),
    mode("Par RGBW with white light", "par", channels(LEVEL, *RGBW), emitters="rgbw", beam_deg=25, **WHITES),
    mode("Flood RGBW", "par", channels(LEVEL_16, *RGBW), emitters="rgbw", beam_deg=80),
    mode("Wash RGBW", "wash", channels(*TURN_8, LEVEL, *RGBW, ("zoom", 1, 8, 60), STROBE), emitters="rgbw",
         limits={**TILTED, "zoom": (8, 60, 30)}),
    mode("Wash RGBW", "wash", channels(*TURN, LEVEL_16, *RGBW, ("zoom", 2, 8, 60), STROBE),
         emitters="rgbw", limits={**TILTED, "zoom": (8, 60, 30)}),
    mode("Wash RGBW with white light", "wash",
         channels(*TURN, LEVEL_16, *RGBW, ("zoom", 2, 8, 60), STROBE), emitters="rgbw",
         limits={**TILTED, "zoom": (8, 60, 30)}, **WHITES),
    mode("Wash CMY", "wash", channels(*TURN, LEVEL_16, *CMY, ("zoom", 1, 10, 55), STROBE,
         ("temperature", 1, 2700, 6500)), emitters="cmy",
         limits={**TILTED, "zoom": (10, 55, 28), "temperature": (2700, 6500, 6500)}),
    mode("Spot CMY", "spot", channels(*TURN_8, LEVEL, *CMY, ("gobo", 1, 0, 7), ("zoom", 1, 6, 45),
         ("focus", 1, 0, 100), STROBE), emitters="cmy", limits={**TILTED, "zoom": (6, 45, 15)}),
    mode("Spot CMY", "spot", channels(*TURN, LEVEL_16, *CMY, ("gobo", 1, 0, 7), ("prism", 1, 0, 100),
         ("zoom", 2, 6, 45), ("focus", 2, 0, 100), ("iris", 1, 0, 100), ("frost", 1, 0, 100), STROBE), emitters="cmy",
         limits={**TILTED, "zoom": (6, 45, 15)}),
    mode("Beam, colour wheel", "beam", channels(*TURN_8, LEVEL, ("wheel", 1, 0, 7), ("gobo", 1, 0, 7),
         ("prism", 1, 0, 100), ("frost", 1, 0, 100), STROBE), emitters="wheel", wheel=WHEEL, limits=TILTED, beam_deg=3),
    mode("Beam, colour wheel", "beam", channels(*TURN, LEVEL_16, ("wheel", 1, 0, 7), ("gobo", 1, 0, 7),
         ("prism", 1, 0, 100), ("frost", 1, 0, 100), STROBE), emitters="wheel", wheel=WHEEL, limits=TILTED, beam_deg=3),
    mode("Hybrid CMY", "spot", channels(*TURN, LEVEL_16, *CMY, ("gobo", 1, 0, 7), ("prism", 1, 0, 100),
         ("zoom", 2, 2, 50), ("focus", 1, 0, 100), ("frost", 1, 0, 100), STROBE), emitters="cmy",
         limits={**TILTED, "zoom": (2, 50, 10)}),
    *[_bar(f"Batten {count} RGB", "batten", count, 1 / count, "rgb", "red", "green", "blue") for count in (8, 12, 16)],
    _bar("Batten 12 RGBW", "batten", 12, 0.09, "rgbw", "red", "green", "blue", "white"),
    *[_bar(f"Tube {count} RGB", "batten", count, 1 / count, "rgb", "red", "green", "blue", beam_deg=120)
      for count in (16, 32, 64)],
    _bar("Tube 16 RGBW", "batten", 16, 0.0625, "rgbw", "red", "green", "blue", "white", beam_deg=120),
    mode("Moving bar 10 RGBW", "bar",
         [*channels(("tilt", 2, -110, 110), LEVEL_16, STROBE), *cells(10, "red", "green", "blue", "white", first=5)],
         emitters="rgbw", cells=grid(10, 1, 0.1), limits={"tilt": (-110, 110, 20)}, beam_deg=5),
    _tile(8),
    _tile(16),
    mode("Strobe", "strobe", channels(LEVEL, STROBE), beam_deg=90),
    mode("Strobe RGB", "strobe", channels(LEVEL, *RGB, STROBE), emitters="rgb", beam_deg=110),
    mode("Blinder 2", "blinder", cells(2, "intensity"), cells=grid(2, 1, 0.3), light=(1, 0.82, 0.58), beam_deg=60),
    mode("Blinder 4", "blinder", cells(4, "intensity"), cells=grid(2, 2, 0.3), light=(1, 0.82, 0.58), beam_deg=60),
    mode("Hazer", "haze", channels(("haze", 1, 0, 100), ("fan_speed", 1, 0, 100))),
    mode("Fan", "fan", channels(("fan_speed", 1, 0, 100))),
]  # fmt: skip


@cache
def plain_kinds() -> dict[str, ModeDocument]:
    """All of them, checked, by the names of their modes."""
    return {document["name"]: ModeDocument.model_validate(document) for document in MODES}
