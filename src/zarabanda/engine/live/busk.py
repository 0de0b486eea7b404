"""Where rows of busking pages are, and what goes over all of them, as values that never change."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Any

from zarabanda.core.effects.variants import AS_IT_IS, Variant
from zarabanda.core.playback.shares import INFINITY
from zarabanda.core.playback.two_colours import TwoColours
from zarabanda.messages import ControlId

from .playing import Fade

if TYPE_CHECKING:
    from .state import LiveState


_FULL, _NO_TWO = Fade(), TwoColours()


@dataclass(frozen=True)
class WaitingPress:
    """A press that waits for a beat of a tempo. on: of an effect pad, whether it comes or goes; order: of the press among all."""

    pad: int
    on: bool
    beat: float
    tempo: int
    order: int

    def due_at(self, state: LiveState) -> float:
        """Its stamp; infinity while nothing counts its beats."""
        tempo = state.counter(self.tempo)
        return tempo.time_of(self.beat) if tempo is not None else INFINITY


@dataclass(frozen=True)
class RowState:
    """Where a row is. level: of its fader; shown: that its claims act by (a row that was let go goes out from where it was);
    depth: of its effects; pressed: the pad that holds each thing; sent: the message pad that was sent last; values: of haze and
    fan, in %."""

    level: float | None = None
    shown: float = 0.0
    depth: Fade = _FULL
    pairs: bool = False
    pressed: Mapping[str, int] = field(default_factory=dict)
    waiting: tuple[WaitingPress, ...] = ()
    sent: int | None = None
    values: Mapping[str, float] = field(default_factory=dict)


@dataclass(frozen=True)
class Flashing:
    """A flash that is held or goes out. since: when it was pressed; share: how far it lies over what runs."""

    row: int
    kind: str
    since: float
    share: Fade

    @property
    def key(self) -> ControlId:
        """By which it is held."""
        return ControlId(f"flash:{self.row}:{self.kind}")


@dataclass(frozen=True)
class BuskState:
    """What goes over all rows. seconds, position_s: that the next press takes; waits: for what it waits, beat, bar or nothing;
    variant: how all intensity effects are played; release_s, rate_hz: of flashes."""

    seconds: float = 0.5
    position_s: float = 1.5
    waits: str = ""
    variant: Variant = AS_IT_IS
    release_s: float = 0.5
    rate_hz: float = 8.0
    two: TwoColours = _NO_TWO
    flashing: tuple[Flashing, ...] = ()
    presses: int = 0

    def with_(self, **changes: Any) -> BuskState:
        """With other parts."""
        return replace(self, **changes)

    def fade_s(self, family: str) -> float:
        """In what time something of a family goes where it goes."""
        return self.position_s if family == "position" else self.seconds


NEW_ROW, NEW_BUSK = RowState(), BuskState()
