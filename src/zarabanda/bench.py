"""Measurements: frame times on a made-up large rig beside a plain NumPy floor."""

from __future__ import annotations

import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.core.effect import Effect, from_document
from zarabanda.core.frame import Frame, Levels, base_of
from zarabanda.core.placement import place
from zarabanda.core.plan import Plan, Running
from zarabanda.core.rig import Channel, FixtureSpec, ModeSpec, Rig, build

Report = dict[str, Any]

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
    fixtures = []
    for universe in range(1, universes + 1):
        for n in range(SPOTS + CELLS):
            mode, address = (spot, 1 + 24 * n) if n < SPOTS else (cell, 1 + 24 * SPOTS + 3 * (n - SPOTS))
            number = universe * 100 + n
            fixtures.append(FixtureSpec(number, "", mode, (n * 0.1, universe * 0.1, 5.0), universe=universe, address=address))
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


def _timed(work: Callable[[float], object], seconds: float) -> NDArray[np.float64]:
    times: list[float] = []
    end = time.perf_counter() + seconds
    for number in range(10):
        work(number / 44)
    while len(times) < 20 or time.perf_counter() < end:
        begun = time.perf_counter()
        work(len(times) / 44)
        times.append((time.perf_counter() - begun) * 1000)
    return np.array(times)


def frames(universes: int, layers: int, seconds: float) -> Report:
    """Frame times of the bench rig, all parts of a frame up to the packed universes, beside the floor. Times in ms."""
    rig = bench_rig(universes)
    effects = [_effect(_SPOT_LAYERS[:layers], "spots"), _effect(_CELL_LAYERS[:layers], "cells")]
    moving = np.flatnonzero(rig.subtractive)
    placed = [place(effects[0], moving, rig.heads), place(effects[1], np.flatnonzero(~rig.subtractive), rig.heads)]
    plan = Plan(placed, len(rig), rig.mixes)
    base = base_of(rig)
    base.values[: len(rig)] = 60.0
    frame = Frame(rig)
    weight = np.ones(len(placed))
    begun = steal_ticks()

    def work(theta: float) -> NDArray[np.uint8]:
        running = Running(np.full(len(placed), theta), weight)
        return frame.bytes(frame.values(base, plan, running, Levels()))

    times = _timed(work, seconds * 0.8)
    floor = _timed(_floor(universes, layers), max(seconds * 0.2, 0.2))
    median, floor_ms = float(np.median(times)), float(np.median(floor))
    return {
        "universes": universes, "slots": universes * 512, "heads": len(rig), "layers": layers,
        "frame_ms": {
            "median": median, "p99": float(np.percentile(times, 99)), "p999": float(np.percentile(times, 99.9)),
        },
        "floor_ms": floor_ms, "ratio": median / floor_ms, "frames": len(times),
        "steal": steal_since(begun),
    }  # fmt: skip


def as_text(result: Report) -> str:
    """A result in a line."""
    times = result["frame_ms"]
    return (
        f"{result['universes']:4d} universes, {result['heads']} heads, {result['layers']} layers: "
        f"median {times['median']:.2f} ms, "
        f"99 % {times['p99']:.2f}, 99.9 % {times['p999']:.2f}; floor {result['floor_ms']:.2f} ms, ratio {result['ratio']:.2f}; "
        f"{result['frames']} frames, steal {result['steal']:.0%}"
    )
