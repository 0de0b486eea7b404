"""A busking page on the small rig: two rows of two lights, and the row for all of them."""

from __future__ import annotations

from typing import Any

import numpy as np

from tests.engine.shows import RIG, Live, effect, on_tempo, rig_parts
from zarabanda.core.effects.batch.batches import Batches
from zarabanda.core.playback.frame import Effects, Frame
from zarabanda.core.playback.ground import Base, base_at
from zarabanda.core.rig import attributes
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.looking import running_at
from zarabanda.engine.live.on_stage import on_stage
from zarabanda.engine.live.specials import crossing
from zarabanda.engine.live.stages import Stages, levels_at
from zarabanda.messages import BuskRowPart, CueListPart, CuePart, EffectPart, PalettePart, ShowUpdate, TempoPart
from zarabanda.show.references import with_numbers

TOP, LEFT, RIGHT = 1, 2, 3
RED, BLUE, STAGE, NARROW, SWELL, WAVE, HELD = 1, 2, 3, 4, 5, 6, 7
"""Pads, alike in all rows."""
PALETTES: dict[int, tuple[str, dict[str, float]]] = {
    1: ("Red", {"red": 1.0, "green": 0.0, "blue": 0.0}), 2: ("Blue", {"red": 0.0, "green": 0.0, "blue": 1.0}),
    3: ("Stage", {"pan": 30.0, "tilt": 40.0}), 4: ("Narrow", {"zoom": 6.0}),
}  # fmt: skip
SWELLS = effect(name="swell", speed=on_tempo(0.5))
CIRCLES = {
    **effect(name="circle"),
    "layers": [{"attribute": "position", "form": {"kind": "path", "path": "circle", "width": 20, "height": 10}}],
}


def row(number: int, kind: str, heads: list[str], **more: Any) -> BuskRowPart:
    document = {
        "carries": ["colour", "position", "beam", "effects"],
        "colour": [{"id": RED, "palette": 1}, {"id": BLUE, "palette": 2}],
        "position": [{"id": STAGE, "palette": 3}],
        "beam": [{"id": NARROW, "palette": 4}],
        "effects": [{"id": SWELL, "effect": 1}, {"id": WAVE, "effect": 2}, {"id": HELD, "effect": 1, "while_held": True}],
        "tempo": 1, "colour_tempo": 1,
    }  # fmt: skip
    return BuskRowPart(number, 1, number, f"row {number}", kind, tuple(heads), document | more)


ROWS = [row(TOP, "all", []), row(LEFT, "lights", ["1", "2"]), row(RIGHT, "lights", ["3", "4"])]
SWEEP = {"name": "out", "everything_else_out": True, "times": {"intensity": {"up": 0, "down": 1, "delay": 0}}}


def parts(rows: list[BuskRowPart] | None = None, swells: dict[str, Any] = SWELLS, bpm: float = 120.0) -> list[Any]:
    numbered = [with_numbers(one, {}, {"Movement": 1}) for one in (swells, CIRCLES)]
    return [
        *rig_parts(RIG),
        TempoPart(1, "Movement", bpm, 1), TempoPart(2, "Colour", 90.0, 2), TempoPart(3, "Zoom", 60.0, 3),
        *(PalettePart(n, name, values, {}) for n, (name, values) in PALETTES.items()),
        *(EffectPart(n + 1, one) for n, one in enumerate(numbered)),
        CueListPart(1, "songs", 1, {}), CuePart(1, 1, 1.0, SWEEP),
        *(ROWS if rows is None else rows),
    ]  # fmt: skip


class Page(Live):
    """A live state with a busking page; what is on stage can be looked at."""

    def __init__(self, **more: Any) -> None:
        super().__init__()
        self.compiler = Compiler()
        self.edit(0.0, **more)
        self.act({"do": "next-change", "seconds": 0.0, "position_s": 0.0}, 0.0)

    def made_of(self, **more: Any) -> list[Any]:
        return parts(**more)

    def edit(self, t: float, **more: Any) -> None:
        self.swap(self.compiler.take(ShowUpdate("test", 1, self.made_of(**more), whole=True)), t)

    def pad(self, number: int, t: float, row: int = LEFT, **more: Any) -> None:
        self.act({"do": "pad", "row": row, "pad": number, **more}, t)

    def at(self, t: float) -> np.ndarray:
        """Values (A, N) as a frame has them."""
        self.advance(t)
        state, rig = on_stage(self.now, t), self.now.program.rig
        every = list(state.beneath_overlays.values())
        stages: list[Any] = [Effects(Batches([one.placed for one in every], len(rig), rig.mixes), running_at(state, every, t))]
        stages += [one.stage for one in Stages().at(state, t)]
        base = Base(base_at(rig, state.claims, t))
        return Frame(rig).values(base, stages, levels_at(state, t), t, crossing(state)).copy()

    def of(self, attribute: str, t: float) -> list[float]:
        """An attribute of all four heads, rounded."""
        return np.round(self.at(t)[attributes.INDEX[attribute]], 4).tolist()

    def colours(self, t: float) -> list[str]:
        """Of all four heads: r, g, b or w where one drive is full or all are."""
        rows = self.at(t)[[attributes.RED, attributes.GREEN, attributes.BLUE]].T
        names = {(1, 0, 0): "r", (0, 0, 1): "b", (0, 1, 0): "g", (1, 1, 1): "w"}
        return [names.get(tuple(np.round(one, 3).tolist()), str(np.round(one, 3).tolist())) for one in rows]
