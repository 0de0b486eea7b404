"""Measurements of songs: jumps in one of 5,000 events on 2,000 heads, how exactly events come at the node, and how timecode is
followed."""

from __future__ import annotations

import json
import tempfile
import time
from pathlib import Path
from typing import Any

import numpy as np
from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.advance import MOVES
from zarabanda.engine.live.folding import song_at
from zarabanda.formats.busk_document import BuskRowDocument
from zarabanda.formats.timeline_document import Grid, TempoChange, TimelineDocument, TrackDocument
from zarabanda.messages import ShowUpdate
from zarabanda.protocols.e131 import DataPacket
from zarabanda.shelf.library import Library
from zarabanda.show import compile as compiling
from zarabanda.show import repositories
from zarabanda.show.repositories.timeline_events import NewEvent
from zarabanda.show.store import Store
from zarabanda.show.tables import CueRow, Group, Page
from zarabanda.targets import EffectOnHeads
from zarabanda.tools import bench_cues
from zarabanda.tools.bench import Report, steal_since, steal_ticks
from zarabanda.tools.bench_cues import Desk, served, spread
from zarabanda.tools.browser import CONNECTED, chromium, open_page
from zarabanda.tools.running import Running, ask, started

EVENTS, LENGTH_S = 5000, 240.0
_CUES, _HITS = 400, 400
"""Cues that are gone to, and flashes of the lights whose packets are looked at."""
SONG = "Long song"


def build(data: Path) -> None:
    """The show of `bench_cues`, with a song of EVENTS events: cues, flashes, presses of a button, points of faders."""
    bench_cues.build(data)
    store = Store(Library(data).adopted().open_path)
    try:
        with store.edit("bench", "Make the song of the bench") as session:
            _add_song(session)
    finally:
        store.close()


def _add_song(session: Session) -> None:
    draw = np.random.default_rng(2)
    group = Group(name="First", heads=["1", "2"], position=99)
    session.add(group)
    session.flush()
    page = repositories.busk.add_page(session, "Bench")
    row = repositories.busk.add_row(session, page.id, "lights", "First", group, BuskRowDocument(carries=[]))
    first = session.scalars(select(Page)).one()
    effect = next(one.id for one in repositories.effects.kept(session))
    heads = tuple(str(n) for n in range(100, 140))
    controls = [
        repositories.pages.add_control(
            session, first.id, place=n, name=f"Fader {n}", mode="fader", target=EffectOnHeads(effect, heads), release_s=0.4
        )
        for n in range(1, 9)
    ]
    cues = session.scalars(select(CueRow).order_by(CueRow.number)).all()
    document = TimelineDocument(
        length_s=LENGTH_S, clock="MTC", begins_alone=False, grid=Grid(changes=[TempoChange(beat=0, bpm=120)])
    )  # fmt: skip
    song = repositories.timelines.add(session, SONG, document).id

    def track(name: str, kind: str, drives: str) -> int:
        made = TrackDocument.model_validate({"name": name, "kind": kind, "drives": drives})
        return repositories.timelines.add_track(session, song, made).id

    lists = track("Cues", "cues", f"list:{cues[0].list_id}")
    at = np.sort(draw.uniform(0, LENGTH_S, _CUES))
    events = [NewEvent(lists, float(p), 0.0, {"cue": cues[n % len(cues)].id}) for n, p in enumerate(at)]
    flashes = track("Flash", "presses", f"flash:{row.id}:white")
    events += [NewEvent(flashes, 0.5 + n * LENGTH_S / (_HITS + 2), 0.25, {"does": "hold"}) for n in range(_HITS)]
    each = (EVENTS - len(events)) // len(controls)
    for control in controls:
        fader = track(control.name, "levels", f"control:{control.id}")
        places, values = np.sort(draw.uniform(0, LENGTH_S, each)), np.round(draw.uniform(0, 1, each), 3)
        events += [NewEvent(fader, float(p), 0.0, {"value": float(v)}) for p, v in zip(places, values, strict=True)]
    repositories.timeline_events.add(session, events)


def folds(data: Path, seconds: float) -> Report:
    """How long going to a position takes by itself, in ms: to the end from nothing, and anywhere once check-points are there."""
    store = Store(Library(data).adopted().open_path)
    try:
        with store.reading() as session:
            parts = compiling.all_parts(session)
    finally:
        store.close()
    program = Compiler().take(ShowUpdate("bench", 1, parts, whole=True))
    timeline = next(one for one in program.timelines.values() if one.name == SONG)
    begun = time.perf_counter()
    song_at(program, timeline, LENGTH_S, frozenset(), MOVES)
    whole = (time.perf_counter() - begun) * 1000
    draw, times, until = np.random.default_rng(3), list[float](), time.perf_counter() + seconds
    while time.perf_counter() < until:
        p = float(draw.uniform(0, LENGTH_S))
        begun = time.perf_counter()
        song_at(program, timeline, p, frozenset(), MOVES)
        times.append((time.perf_counter() - begun) * 1000)
    return {"whole_ms": round(whole, 1), "occurrences": len(timeline.occurrences), **spread(times)}


class Hits:
    """When the first light flashed white at the node."""

    def __init__(self) -> None:
        self.slot, self.at = 0, list[float]()
        self.changed: float | None = None
        self._before, self._slots = 255, b""

    def take(self, packet: DataPacket, arrived: float) -> None:
        if packet.universe != 1:
            return
        now = packet.slots[self.slot]
        if now == 255 and self._before < 255:
            self.at.append(arrived)
        self._before = now
        if packet.slots != self._slots:
            self._slots = packet.slots
            self.changed = self.changed or arrived


def measure(seconds: float) -> Report:
    """All of it; `seconds` for each part that goes on for a while."""
    begun = steal_ticks()
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "data"
        build(data)
        report: Report = {"fold_ms": folds(data, min(seconds, 10.0))}
        hits = Hits()
        with served(data, hits.take) as (running, desk):
            song = ask(running, "/api/timelines")["songs"][0]["id"]
            report |= _page(running, desk, hits, song, seconds) | _edits(running, song)
            report["jump_to_packet_ms"] = _jumps(desk, hits, song, seconds)
        with started(data, "serve", "--node-port", "0", "--artnet-port", "0") as running:
            report["chase"] = _chase(running, seconds)
    return report | {"steal": steal_since(begun)}


def _page(running: Running, desk: Desk, hits: Hits, song: int, seconds: float) -> Report:
    """How long the view takes to open, and how many pictures a second it draws; then how far from their stamps events come at the
    node while it is open and the song plays."""
    channels = ask(running, "/api/output/universes")["universes"][0]["fixtures"][0]
    names = [one.lower() for one in channels["channels"]]
    hits.slot = next(n for n, name in enumerate(names) if "intensity" in name)
    with chromium() as browser:
        page = open_page(browser, running.address)
        page.get_by_role("button", name=CONNECTED).wait_for()
        page.wait_for_timeout(3000)
        begun = time.perf_counter()
        page.get_by_role("tab", name="Timeline", exact=True).click()
        page.get_by_role("region", name="Timeline").wait_for()
        page.get_by_role("option").first.wait_for()
        opened = (time.perf_counter() - begun) * 1000
        desk.act(do="locate", timeline=song, position=0)
        time.sleep(6.0)
        hits.at.clear()
        desk.act(do="play-song", timeline=song)
        state: dict[str, Any] = {}
        desk.until(lambda one: bool(one.get("songs")) and one["songs"][-1]["speed"] == 1)
        state = desk.state
        began = state["t"] - state["songs"][-1]["position"]
        frames = page.evaluate(
            "() => new Promise(done => { let n = 0; const until = performance.now() + 5000;"
            " const turn = now => { n++; now < until ? requestAnimationFrame(turn) : done(n / 5) };"
            " requestAnimationFrame(turn) })"
        )
        time.sleep(max(seconds - 5, 1))
        desk.act(do="play-song", timeline=song, on=False)
    wall = time.time() - time.monotonic()
    stamps = np.array([began + 0.5 + n * LENGTH_S / (_HITS + 2) for n in range(_HITS)])
    late = []
    for arrived in hits.at:
        at = arrived - wall
        late.append(float(at - stamps[np.abs(stamps - at).argmin()]) * 1000)
    return {
        "open_ms": round(opened, 1), "pictures_per_s": round(frames, 1), "late_ms": spread(late),
        "within_a_frame": float(np.mean(np.abs(late) <= 22.7)),
    }  # fmt: skip


def _edits(running: Running, song: int) -> Report:
    """How long an edit of one event takes to be answered."""
    view = ask(running, f"/api/timelines/{song}")
    events, times = view["events"], list[float]()
    for n in range(40):
        one = events[(n * 97) % len(events)]
        begun = time.perf_counter()
        ask(running, "/api/timelines/events/change", {"changes": [{"id": one["id"], "at": one["at"]}], "words": "Move"})
        ask(running, "/api/timelines/events/nudge", {"events": [one["id"]], "seconds": 0.001})
        times.append((time.perf_counter() - begun) * 500)
        time.sleep(0.1)
    return {"edit_ms": spread(times)}


def _jumps(desk: Desk, hits: Hits, song: int, seconds: float) -> Report:
    """From a jump at the live socket to the first packet that is another, while the song stands."""
    time.sleep(8.0)  # until what is ahead is folded
    draw, times, end = np.random.default_rng(4), list[float](), time.monotonic() + seconds
    while time.monotonic() < end:
        hits.changed = None
        begun = time.time()
        desk.act(do="locate", timeline=song, position=float(draw.uniform(0, LENGTH_S)))
        time.sleep(0.4)
        if hits.changed is not None:
            times.append((hits.changed - begun) * 1000)
    return spread(times)


def _chase(running: Running, seconds: float) -> Report:
    """How soon MTC with ±20 ms of jitter is followed, how far the position wanders, and how soon a jump is followed."""
    desk = Desk(running)
    desk.until(lambda state: bool(state.get("timecode")))
    ask(running, "/api/output/timecode/player", {"how": {"jitter_ms": 20}})
    ask(running, "/api/output/timecode/player", {"label": "01:00:10:00"})
    time.sleep(1.0)
    begun = time.perf_counter()
    ask(running, "/api/output/timecode/player", {"on": True})
    locked = desk.until(lambda state: state["timecode"]["state"] == "chasing") - begun
    time.sleep(4.0)
    told = list[tuple[float, float]]()
    desk.heard = lambda state: told.append((state["t"], state["songs"][-1]["position"]))
    time.sleep(max(seconds, 10.0))
    desk.heard = lambda state: None
    t, p = np.array(told).T
    wander = p - t - (p - t).mean()
    begun = time.perf_counter()
    ask(running, "/api/output/timecode/player", {"label": "01:02:00:00"})
    followed = desk.until(lambda state: abs(state["songs"][-1]["position"] - 120) < 2) - begun
    desk.close()
    return {
        "locked_s": round(locked, 3), "wander_ms_rms": round(float(np.sqrt((wander**2).mean())) * 1000, 3),
        "told": len(told), "jump_followed_s": round(followed, 3),
    }  # fmt: skip


def as_text(report: Report) -> str:
    """The report to be read."""
    lines = [f"{name}: {json.dumps(value)}" for name, value in report.items()]
    return "\n".join(["Songs: 5,000 events on 2,000 heads", *lines])
