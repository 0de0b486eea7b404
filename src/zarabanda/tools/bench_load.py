"""Measurements of the running whole under load: late frames while the show is edited, and HTTP beside many open sockets."""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import Any

import numpy as np
from simple_websocket import Client

from zarabanda.simulators.e131_node import E131Node
from zarabanda.tools.bench import Report, steal_since, steal_ticks
from zarabanda.tools.running import Running, ask, started

_SPOTS = 1
_READER = """
import selectors, socket, sys
host, port = sys.argv[1].removeprefix("http://").split(":")
ask = (f"GET /live HTTP/1.1\\r\\nHost: {host}:{port}\\r\\nUpgrade: websocket\\r\\nConnection: Upgrade\\r\\n"
       "Sec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\\r\\nSec-WebSocket-Version: 13\\r\\n\\r\\n").encode()
opened = selectors.DefaultSelector()
for _ in range(int(sys.argv[2])):
    one = socket.create_connection((host, int(port)))
    one.sendall(ask)
    assert b" 101 " in one.recv(4096)
    opened.register(one, selectors.EVENT_READ)
print("open", flush=True)
while True:
    for key, _ in opened.select():
        key.fileobj.recv(1 << 20)
"""
"""A process of its own that reads from so many live sockets, and does nothing with it."""
EDITS_PER_S, PREVIEWS_PER_S = 4, 20


def _live(demo: Running) -> Client:
    return Client(demo.address.replace("http", "ws") + "/live")


def _health(client: Client) -> dict[str, Any]:
    while True:
        message = client.receive(timeout=10)
        if isinstance(message, str) and json.loads(message)["type"] == "state":
            health: dict[str, Any] = json.loads(message)["health"]
            return health


def edits(seconds: float) -> Report:
    """The demo plays while an effect that runs is edited 4 times and previewed 20 times a second; times in ms."""
    node, begun = E131Node(0), steal_ticks()
    with (
        tempfile.TemporaryDirectory() as data,
        started(Path(data), "demo", "--no-node", "--node-port", str(node.port)) as demo,
    ):
        effect = next(one for one in ask(demo, "/api/effects")["effects"] if one["name"] == "Tide fold")
        number, document = effect["id"], effect["document"]
        client, watching = _live(demo), _live(demo)
        time.sleep(2)
        before = _health(watching)
        node.reset()
        end, step = time.monotonic() + seconds, 0
        due = time.monotonic()
        while due < end:
            if step % (PREVIEWS_PER_S // EDITS_PER_S) == 0:
                change = {"path": "layers.0.form.width", "value": 30.0 + step % 40}
                ask(demo, f"/api/effects/{number}/change", change)
            preview = {**document, "layers": [{**one, "start": float(step % 90)} for one in document["layers"]]}
            client.send(json.dumps({"type": "preview-effect", "effect_id": number, "document": preview}))
            step += 1
            due += 1 / PREVIEWS_PER_S
            time.sleep(max(0.0, due - time.monotonic()))
        gaps = np.array(node.gaps(_SPOTS)) * 1000
        watching.close()
        watching = _live(demo)
        after = _health(watching)
        for one in (client, watching):
            one.close()
    node.close()
    frames = after["frames"] - before["frames"]
    late = after["late"] - before["late"]
    return {
        "seconds": seconds, "frames": frames, "late": late, "late_share": late / max(frames, 1),
        "gap_ms": {"p99": float(np.percentile(gaps, 99)), "longest": float(gaps.max())}, "steal": steal_since(begun),
    }  # fmt: skip


def sockets(count: int, seconds: float) -> Report:
    """How long HTTP takes beside `count` open live sockets, all of which read; times in ms."""
    begun, times = steal_ticks(), []
    with tempfile.TemporaryDirectory() as data, started(Path(data), "demo", "--node-port", "0") as demo:
        reader = subprocess.Popen([sys.executable, "-c", _READER, demo.address, str(count)], stdout=subprocess.PIPE, text=True)
        assert reader.stdout is not None
        reader.stdout.readline()  # all of them are open
        end = time.monotonic() + seconds
        while time.monotonic() < end:
            asked = time.perf_counter()
            ask(demo, "/api/show")
            times.append((time.perf_counter() - asked) * 1000)
            time.sleep(0.02)
        reader.kill()
        reader.communicate()
    found = np.array(times)
    return {
        "sockets": count, "requests": len(found),
        "http_ms": {"median": float(np.median(found)), "p99": float(np.percentile(found, 99))}, "steal": steal_since(begun),
    }  # fmt: skip


def as_text(edited: Report, open_: Report) -> str:
    """Both reports in two lines."""
    gap, http = edited["gap_ms"], open_["http_ms"]
    return (
        f"{EDITS_PER_S} edits and {PREVIEWS_PER_S} previews a second over {edited['seconds']:.0f} s: {edited['late']} of "
        f"{edited['frames']} frames late ({edited['late_share']:.2%}); gaps at the node 99 % {gap['p99']:.1f} ms, longest "
        f"{gap['longest']:.1f} ms; steal {edited['steal']:.0%}\n"
        f"HTTP beside {open_['sockets']} open sockets: median {http['median']:.1f} ms, 99 % {http['p99']:.1f} ms of "
        f"{open_['requests']} requests; steal {open_['steal']:.0%}"
    )
