"""Measurements: frame times on a made-up large rig beside a plain NumPy floor."""

from __future__ import annotations

import sys
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effects.batch.batches import Batches, Running
from zarabanda.core.effects.effect import Effect, from_document
from zarabanda.core.effects.placement import Placed, place
from zarabanda.core.playback.claims import Claims
from zarabanda.core.playback.frame import Effects, Frame, Levels
from zarabanda.core.playback.ground import Base, Ground
from zarabanda.core.playback.looks import base_of, cells_of
from zarabanda.core.playback.shares import Timing, alike
from zarabanda.core.rig.modes import Channel, ModeSpec
from zarabanda.core.rig.rig import FixtureSpec, Rig, build

Report = dict[str, Any]

_TURNS = 10
"""How often frames and floor take turns."""
SPOTS, CELLS = 12, 74
"""Of each universe of the bench rig: moving spots of 24 slots, and RGB cells without an intensity channel."""


def _modes() -> tuple[ModeSpec, ModeSpec]:
    ranges = (
        ("pan", 2, -270, 270), ("tilt", 2, -135, 135), ("intensity", 2, 0, 100), ("cyan", 1, 0, 1), ("magenta", 1, 0, 1),
        ("yellow", 1, 0, 1), ("zoom", 2, 6, 48), ("iris", 1, 0, 100), ("gobo", 1, 0, 7), ("prism", 1, 0, 100),
        ("frost", 1, 0, 100), ("focus", 2, 0, 100), ("strobe", 1, 0, 25),
    )  # fmt: skip
    channels, slot = [], 0
    for source, size, low, high in ranges:
        channels.append(Channel(source, tuple(range(slot, slot + size)), low, high))
        slot += size
    spot = ModeSpec("bench spot", "spot", "cmy", tuple(channels), 24)
    cell = ModeSpec("bench cell", "cell", "rgb", tuple(Channel(name, (n,)) for n, name in enumerate(("red", "green", "blue"))), 3)
    return spot, cell


def bench_rig(universes: int) -> Rig:
    """12 moving spots and 74 RGB cells in each of `universes` universes."""
    spot, cell = _modes()
    places = [(universe, n) for universe in range(1, universes + 1) for n in range(SPOTS + CELLS)]
    fixtures: list[FixtureSpec] = []
    for universe, n in sorted(places, key=lambda place: place[1] >= SPOTS):  # by kind, as numbers are given to fixtures
        mode, address = (spot, 1 + 24 * n) if n < SPOTS else (cell, 1 + 24 * SPOTS + 3 * (n - SPOTS))
        place = (n * 0.1, universe * 0.1, 5.0)
        fixtures.append(FixtureSpec(len(fixtures) + 1, "", mode, place, universe=universe, address=address))
    return build(fixtures)


def _wave(attribute: str, shape: str, depth: float) -> Report:
    anchor = {"kind": "centred", "depth": depth}
    return {"attribute": attribute, "form": {"kind": "waveform", "shape": shape}, "anchor": anchor}


_COLOURS = {
    "kind": "stops",
    "stops": [{"value": value, "travel": 1, "hold": 0.5, "ease": "smooth"} for value in ("#ff2000", "#0040ff", "#20ff60")],
}
_SPOT_LAYERS = [
    _wave("intensity", "swell", 80),
    {"attribute": "position", "form": {"kind": "path", "path": "circle", "width": 40, "height": 20}},
    _wave("zoom", "sine", 20),
    _wave("intensity", "steps", 30),
]
_CELL_LAYERS = [
    _wave("intensity", "swell", 80),
    {"attribute": "colour", "form": _COLOURS},
    _wave("hue", "sine", 60),
    _wave("intensity", "steps", 30),
]


def _effect(layers: list[Report], name: str) -> Effect:
    return from_document({"name": name, "colour_space": "rgb", "layers": layers, "spread": {"kind": "ripple", "degrees": 720}})


def steal_ticks() -> tuple[int, int]:
    """Processor time so far that was taken away by other machines, and all there was (Linux; else none)."""
    try:
        fields = [int(field) for field in Path("/proc/stat").read_text().splitlines()[0].split()[1:]]
    except (OSError, ValueError):
        return 0, 1
    return fields[7], sum(fields[:8])


def steal_since(begun: tuple[int, int]) -> float:
    """Share of the processors that was taken away since `begun` (from `steal_ticks`), 0…1."""
    steal, total = steal_ticks()
    return (steal - begun[0]) / max(total - begun[1], 1)


def _floor(universes: int, layers: int) -> Callable[[float], NDArray[np.uint8]]:
    """The least that the same amount of arithmetic can cost: frac and sin on one float32 array a layer, then bytes."""
    size = universes * 512
    offset = np.linspace(0, 7, size, dtype=np.float32)

    def frame(theta: float) -> NDArray[np.uint8]:
        total = np.zeros(size, np.float32)
        for layer in range(layers):
            phase = np.float32(theta * (layer + 1)) - offset
            phase -= np.floor(phase)
            total += np.sin(phase * np.float32(2 * np.pi))
        return np.asarray((np.clip(total * 0.125 + 0.5, 0, 1) * 255 + 0.5).astype(np.uint8).reshape(universes, 512))

    return frame


def _timed(work: Callable[[float], object], seconds: float, first: int = 0) -> list[float]:
    """Times of frames in ms, run for some seconds; first: number of the first frame."""
    times: list[float] = []
    end = time.perf_counter() + seconds
    for number in range(10):
        work((first + number) / 44)
    while len(times) < 20 or time.perf_counter() < end:
        begun = time.perf_counter()
        work((first + len(times)) / 44)
        times.append((time.perf_counter() - begun) * 1000)
    return times


def bench_instances(rig: Rig, layers: int = 4) -> list[tuple[Effect, Placed]]:
    """Effects that move every head of the bench rig."""
    effects = [_effect(_SPOT_LAYERS[:layers], "spots"), _effect(_CELL_LAYERS[:layers], "cells")]
    chosen = [np.flatnonzero(rig.subtractive), np.flatnonzero(~rig.subtractive)]
    return [(effect, place(effect, heads, rig.heads)) for effect, heads in zip(effects, chosen, strict=True)]


def frames(universes: int, layers: int, seconds: float) -> Report:
    """Frame times of the bench rig, all parts of a frame up to the packed universes, beside the floor. Times in ms."""
    rig = bench_rig(universes)
    placed = [placed for _, placed in bench_instances(rig, layers)]
    begun = steal_ticks()
    work, floor = _work(rig, placed), _floor(universes, layers)
    times: list[float] = []
    floor_times: list[float] = []
    for _ in range(_TURNS):  # by turns, so that both meet the machine in the same moods
        times += _timed(work, seconds * 0.8 / _TURNS, len(times))
        floor_times += _timed(floor, seconds * 0.2 / _TURNS)
    floor_ms = float(np.median(floor_times))
    report = _report(rig, times, begun)
    return report | {
        "universes": universes, "slots": universes * 512, "layers": layers, "floor_ms": floor_ms,
        "ratio": report["frame_ms"]["median"] / floor_ms,
    }  # fmt: skip


def _work(rig: Rig, placed: list[Placed], base_at: Callable[[float], Base] | None = None) -> Callable[[float], NDArray[np.uint8]]:
    """A whole frame at a θ, up to the packed universes. base_at: the base at a time; none: one that stands still."""
    batches = Batches(placed, len(rig), rig.mixes, np.float32)
    still: NDArray[Any] = base_of(rig).astype(np.float32)
    still[0] = 60.0
    base, frame, weight = Base(still), Frame(rig, np.float32), np.ones(len(placed))
    frame.prepare(batches.touched)

    def work(theta: float) -> NDArray[np.uint8]:
        running = Running(np.full(len(placed), theta), weight)
        now = base_at(theta) if base_at else base
        return frame.bytes(frame.values(now, [Effects(batches, running)], Levels(), 100 + theta))

    return work


def _report(rig: Rig, times: list[float], begun: tuple[int, int]) -> Report:
    median, p99, p999 = (float(value) for value in np.percentile(times, (50, 99, 99.9)))
    return {
        "heads": len(rig), "frame_ms": {"median": median, "p99": p99, "p999": p999},
        "frames": len(times), "steal": steal_since(begun),
    }  # fmt: skip


def sweep(layers: int, seconds: float) -> Report:
    """Frame times from 1 to 512 universes, and the exponent of the growth fitted to them (1: linear)."""
    sizes = [1, 2, 4, 8, 16, 32, 64, 128, 256, 512]
    results = [frames(size, layers, seconds) for size in sizes]
    large = [n for n, size in enumerate(sizes) if size >= 16]  # below, the calls count and not the elements
    medians = np.log([results[n]["frame_ms"]["median"] for n in large])
    growth = float(np.polyfit(np.log([sizes[n] for n in large]), medians, 1)[0])
    return {"frames": results, "growth": growth}


BUSY_EFFECTS, BUSY_HEADS, BUSY_CELLS = 60, 12, 5000


def _busy_effect(number: int) -> Effect:
    """One of many that differ in form, spread and speed, three layers each."""
    shapes = ("sine", "swell", "triangle", "square", "noise", "strike")
    figures = ("circle", "eight", "line")
    path = {"kind": "path", "path": figures[number % 3], "width": 20 + number, "height": 15, "rotation": number * 3}
    layers = [
        _wave("intensity", shapes[number % 6], 40 + number),
        {"attribute": "position", "form": path},
        _wave("zoom", "sine", 10),
    ]
    spread = {"kind": "relay", "handover": 0.3} if number % 4 == 3 else {"kind": "ripple", "degrees": 90 + 30 * (number % 9)}
    return from_document({"name": f"busy {number}", "seed": number, "layers": layers, "spread": spread})


def busy(seconds: float) -> Report:
    """60 running effects of 3 layers on 12 heads each, and one of 4 layers on 5,000 cells. Times in ms."""
    rig = bench_rig(70)
    spots, cells = np.flatnonzero(rig.subtractive), np.flatnonzero(~rig.subtractive)[:BUSY_CELLS]
    placed = [place(_busy_effect(n), np.roll(spots, -BUSY_HEADS * n)[:BUSY_HEADS], rig.heads) for n in range(BUSY_EFFECTS)]
    placed.append(place(_effect(_CELL_LAYERS, "cells"), cells, rig.heads))
    begun = steal_ticks()
    report = _report(rig, _timed(_work(rig, placed), seconds), begun)
    batches = Batches(placed, len(rig), rig.mixes)
    return report | {"effects": len(placed), "batches": batches.count, "calls": _python_calls(rig, placed)}


CLAIM_HEADS, CLAIM_SHEETS = 2000, 30


def claims(seconds: float, sheets: int = CLAIM_SHEETS) -> Report:
    """Sheets of claims that all move on every attribute of 2,000 heads, beside the effects of `busy`. Times in ms."""
    rig = bench_rig(-(-CLAIM_HEADS // SPOTS))
    spots = np.flatnonzero(rig.subtractive)[:CLAIM_HEADS]
    placed = [place(_busy_effect(n), np.roll(spots, -BUSY_HEADS * n)[:BUSY_HEADS], rig.heads) for n in range(BUSY_EFFECTS)]
    held, draw = Claims(), np.random.default_rng(1)
    for number in range(sheets):
        values = np.full(rig.home.shape, np.nan)
        values[:, spots] = draw.uniform(rig.low[:, spots], rig.high[:, spots])
        values[:, spots] = np.where(rig.heads.has[:, spots], values[:, spots], np.nan)
        timing = Timing(float(number), fade=1e6)
        held = held.claimed(f"list {number}", cells_of(values, ~np.isnan(values)), rig.home, alike(timing))
    begun, ground = steal_ticks(), Ground(rig, np.float32)
    alone = _report(rig, _timed(_work(rig, placed), seconds / 2), begun)
    moving = _report(rig, _timed(_work(rig, placed, lambda t: ground.at(held, 100 + t)), seconds / 2), begun)
    return moving | {"sheets": sheets, "effects": len(placed), "alone_ms": alone["frame_ms"]}


def claims_as_text(report: Report) -> str:
    """The load of moving claims in a line."""
    times, alone = report["frame_ms"], report["alone_ms"]
    return (
        f"claims: {report['sheets']} sheets moving on {CLAIM_HEADS} heads beside {report['effects']} effects: "
        f"median {times['median']:.2f} ms, 99 % {times['p99']:.2f}; without them {alone['median']:.2f}, {alone['p99']:.2f}; "
        f"steal {report['steal']:.0%}"
    )


def _python_calls(rig: Rig, placed: list[Placed]) -> int:
    """Calls of Python and NumPy functions that one frame makes."""
    calls = 0

    def count(_frame: object, event: str, _argument: object) -> None:
        nonlocal calls
        calls += event in ("call", "c_call")

    work = _work(rig, placed)
    work(1.0)
    sys.setprofile(count)
    try:
        work(2.0)
    finally:
        sys.setprofile(None)
    return calls


def busy_as_text(report: Report) -> str:
    """The busy load in a line."""
    times = report["frame_ms"]
    return (
        f"busy: {report['effects']} effects in {report['batches']} batches on {report['heads']} heads: "
        f"median {times['median']:.2f} ms, "
        f"99 % {times['p99']:.2f}, 99.9 % {times['p999']:.2f}; {report['calls']} calls a frame; steal {report['steal']:.0%}"
    )


def as_text(result: Report) -> str:
    """A result in a line."""
    times = result["frame_ms"]
    return (
        f"{result['universes']:4d} universes, {result['heads']} heads, {result['layers']} layers: "
        f"median {times['median']:.2f} ms, "
        f"99 % {times['p99']:.2f}, 99.9 % {times['p999']:.2f}; floor {result['floor_ms']:.2f} ms, ratio {result['ratio']:.2f}; "
        f"{result['frames']} frames, steal {result['steal']:.0%}"
    )
