"""Measurements of songs: jumps in one of 5,000 events on 2,000 heads, how exactly events come at the node, and how timecode is
followed."""

from __future__ import annotations

import time
from pathlib import Path

import numpy as np
from sqlalchemy import select
from sqlalchemy.orm import Session

from zarabanda.engine.compiling import Compiler
from zarabanda.engine.live.advance import MOVES
from zarabanda.engine.live.folding import song_at
from zarabanda.formats.busk_document import BuskRowDocument
from zarabanda.formats.timeline_document import Grid, TempoChange, TimelineDocument, TrackDocument
from zarabanda.messages import ShowUpdate
from zarabanda.show import compile as compiling
from zarabanda.show import repositories
from zarabanda.show.repositories.timeline_events import NewEvent
from zarabanda.show.store import Store
from zarabanda.show.tables import CueRow, Group, Page
from zarabanda.targets import EffectOnHeads
from zarabanda.tools import bench_cues
from zarabanda.tools.bench import Report
from zarabanda.tools.bench_cues import spread

EVENTS, LENGTH_S = 5000, 240.0
_CUES, _HITS = 400, 400
"""Cues that are gone to, and flashes of the lights whose packets are looked at."""
SONG = "Long song"


def build(data: Path) -> None:
    """The show of `bench_cues`, with a song of EVENTS events: cues, flashes, presses of a button, points of faders."""
    bench_cues.build(data)
    store = Store(data / "show.db")
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
    store = Store(data / "show.db")
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
