"""Actions on the two colours, and what they are in a frame (docs/computation.md, "Two colours")."""

from __future__ import annotations

from typing import Any

from zarabanda.core.colour.spaces import hex_to_rgb
from zarabanda.core.playback.two_colours import CYCLES_PER_BEAT, Place, Weaving
from zarabanda.messages import PickTwo

from ..program import Program
from .rows import row_of
from .state import LiveState


def pick(state: LiveState, action: PickTwo, t: float) -> LiveState:
    """Pick a colour, the rows that take part, or the mix."""
    two = state.busk.two
    if action.a is not None:
        two = two.with_(a=two.a.to(hex_to_rgb(action.a), t))
    if action.b is not None:
        two = two.with_(b=two.b.to(hex_to_rgb(action.b), t))
    if action.rows is not None:
        two = two.with_(rows=frozenset(row_of(state, number).id for number in action.rows))
    if action.mix is not None:
        two = two.with_(mix=action.mix)
    return state.with_(busk=state.busk.with_(two=two))


def theta(state: LiveState, t: float) -> float:
    """Where in their cycle they are, in cycles: by the tempo for colours of the page, else by the first."""
    rows = [state.program.rows[number] for number in sorted(state.busk.two.rows) if number in state.program.rows]
    top = state.program.top_of(rows[0]) if rows else None
    number = top.colour_tempo if top is not None and top.colour_tempo in state.tempos else next(iter(state.tempos), None)
    return CYCLES_PER_BEAT * (state.tempos[number].beats(t) if number is not None else 2 * t)


class TwoColourStages:
    """Makes the stage of a frame; where it acts is kept as long as the rows are the same."""

    def __init__(self) -> None:
        self._known: tuple[Program, frozenset[int]] | None = None
        self._place: Place | None = None

    def at(self, state: LiveState, t: float) -> Weaving | None:
        """The stage at t; None where it is not seen."""
        two, program = state.busk.two, state.program
        if not two.acts:
            return None
        if self._known is None or self._known[0] is not program or self._known[1] != two.rows:
            rows = [program.rows[number].lit for number in sorted(two.rows) if number in program.rows]
            self._known, self._place = (program, two.rows), Place.of(program.rig, rows)
        assert self._place is not None
        return Weaving(self._place, theta(state, t), two.a.at(t), two.b.at(t), two.mix)


ACTIONS: dict[Any, Any] = {PickTwo: pick}
