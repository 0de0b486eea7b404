"""Measurements of the running whole: jitter at a node while a page is in use, the time from a fader to the wire, and from
an edit of an effect to its new weave on the screen."""

from __future__ import annotations

import tempfile
import time
from pathlib import Path
from typing import Any

import numpy as np

from zarabanda.protocols.e131 import DataPacket
from zarabanda.simulators.e131_node import E131Node
from zarabanda.tools.bench import Report, steal_since, steal_ticks
from zarabanda.tools.browser import CONNECTED, chromium, open_page
from zarabanda.tools.running import started

_MOVING, _LADDERS = 1, 2
"""A universe in which something changes on every frame, and the one with the ladders that the fader moves."""
_NOTE_KEYS = """() => {
  window.pressed = [];
  addEventListener("keydown", (event) => window.pressed.push(performance.timeOrigin + event.timeStamp), true);
}"""


_NOTE_WEAVES = """(heads) => {
  window.edits = []; window.weaves = [];
  addEventListener("keydown", (event) => window.edits.push(event.timeStamp), true);
  const draw = CanvasRenderingContext2D.prototype.putImageData;
  CanvasRenderingContext2D.prototype.putImageData = function (image, ...rest) {
    draw.call(this, image, ...rest);
    if (image.height === heads) window.weaves.push(performance.now());
  };
}"""
_WOVEN = "101-110, 201-210, 301-308, 501-506"
_WOVEN_HEADS = 100


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
    node = E131Node(0)
    node.on_packet = log.take
    begun = steal_ticks()
    with (
        tempfile.TemporaryDirectory() as data,
        started(Path(data), "demo", "--no-node", "--node-port", str(node.port)) as demo,
        chromium() as browser,
    ):
        page = open_page(browser, demo.address)
        page.get_by_role("button", name=CONNECTED).wait_for()
        page.get_by_role("tab", name="Busk").click()
        page.get_by_role("button", name="Salt night").click()
        page.get_by_role("menuitem", name="Faders and buttons").click()
        fader = page.get_by_role("slider", name="Ladders: undertow")
        fader.focus()
        page.wait_for_timeout(1000)
        page.evaluate(_NOTE_KEYS)
        log.arrivals.clear()
        reactions = _reactions(page, log, seconds)
        arrivals = np.array(log.arrivals)
        weaves = _weaves(page, seconds)
    node.close()
    gaps = np.diff(arrivals) * 1000
    off = np.abs(gaps - 1000 / 44)
    return {
        "seconds": seconds, "packets": len(arrivals), "missing": log.missing,
        "jitter_ms": {"median": float(np.median(off)), "p99": float(np.percentile(off, 99)), "longest_gap": float(gaps.max())},
        "fader_to_packet_ms": {
            "median": float(np.median(reactions)), "p99": float(np.percentile(reactions, 99)), "count": len(reactions),
        },
        "edit_to_weave_ms": {
            "median": float(np.median(weaves)), "p90": float(np.percentile(weaves, 90)), "count": len(weaves),
        },
        "steal": steal_since(begun),
    }  # fmt: skip


def _weaves(page: Any, seconds: float) -> np.ndarray[Any, Any]:
    """Times from a key on the depth of a new effect to its new weave on the screen, on 100 heads. In ms."""
    page.get_by_role("tab", name="Effects").click()
    page.keyboard.press("/")
    page.keyboard.type(_WOVEN)
    page.keyboard.press("Enter")
    page.get_by_role("button", name="New effect").click()
    page.get_by_role("menuitem", name="Intensity", exact=True).click()
    page.get_by_role("button", name="Depth: 70 %").click()
    page.get_by_role("dialog", name="Depth").get_by_role("slider").focus()
    page.wait_for_timeout(1000)
    page.evaluate(_NOTE_WEAVES, _WOVEN_HEADS)
    times: list[float] = []
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        page.evaluate("window.weaves.length = 0")
        page.keyboard.press("ArrowRight")
        page.wait_for_timeout(600)
        took = page.evaluate("window.weaves.length ? window.weaves[0] - window.edits.at(-1) : null")
        if took is not None:
            times.append(float(took))
    return np.array(times)


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
    """The report in three lines."""
    jitter, reaction, woven = report["jitter_ms"], report["fader_to_packet_ms"], report["edit_to_weave_ms"]
    return (
        f"At the node over {report['seconds']:.0f} s with the page in use: {report['packets']} packets of one universe, "
        f"{report['missing']} missing; jitter median {jitter['median']:.2f} ms, 99 % {jitter['p99']:.2f} ms, longest gap "
        f"{jitter['longest_gap']:.1f} ms; steal {report['steal']:.0%}\n"
        f"Fader in the browser to the first changed packet: median {reaction['median']:.1f} ms, 99 % {reaction['p99']:.1f} ms "
        f"of {reaction['count']} moves\n"
        f"Edit of an effect on {_WOVEN_HEADS} heads to its new weave: median {woven['median']:.0f} ms, 90 % {woven['p90']:.0f} "
        f"of {woven['count']} key presses"
    )
