"""The live state: what plays since when and how strong, tempos, levels. Changed by actions, never by undo."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from zarabanda.core.plan import Plan, Running
from zarabanda.errors import ZarabandaError, shown

from .program import EMPTY, Instance, Program
from .tempo import Tempo

DEFAULT_RELEASE_S = 0.4


@dataclass
class Playing:
    """One instance that plays. Its weight W is level × fade; the fade goes from one share to another over a time."""

    instance: Instance
    started: float
    started_beat: float
    level: float = 1.0
    fade_from: float = 1.0
    fade_to: float = 1.0
    fade_at: float = 0.0
    fade_s: float = 0.0
    shift: float = 0.0
    rate: float = 1.0
    layer_shifts: list[float] = field(default_factory=list)
    frozen: float | None = None

    def fade(self, t: float) -> float:
        """Share of the fade at t."""
        if self.fade_s <= 0 or t >= self.fade_at + self.fade_s:
            return self.fade_to
        return self.fade_from + (self.fade_to - self.fade_from) * max(0.0, (t - self.fade_at) / self.fade_s)

    def weight(self, t: float) -> float:
        """W at t."""
        return self.level * self.fade(t)

    def fade_towards(self, share: float, seconds: float, t: float) -> None:
        """Begin a fade from where it is now."""
        self.fade_from, self.fade_to, self.fade_at, self.fade_s = self.fade(t), share, t, seconds

    @property
    def stopping(self) -> bool:
        """Whether it fades out, or has."""
        return self.fade_to == 0


class LiveState:
    """Everything live, and the actions on it. All times are s of the engine's clock, passed in."""

    def __init__(self) -> None:
        self.program: Program = EMPTY
        self.tempos: dict[str, Tempo] = {}
        self.playing: dict[str, Playing] = {}
        self.levels: dict[str, float] = {}
        self.grand, self.blackout = 1.0, False
        self.stopped: set[str] = set()
        self.opened = False
        """Whether the show's opening actions have been done."""
        self.held: dict[str, set[str]] = {}
        """Who holds each button that acts while it is held."""
        self.changed = True
        """Set when what plays has changed, so that the batch must be built anew."""

    # time

    def beats(self, name: str, t: float) -> float:
        """β of a tempo; a tempo that does not exist runs at 120 BPM from 0."""
        tempo = self.tempos.get(name)
        return tempo.beats(t) if tempo else t * 2.0

    def theta(self, playing: Playing, t: float) -> float:
        """θ of what plays, cycles."""
        if playing.frozen is not None:
            return playing.frozen
        return playing.rate * self._running_theta(playing, t) + playing.shift

    def _go_on_from(self, playing: Playing, theta: float, t: float) -> None:
        """Let θ be this now, and go on from there."""
        playing.shift = theta - playing.rate * self._running_theta(playing, t)

    def _running_theta(self, playing: Playing, t: float) -> float:
        speed = playing.instance.effect.speed
        if speed.kind == "time":
            return (t - playing.started) / speed.seconds_per_cycle
        beats = self.beats(speed.tempo, t)
        return speed.cycles_per_beat * (beats if speed.sync == "beat" else beats - playing.started_beat)

    # a new program

    def order_in(self, program: Program) -> list[str]:
        """Keys of what will play once this program is taken, oldest first."""
        order = [
            key
            for key, one in list(self.playing.items())
            if key not in program.let_go
            and (key in program.instances or program.rig_revision == self.program.rig_revision)
            and not self._returns(key, one, program)
        ]
        return order + [
            key for key, one in program.instances.items() if one.always and key not in self.stopped and key not in order
        ]

    def _returns(self, key: str, playing: Playing, program: Program) -> bool:
        """Whether something of the draft that was fading out is there again: it starts anew."""
        instance = program.instances.get(key)
        return instance is not None and instance.always and playing.stopping and key not in self.stopped

    def swap(self, program: Program, t: float) -> list[str]:
        """Take a new program between two frames; what plays goes on at its phase, what is gone fades out.

        Gives what was wrong with its opening actions, if they were due.
        """
        old, self.program = self.program, program
        self.changed = True
        self._take_tempos(old.tempos, program.tempos, t)
        if old.rig_revision != program.rig_revision:
            self.playing = {key: one for key, one in self.playing.items() if key in program.instances}
        for key in program.let_go:
            self.playing.pop(key, None)
            self.levels[key] = 0.0
        for key, playing in self.playing.items():
            instance = program.instances.get(key)
            if instance is None:
                if not playing.stopping:
                    playing.fade_towards(0.0, DEFAULT_RELEASE_S, t)
            elif instance is not playing.instance:
                self._keep_phase(playing, instance, t)
        self.stopped &= set(program.instances)
        self.held = {key: holders for key, holders in self.held.items() if key in program.controls}
        for key, instance in program.instances.items():
            waits = key not in self.playing or self._returns(key, self.playing[key], program)
            if instance.always and key not in self.stopped and waits:
                self._start(key, t)
        return self._open(t) if program.revision and not self.opened else []

    def _take_tempos(self, before: dict[str, float], now: dict[str, float], t: float) -> None:
        """Tempos of the show: those that are gone go, and a BPM that was changed there acts at once."""
        self.tempos = {name: tempo for name, tempo in self.tempos.items() if name in now}
        for name, bpm in now.items():
            if name not in self.tempos:
                self.tempos[name] = Tempo(bpm, since=t)
            elif name in before and before[name] != bpm:
                self.tempos[name] = self.tempos[name].with_bpm(bpm, t)

    def _open(self, t: float) -> list[str]:
        """Do the opening actions, once; one that cannot be done keeps none of the others from it."""
        self.opened, wrong = True, []
        for action in self.program.opening:
            try:
                self.act(action, t)
            except ZarabandaError as error:
                wrong.append(f"When the show opened, {shown(action.get('do'))} could not be done: {error.message}")
        return wrong

    def _keep_phase(self, playing: Playing, instance: Instance, t: float) -> None:
        """Replace the instance; its speed, ratio, run, handover and drift may change without a jump of lane 0."""
        theta = self.theta(playing, t)
        old, new = playing.instance, instance
        turned = new.effect.run != old.effect.run or new.effect.drift != old.effect.drift or _turning(old) != _turning(new)
        old_phase = self._lane_zero(playing, theta) if turned else {}
        playing.instance = new
        speed_before, speed_now = old.effect.speed, new.effect.speed
        if speed_before != speed_now:
            joins = speed_now.kind == "tempo" and speed_now.sync == "beat" and speed_before.sync == "start"
            if speed_before.kind == speed_now.kind == "tempo" and joins:
                playing.shift = 0.0  # asked onto the beat
            else:
                self._go_on_from(playing, theta, t)
        if turned:
            playing.layer_shifts += [0.0] * (len(new.effect.layers) - len(playing.layer_shifts))
            for number, phase in self._lane_zero(playing, self.theta(playing, t)).items():
                if number in old_phase and _turns(old, number) != _turns(new, number):
                    playing.layer_shifts[number] += old_phase[number] - phase

    def _lane_zero(self, playing: Playing, theta: float) -> dict[int, float]:
        """Phase of lane 0 of each layer, within its cycle or circuit, without the layer's start."""
        import numpy as np

        placed, rig = playing.instance.placed, self.program.rig
        if not placed.blocks or max(int(block.head.max()) for block in placed.blocks) >= len(rig):
            return {}
        plan = Plan([placed], len(rig), rig.mixes)
        running = Running(np.array([theta]), np.array([1.0]), [playing.layer_shifts])
        phases = plan.lane_zero_phase(running)
        circuits = {block.number: block.circuit for block in placed.blocks}
        starts = {block.number: 0.0 if block.is_relay else block.layer.start / 360 for block in placed.blocks}
        return {number: (phase - starts[number]) % circuits[number] for (_, number), phase in phases.items()}

    # actions

    def act(self, action: dict[str, Any], t: float) -> None:
        """Do one live action, stamped t. Raises ZarabandaError with what is wrong."""
        name = action.get("do")
        handler = _ACTIONS.get(str(name))
        if handler is None:
            raise ZarabandaError(f"There is no action {shown(name)}; use one of {', '.join(_ACTIONS)}.", "do")
        handler(self, action, t)

    def _control(self, action: dict[str, Any]) -> str:
        key = str(action.get("control"))
        if key not in self.program.controls:
            raise ZarabandaError("This control is no longer on the page. Reload the page to see what is there.", "control")
        return key

    def _start(self, key: str, t: float, level: float = 1.0) -> None:
        instance = self.program.instances[key]
        playing = self.playing.get(key)
        if playing is not None and not playing.stopping:
            playing.level = level
            return
        self.playing.pop(key, None)  # starts anew, as the youngest
        self.playing[key] = Playing(instance, t, self.beats(instance.effect.speed.tempo, t), level)
        self.changed = True

    def _stop(self, key: str, t: float, seconds: float) -> None:
        playing = self.playing.get(key)
        if playing is not None and not playing.stopping:
            playing.fade_towards(0.0, seconds, t)

    def _level(self, action: dict[str, Any], t: float) -> None:
        key = self._control(action)
        value = _share(action.get("value"), "value")
        self.levels[key] = value
        if value > 0 and key in self.program.instances:
            job = self.program.controls[key].job
            self._start(key, t, 1.0 if job == "speed" else value)
            self._set_rate(self.playing[key], value if job != "depth" else 1.0, t)
        elif key in self.playing:
            del self.playing[key]
            self.changed = True

    def _set_rate(self, playing: Playing, rate: float, t: float) -> None:
        """Run at a share of the full speed from now on, without a jump."""
        if rate != playing.rate:
            theta, playing.rate = self.theta(playing, t), rate
            if playing.frozen is None:
                self._go_on_from(playing, theta, t)

    def _press(self, action: dict[str, Any], t: float) -> None:
        key = self._control(action)
        control = self.program.controls[key]
        down = bool(action.get("down", True))
        if control.mode == "latch":
            if down:
                self._turn(key, not self.levels.get(key, 0.0) > 0, t)
            return
        holders = self.held.setdefault(key, set())
        holder = str(action.get("holder", ""))
        if down:
            holders.add(holder)
        else:
            holders.discard(holder)
        if not holders:
            del self.held[key]
        self._turn(key, key in self.held, t)

    def _turn(self, key: str, on: bool, t: float) -> None:
        """Turn a button on or off."""
        self.levels[key] = 1.0 if on else 0.0
        if on and key in self.program.instances:
            self._start(key, t)
        else:
            self._stop(key, t, self.program.controls[key].release_s)

    def _let_go(self, action: dict[str, Any], t: float) -> None:
        """Let go of what is held by some who are gone: those of `holders`, or all but those in `but`."""
        gone, staying = action.get("holders"), action.get("but", [])
        for key, holders in list(self.held.items()):
            left = {one for one in holders if (one in staying if gone is None else one not in gone)}
            if left:
                self.held[key] = left
            else:
                del self.held[key]
                self._turn(key, False, t)

    def _stop_one(self, action: dict[str, Any], t: float) -> None:
        key = str(action.get("key"))
        if key not in self.playing:
            raise ZarabandaError("This does not run any more.", "key")
        self._stop(key, t, DEFAULT_RELEASE_S)
        self.levels[key] = 0.0
        if self.playing[key].instance.always:
            self.stopped.add(key)

    def _stop_all(self, action: dict[str, Any], t: float) -> None:
        for key in list(self.playing):
            self._stop_one({"key": key}, t)

    def _run(self, action: dict[str, Any], t: float) -> None:
        key = str(action.get("key"))
        if key not in self.program.instances:
            raise ZarabandaError("This effect is not there any more.", "key")
        self.stopped.discard(key)
        self._start(key, t)

    def _freeze(self, action: dict[str, Any], t: float) -> None:
        key = str(action.get("key"))
        playing = self.playing.get(key)
        if playing is None:
            raise ZarabandaError("This does not run any more.", "key")
        if bool(action.get("on", True)):
            playing.frozen = self.theta(playing, t)
        elif playing.frozen is not None:
            theta, playing.frozen = playing.frozen, None
            self._go_on_from(playing, theta, t)

    def _tempo(self, action: dict[str, Any]) -> str:
        name = str(action.get("tempo"))
        if name not in self.tempos:
            raise ZarabandaError(f"There is no tempo {shown(name)}; use one of {', '.join(self.tempos)}.", "tempo")
        return name

    def _tap(self, action: dict[str, Any], t: float) -> None:
        name = self._tempo(action)
        self.tempos[name] = self.tempos[name].tapped(t)

    def _bpm(self, action: dict[str, Any], t: float) -> None:
        name = self._tempo(action)
        value = action.get("value")
        if isinstance(value, bool) or not isinstance(value, int | float) or not 10 <= value <= 400:
            raise ZarabandaError(f"{shown(value)} is no tempo; give 10 to 400 BPM.", "value")
        self.tempos[name] = self.tempos[name].with_bpm(float(value), t)

    def _line_up(self, action: dict[str, Any], t: float) -> None:
        name = self._tempo(action)
        for playing in self.playing.values():
            speed = playing.instance.effect.speed
            if speed.kind == "tempo" and speed.tempo == name:
                self._go_on_from(playing, speed.cycles_per_beat * self.beats(name, t), t)
                playing.layer_shifts = []

    def _grand(self, action: dict[str, Any], t: float) -> None:
        self.grand = _share(action.get("value"), "value")

    def _blackout(self, action: dict[str, Any], t: float) -> None:
        self.blackout = bool(action.get("on"))

    # a frame

    def settle(self, t: float) -> None:
        """Let go of what has faded out or has ended."""
        for key, playing in list(self.playing.items()):
            ends = playing.instance.effect.ends_after
            over = ends > 0 and self.theta(playing, t) >= ends
            if over or (playing.stopping and playing.fade(t) == 0):
                del self.playing[key]
                self.changed = True
                if over:
                    self.levels[key] = 0.0
                    if playing.instance.always:
                        self.stopped.add(key)


def _share(value: object, place: str) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float) or not 0 <= value <= 1:
        raise ZarabandaError(f"{shown(value)} is no level; give a number from 0 to 1.", place)
    return float(value)


def _turns(instance: Instance, number: int) -> tuple[object, ...]:
    effect = instance.effect
    if number >= len(effect.layers):
        return ()
    layer = effect.layers[number]
    spread = layer.spread or effect.spread
    return (effect.run, effect.drift, layer.ratio, spread.kind, spread.handover, spread.speed_counts, instance.placed.count)


def _turning(instance: Instance) -> list[tuple[object, ...]]:
    return [_turns(instance, number) for number in range(len(instance.effect.layers))]


_ACTIONS: dict[str, Callable[[LiveState, dict[str, Any], float], None]] = {
    "level": LiveState._level,
    "press": LiveState._press,
    "let-go": LiveState._let_go,
    "stop": LiveState._stop_one,
    "stop-all": LiveState._stop_all,
    "run": LiveState._run,
    "freeze": LiveState._freeze,
    "tap": LiveState._tap,
    "bpm": LiveState._bpm,
    "line-up": LiveState._line_up,
    "grand": LiveState._grand,
    "blackout": LiveState._blackout,
}
