"""Measurements of taking over: a show of 2,000 heads, 500 cues and 300 effects goes to a rig of 1,600; of a bake on eight of
them; and of an hour of 16 universes recorded."""

from __future__ import annotations

import io
import resource
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
from sqlalchemy.orm import Session

from zarabanda.baking import written
from zarabanda.baking.sources import Playing, Source, even
from zarabanda.core.rig import attributes
from zarabanda.engine.loop import DEFAULT_RATE
from zarabanda.formats.dmx_frames import FramesWriter
from zarabanda.formats.effect_document import EffectDocument
from zarabanda.messages import AnyPart, EffectPart
from zarabanda.show import compile as compiling
from zarabanda.show.rerig import pairs, rigs, taking_over
from zarabanda.show.store import Store
from zarabanda.tools import bench_files
from zarabanda.tools.bench import Report, steal_since, steal_ticks

TIMES, OF_EVERY, FIRST = 3, 5, 30_000
BAKED_HEADS, BAKED_S, UNIVERSES = 8, 10.0, 16
BUDGETS_S = {"previewed": 3.0, "done": 5.0, "undone": 5.0, "baked": 1.0}
"""What each may take, s."""


def smaller(rig: rigs.RigRows) -> rigs.RigRows:
    """A rig of the same kinds, without every fifth light, under other numbers."""
    kept = [one for n, one in enumerate(rig.fixtures) if n % OF_EVERY]
    fixtures = [one.model_copy(update={"number": FIRST + n}) for n, one in enumerate(kept)]
    return rigs.of_documents(fixtures, rig.modes)


def measure() -> Report:
    """Seconds of each, TIMES times."""
    begun = steal_ticks()
    found: dict[str, list[float]] = {name: [] for name in BUDGETS_S}
    with tempfile.TemporaryDirectory(prefix="zarabanda-bench-") as folder:
        store = Store(bench_files.build(Path(folder)))
        try:
            with store.reading() as session:
                before = rigs.of_session(session)
            after = smaller(before)
            proposed = pairs.proposed(before, after)
            changes = 0

            def act(session: Session) -> int:
                return len(taking_over.to_other_rig(session, after, proposed).told)

            def done() -> None:
                with store.edit("bench", "Take over") as session:
                    act(session)

            for _ in range(TIMES):
                begin = time.perf_counter()
                with store.trying() as session:
                    changes = act(session)
                found["previewed"].append(time.perf_counter() - begin)
                found["done"].append(_timed(done))
                found["undone"].append(_timed(lambda: store.undo("bench")))
            with store.reading() as session:
                parts = compiling.all_parts(session)
        finally:
            store.close()
        playing = _circle(parts, list(before.rig.heads.keys[:BAKED_HEADS]))
        for _ in range(TIMES):
            found["baked"].append(_timed(lambda: _baked(playing)))
    return {
        "seconds": found, "heads": [len(before.keys), len(after.keys)], "changes": changes, "recorded": _recorded(),
        "steal": steal_since(begun),
    }  # fmt: skip


def _circle(parts: list[AnyPart], heads: list[str]) -> Playing:
    """An effect on four attributes of some heads."""
    sine = {"kind": "waveform", "shape": "sine"}
    layers = [
        {"attribute": "position", "form": {"kind": "path", "path": "circle", "width": 40, "height": 30}},
        {"attribute": "intensity", "form": sine, "anchor": {"kind": "between", "low": 10, "high": 90}},
        {"attribute": "zoom", "form": sine, "anchor": {"kind": "between", "low": 10, "high": 40}},
    ]
    document = {"name": "Four", "speed": {"kind": "time", "seconds_per_cycle": 2.5}, "layers": layers}
    whole = EffectDocument.model_validate(document).model_dump(mode="json")
    return Playing([*parts, EffectPart(99_999, whole)], Source("effect", 99_999, tuple(heads)))


def _baked(playing: Playing) -> None:
    made = playing.frames(even(BAKED_S, DEFAULT_RATE))
    errors = {name: 0.01 * attributes.BY_NAME[name].span for name in written.values_of(made)}
    written.document(made, "Four", DEFAULT_RATE, errors)


class _Nowhere(io.RawIOBase):
    """Counts what is written to it."""

    size = 0

    def write(self, content: Any) -> int:
        self.size += len(content)
        return len(content)


def _recorded() -> dict[str, float]:
    """An hour of 16 universes, all of them new in every frame: s that it takes, MB that it writes, and MB that memory grows."""
    data = np.random.default_rng(1).integers(0, 256, (64, UNIVERSES, 512), np.uint8)
    file = _Nowhere()
    writer = FramesWriter(file, range(1, UNIVERSES + 1))  # type: ignore[arg-type]
    frames = int(3600 * DEFAULT_RATE)
    before, begin = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss, time.perf_counter()
    for n in range(frames):
        writer.write(n / DEFAULT_RATE, data[n % len(data)])
    seconds = time.perf_counter() - begin
    grown = (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1000
    return {"frames": frames, "seconds": seconds, "MB written": file.size / 1e6, "MB grown": grown}


def _timed(act: Callable[[], Any]) -> float:
    begun = time.perf_counter()
    act()
    return time.perf_counter() - begun


def as_text(report: Report) -> str:
    """The report in lines."""
    here, there = report["heads"]
    lines = [f"{here} heads to {there}, {report['changes']} things change, steal {report['steal']:.0%}"]
    for name, seconds in report["seconds"].items():
        each = ", ".join(f"{one:.2f}" for one in sorted(seconds))
        lines.append(f"{name}: {each} s (wanted: {BUDGETS_S[name]:g})")
    recorded = report["recorded"]
    lines.append(
        f"an hour of {UNIVERSES} universes, {recorded['frames']:,} frames: {recorded['seconds']:.1f} s, "
        f"{recorded['MB written']:,.0f} MB written, memory grew by {recorded['MB grown']:.1f} MB"
    )
    return "\n".join(lines)
