"""Measurements of taking over: a show of 2,000 heads, 500 cues and 300 effects goes to a rig of 1,600."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from sqlalchemy.orm import Session

from zarabanda.show.rerig import pairs, rigs, taking_over
from zarabanda.show.store import Store
from zarabanda.tools import bench_files
from zarabanda.tools.bench import Report, steal_since, steal_ticks

TIMES, OF_EVERY, FIRST = 3, 5, 30_000
BUDGETS_S = {"previewed": 3.0, "done": 5.0, "undone": 5.0}
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
                with store.reading() as session:
                    begin = time.perf_counter()
                    changes = act(session)
                    session.rollback()
                    found["previewed"].append(time.perf_counter() - begin)
                found["done"].append(_timed(done))
                found["undone"].append(_timed(lambda: store.undo("bench")))
        finally:
            store.close()
    return {"seconds": found, "heads": [len(before.keys), len(after.keys)], "changes": changes, "steal": steal_since(begun)}


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
    return "\n".join(lines)
