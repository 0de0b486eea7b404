"""Actions on specials, and what falls due in them by itself (docs/computation.md, "Specials")."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Any

from zarabanda.core.playback.claims import arrived
from zarabanda.core.playback.kept_looks import Laid
from zarabanda.core.playback.looks import Floats
from zarabanda.core.playback.shares import INFINITY
from zarabanda.core.playback.specials import LOOK, Crossing, Gate, Point, Special
from zarabanda.core.rig import attributes
from zarabanda.errors import ZarabandaError
from zarabanda.messages import PressSpecial, SpecialsHome, SpecialsLevel, SpecialTold

from ..program import Program
from .levels import share
from .on_stage import claims_of, on_stage
from .stages import look_at
from .state import LiveState


def press_special(state: LiveState, action: PressSpecial, t: float) -> LiveState:
    """Press a special, or give its lights back."""
    special = state.program.specials.get(action.special)
    if special is None:
        raise ZarabandaError("This special is not there any more. Reload the page to see what is there.", "special")
    return _asked(state, special, action.on, t)


def _asked(state: LiveState, special: Special, on: bool, t: float) -> LiveState:
    """With a special on or off, and all its lights asked to where they are to go by then."""
    order = tuple(one for one in state.specials.on if one != special.id) + ((special.id,) if on else ())
    gates = dict(state.specials.gates)
    for head in special.heads:
        if head in state.program.rig.heads.index:
            gates[head] = state.specials.gate(head).asked(_wanted(state, order, head), special, t)
    state = _with(state, on=order, gates=gates)
    return _crossed(state, [head for head in special.heads if head in gates and _is_dark(state, head, t)], t)


def home(state: LiveState, action: SpecialsHome, t: float) -> LiveState:
    """Give the lights of all specials back."""
    for number in reversed(state.specials.on):
        state = _asked(state, state.program.specials[number], False, t)
    return state


def taken(state: LiveState, before: Program, t: float) -> LiveState:
    """After a new program was taken: lights that no special asks for any more go home the clean way; a special that is gone
    stays until none of its lights shows it."""
    if before.specials is state.program.specials or not state.specials.gates:
        return state
    sides, now = {gate.side for gate in state.specials.gates.values()}, state.program.specials.keys()
    left = {n: one for n, one in before.specials.items() if n in sides and n not in now}
    for number, one in state.program.specials.items():
        staying = [head for head, gate in state.specials.gates.items() if gate.side == number and head not in one.heads]
        if staying and number in before.specials:
            left[number] = _with_heads_of(state, one, before, staying)
    if left:
        state = state.with_(program=replace(state.program, specials={**state.program.specials, **left}))
    state = _with(state, on=tuple(one for one in state.specials.on if one in now))
    for head, gate in state.specials.gates.items():
        wanted = _wanted(state, state.specials.on, head)
        special = state.program.specials.get(wanted) or before.specials.get(gate.wanted) or before.specials.get(gate.side)
        if wanted != gate.wanted and special is not None:
            state = _with(state, gates={**state.specials.gates, head: gate.asked(wanted, special, t)})
            if _is_dark(state, head, t):
                state = _crossed(state, [head], t)
    return state


def _wanted(state: LiveState, on: Iterable[int], head: str) -> int:
    """The side that a head is asked to: the special pressed last among those that ask for it, else the look."""
    asking = [number for number in on if head in state.program.specials[number].heads]
    return asking[-1] if asking else LOOK


def specials_level(state: LiveState, action: SpecialsLevel, t: float) -> LiveState:
    """Move the fader of all specials."""
    return _with(state, level=share(action.value, "value"))


def _is_dark(state: LiveState, head: str, t: float) -> bool:
    """Whether a head that is asked to another side gives no light: its side's intensity × gate × level of all specials."""
    gate = state.specials.gates[head]
    if not gate.falls:
        return False
    if gate.share(t) <= 0 or (gate.side != LOOK and state.specials.level <= 0):
        return True
    return _commanded(state, gate.side, head, t)[0] <= 0


def _commanded(state: LiveState, side: int, head: str, t: float) -> tuple[float, Point]:
    """Intensity, and pan and tilt, that a side has for a head now."""
    special, rig = state.program.specials.get(side), state.program.rig
    values = look_at(on_stage(state, t), t) if special is None else special.values
    number = rig.heads.index[head]
    pan, tilt = values[[attributes.PAN, attributes.TILT], number].tolist()
    led_by = values[attributes.INTENSITY, rig.leader[number]] if rig.led[number] else 100.0
    return float(min(values[attributes.INTENSITY, number], led_by)), (pan, tilt)


def _goal(state: LiveState, side: int, head: str) -> Point:
    """Pan and tilt that a side comes to: of the look once all its current claims have arrived."""
    special, rig = state.program.specials.get(side), state.program.rig
    values = _arrived(state) if special is None else special.values
    pan, tilt = values[[attributes.PAN, attributes.TILT], rig.heads.index[head]].tolist()
    return pan, tilt


def _arrived(state: LiveState) -> Floats:
    """What the look comes to, (A, N), overlays as their faders go."""
    values = arrived(claims_of(state), state.program.rig.home)
    every = [one for layer in (*(song.inner for song in state.songs), state) for one in layer.overlays.values()]
    for own in sorted(every, key=lambda one: (one.look.position, one.look.id)):
        Laid(own.look, max(own.fader.end, own.flash.end), own.beneath).apply(values)
    return values


def _speed(state: LiveState, head: str) -> Point:
    pan, tilt = state.program.rig.speed[:, state.program.rig.heads.index[head]].tolist()
    return pan, tilt


def _crossed(state: LiveState, heads: Iterable[str], t: float) -> LiveState:
    """With heads on the other side, in the dark."""
    gates = dict(state.specials.gates)
    for head in heads:
        gate = gates[head]
        left = _commanded(state, gate.side, head, t)[1]
        gates[head] = gate.crossed(t, left, _goal(state, gate.wanted, head), _speed(state, head))
    return _with(state, gates=gates)


def due(state: LiveState) -> float:
    """When the next head crosses or opens by itself."""
    return min((gate.due for gate in state.specials.gates.values()), default=float("inf"))


def fall_due(state: LiveState, t: float) -> LiveState:
    """With the heads crossed or opening that are due at t."""
    ready = {head: gate for head, gate in state.specials.gates.items() if gate.due <= t}
    opened = {head: gate.opened(t) for head, gate in ready.items() if gate.opens is not None}
    state = _with(state, gates={**state.specials.gates, **opened})
    return _crossed(state, [head for head in ready if head not in opened], t)


def with_goals(state: LiveState) -> LiveState:
    """With heads waiting longer in the dark where what they come to in the look has changed."""
    waiting = [head for head, gate in state.specials.gates.items() if gate.opens is not None and gate.side == LOOK]
    if not waiting:
        return state
    gates = dict(state.specials.gates)
    for head in waiting:
        gates[head] = gates[head].going_to(_goal(state, LOOK, head), _speed(state, head))
    return _with(state, gates=gates)


def tidied(state: LiveState, t: float) -> LiveState:
    """Without gates of heads that are open in the look and stay there."""
    done = [head for head, gate in state.specials.gates.items() if gate.at_rest and gate.share(t) >= 1]
    if not done:
        return state
    return _with(state, gates={head: gate for head, gate in state.specials.gates.items() if head not in done})


def _with_heads_of(state: LiveState, special: Special, before: Program, heads: Iterable[str]) -> Special:
    """A special that shows on some heads what it showed there before."""
    values, index, old = special.values.copy(), state.program.rig.heads.index, before.rig.heads.index
    for head in heads:
        if head in index and head in old:
            values[:, index[head]] = before.specials[special.id].values[:, old[head]]
    return replace(special, values=values)


def told(state: LiveState, t: float) -> list[SpecialTold]:
    """Where each special is: the phase of its light that is farthest behind."""
    found = []
    for special in state.program.specials.values():
        gates = [state.specials.gate(head) for head in special.heads]
        phases = [(_phase(gate, special.id, t), gate) for gate in gates]
        named = [(name, gate) for name, gate in phases if name]
        name = min((name for name, _ in named), key=_PHASES.index, default="off")
        until = max((_over_at(gate, t) for one, gate in named if one == name), default=INFINITY)
        found.append(
            SpecialTold(
                special.id, special.name, special.id in state.specials.on, name, until if until < INFINITY else None,
                len(named), len(special.heads),
            )
        )  # fmt: skip
    return found


_PHASES = ("to dark", "moving", "opening", "home to dark", "home moving", "home opening", "on", "off")


def _phase(gate: Gate, special: int, t: float) -> str:
    """What a light of a special does for it; empty: nothing."""
    if special not in (gate.side, gate.wanted, gate.came_from):
        return ""
    ours = gate.wanted == special
    if not ours and gate.wanted != LOOK:
        return ""  # another special has it
    way = "" if ours else "home "
    if gate.falls:
        return f"{way}to dark"
    if gate.opens is not None:
        return f"{way}moving"
    return f"{way}opening" if _over_at(gate, t) < INFINITY else "on" if ours else ""


def _over_at(gate: Gate, t: float) -> float:
    """When what a gate does is over; infinity: it does nothing more."""
    if gate.falls or gate.opens is not None:
        return gate.due
    opened = gate.at + (1 - gate.level) * gate.up
    return opened if opened > t else INFINITY


def crossing(state: LiveState) -> Crossing | None:
    """The stage of the frame; None where all heads are simply in the look."""
    if not state.specials.gates:
        return None
    return Crossing(state.program.rig, state.specials, state.program.specials)


def _with(state: LiveState, **changes: Any) -> LiveState:
    return state.with_(specials=replace(state.specials, **changes))


ACTIONS: dict[Any, Any] = {PressSpecial: press_special, SpecialsLevel: specials_level, SpecialsHome: home}
