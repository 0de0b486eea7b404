"""Measurements of sending: the bench rig, moving in every slot, sent to a simulated node of another process, beside routes
that err and routes that have no room."""

from __future__ import annotations

import errno
import socket
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Sequence
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda import wire
from zarabanda.core.playback.looks import held
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.loop import Loop
from zarabanda.engine.program import EMPTY, Instance, no_palettes
from zarabanda.messages import ARTNET, E131, SIMULATOR, PlayerId, RoutePart, RouteState
from zarabanda.network_settings import NetworkSettings
from zarabanda.outputs.base import Output
from zarabanda.outputs.routes import Routes, Surroundings
from zarabanda.outputs.sender import Source
from zarabanda.outputs.sockets import Address, MemoryWire, UdpWire, Way, Wire
from zarabanda.simulators import artnet_node, e131_node
from zarabanda.tools.bench import Report, bench_instances, bench_rig, steal_since, steal_ticks
from zarabanda.workers import Troubles

RATE = 44.0
_NOBODY = "127.0.0.9"
_FULL = "127.0.0.10"


class _Timed(Output):
    """Notes how long sending takes, and whether it was done by the frame's deadline."""

    def __init__(self, routes: Routes) -> None:
        self._routes = routes
        self.took_ms: list[float] = []
        self.in_time = 0

    def send(self, universes: Sequence[int], data: NDArray[np.uint8], now: float) -> None:
        begun = time.monotonic()
        self._routes.send(universes, data, now)
        ended = time.monotonic()
        self.took_ms.append((ended - begun) * 1000)
        self.in_time += ended - now <= 1 / RATE

    def close(self) -> None:
        self._routes.close()

    def report(self) -> list[RouteState]:
        return self._routes.report()


def _open(way: Way) -> Wire:
    """A socket; or, for one address, one that never has room."""
    if way.to is not None and way.to[0] == _FULL:
        full = MemoryWire()
        full.fault = BlockingIOError(errno.EAGAIN, "no room")
        return full
    return UdpWire(way)


def measure(universes: int, protocol: str, seconds: float, *, beside: bool = False) -> Report:
    """Run the loop for `seconds`, sending by one protocol. beside: also by routes that err or have no room."""
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder)
        ports = {E131: _free_port(e131_node.HOST), ARTNET: _free_port(artnet_node.HOST)}
        node = subprocess.Popen(
            [sys.executable, "-m", "zarabanda.simulators", "--data", folder, "--port", str(ports[E131]), "--artnet-port",
             str(ports[ARTNET]), "--universes", str(universes)], stdin=subprocess.PIPE,
        )  # fmt: skip
        try:
            _ask(data, {"type": "reset"})
            simulators = {E131: (e131_node.HOST, ports[E131]), ARTNET: (artnet_node.HOST, ports[ARTNET])}
            report = _run(universes, protocol, seconds, simulators, beside, lambda: _ask(data, {"type": "reset"}))
            (seen,) = _ask(data, {"type": "status", "protocol": protocol})["nodes"]
        finally:
            node.kill()
            node.wait()
            if node.stdin is not None:
                node.stdin.close()
    rows = seen["universes"]
    report["node"] = {
        "universes": len(rows), "packets": sum(row["packets"] for row in rows), "bad": seen["bad"],
        "sequence_errors": sum(row["sequence_errors"] for row in rows),
    }  # fmt: skip
    return report


def _run(
    universes: int, protocol: str, seconds: float, simulators: dict[str, Address], beside: bool, begin: Any
) -> Report:  # fmt: skip
    rig = bench_rig(universes)
    instances = {
        PlayerId(f"draft:{n}"): Instance(PlayerId(f"draft:{n}"), n, effect.name, "bench", effect, placed, always=True)
        for n, (effect, placed) in enumerate(bench_instances(rig))
    }
    routes = Routes(Surroundings(Source("Bench", bytes(16)), simulators, NetworkSettings, open=_open))
    parts = [RoutePart(1, (), protocol, SIMULATOR, on=True)]
    if beside:
        parts += [RoutePart(n, (), protocol, to, on=True) for n, to in ((2, _NOBODY), (3, _FULL))]
    routes.set(parts)
    timed = _Timed(routes)
    loop = Loop(LiveState(), [timed], clock=time.monotonic, sleep=time.sleep, rate=RATE, troubles=Troubles())
    loop.batching.prepare(rig, [one.placed for one in instances.values()])
    loop.swap(replace(EMPTY, rig=rig, revision=1, draft=held(rig, {}), draft_palettes=no_palettes(rig), instances=instances))
    thread = threading.Thread(target=loop.run)
    thread.start()
    time.sleep(1.5)  # it has begun
    begin()
    late, frames = loop.health.late, loop.health.frames
    timed.took_ms.clear()
    timed.in_time = 0
    steal = steal_ticks()
    time.sleep(seconds)
    took, in_time = np.array(timed.took_ms), timed.in_time
    missed, states = loop.health.late - late, routes.report()
    made = loop.health.frames - frames
    stolen = steal_since(steal)
    frame_ms = np.percentile(list(loop.health.times_ms), [50, 99])
    loop.stop()
    thread.join()
    loop.close()
    return {
        "universes": universes, "protocol": protocol, "seconds": seconds, "beside": beside, "frames": made, "late": missed,
        "in_time": in_time / (len(took) + missed), "steal": stolen,
        "sending_ms": {"median": float(np.median(took)), "p99": float(np.percentile(took, 99)), "worst": float(took.max())},
        "frame_ms": {"median": float(frame_ms[0]), "p99": float(frame_ms[1])},
        "routes": [{"to": one.to, "packets": one.packets, "errors": one.errors, "drops": one.drops} for one in states],
    }  # fmt: skip


def _free_port(host: str) -> int:
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        probe.bind((host, 0))
        port: int = probe.getsockname()[1]
        return port


def _ask(data: Path, message: dict[str, Any]) -> dict[str, Any]:
    """What the nodes answer, once they are there."""
    end = time.monotonic() + 10
    while True:
        try:
            with wire.connect(wire.socket_path(data, "node"), 10) as connection:
                wire.send(connection, message)
                answer: dict[str, Any] = wire.receive(connection, wire.PLAIN)
                return answer
        except OSError:
            if time.monotonic() > end:
                raise
            time.sleep(0.05)


def as_text(report: Report) -> str:
    """One measurement in three lines."""
    sending, frame, node = report["sending_ms"], report["frame_ms"], report["node"]
    also = " beside two routes that fail" if report["beside"] else ""
    routes = "; ".join(
        f"{one['to']}: {one['packets']} packets, {one['errors']} errors, {one['drops']} dropped" for one in report["routes"]
    )
    what = f"{report['protocol']}, {report['universes']} universes, {report['seconds']:.0f} s{also}"
    return (
        f"{what}: {report['in_time']:.3%} of frames sent by their deadline, {report['late']} late of {report['frames']}; sending "
        f"median {sending['median']:.2f} ms, 99 % {sending['p99']:.2f}, worst {sending['worst']:.1f}; frame median "
        f"{frame['median']:.2f}, 99 % {frame['p99']:.2f}\n  the node: {node['universes']} universes, {node['packets']} packets, "
        f"{node['sequence_errors']} sequence errors, {node['bad']} bad; steal {report['steal']:.0%}\n  {routes}"
    )
