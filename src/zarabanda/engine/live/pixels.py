"""Pixel maps on stage: their shares, the θ of their layers, and the stages of the frame that they are (docs/computation.md)."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from zarabanda.core.pixels.layers import Layer, Moment
from zarabanda.core.pixels.light import Picture
from zarabanda.core.playback.trace import Over
from zarabanda.errors import ZarabandaError
from zarabanda.messages import LookAtPixels, PixelLevel, PixelsOut, PixelsTold, PressPixels

from ..pixels import LayerSpeed, MadeLayer, PixelMap, Stack
from ..program import Program
from .playing import OUT, Fade, out_at
from .state import DEFAULT_RELEASE_S, LiveState
from .tempo import Clock

Use = tuple[int, int]
"""A map, and the picture of the library that is on it; 0: its own layers."""


@dataclass(frozen=True)
class PixelsState:
    """A pixel map that is in, or on a way. fader: where its share is or goes; flash: what hands that hold it add; over: over
    effects, or under them; since: when it came, with the beats of tempos then; shifts: of θ, by layer; list_id: the cue list that
    moved its fader last, 0: hands; clock: what counts the beats of all tempos, where a song does; song: which plays, and how far
    its time is behind."""

    map: int
    picture: int
    over: bool
    since: float
    beats: Mapping[int, float] = field(default_factory=dict)
    fader: Fade = OUT
    flash: Fade = OUT
    shifts: Mapping[int, float] = field(default_factory=dict)
    list_id: int = 0
    clock: Clock | None = None
    song: tuple[int, float] | None = None

    @property
    def use(self) -> Use:
        """Which it is."""
        return self.map, self.picture

    def share(self, t: float) -> float:
        """How far it acts, 0…1."""
        return max(self.fader.share(t), self.flash.share(t))

    @property
    def out_at(self) -> float:
        """When it is out; infinity while it is in or held."""
        return out_at(self.fader, self.flash)


def named(state: LiveState, number: int) -> PixelMap:
    """A map by its number, or a clear refusal."""
    found = state.program.maps.get(number)
    if found is None:
        raise ZarabandaError("This pixel map is not there any more. Reload the page to see what is there.", "map")
    return found


def stack_of(program: Program, use: Use) -> Stack | None:
    """The layers of a use; None: its map or picture is gone."""
    if use[0] not in program.maps:
        return None
    return program.pictures.get(use[1]) if use[1] else program.maps[use[0]].stack


def object_of(use: Use) -> str:
    """What it is called among what songs and hands drive."""
    return f"pixels:{use[0]}:{use[1]}"


# what hands do


def level(state: LiveState, action: PixelLevel, t: float) -> LiveState:
    """Move the share of a map."""
    return changed(state, (action.map, action.picture), t, fader=Fade(action.value, action.value, t), over=action.over)


def press(state: LiveState, action: PressPixels, t: float) -> LiveState:
    """Bring one in or out, in its own time."""
    own = named(state, action.map)
    return brought(state, (action.map, action.picture), 1.0 if action.on else 0.0, own.in_s if action.on else own.out_s, t,
                   over=action.over)  # fmt: skip


def brought(
    state: LiveState, use: Use, share: float, seconds: float, t: float, *, delay: float = 0.0, ease: str = "linear",
    over: bool | None = None, list_id: int = 0,
) -> LiveState:  # fmt: skip
    """With one on its way to a share. list_id: of the cue list that does it, 0: hands do."""
    now = state.pixels[use].fader if use in state.pixels else OUT
    return changed(state, use, t, fader=now.to(share, t, seconds, delay=delay, ease=ease), over=over, list_id=list_id)


def held(state: LiveState, use: Use, on: bool, t: float, over: bool | None = None) -> LiveState:
    """One held by hands, or by none any more."""
    own = named(state, use[0])
    now = state.pixels[use].flash if use in state.pixels else OUT
    return changed(state, use, t, flash=now.to(1.0, t, own.in_s) if on else now.to(0.0, t, own.out_s), over=over)


def is_in(state: LiveState, use: Use) -> bool:
    """Whether one is in, or on its way in, by its fader."""
    return use in state.pixels and state.pixels[use].fader.end > 0


def changed(
    state: LiveState, use: Use, t: float, *, fader: Fade | None = None, flash: Fade | None = None, over: bool | None = None,
    list_id: int = 0,
) -> LiveState:  # fmt: skip
    """With another fader or flash of one, which comes by that if it is not there; the latest that comes acts last."""
    whole = named(state, use[0])
    if stack_of(state.program, use) is None:
        raise ZarabandaError("This picture is not in the library any more. Undo brings it back.", "picture")
    own = state.pixels.get(use)
    new = own or PixelsState(
        *use, whole.over_effects, t, {number: clock.beats(t) for number in state.program.tempos
                                      for clock in [state.counter(number)] if clock is not None},
    )  # fmt: skip
    new = replace(
        new,
        fader=fader or new.fader,
        flash=flash or new.flash,
        over=new.over if over is None else over,
        list_id=new.list_id if fader is None else list_id,
    )
    if own is None and new.out_at <= t:
        return state
    return tidied(state.with_(pixels={**state.pixels, use: new}), t)


def out(state: LiveState, seconds: float, t: float, but: Collection[str] = (), delay: float = 0.0) -> LiveState:
    """With all on their way out in a time; what hands hold stays until they let go. but: what stays, by its object."""
    for use, own in state.pixels.items():
        protected = own.list_id in state.program.lists and state.program.lists[own.list_id].protected
        if own.fader.end > 0 and object_of(use) not in but and not protected:
            state = state.with_(pixels={**state.pixels, use: replace(own, fader=own.fader.to(0.0, t, seconds, delay=delay))})
    return tidied(state, t)


def all_out(state: LiveState, action: PixelsOut, t: float) -> LiveState:
    """Bring all out."""
    return out(state, action.seconds, t)


def look_at(state: LiveState, action: LookAtPixels, t: float) -> LiveState:
    """See one on screens while the stage stays."""
    if action.map:
        named(state, action.map)
    return state.with_(pixels_seen=(action.map, action.picture) if action.map else None, pixels_seen_by=action.holder)


def tidied(state: LiveState, t: float) -> LiveState:
    """Without what is out."""
    gone = {use for use, own in state.pixels.items() if own.out_at <= t}
    return state.with_(pixels={use: own for use, own in state.pixels.items() if use not in gone}) if gone else state


def taken(state: LiveState, before: Program, t: float) -> LiveState:
    """After a new program was taken: what is gone goes out, and no edit of a speed makes a phase jump."""
    if before.maps is state.program.maps and before.pictures is state.program.pictures:
        return state
    for use, own in state.pixels.items():
        was, now = stack_of(before, use), stack_of(state.program, use)
        if use[0] not in state.program.maps:
            state = state.with_(pixels={one: other for one, other in state.pixels.items() if one != use})
        elif now is None:
            own = replace(own, fader=own.fader.to(0.0, t, DEFAULT_RELEASE_S), flash=own.flash.to(0.0, t, DEFAULT_RELEASE_S))
            state = state.with_(pixels={**state.pixels, use: own})
        elif was is not None and was is not now:
            state = state.with_(pixels={**state.pixels, use: replace(own, shifts=_shifts(state, own, was, now, t))})
    seen = state.pixels_seen
    if seen is not None and stack_of(state.program, seen) is None:
        state = state.with_(pixels_seen=None)
    return tidied(state, t)


def _shifts(state: LiveState, own: PixelsState, was: Stack, now: Stack, t: float) -> Mapping[int, float]:
    before = {one.id: one.speed for one in was.layers}
    shifts = dict(own.shifts)
    for one in now.layers:
        old = before.get(one.id)
        if old is not None and old != one.speed:
            shifts[one.id] = theta(state, own, one.id, old, t) - _running(state, own, one.speed, t)
    return shifts


# what is seen


def theta(state: LiveState, own: PixelsState, layer: int, speed: LayerSpeed, t: float) -> float:
    """θ of a layer, in cycles, before its run."""
    return _running(state, own, speed, t) + own.shifts.get(layer, 0.0)


def _running(state: LiveState, own: PixelsState, speed: LayerSpeed, t: float) -> float:
    if speed.kind == "time":
        return (t - own.since) / speed.seconds
    found = state.beats_from(speed.tempo)
    clock = own.clock or (found[1] if found is not None else None)
    if clock is None:
        return 0.0
    began = own.beats.get(speed.tempo or 0, 0.0) if speed.sync == "start" else 0.0
    return speed.cycles_per_beat * (clock.beats(t) - began)


def run(theta_: float, how: str) -> float:
    """θ′: forward, backward, or back and forth."""
    if how == "backward":
        return -theta_
    return 1 - abs(1 - theta_ % 2) if how == "back-and-forth" else theta_


def moment(state: LiveState, own: PixelsState, one: MadeLayer, t: float) -> tuple[Layer, Moment]:
    """A layer, and when it is looked at."""
    seconds = t - own.since
    if one.clock == "song" and own.song is not None:
        seconds = t - own.song[1]
    heard = state.program.sounds.heard(own.song, one.layer.figure_values, t) if one.listens else None
    now = Moment(run(theta(state, own, one.id, one.speed, t), one.speed.run), seconds)
    return one.layer, now if heard is None else replace(now, heard=heard)


def stage(state: LiveState, own: PixelsState, t: float) -> Over | None:
    """One as a stage of the frame; None: it is gone."""
    stack = stack_of(state.program, own.use)
    if stack is None:
        return None
    whole = state.program.maps[own.map]
    layers = [moment(state, own, one, t) for one in stack.layers]
    return Over("pixels", name_of(state.program, own.use), Picture(whole.wall, layers, own.share(t)))


def stages(state: LiveState, t: float, *, over: bool) -> list[Over]:
    """All that act over effects, or under them, in the order in which they came."""
    found = [stage(state, own, t) for own in state.pixels.values() if own.over == over]
    return [one for one in found if one is not None]


def as_seen(state: LiveState, use: Use) -> PixelsState:
    """One that is looked at: as it is on stage, or as if it had always run."""
    return state.pixels.get(use) or PixelsState(*use, state.program.maps[use[0]].over_effects, 0.0)


def seen(state: LiveState, t: float) -> LiveState:
    """What screens show while a map is looked at: the state with it alone, whole."""
    use = state.pixels_seen
    assert use is not None
    own = as_seen(state, use)
    others = {other: one for other, one in state.pixels.items() if one.map != use[0]}
    return state.with_(pixels={**others, use: replace(own, fader=Fade(1.0, 1.0))})


def name_of(program: Program, use: Use) -> str:
    """What a use is called."""
    stack, whole = stack_of(program, use), program.maps.get(use[0])
    if stack is None or whole is None:
        return "a picture that is gone"
    return f"{stack.name} on {whole.name}" if use[1] else whole.name


def _heard(state: LiveState, own: PixelsState, t: float) -> dict[int, float]:
    """What layers that listen read: the loudest of their bands, in their range."""
    stack, found = stack_of(state.program, own.use), dict[int, float]()
    for one in stack.layers if stack is not None else ():
        if one.listens:
            how = one.layer.figure_values
            bands = state.program.sounds.heard(own.song, how, t).bands
            low, high = sorted((how.get("lowest", 0.0), how.get("highest", 1.0)))
            loudest = float(bands[int(low * 31) : int(high * 31) + 1].max(initial=0))
            found[one.id] = round(min(loudest * how["gain"], 1.0), 3)
    return found


def _by(state: LiveState, own: PixelsState) -> str:
    """What moved its fader last, in words."""
    if own.list_id in state.program.lists:
        return state.program.lists[own.list_id].name
    return "song" if own.clock is not None else "by hand"


def told(state: LiveState, t: float) -> list[PixelsTold]:
    """All that are on stage, in their order."""
    return [
        PixelsTold(
            own.map, own.picture, name_of(state.program, use), _by(state, own), own.fader.end, own.share(t),
            own.fader.end > 0 or own.flash.end > 0, own.over, _heard(state, own, t),
        )
        for use, own in state.pixels.items()
    ]  # fmt: skip


ACTIONS: dict[Any, Any] = {PixelLevel: level, PressPixels: press, PixelsOut: all_out, LookAtPixels: look_at}
