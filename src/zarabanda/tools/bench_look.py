"""Measurements of the Look view in the running whole: an aim that is dragged, and a palette that is changed, to the wire."""

from __future__ import annotations

import json
import re
import tempfile
import time
import urllib.request
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

from zarabanda.protocols.e131 import DataPacket
from zarabanda.simulators.e131_node import E131Node
from zarabanda.tools.bench import Report, steal_since, steal_ticks
from zarabanda.tools.browser import chromium, open_page
from zarabanda.tools.running import Running, started

AIMED, USES = 200, 500
_PAUSE_S = 0.3
_MOVES = """() => {
  window.moves = [];
  addEventListener("pointermove", (event) => window.moves.push(performance.timeOrigin + event.timeStamp), true);
}"""


class _Changes:
    """When bytes of some slots of the first universe changed, in s of the wall clock."""

    def __init__(self, node: E131Node, slots: slice) -> None:
        self.times: list[float] = []
        self._slots, self._last = slots, b""
        node.on_packet = self._take

    def _take(self, packet: DataPacket, arrived: float) -> None:
        now = bytes(packet.slots[self._slots])
        if packet.universe == 1 and now != self._last:
            self._last = now
            self.times.append(arrived)


def _ask(demo: Running, path: str, body: Any = None, method: str | None = None) -> Any:
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(demo.address + path, data, {"Content-Type": "application/json"}, method=method)
    with urllib.request.urlopen(request, timeout=30) as answer:
        return json.loads(answer.read())


def _spots(demo: Running, count: int) -> list[str]:
    modes = [one["name"] for one in _ask(demo, "/api/kinds")["kinds"]]
    mode = next(name for name in modes if re.search("spot.*16 bit", name, re.IGNORECASE))
    body = {"mode": mode, "count": count, "name": "Spot", "place": [-10, 4, 7], "spacing": [20 / count, 0, 0]}
    _ask(demo, "/api/rig/add", body)
    return [str(n + 1) for n in range(count)]


def measure(seconds: float) -> Report:
    """Times in ms, from the hand to the first packet that changed; `palette`: from the request."""
    node, begun = E131Node(0), steal_ticks()
    with (
        tempfile.TemporaryDirectory() as data,
        started(Path(data), "serve", "--no-node", "--node-port", str(node.port)) as demo,
        chromium() as browser,
    ):
        keys = _spots(demo, USES)
        changes = _Changes(node, slice(0, 512))
        aimed = _aim(demo, browser, keys[:AIMED], changes, seconds)
        palette = _palette(demo, keys, changes, seconds)
    node.close()
    return {
        "aim_ms": _told(aimed), "lights": AIMED, "palette_ms": _told(palette), "uses": USES, "steal": steal_since(begun)
    }  # fmt: skip


def _told(times: NDArray[np.float64]) -> dict[str, float]:
    return {"median": float(np.median(times)), "p95": float(np.percentile(times, 95)), "count": float(len(times))}


def _aim(demo: Running, browser: Any, keys: list[str], changes: _Changes, seconds: float) -> NDArray[np.float64]:
    page = open_page(browser, demo.address)
    page.get_by_role("tab", name="Look").click()
    page.keyboard.press("/")
    page.keyboard.type(f"{keys[0]}-{keys[-1]}")
    page.keyboard.press("Enter")
    plan = page.get_by_role("application", name="Aim on the plan")
    plan.wait_for()
    page.wait_for_timeout(1000)
    page.evaluate(_MOVES)
    box = plan.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] * 0.6
    page.mouse.move(x, y)
    page.mouse.down()
    page.wait_for_timeout(500)
    times = []
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        changes.times.clear()
        x = 2 * (box["x"] + box["width"] / 2) - x + 7
        page.mouse.move(x, y)
        page.wait_for_timeout(int(_PAUSE_S * 1000))
        if changes.times:
            times.append(changes.times[0] * 1000 - float(page.evaluate("window.moves.at(-1)")))
    page.mouse.up()
    return np.array(times)


def _palette(demo: Running, keys: list[str], changes: _Changes, seconds: float) -> NDArray[np.float64]:
    document = {"family": "position", "values": {"pan": 10.0, "tilt": 20.0}}
    made = _ask(demo, "/api/palettes", {"name": "Bench", "document": document})["id"]
    _ask(demo, "/api/draft/palette", {"palette": made, "heads": keys})
    time.sleep(1.0)
    times = []
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        document["values"] = {"pan": 30.0 - document["values"]["pan"], "tilt": 20.0}  # type: ignore[index]  # it is ours
        changes.times.clear()
        asked = time.time()
        _ask(demo, f"/api/palettes/{made}", {"name": "Bench", "document": document}, "PUT")
        time.sleep(2 * _PAUSE_S)
        if changes.times:
            times.append((changes.times[0] - asked) * 1000)
    return np.array(times)


def as_text(report: Report) -> str:
    """The report in two lines."""
    aim, palette = report["aim_ms"], report["palette_ms"]
    return (
        f"Aim dragged with {report['lights']} lights, pointer to the first changed packet: median {aim['median']:.1f} ms, "
        f"95 % {aim['p95']:.1f} of {aim['count']:.0f} moves; steal {report['steal']:.0%}\n"
        f"A changed palette used {report['uses']} times, request to the first changed packet: median {palette['median']:.1f} ms, "
        f"95 % {palette['p95']:.1f} of {palette['count']:.0f} changes"
    )
