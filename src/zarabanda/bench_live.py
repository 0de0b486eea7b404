"""Measurements of the running whole: jitter at a node while a page is in use, and the time from a fader to the wire."""

from __future__ import annotations

import tempfile
import time
from pathlib import Path
from typing import Any

import numpy as np

from zarabanda.bench import Report, steal_since, steal_ticks
from zarabanda.browser import chromium, open_page
from zarabanda.running import started
from zarabanda.simulators.node import DataPacket, Node

_MOVING, _LADDERS = 1, 2
"""A universe in which something changes on every frame, and the one with the ladders that the fader moves."""
_NOTE_KEYS = """() => {
  window.pressed = [];
  addEventListener("keydown", (event) => window.pressed.push(performance.timeOrigin + event.timeStamp), true);
}"""


class _Log:
    """Arrival times of the moving universe, and of the ladders' changes."""

    def __init__(self) -> None:
        self.arrivals: list[float] = []
        self.changes: list[float] = []
        self._lit = False
        self._sequence: int | None = None
        self.missing = 0

    def take(self, packet: DataPacket, arrived: float) -> None:
        if packet.universe == _MOVING:
            self.arrivals.append(arrived)
            if self._sequence is not None:
                self.missing += (packet.sequence - self._sequence - 1) & 255
            self._sequence = packet.sequence
        elif packet.universe == _LADDERS:
            lit = any(packet.slots[128 : 128 + 96 : 8])
            if lit != self._lit:
                self._lit = lit
                self.changes.append(arrived)


def measure(seconds: float) -> Report:
    """Run the demo with a page open for `seconds`, moving a slider all the time; times in ms."""
    log = _Log()
    node = Node(0)
    node.on_packet = log.take
    begun = steal_ticks()
    with (
        tempfile.TemporaryDirectory() as data,
        started(Path(data), "demo", "--no-node", "--node-port", str(node.port)) as demo,
        chromium() as browser,
    ):
        page = open_page(browser, demo.address)
        page.get_by_text("Sending").wait_for()
        page.get_by_role("tab", name="Busk").click()
        fader = page.get_by_role("slider", name="Ladders: undertow")
        fader.focus()
        page.wait_for_timeout(1000)
        page.evaluate(_NOTE_KEYS)
        log.arrivals.clear()
        reactions = _reactions(page, log, seconds)
        arrivals = np.array(log.arrivals)
    node.close()
    gaps = np.diff(arrivals) * 1000
    off = np.abs(gaps - 1000 / 44)
    return {
        "seconds": seconds, "packets": len(arrivals), "missing": log.missing,
        "jitter_ms": {"median": float(np.median(off)), "p99": float(np.percentile(off, 99)), "longest_gap": float(gaps.max())},
        "fader_to_packet_ms": {
            "median": float(np.median(reactions)), "p99": float(np.percentile(reactions, 99)), "count": len(reactions),
        },
        "steal": steal_since(begun),
    }  # fmt: skip


def _reactions(page: Any, log: _Log, seconds: float) -> np.ndarray[Any, Any]:
    reactions = []
    end = time.monotonic() + seconds
    up = True
    while time.monotonic() < end:
        log.changes.clear()
        page.keyboard.press("End" if up else "Home")
        up = not up
        page.wait_for_timeout(250)
        if log.changes:
            reactions.append(log.changes[0] * 1000 - float(page.evaluate("window.pressed.at(-1)")))
    return np.array(reactions)


def as_text(report: Report) -> str:
    """The report in two lines."""
    jitter, reaction = report["jitter_ms"], report["fader_to_packet_ms"]
    return (
        f"At the node over {report['seconds']:.0f} s with the page in use: {report['packets']} packets of one universe, "
        f"{report['missing']} missing; jitter median {jitter['median']:.2f} ms, 99 % {jitter['p99']:.2f} ms, longest gap "
        f"{jitter['longest_gap']:.1f} ms; steal {report['steal']:.0%}\n"
        f"Fader in the browser to the first changed packet: median {reaction['median']:.1f} ms, 99 % {reaction['p99']:.1f} ms "
        f"of {reaction['count']} moves"
    )
