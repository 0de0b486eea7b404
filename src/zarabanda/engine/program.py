"""What the engine works on: one immutable program, swapped in between two frames."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from zarabanda.core.effects.effect import Effect
from zarabanda.core.effects.placement import Placed
from zarabanda.core.playback.frame import Base, base_of
from zarabanda.core.rig.rig import Rig, build


@dataclass(frozen=True)
class Instance:
    """An effect on a selection, that may play. key: `draft:3` or `control:5`; always: plays as long as it is there."""

    key: str
    effect_id: int
    name: str
    source: str
    effect: Effect
    placed: Placed
    always: bool


@dataclass(frozen=True)
class Control:
    """A fader or button: what it runs, how it acts. mode: `fader`, `latch` or `flash`; release in s.

    job: what a fader changes, `depth`, `speed` or `both`.
    """

    key: str
    name: str
    mode: str
    release_s: float
    job: str = "depth"


@dataclass(frozen=True)
class Program:
    """Everything that the show gives the engine. Swapped in whole, between two frames."""

    rig: Rig
    rig_revision: str
    revision: int
    base: Base
    instances: dict[str, Instance]
    controls: dict[str, Control]
    tempos: dict[str, float]
    opening: tuple[dict[str, Any], ...]
    let_go: tuple[str, ...] = ()
    faults: tuple[str, ...] = ()
    """What of the show could not be read, in words."""
    session: str = ""
    """Who counts the revisions: another web process begins anew."""


EMPTY_RIG = build([])
EMPTY = Program(EMPTY_RIG, "", 0, base_of(EMPTY_RIG), {}, {}, {}, ())
