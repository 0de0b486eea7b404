"""A small rig and shows on it, as the engine gets them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import msgspec

from zarabanda.core.rig.modes import ModeSpec
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.acts import act
from zarabanda.engine.live.advance import advance
from zarabanda.engine.live.programs import order_in, take
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.live.tempo import Tempo
from zarabanda.engine.program import Program
from zarabanda.messages import (
    AnyPart,
    ControlPart,
    DraftEffectPart,
    DraftValuesPart,
    EffectPart,
    FixturePart,
    ModePart,
    OpeningPart,
    PalettePart,
    PlayerId,
    ShowUpdate,
    TempoPart,
    action,
)
from zarabanda.show.references import with_numbers
from zarabanda.targets import EffectOnHeads

MODE = {
    "name": "spot", "kind": "spot", "emitters": "cmy", "footprint": 10,
    "channels": [
        {"source": source, "slots": slots, "low": low, "high": high}
        for source, slots, low, high in (
            ("pan", [0, 1], -270, 270), ("tilt", [2, 3], -135, 135), ("intensity", [4], 0, 100), ("cyan", [5], 0, 1),
            ("magenta", [6], 0, 1), ("yellow", [7], 0, 1), ("zoom", [8], 5, 50),
        )
    ],
    "limits": {},
}  # fmt: skip
RIG = {
    "modes": [MODE],
    "fixtures": [
        {"id": n, "name": "", "mode": 1, "place": [n, 0, 5], "universe": 1, "address": 1 + 10 * (n - 1)} for n in range(1, 5)
    ],
}
HEADS = ["1", "2", "3", "4"]


def effect(**more: Any) -> dict[str, Any]:
    """Intensity following rise from 0 to 100 %, in step on all heads, a cycle a second, unless said otherwise."""
    layer = {
        "attribute": "intensity",
        "form": {"kind": "waveform", "shape": "rise"},
        "anchor": {"kind": "between", "low": 0, "high": 100},
    }
    document = {"name": "rise", "layers": [layer], "spread": {"kind": "ripple", "degrees": 0}, "lanes": {},
                "speed": {"kind": "time", "seconds_per_cycle": 1.0}}  # fmt: skip
    return document | more


def on_tempo(rate: float = 1.0, sync: str = "beat") -> dict[str, Any]:
    return {"kind": "tempo", "tempo": "Movement", "cycles_per_beat": rate, "sync": sync}


def show(document: dict[str, Any], *, control: str = "", revision: int = 1, **more: Any) -> dict[str, Any]:
    """A show with one effect: in the draft, or on a control of a mode."""
    key = "control:1" if control else "draft:1"
    return {
        "revision": revision,
        "draft": {},
        "instances": [{"key": key, "effect_id": 1, "effect": document, "heads": HEADS, "source": "test", "always": not control}],
        "controls": [{"key": key, "name": "test", "mode": control, "release_s": 0.5}] if control else [],
        "tempos": {"Movement": 120.0},
        "opening": [],
    } | more


def two(first: dict[str, Any], second: dict[str, Any], **more: Any) -> dict[str, Any]:
    """A show with an effect on each of two buttons."""
    instances = [
        {"key": f"control:{n}", "effect_id": n, "effect": one, "heads": HEADS, "source": "test", "always": False}
        for n, one in enumerate((first, second), 1)
    ]
    controls = [{"key": f"control:{n}", "name": "test", "mode": "flash", "release_s": 0.5} for n in (1, 2)]
    return show(first, instances=instances, controls=controls, **more)


def rig_parts(rig: dict[str, Any]) -> list[AnyPart]:
    modes = [ModePart(n + 1, msgspec.convert(mode, ModeSpec)) for n, mode in enumerate(rig["modes"])]
    return [*modes, *(msgspec.convert(one | {"part": "fixture"}, FixturePart) for one in rig["fixtures"])]


def update(message: dict[str, Any], rig: dict[str, Any] = RIG, let_go: Sequence[str] = ()) -> ShowUpdate:
    """A show as the engine gets it: parts with numbers, from the short form above with names."""
    tempos = {name: n + 1 for n, name in enumerate(("Movement", "Colour", "Zoom"))}
    palettes = {name: n + 1 for n, name in enumerate(message.get("palettes", {}))}
    parts: list[Any] = [*rig_parts(rig), OpeningPart(tuple(message["opening"]))]
    parts += [TempoPart(tempos[name], name, bpm, tempos[name]) for name, bpm in message["tempos"].items()]
    parts += [PalettePart(palettes[name], name, **one) for name, one in message.get("palettes", {}).items()]
    parts += [DraftValuesPart(name, heads) for name, heads in message["draft"].items()]
    controls = {one["key"]: one for one in message["controls"]}
    for one in message["instances"]:
        parts.append(EffectPart(one["effect_id"], with_numbers(one["effect"], palettes, tempos)))
        target = EffectOnHeads(one["effect_id"], tuple(one["heads"]), one.get("families"))
        number = int(one["key"].split(":")[1])
        if one["always"]:
            parts.append(DraftEffectPart(number, target))
        else:
            how = {"name": "test", "mode": "fader", "release_s": 0.5, "job": "depth"} | controls.get(one["key"], {})
            del how["key"]
            parts.append(ControlPart(number, source=one["source"], target=target, **how))
    return ShowUpdate("test", message["revision"], parts, whole=True, let_go=list(let_go))


def program(
    message: dict[str, Any], compiler: Compiler | None = None, rig: dict[str, Any] = RIG, let_go: Sequence[str] = ()
) -> Program:
    """The program of a show on the small rig."""
    return (compiler or Compiler()).take(update(message, rig, let_go))


class Live:
    """A live state that changes, to write tests with: always the newest of its states."""

    def __init__(self) -> None:
        self.now = LiveState()

    def __getattr__(self, name: str) -> Any:
        return getattr(self.now, name)

    def act(self, document: dict[str, Any], t: float) -> None:
        self.now = act(self.now, action(document), t)

    def swap(self, program: Program, t: float) -> list[str]:
        self.now, told = take(self.now, program, t)
        return told

    def advance(self, t: float) -> None:
        self.now = advance(self.now, t)

    def order_in(self, program: Program) -> list[PlayerId]:
        return order_in(self.now, program)

    def tempo(self, name: str) -> Tempo:
        return next(self.now.tempos[part.id] for part in self.now.program.tempos.values() if part.name == name)

    def beats(self, name: str, t: float) -> float:
        return self.tempo(name).beats(t)
