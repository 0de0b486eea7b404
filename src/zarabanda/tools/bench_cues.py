"""Measurements of cue lists in a large show, 500 cues on 2,000 heads: how long the view, an edit and a go take, and 40 actions a
second from three browsers."""

from __future__ import annotations

import json
import socket
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from itertools import pairwise
from pathlib import Path
from typing import Any

import numpy as np
from simple_websocket import Client
from sqlalchemy.orm import Session

from zarabanda.demo import salt_light
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.acts import act
from zarabanda.engine.live.programs import take
from zarabanda.engine.live.state import LiveState
from zarabanda.formats.cue_document import CueDocument, CueListSettings
from zarabanda.formats.rig_document import FixtureDocument
from zarabanda.messages import GoTo, ShowUpdate
from zarabanda.protocols.e131 import DataPacket
from zarabanda.shelf.library import Library
from zarabanda.show import compile as compiling
from zarabanda.show import repositories
from zarabanda.show.store import Store
from zarabanda.simulators.e131_node import E131Node
from zarabanda.stock.kinds import plain_kinds
from zarabanda.stock.rigs import SPOT
from zarabanda.tools.bench import Report, steal_since, steal_ticks
from zarabanda.tools.browser import chromium, open_page
from zarabanda.tools.running import Running, ask, started

HEADS, CUES = 2000, 500
_A_CUE, _ALL_EVERY = 200, 25
"""Heads that a cue writes, and how often one writes all of them."""
_FADE = {"fade": 0.3}
_TIMES = {"intensity": {"up": 0.3, "down": 0.3}, "position": _FADE, "colour": _FADE, "beam": _FADE}
ACTIONS_PER_S, BROWSERS = 40, 3


def add_spots(session: Session) -> None:
    """A new show with HEADS spots, one after another over its universes."""
    salt_light.new_show(session, "Bench")
    mode = plain_kinds()[SPOT]
    a_universe = 512 // mode.footprint
    fixtures = [
        FixtureDocument(
            number=n + 1, name="Spot", mode=SPOT, place=(n % 50 - 25.0, n // 50 - 20.0, 6.0),
            universe=1 + n // a_universe, address=1 + n % a_universe * mode.footprint,
        )
        for n in range(HEADS)
    ]  # fmt: skip
    repositories.rig.add(session, fixtures, {SPOT: mode})


def build(data: Path) -> None:
    """The show in a data folder: one list, each of whose cues changes level, place, colour and zoom of some heads, and effects
    that begin in one cue and stop in a later one."""
    data.mkdir(parents=True, exist_ok=True)
    store = Store(data / "show.db")
    try:
        draw = np.random.default_rng(1)
        with store.edit("bench", "Make the show of the bench") as session:
            add_spots(session)
            whose = repositories.cues.add_list(session, "Long list", CueListSettings())
            effect = next(one.id for one in repositories.effects.kept(session))
            for number in range(1, CUES + 1):
                every = number % _ALL_EVERY == 1
                heads = list(range(1, HEADS + 1)) if every else sorted(draw.choice(HEADS, _A_CUE, replace=False) + 1)
                values: dict[str, dict[str, Any]] = {}
                for name, low, high in (("intensity", 20, 100), ("pan", -90, 90), ("tilt", -60, 60), ("zoom", 8, 40)):
                    values[name] = {
                        str(head): round(float(one), 2)
                        for head, one in zip(heads, draw.uniform(low, high, len(heads)), strict=True)
                    }
                values["colour"] = dict.fromkeys(map(str, heads), f"#{int(draw.integers(0, 2**24)):06x}")
                effects = [{"do": "start", "thread": number, "effect": effect, "heads": [str(h) for h in heads[:20]]}]
                if number > 6:
                    effects.append({"do": "stop", "thread": number - 6})
                document = CueDocument.model_validate(
                    {"name": f"Cue of the bench {number}", "values": values, "effects": effects, "times": _TIMES}
                )
                repositories.cues.add(session, whose.id, float(number), document)
    finally:
        store.close()


def jumps(data: Path, seconds: float) -> Report:
    """Going to cues of the list, computed in this process alone. In ms."""
    store = Store(Library(data).adopted().open_path)
    try:
        with store.reading() as session:
            parts = compiling.all_parts(session)
    finally:
        store.close()
    begun = time.perf_counter()
    program = Compiler().take(ShowUpdate("bench", 1, parts, whole=True))
    compiled = time.perf_counter() - begun
    state, _ = take(LiveState(), program, 0.0)
    whose = next(iter(program.lists.values()))
    times: list[float] = []
    t, draw = 1.0, np.random.default_rng(2)
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        place = 399 if len(times) % 2 == 0 else int(draw.integers(0, CUES))
        begun = time.perf_counter()
        state = act(state, GoTo(whose.id, whose.cues[place].id), t)
        times.append((time.perf_counter() - begun) * 1000)
        t += 1.0
    return {"compiled_s": compiled, **spread(times)}


def spread(times: list[float]) -> Report:
    """The median, the 99th percentile and the longest of some times, and how many they are."""
    found = np.array(times)
    return {
        "median": float(np.median(found)), "p99": float(np.percentile(found, 99)), "longest": float(found.max()),
        "count": len(found),
    }  # fmt: skip


class Changes:
    """When the first universe changed at the node."""

    def __init__(self) -> None:
        self.at: list[float] = []
        self._slots = b""

    def take(self, packet: DataPacket, arrived: float) -> None:
        if packet.universe == 1 and packet.slots != self._slots:
            self._slots = packet.slots
            self.at.append(arrived)


def _connected(address: str) -> Client:
    """A live socket that sends at once what it is given, as browsers do."""
    client = Client(address)
    client.sock.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
    return client


class Desk:
    """A live socket: it acts, and knows the newest state."""

    def __init__(self, demo: Running) -> None:
        self._address = demo.address.replace("http", "ws") + "/live"
        self._client = _connected(self._address)
        self.state: dict[str, Any] = {}
        self.refused: list[dict[str, Any]] = []
        self.heard: Callable[[dict[str, Any]], None] = lambda state: None
        self.came = threading.Condition()
        threading.Thread(target=self._read, args=(self._client,), daemon=True).start()

    def again(self) -> None:
        """Connect anew, where the connection was lost."""
        if not self._client.connected:
            self._client, self.state = _connected(self._address), {}
            threading.Thread(target=self._read, args=(self._client,), daemon=True).start()

    def _read(self, client: Client) -> None:
        try:
            while True:
                message = client.receive(timeout=60)
                if isinstance(message, str):
                    self._take(json.loads(message))
        except Exception:  # closed
            return

    def _take(self, message: dict[str, Any]) -> None:
        with self.came:
            if message["type"] == "state":
                self.state = message
                self.heard(message)
            elif message["type"] == "refused":
                self.refused.append(message)
            self.came.notify_all()

    def act(self, **action: Any) -> None:
        self._client.send(json.dumps({"type": "action", "action": action}))

    def until(self, holds: Callable[[dict[str, Any]], bool], seconds: float = 30.0) -> float:
        """Wait for a state; the time at which it came."""
        with self.came:
            if not self.came.wait_for(lambda: bool(self.state) and holds(self.state), seconds):
                raise TimeoutError("such a state did not come")
        return time.perf_counter()

    def close(self) -> None:
        self._client.close()


@contextmanager
def served(data: Path, hear: Callable[[DataPacket, float], None]) -> Iterator[tuple[Running, Desk]]:
    """A running show with one list, a live socket of it, and a node whose packets are heard."""
    node = E131Node(0)
    node.on_packet = hear
    try:
        with started(data, "serve", "--no-node", "--node-port", str(node.port)) as running:
            desk = Desk(running)
            desk.until(lambda state: len(state.get("lists", ())) == 1)
            yield running, desk
            desk.close()
    finally:
        node.close()


def measure(seconds: float) -> Report:
    """All of it, in ms; `seconds` for each part that goes on for a while."""
    begun = steal_ticks()
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "data"
        build(data)
        report: Report = {"jump_ms": jumps(data, min(seconds, 10.0))}
        changes = Changes()
        with served(data, changes.take) as (running, desk):
            report |= _edits(running, desk) | {"go_to_packet_ms": _goes(desk, changes, seconds)}
            report["hands"] = hands(running, max(seconds, 60.0))
            report["view_ms"] = _view(running)
    return report | {"steal": steal_since(begun)}


def _edits(running: Running, desk: Desk) -> Report:
    """Inserting a cue and changing one: when it is answered, and when the engine has it after the edit was asked for."""
    number = ask(running, "/api/cue-lists")["lists"][0]["id"]
    rows = ask(running, f"/api/cue-lists/{number}")["rows"]
    heads = [str(n) for n in range(1, 41)]
    ask(running, "/api/draft/change", {"heads": heads, "attribute": "zoom", "to": 33})
    answered: dict[str, list[float]] = {"insert": [], "edit": []}
    reached: list[float] = []

    def one(kind: str, path: str, body: Any, method: str | None = None) -> None:
        before = desk.state["revision"]
        begun = time.perf_counter()
        came: list[float] = []
        waiting = threading.Thread(target=lambda: came.append(desk.until(lambda state: state["revision"] != before)))
        waiting.start()
        ask(running, path, body, method)
        answered[kind].append((time.perf_counter() - begun) * 1000)
        waiting.join()
        reached.append((came[0] - begun) * 1000)

    for n in range(20):
        after = rows[(37 * n) % CUES]["id"]
        one("insert", f"/api/cue-lists/{number}/cues", {"name": f"Between {n}", "after": after})
        one("edit", f"/api/cues/{rows[(61 * n) % CUES]['id']}", {"name": f"Changed {n}"}, "PUT")
        one(
            "edit", f"/api/cues/{rows[(53 * n) % CUES]['id']}/values",
            {"attribute": "intensity", "heads": heads, "value": 10 + n, "where": "here"},
        )  # fmt: skip
    return {
        "insert_ms": spread(answered["insert"]), "edit_ms": spread(answered["edit"]), "edit_to_engine_ms": spread(reached),
    }  # fmt: skip


def _goes(desk: Desk, changes: Changes, seconds: float) -> Report:
    """From a go at the live socket to the first packet that is another."""
    whose = desk.state["lists"][0]["id"]
    desk.act(do="go", list=whose)
    time.sleep(1.0)
    times: list[float] = []
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        key = desk.state["running"]
        if key:
            desk.act(do="stop-all", seconds=0)  # an effect that runs changes every packet
        time.sleep(0.5)
        changes.at.clear()
        begun = time.time()
        desk.act(do="go", list=whose)
        time.sleep(0.25)
        if changes.at:
            times.append((changes.at[0] - begun) * 1000)
    return spread(times)


def hands(running: Running, seconds: float) -> Report:
    """40 actions a second from three live sockets: how many were done, in which order, and frames that were late.

    One socket moves the fader of the list, higher each time, one the grand master, one goes once a second; what the engine tells
    is compared with that.
    """
    desks = [Desk(running) for _ in range(BROWSERS)]
    for desk in desks:
        desk.until(lambda state: bool(state.get("lists")))
    whose, cues = desks[0].state["lists"][0]["id"], ask(running, "/api/cue-lists")["lists"][0]["id"]
    rows = [row["id"] for row in ask(running, f"/api/cue-lists/{cues}")["rows"]]
    desks[0].act(do="go-to", list=whose, cue=rows[0])
    desks[0].act(do="list-level", list=whose, value=0)
    desks[1].act(do="grand", value=0)
    desks[0].until(lambda state: (state["lists"][0]["cue"], state["lists"][0]["level"], state["grand"]) == (rows[0], 0, 0))
    time.sleep(1.0)
    before = desks[0].state["health"]
    told = list[tuple[int, float, float]]()
    desks[0].heard = lambda state: told.append((rows.index(state["lists"][0]["cue"]), state["lists"][0]["level"], state["grand"]))
    count, due, goes = int(seconds * ACTIONS_PER_S), time.monotonic(), 0
    for n in range(1, count + 1):
        if n % ACTIONS_PER_S == 3:
            desks[2].act(do="go", list=whose)
            goes += 1
        elif n % 2:
            desks[1].act(do="grand", value=n / count)
        else:
            desks[0].act(do="list-level", list=whose, value=n / count)
        due += 1 / ACTIONS_PER_S
        time.sleep(max(0.0, due - time.monotonic()))
    end = rows[goes % len(rows)] if goes < len(rows) else rows[-1]
    desks[0].until(lambda state: state["lists"][0]["level"] == 1 and state["lists"][0]["cue"] == end)
    after = desks[0].state["health"]
    refused = sum(len(desk.refused) for desk in desks)
    for desk in desks:
        desk.close()
    backwards = sum(later[part] < earlier[part] for earlier, later in pairwise(told) for part in range(3))
    return {
        "actions": count, "goes": goes, "refused": refused, "backwards": backwards, "states": len(told),
        "late": after["late"] - before["late"], "frames": after["frames"] - before["frames"],
        "errors": after["errors"] - before["errors"],
    }  # fmt: skip


def _view(running: Running) -> Report:
    """From a press on Cues to the rows of the list on the screen."""
    times = []
    with chromium() as browser:
        for _ in range(5):
            page = open_page(browser, running.address)
            page.get_by_role("tab", name="Busk").click()
            page.wait_for_timeout(1500)
            times.append(
                float(
                    page.evaluate("""() => new Promise((done) => {
                        const begun = performance.now();
                        const look = () => document.querySelector('[aria-label="Cues"] [role="listitem"]')
                            ? requestAnimationFrame(() => done(performance.now() - begun)) : requestAnimationFrame(look);
                        [...document.querySelectorAll('[role="tab"]')].find((one) => one.textContent === "Cues").click();
                        look();
                    })""")
                )
            )
            page.context.close()
    return spread(times)


def as_text(report: Report) -> str:
    """The report in lines."""
    lines = [f"{CUES} cues on {HEADS} heads, steal {report['steal']:.0%}"]
    names = {
        "view_ms": "the view opens", "insert_ms": "a cue is inserted, answered", "edit_ms": "a cue is changed, answered",
        "edit_to_engine_ms": "an edit is in the engine", "go_to_packet_ms": "go to the first changed packet",
        "jump_ms": "a jump is computed",
    }  # fmt: skip
    for name, words in names.items():
        one = report[name]
        lines.append(
            f"{words}: median {one['median']:.1f} ms, 99 % {one['p99']:.1f}, longest {one['longest']:.1f} of {one['count']}"
        )
    did = report["hands"]
    lines.append(
        f"{did['actions']} actions from {BROWSERS} browsers, {did['goes']} of them go: all done, {did['refused']} refused, "
        f"{did['backwards']} out of order in {did['states']} states; {did['late']} of {did['frames']} frames late, "
        f"{did['errors']} failed"
    )
    return "\n".join(lines)
