"""Measurements of files: a show of 2,000 fixtures, 500 cues and 300 effects saved and restored, and scenes of 2,000 fixtures."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from flask.testing import FlaskClient

from zarabanda.formats.effect_document import EffectDocument
from zarabanda.shelf import show_file
from zarabanda.show import repositories
from zarabanda.show.store import Store
from zarabanda.tools import bench_cues
from zarabanda.tools.bench import Report, steal_since, steal_ticks
from zarabanda.web.app import create_app

EFFECTS, TIMES = 300, 3
BUDGETS_S = {
    "saved": 2.0, "restored": 5.0, "taken back": 5.0, "scene compared": 10.0, "scene taken in": 10.0, "scene saved": 10.0,
}  # fmt: skip
"""What each may take, s."""


def build(data: Path) -> Path:
    """The show at DATA/show.db."""
    bench_cues.build(data)
    store = Store(data / "show.db")
    try:
        with store.edit("bench", "Make effects") as session:
            known = [EffectDocument.model_validate(repositories.effects.document_of(session, row))
                     for row in repositories.effects.kept(session)]  # fmt: skip
            for n in range(EFFECTS - len(known)):
                repositories.effects.store(session, known[n % len(known)].model_copy(update={"name": f"Effect {n}"}), kept=True)
    finally:
        store.close()
    return data / "show.db"


def _timed(act: Callable[[], Any]) -> float:
    begun = time.perf_counter()
    act()
    return time.perf_counter() - begun


def measure() -> Report:
    """Seconds of each, TIMES times."""
    begun = steal_ticks()
    found: dict[str, list[float]] = {name: [] for name in BUDGETS_S}
    with tempfile.TemporaryDirectory(prefix="zarabanda-bench-") as folder:
        data = Path(folder)
        source = build(data / "made")
        saved = data / "saved.zarabanda"
        for n in range(TIMES):
            with saved.open("wb") as target:
                found["saved"].append(_timed(lambda target=target: show_file.write(source, data / "media", target)))  # type: ignore[misc]
            fresh = data / f"{n}.db"
            found["restored"].append(_timed(lambda fresh=fresh: show_file.read(saved, fresh, data / "media")))  # type: ignore[misc]
            store = Store(source)
            found["taken back"].append(_timed(lambda store=store, fresh=fresh: store.replace_all(fresh)))  # type: ignore[misc]
            store.close()
        size = saved.stat().st_size
        _scenes(data / "made", data, found)
    return {"seconds": found, "size": size, "steal": steal_since(begun)}


def _scenes(made: Path, data: Path, found: dict[str, list[float]]) -> None:
    app = create_app(made, connect=False)
    client = app.test_client()
    scene = b""
    for _ in range(TIMES):
        begun = time.perf_counter()
        scene = client.get("/api/rig/scene.mvr").data
        found["scene saved"].append(time.perf_counter() - begun)
    app.extensions["zarabanda"].store.close()
    for n in range(TIMES):
        empty = data / f"empty {n}"
        empty.mkdir()
        app = create_app(empty, connect=False)
        client = app.test_client()
        found["scene compared"].append(_timed(lambda client=client: _put(client, scene, "true")))  # type: ignore[misc]
        found["scene taken in"].append(_timed(lambda client=client: _put(client, scene, "false")))  # type: ignore[misc]
        app.extensions["zarabanda"].store.close()


def _put(client: FlaskClient, scene: bytes, preview: str) -> None:
    answer = client.put(f"/api/rig/mvr?preview={preview}", data=scene, content_type="application/octet-stream")
    assert answer.status_code == 200, answer.json


def as_text(report: Report) -> str:
    """The report in lines."""
    head = f"{bench_cues.HEADS} fixtures, {bench_cues.CUES} cues, {EFFECTS} effects: {report['size'] / 1e6:.1f} MB"
    lines = [f"{head}, steal {report['steal']:.0%}"]
    for name, seconds in report["seconds"].items():
        each = ", ".join(f"{one:.2f}" for one in sorted(seconds))
        lines.append(f"{name}: {each} s (wanted: {BUDGETS_S[name]:g})")
    return "\n".join(lines)
