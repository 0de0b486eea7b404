"""The touring rig of the demo: smaller, with kinds of its own, for the same show next week."""

from __future__ import annotations

from zarabanda.formats.rig_document import FixtureDocument, ModeDocument
from zarabanda.stock.making import Doc, cells, channels, grid

from .rig import MAKER, MODES, Patch, line, moving

NAME = "Touring rig"

_SPOT: Doc = {
    "name": "Volta 200, 20 channels", "model": "Volta 200", "kind": "spot", "emitters": "cmy", "footprint": 20,
    "channels": moving(("cyan", 1, 0, 1), ("magenta", 1, 0, 1), ("yellow", 1, 0, 1), ("gobo", 1, 0, 7), ("prism", 1, 0, 100),
                       ("zoom", 2, 10, 36), ("focus", 2, 0, 100), ("frost", 1, 0, 100)),
    "limits": {"tilt": (-120, 120, 25), "zoom": (10, 36, 14)}, "pan_speed": 220,
}  # fmt: skip
_PAR: Doc = {
    "name": "Branle 4, 6 channels", "model": "Branle 4", "kind": "par", "emitters": "rgbw", "footprint": 6, "beam_deg": 20,
    "channels": channels(("intensity", 1, 0, 100), ("red", 1, 0, 1), ("green", 1, 0, 1), ("blue", 1, 0, 1), ("white", 1, 0, 1),
                         ("strobe", 1, 0, 25)),
}  # fmt: skip
_BATTEN: Doc = {
    "name": "Chacona 8, 24 channels", "model": "Chacona 8", "kind": "batten", "emitters": "rgb", "footprint": 24,
    "channels": cells(8, "red", "green", "blue"), "cells": grid(8, 1, 0.12), "beam_deg": 15,
}  # fmt: skip


def modes() -> dict[str, ModeDocument]:
    """Kinds of the rig by name: some of the demo's, some of its own."""
    every = [*MODES, _SPOT, _PAR, _BATTEN]
    return {mode["name"]: ModeDocument.model_validate({"maker": MAKER, **mode}) for mode in every}


CALLED = {
    "Rear spot": "Rear spots", "Mid wash": "Mid washes", "Deck beam": "Deck beams", "Side ladder": "Side ladders",
    "Batten": "Battens",
}  # fmt: skip
"""Groups of its fixtures, by what they are called."""


def fixtures() -> list[FixtureDocument]:
    """Its fixtures, patched."""
    named = {mode["model"]: mode["name"] for mode in MODES}
    patch = Patch([*MODES, _SPOT, _PAR, _BATTEN])
    hanging, standing = (0, 180, 0), (0, 0, 0)
    for n, x in enumerate(line(8, 9.8)):
        patch.add(11 + n, "Rear spot", _SPOT["name"], (x, 4.4, 5.6), hanging)
    for n, x in enumerate(line(8, 9.1)):
        patch.add(31 + n, "Mid wash", named["Courante W"], (x, 2.2, 5.2), hanging)
    for n, x in enumerate(line(6, 9)):
        patch.add(51 + n, "Deck beam", named["Giga B"], (x, 3.4, 0.3), standing)
    for n in range(8):
        left = n < 4
        patch.add(71 + n, "Side ladder", _PAR["name"], (-5.8 if left else 5.8, 1.5, 1.2 + n % 4), (0, 105 if left else -105, 0))
    for n, x in enumerate(line(4, 6.6)):
        patch.add(91 + n, "Batten", _BATTEN["name"], (x, 4.8, 0.4), (60, 0, 0))
    for n in range(8):
        if n % 2 == 0:
            patch.next_universe()
        patch.add(111 + n, "Salt wall", named["Alfarda 64"], (n % 4 - 1.5, 5.2, 2.35 - n // 4), (90, 0, 0))
    return [FixtureDocument.model_validate(one) for one in patch.fixtures]
