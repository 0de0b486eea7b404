"""Kills of the web process and of the engine while a cue list plays, under load: what the node gets, compared with an undisturbed
run of the same cues."""

from __future__ import annotations

import os
import signal
import tempfile
import threading
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.demo import salt_light
from zarabanda.formats.cue_document import CueDocument, CueListSettings
from zarabanda.formats.effect_document import EffectDocument
from zarabanda.protocols.e131 import DataPacket
from zarabanda.show import repositories
from zarabanda.show.store import Store
from zarabanda.simulators.e131_node import E131Node
from zarabanda.tools.bench import Report, steal_since, steal_ticks
from zarabanda.tools.bench_cues import Desk
from zarabanda.tools.running import Running, ask, started
from zarabanda.web import processes

KILL_AFTER_S, WITHIN_S, LASTS_S = 1.0, 1.0, 4.6
"""After the go; so long after a kill everything must be as it would be; how long a run is looked at."""
FADE_S, LATE_S = 5.0, 0.3
"""The levels of the spots fade so long, evenly: they tell for which time a frame was computed, however late it arrives.
Once all is as it would be, at least one frame of a second arrives within so much time."""
_NEAR_S, _STEPS, _TURNS = 0.06, 16, 40_000
"""Frames of two runs are compared that lie so near each other in time, within so many of the 65,536 steps of a value, and this
many times the square of the seconds between two frames: so far a value can have gone, turned and come back between them."""
_FRAMES = 20
"""Fewer that can be compared say nothing."""
_FROM, _TO = 10.0, 90.0
_APART_S = 31.0
"""Two deaths within a minute cost no pause."""
_UNIVERSE = 1
_SPOTS, _WASHES = [str(101 + n) for n in range(10)], [str(201 + n) for n in range(10)]


def build(data: Path) -> None:
    """The demo show with a list of three cues: a start, slow fades with two effects, and a follow-on."""
    data.mkdir(parents=True, exist_ok=True)
    store = Store(data / "show.db")
    try:
        salt_light.build(store)
        with store.edit("bench", "Make a list to be killed in") as session:
            effects = [repositories.effects.store(session, EffectDocument.model_validate(one), kept=True).id for one in _EFFECTS]
            whose = repositories.cues.add_list(session, "Trial", CueListSettings())
            slow = {"intensity": {"up": FADE_S, "down": FADE_S}, "position": {"fade": 2}, "beam": {"fade": 4}}
            starts = [
                {"do": "start", "thread": n + 1, "effect": effect, "heads": heads}
                for n, (effect, heads) in enumerate(zip(effects, (_SPOTS, _WASHES), strict=True))
            ]
            for number, document in enumerate((
                {"values": {"intensity": dict.fromkeys([*_SPOTS, *_WASHES], _FROM), "zoom": dict.fromkeys(_SPOTS, 10.0)}},
                {"values": {"intensity": dict.fromkeys(_SPOTS, _TO), "zoom": dict.fromkeys(_SPOTS, 40.0)}, "times": slow,
                 "effects": starts},
                {"values": {"intensity": dict.fromkeys(_WASHES, 80.0)}, "times": slow, "trigger": {"kind": "with", "wait": 2.0}},
            ), 1):  # fmt: skip
                repositories.cues.add(session, whose.id, float(number), CueDocument.model_validate(document))
    finally:
        store.close()


def _effect(attribute: str, seconds: float, depth: float) -> dict[str, Any]:
    form = {"kind": "waveform", "shape": "sine"}
    layer = {"attribute": attribute, "form": form, "anchor": {"kind": "centred", "depth": depth}}
    return {"name": f"Trial {attribute}", "layers": [layer], "speed": {"kind": "time", "seconds_per_cycle": seconds}}


_EFFECTS = (_effect("pan", 3.0, 60.0), _effect("tilt", 5.0, 40.0))


class _Slots:
    """What a universe had when, at the node."""

    def __init__(self) -> None:
        self._got: list[tuple[float, bytes]] = []
        self._sequence: int | None = None
        self.missing = 0

    def take(self, packet: DataPacket, arrived: float) -> None:
        if packet.universe == _UNIVERSE:
            if self._sequence is not None:
                self.missing += (packet.sequence - self._sequence - 1) & 255
            self._sequence = packet.sequence
            self._got.append((arrived, packet.slots))

    def since(self, begin: float) -> tuple[NDArray[np.float64], NDArray[np.int64]]:
        """Times after `begin` (s since 1970), and slots (times, 512)."""
        got = [(at - begin, slots) for at, slots in list(self._got) if at >= begin]
        return np.array([at for at, _ in got]), np.array([np.frombuffer(slots.ljust(512, b"\0"), np.uint8) for _, slots in got])


class _Load:
    """Somebody moves the fader of another list, 20 times a second, and edits a cue, twice."""

    def __init__(self, running: Running, desk: Desk, other: int, cue: int) -> None:
        self._running, self._desk, self._other, self._cue = running, desk, other, cue
        self._ended = threading.Event()
        self._thread = threading.Thread(target=self._work, daemon=True)
        self._thread.start()

    def _work(self) -> None:
        for n in range(100_000):
            if self._ended.wait(0.05):
                return
            try:
                self._desk.act(do="list-level", list=self._other, value=0.5 + (n % 50) / 100)
                if n % 10 == 0:
                    ask(self._running, f"/api/cues/{self._cue}", {"note": f"Note {n}"}, "PUT")
            except Exception:  # web is away: that is what is tried
                self._ended.wait(0.1)

    def end(self) -> None:
        self._ended.set()
        self._thread.join()


def measure(rounds: int) -> Report:
    """Kill each so often, by turns. Times in ms; wrong: runs that were not as the undisturbed one."""
    begun, slots, node = steal_ticks(), _Slots(), E131Node(0)
    node.on_packet = slots.take
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "data"
        build(data)
        with started(data, "serve", "--no-node", "--node-port", str(node.port)) as running:
            trial = _Trial(running, slots)
            trial.run(lambda: None)
            calm = trial.run(lambda: None)
            report: Report = {"undisturbed": trial.differs(trial.run(lambda: None), calm)}
            killed = {"web": _Killed("web"), "engine": _Killed("engine")}
            for _ in range(rounds):
                for one in killed.values():
                    one.again(trial, slots, calm)
            trial.close()
    node.close()
    return report | {name: one.report() for name, one in killed.items()} | {"rounds": rounds, "steal": steal_since(begun)}


class _Killed:
    """One process that is killed again and again, not so often that the supervisor lets it wait."""

    def __init__(self, name: str) -> None:
        self._name, self._at = name, float("-inf")
        self._gaps, self._missing, self._texts = list[float](), 0, list[str]()

    def again(self, trial: _Trial, slots: _Slots, calm: Run) -> None:
        """One run in which it is killed."""
        time.sleep(max(0.0, self._at + _APART_S - time.monotonic()))
        self._at, before = time.monotonic(), slots.missing
        run = trial.run(lambda: trial.kill(self._name))
        self._gaps.append(float(np.diff(run.times[run.times > KILL_AFTER_S - 0.2]).max()) * 1000)
        self._missing += slots.missing - before
        differs = trial.differs(run, calm, after=0.0 if self._name == "web" else KILL_AFTER_S + WITHIN_S)
        self._texts += [differs] if differs else []

    def report(self) -> Report:
        """How it went."""
        return {
            "longest_gap_ms": max(self._gaps), "usual_gap_ms": float(np.median(self._gaps)), "missing": self._missing,
            "wrong": len(self._texts), "what": self._texts[:3],
        }  # fmt: skip


class Run:
    """One run of the list, as the node got it, and what the engine told of it at its end."""

    def __init__(self, times: NDArray[np.float64], slots: NDArray[np.int64], told: dict[str, Any]) -> None:
        self.times, self.told = times, told
        spots = slots[:, : 24 * len(_SPOTS)].astype(np.int64).reshape(len(slots), len(_SPOTS), 24)
        self.values = spots[:, :, 0:6:2] * 256 + spots[:, :, 1:6:2]
        """Of the spots (24 slots each), frame by frame: pan, tilt, intensity, of 16 bits each."""
        self.computed = (self.values[:, 0, 2] / 65535 * 100 - _FROM) / (_TO - _FROM) * FADE_S
        """The time (frames,) that each frame was computed for, in s after the go, as its fading level tells it."""

    def around(self, t: float) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """Least and greatest values (spots, 3) near a time, from the frame before to the frame after."""
        begin, end = np.searchsorted(self.computed, (t - _NEAR_S, t + _NEAR_S))
        near = slice(max(0, begin - 1), end + 1)
        low, high = self.values[near].min(axis=0), self.values[near].max(axis=0)
        room = _STEPS + _TURNS * np.diff(self.computed[near]).max(initial=0.0) ** 2
        return low - room, high + room


class _Trial:
    """Plays the list again and again."""

    def __init__(self, running: Running, slots: _Slots) -> None:
        self._running, self._slots = running, slots
        self._desk = Desk(running)
        self._desk.until(lambda state: len(state.get("lists", ())) > 1)
        lists = {one["name"]: one["id"] for one in ask(running, "/api/cue-lists")["lists"]}
        self._list, self._other = lists["Trial"], lists["Haze"]
        self._cues = [row["id"] for row in ask(running, f"/api/cue-lists/{self._list}")["rows"]]

    def _own(self, state: dict[str, Any]) -> dict[str, Any]:
        found: dict[str, Any] = next(one for one in state["lists"] if one["id"] == self._list)
        return found

    def run(self, disturb: Callable[[], None]) -> Run:
        """From the first cue into the second, disturbed a second later, until the third has arrived for a while."""
        desk = self._desk
        desk.act(do="release-all", seconds=0)
        desk.act(do="release", list=self._list, seconds=0)
        desk.until(lambda state: self._own(state)["cue"] is None)
        desk.act(do="go-to", list=self._list, cue=self._cues[0])
        desk.until(lambda state: self._own(state)["cue"] == self._cues[0])
        load = _Load(self._running, desk, self._other, self._cues[0])
        time.sleep(0.3)
        desk.act(do="go", list=self._list)
        desk.until(lambda state: self._own(state)["cue"] == self._cues[1])
        went = self._own(desk.state)["went_at"]
        begin = time.time() - (time.monotonic() - went)
        time.sleep(max(0.0, begin + KILL_AFTER_S - time.time()))
        disturb()
        time.sleep(max(0.0, begin + LASTS_S - time.time()))
        load.end()
        desk.again()
        desk.until(lambda state: self._own(state)["cue"] == self._cues[2], 10)
        told = self._own(desk.state)
        return Run(*self._slots.since(begin), {"waited": told["went_at"] - went, "level": told["level"]})

    def kill(self, name: str) -> None:
        """Kill −9, as soon as it can be known which process it is."""
        pid = next(one.pid for one in processes.read(self._running.data) if one.name == name and one.running)
        os.kill(pid, signal.SIGKILL)

    def differs(self, run: Run, calm: Run, after: float = 0.0) -> str:
        """How a run is another than the undisturbed one, from a time on, in words; empty: it is not."""
        if abs(run.told["waited"] - calm.told["waited"]) > 1e-6 or run.told["level"] != calm.told["level"]:
            return f"the follow-on or a level is another: {run.told} and {calm.told}"
        if run.times[-1] < LASTS_S - 0.5:
            return "it ended too soon"
        computed = run.computed
        late = (run.times - computed)[(computed > LASTS_S - 1.2) & (computed < LASTS_S)].min(initial=LASTS_S)
        if abs(late) > LATE_S:
            return f"it goes on {late:.2f} s late"
        compared = np.flatnonzero((computed >= max(after, _NEAR_S)) & (computed < LASTS_S - 0.2))
        if len(compared) < _FRAMES:
            return f"only {len(compared)} frames can be compared"
        for n in compared:
            low, high = calm.around(computed[n])
            wrong = (run.values[n] < low) | (run.values[n] > high)
            if wrong.any():
                spot, what = np.argwhere(wrong)[0]
                name = ("pan", "tilt", "intensity")[what]
                return (
                    f"{name} of spot {_SPOTS[spot]} at {computed[n]:.2f} s is {run.values[n, spot, what]}, not "
                    f"{low[spot, what]:.0f} to {high[spot, what]:.0f}"
                )
        return ""

    def close(self) -> None:
        self._desk.close()


def as_text(report: Report) -> str:
    """The report in lines."""
    lines = [f"two undisturbed runs: {report['undisturbed'] or 'alike'}"]
    for name in ("web", "engine"):
        one = report[name]
        lines.append(
            f"{name} killed {report['rounds']} times: {one['wrong']} runs wrong, {one['missing']} packets missing, longest gap "
            f"at the node {one['longest_gap_ms']:.0f} ms, usually {one['usual_gap_ms']:.0f}"
        )
        lines += [f"  {text}" for text in one["what"]]
    return "\n".join(lines) + f"\nsteal {report['steal']:.0%}"
