"""Measurements of the second hand on 2,000 heads: 16 faders moved at once from three browsers, and what a special costs."""

from __future__ import annotations

import tempfile
import threading
import time
from pathlib import Path
from typing import Any

import numpy as np
from sqlalchemy import select

from zarabanda import targets
from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.state import LiveState
from zarabanda.engine.loop import Loop
from zarabanda.formats.cue_document import CueDocument, CueListSettings
from zarabanda.formats.look_document import LookDocument
from zarabanda.formats.special_document import Aim, SpecialDocument
from zarabanda.messages import Go, PressSpecial, ShowUpdate
from zarabanda.protocols.e131 import DataPacket
from zarabanda.shelf.library import Library
from zarabanda.show import compile as compiling
from zarabanda.show import repositories
from zarabanda.show.store import Store
from zarabanda.show.tables import Page
from zarabanda.simulators.e131_node import E131Node
from zarabanda.stock.kinds import plain_kinds
from zarabanda.stock.rigs import SPOT
from zarabanda.tools.bench import Report, steal_since, steal_ticks
from zarabanda.tools.bench_cues import HEADS, Desk, add_spots, spread
from zarabanda.tools.running import Running, ask, started

FADERS, BROWSERS, MOVES_PER_S = 16, 3, 20
OF_GROUPS = 13
"""Faders that level a group of lights each, whose packets are looked at; the others mix overlays and a look in meanwhile."""
STEPS = 250
"""A fader goes up in so many steps, each of which is another byte, and begins again."""
_A_SPECIAL = 40


def build(data: Path) -> None:
    """The show in a data folder: all spots lit by a cue, levels of groups, overlays and a look on 16 faders, and a special."""
    data.mkdir(parents=True, exist_ok=True)
    store = Store(data / "show.db")
    try:
        with store.edit("bench", "Make the show of the bench") as session:
            add_spots(session)
            every = [str(n) for n in range(1, HEADS + 1)]
            lit = CueDocument.model_validate({"values": {"intensity": dict.fromkeys(every, 100.0)}})
            whose = repositories.cues.add_list(session, "Lit", CueListSettings())
            repositories.cues.add(session, whose.id, 1.0, lit)
            page = session.scalars(select(Page)).one()
            a_universe = 512 // plain_kinds()[SPOT].footprint
            for n in range(OF_GROUPS):
                group = repositories.groups.make(session, f"Of universe {n + 1}", every[n * a_universe : (n + 1) * a_universe])
                _put(session, page.id, n + 1, targets.OnGroup(group_id=group.id))
            for n in range(FADERS - OF_GROUPS):
                values = {"zoom": dict.fromkeys(every[n::7], 30.0), "colour": dict.fromkeys(every[n::5], "#ff3c9b")}
                look = LookDocument.model_validate({"values": values})
                kept = repositories.looks.add(session, f"Mixed in {n}", look, over=n > 0)
                _put(session, page.id, OF_GROUPS + n + 1, targets.UseLook(kept.id))
            special = SpecialDocument(heads=every[:_A_SPECIAL], aim=Aim(point=(0.0, 0.0, 0.0)))
            repositories.specials.add(session, "Special", special)
    finally:
        store.close()


def _put(session: Any, page: int, place: int, target: targets.Target) -> None:
    repositories.pages.add_control(
        session, page, place=place, name=f"Fader {place}", mode="fader", target=target, release_s=0.0
    )  # fmt: skip


class Levels:
    """The level of the first light of each universe, as it came to the node: when, and in which of its steps."""

    def __init__(self) -> None:
        channels = plain_kinds()[SPOT].spec().channels
        self._slot = next(one.slots[0] for one in channels if one.source == "intensity")
        self.came: list[list[tuple[float, int]]] = [[] for _ in range(OF_GROUPS)]

    def take(self, packet: DataPacket, arrived: float) -> None:
        if packet.universe <= OF_GROUPS:
            came, level = self.came[packet.universe - 1], packet.slots[self._slot]
            if not came or came[-1][1] != level:
                came.append((arrived, level))


def measure(seconds: float) -> Report:
    """Move all faders for so long, and measure a special. In ms."""
    begun, levels, node = steal_ticks(), Levels(), E131Node(0)
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "data"
        build(data)
        report: Report = {"special_ms": special(data)}
        with started(data, "serve", "--no-node", "--node-port", str(node.port)) as running:
            node.on_packet = levels.take
            report |= moved(running, levels, seconds)
    node.close()
    return report | {"steal": steal_since(begun)}


def moved(running: Running, levels: Levels, seconds: float) -> Report:
    """All faders go up in steps, over and over, each moved by one of three live sockets."""
    controls = sorted(ask(running, "/api/pages")["pages"][0]["controls"], key=lambda one: int(one["place"]))
    desks = [Desk(running) for _ in range(BROWSERS)]
    for desk in desks:
        desk.until(lambda state: bool(state.get("lists")))
    desks[0].act(do="go", list=desks[0].state["lists"][0]["id"])
    time.sleep(2.0)
    before = desks[0].state["health"]
    sent: list[list[tuple[float, int]]] = [[] for _ in controls]
    count = int(seconds * MOVES_PER_S)
    threads = [threading.Thread(target=_hand, args=(desk, n, controls, sent, count)) for n, desk in enumerate(desks)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    last = [moves[-1][1] / 255 for moves in sent]
    time.sleep(1.0)
    told = desks[0].state
    exact = [abs(told["levels"][one["key"]] - value) < 1e-9 for one, value in zip(controls, last, strict=True)]
    after, refused = told["health"], sum(len(desk.refused) for desk in desks)
    for desk in desks:
        desk.close()
    times = [late for moves, came in zip(sent, levels.came, strict=False) for late in _delays(moves, came)]
    return {
        "to_packet_ms": spread(times), "moves": FADERS * count, "refused": refused, "exact": sum(exact),
        "late": after["late"] - before["late"], "frames": after["frames"] - before["frames"],
        "errors": after["errors"] - before["errors"], "frame_ms": after["median_ms"],
    }  # fmt: skip


def _hand(desk: Desk, number: int, controls: list[Any], sent: list[list[tuple[float, int]]], count: int) -> None:
    """One browser: every third fader, all of them at once."""
    due = time.monotonic()
    for n in range(1, count + 1):
        step = 1 + (n - 1) % STEPS
        for place in range(number, len(controls), BROWSERS):
            sent[place].append((time.time(), step))
            desk.act(do="level", control=controls[place]["key"], value=step / 255)
        due += 1 / MOVES_PER_S
        time.sleep(max(0.0, due - time.monotonic()))


def _delays(moves: list[tuple[float, int]], came: list[tuple[float, int]]) -> list[float]:
    """From each move to the packet that first has its level, or a later one where a frame took two moves at once; in ms."""
    found, place = list[float](), 0
    for sent, step in moves:
        while place < len(came) and (came[place][0] < sent or came[place][1] < step or came[place][1] - step > STEPS // 2):
            place += 1
        if place == len(came):
            break
        found.append((came[place][0] - sent) * 1000)
    return found


def special(data: Path, turns: int = 600) -> Report:
    """What a special on 40 heads costs a frame, computed by turns with and without one, in this process alone. In ms."""
    store = Store(Library(data).adopted().open_path)
    try:
        with store.reading() as session:
            parts = compiling.all_parts(session)
    finally:
        store.close()
    program = Compiler().take(ShowUpdate("bench", 1, parts, whole=True))
    number, whose = next(iter(program.specials)), next(iter(program.lists))
    loops = [Loop(LiveState(), [], clock=time.monotonic, sleep=time.sleep) for _ in range(2)]
    for n, loop in enumerate(loops):
        loop.swap(program)
        loop.post(Go(whose))
        loop.tick(time.monotonic())
        if n:
            loop.post(PressSpecial(number))
    times: list[list[float]] = [[], []]
    for _ in range(turns):
        for own, loop in zip(times, loops, strict=True):
            begun = time.perf_counter()
            loop.tick(time.monotonic())
            own.append((time.perf_counter() - begun) * 1000)
    without, on = (np.array(own[turns // 4 :]) for own in times)
    return {"without": float(np.median(without)), "on": float(np.median(on)), "costs": float(np.median(on - without))}


def as_text(report: Report) -> str:
    """The report in two lines."""
    packet, one = report["to_packet_ms"], report["special_ms"]
    hands = f"{FADERS} faders on {HEADS:,} heads moved at once from {BROWSERS} browsers, {report['moves']:,} moves"
    return (
        f"{hands}: to the packet that has it median {packet['median']:.1f} ms, 99 % {packet['p99']:.1f}, longest "
        f"{packet['longest']:.1f}; {report['late']} of {report['frames']} frames late, {report['errors']} failed, "
        f"{report['refused']} refused, last values of {report['exact']} exact; frame {report['frame_ms']:.2f} ms; "
        f"steal {report['steal']:.0%}\n"
        f"A special on {_A_SPECIAL} heads costs {one['costs']:.3f} ms a frame ({one['on']:.3f} beside {one['without']:.3f})"
    )
