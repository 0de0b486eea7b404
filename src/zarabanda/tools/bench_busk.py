"""Measurements of a busking page on 2,000 heads with 20 effects running: from a press in the browser to the wire, and what a
change costs the page."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any

import numpy as np

from zarabanda.engine.decoding import RigMaker
from zarabanda.show import busk_maker, repositories
from zarabanda.show import compile as compiling
from zarabanda.show.store import Store
from zarabanda.simulators.e131_node import E131Node
from zarabanda.tools.bench import Report, steal_since, steal_ticks
from zarabanda.tools.bench_cues import HEADS, Changes, add_spots, spread
from zarabanda.tools.browser import CONNECTED, chromium, open_page
from zarabanda.tools.running import ask, started

GROUPS, EFFECTS = 11, 20
"""EFFECTS: two on each row but the first, of all that the rows have."""
_NOTE_PRESSES = """() => {
  window.presses = []; window.sent = [];
  const send = WebSocket.prototype.send;
  WebSocket.prototype.send = function (data) {
    window.sent.push(performance.timeOrigin + performance.now());
    send.call(this, data);
  };
  addEventListener("pointerdown", (event) => window.presses.push(performance.timeOrigin + event.timeStamp), true);
}"""
_WAIT_MS = 250


def build(data: Path) -> None:
    """The show in a data folder: spots in groups, and a busking page with a row for each."""
    data.mkdir(parents=True, exist_ok=True)
    store = Store(data / "show.db")
    try:
        with store.edit("bench", "Make the show of the bench") as session:
            add_spots(session)
            each = np.array_split(np.arange(1, HEADS + 1), GROUPS)
            groups = [repositories.groups.make(session, f"Row {n}", [str(one) for one in its]) for n, its in enumerate(each)]
            rig = RigMaker().made(compiling.all_parts(session))
            busk_maker.make(session, rig, "Bench", [busk_maker.Wish(group.id) for group in groups])
    finally:
        store.close()


def measure(presses: int) -> Report:
    """Press colours of the first row, whose lights no effect moves, and depths and levels. In ms."""
    changes, node, begun = Changes(), E131Node(0), steal_ticks()
    node.on_packet = changes.take
    with tempfile.TemporaryDirectory() as folder, chromium() as browser:
        data = Path(folder) / "data"
        build(data)
        with started(data, "serve", "--no-node", "--node-port", str(node.port)) as demo:
            rows = ask(demo, "/api/busk")["pages"][0]["rows"]
            actions: list[dict[str, Any]] = [{"do": "next-change", "seconds": 0, "position_s": 0}]
            actions += [{"do": "row-level", "row": row["id"], "value": 0.7} for row in rows[1:]]
            actions += [
                {"do": "pad", "row": row["id"], "pad": pad["id"]}
                for n, row in enumerate(rows[2:])
                for pad in (row["effects"][n % len(row["effects"])], row["effects"][(n + 3) % len(row["effects"])])
            ]  # fmt: skip
            for action in actions:
                ask(demo, "/api/actions", {"action": action})
            page = open_page(browser, demo.address)
            page.get_by_role("button", name=CONNECTED).wait_for()
            page.get_by_role("tab", name="Busk", exact=True).click()
            names = [f"{rows[1]['name']}: {pad['name']}" for pad in rows[1]["colour"][:2]]
            page.get_by_role("button", name=names[0]).first.wait_for()
            page.wait_for_timeout(2000)
            page.evaluate(_NOTE_PRESSES)
            metrics = page.context.new_cdp_session(page)
            metrics.send("Performance.enable")
            to_packet, from_page, script, idle = list[float](), list[float](), list[float](), list[float]()
            for n in range(presses):
                idle.append(_script_of(page, metrics))
                changes.at.clear()
                page.get_by_role("button", name=names[n % 2]).first.click()
                script.append(_script_of(page, metrics))
                if changes.at:
                    pressed, sent = page.evaluate("[window.presses.at(-1), window.sent.at(-1)]")
                    to_packet.append(changes.at[0] * 1000 - pressed)
                    from_page.append(changes.at[0] * 1000 - sent)
    node.close()
    return {
        "to_packet_ms": spread(to_packet), "from_page_ms": spread(from_page),
        "script_ms": spread(list(np.array(script) - np.median(idle))),
        "idle_ms": float(np.median(idle)), "missed": presses - len(to_packet), "steal": steal_since(begun),
    }  # fmt: skip


def _script_of(page: Any, metrics: Any) -> float:
    """Script that the page runs in the next quarter of a second, in ms."""

    def now() -> float:
        found = {one["name"]: one["value"] for one in metrics.send("Performance.getMetrics")["metrics"]}
        return float(found["ScriptDuration"]) * 1000

    before = now()
    page.wait_for_timeout(_WAIT_MS)
    return now() - before


def as_text(report: Report) -> str:
    """The report in two lines."""
    packet, sent, script = report["to_packet_ms"], report["from_page_ms"], report["script_ms"]
    rows = f"Busking page of {GROUPS + 1} rows on {HEADS:,} heads, {EFFECTS} effects running"
    return (
        f"{rows}: pad to the first changed packet median {packet['median']:.1f} ms, 99 % {packet['p99']:.1f} of "
        f"{packet['count']} presses ({report['missed']} without a change); from where the page has sent it median "
        f"{sent['median']:.1f}, 99 % {sent['p99']:.1f}; steal {report['steal']:.0%}\n"
        f"A change on the page costs {script['median']:.1f} ms of script, 99 % {script['p99']:.1f}, beside "
        f"{report['idle_ms']:.1f} ms in each quarter of a second without one"
    )
