"""Measurements of pixel maps: 20,000 cells with six layers beside a NumPy floor, the demo wall with film, letters and fire,
edits, and a 1080p film."""

from __future__ import annotations

import io
import json
import tempfile
import threading
import time
import urllib.request
from pathlib import Path
from typing import Any

import numpy as np
import psutil
from numpy.typing import NDArray

from zarabanda.core.pixels.canvas import on_grid
from zarabanda.core.pixels.layers import Layer, Moment
from zarabanda.core.pixels.light import Picture, Wall
from zarabanda.core.pixels.places import MOTIONS
from zarabanda.core.pixels.settings import filled
from zarabanda.core.rig.rig import FixtureSpec, build
from zarabanda.formats.pixel_edit import new_layer
from zarabanda.pictures.films import Reader
from zarabanda.stock.kinds import plain_kinds
from zarabanda.tools.bench import Report, steal_since, steal_ticks
from zarabanda.tools.bench_cues import Desk, spread
from zarabanda.tools.running import Running, ask, started
from zarabanda.web.processes import FILE as PROCESSES

CELLS, COLUMNS, ROWS = 20_000, 200, 100
_TILE = "Tile 16 × 16 RGB, 256 cells, 770 channels"
SIX = ("slope", "bars", "rings", "rays", "haze", "glints")
"""Figures of the six layers."""
_RATE, _FILM_S = 44.0, 6.0


def measure(seconds: float) -> Report:
    """All of it; `seconds` for each part that goes on for a while."""
    begun = steal_ticks()
    report: Report = {"cells_ms": cells(min(seconds, 10.0))}
    with tempfile.TemporaryDirectory() as folder:
        film = Path(folder) / "film.mp4"
        film.write_bytes(made_film(1920, 1080, _FILM_S))
        report["film"] = _decoded(film, seconds)
        with started(Path(folder) / "data", "demo", "--node-port", "0", "--artnet-port", "0") as demo:
            report |= _demo(demo, made_film(640, 160, _FILM_S), seconds)
    return report | {"steal": steal_since(begun)}


def cells(seconds: float) -> Report:
    """A frame's worth of 20,000 cells with six layers, and a floor: six times two arrays of that size mixed by a third. In ms."""
    mode = plain_kinds()[_TILE].spec()
    rig = build(
        [FixtureSpec(n + 1, "", mode, (float(n), 0.0, 0.0), universe=None, address=None) for n in range(CELLS // 256 + 1)]
    )
    heads = np.flatnonzero(rig.mixes)[:CELLS]
    wall = Wall(rig, on_grid(heads, COLUMNS, ROWS))
    layers = []
    for name in SIX:
        document = new_layer(name)
        motion = "drift" if name == "haze" else document.motion
        layers.append(Layer(name, document.settings, motion, filled(MOTIONS[motion].settings, {}), opacity=0.8, join="lighten"))
    values = rig.home.astype(np.float32)
    light, rgb, cover = (np.random.default_rng(n).random((3, CELLS), np.float32) for n in range(3))
    times, floor, end, n = list[float](), list[float](), time.monotonic() + seconds, 0
    while time.monotonic() < end or len(times) < 20:
        n += 1
        begun = time.perf_counter()
        Picture(wall, [(layer, Moment(n / 100)) for layer in layers], 0.9).apply(values)
        times.append((time.perf_counter() - begun) * 1000)
        begun = time.perf_counter()
        for _ in layers:
            light = light + cover * (rgb - light)
        floor.append((time.perf_counter() - begun) * 1000)
    found = spread(times[5:])
    return found | {"floor": float(np.median(floor[5:])), "ratio": found["median"] / float(np.median(floor[5:]))}


def made_film(width: int, height: int, seconds: float) -> bytes:
    """A film of moving stripes at 30 frames a second, as MP4."""
    import av  # loads the codecs: only where films are made

    out, x = io.BytesIO(), np.arange(width)
    with av.open(out, "w", format="mp4") as file:
        stream: Any = file.add_stream("mpeg4", rate=30)
        stream.width, stream.height = width, height
        for n in range(int(30 * seconds)):
            row: NDArray[np.uint8] = ((x + 8 * n) % 256).astype(np.uint8)
            picture = np.repeat(np.stack([row, row[::-1], np.full_like(row, n % 256)], axis=1)[None], height, axis=0)
            file.mux(stream.encode(av.VideoFrame.from_ndarray(picture, format="rgb24")))
        file.mux(stream.encode())
    return out.getvalue()


def _decoded(path: Path, seconds: float) -> Report:
    """A film asked for 44 times a second as it goes round: how often what is there is more than a picture behind."""
    reader = Reader(path)
    reader.picture(0.0)
    time.sleep(1.0)
    late, asked, begun = 0, 0, time.monotonic()
    while (now := time.monotonic() - begun) < max(seconds, _FILM_S):
        position = now % _FILM_S
        found = reader.picture_at(position)
        at_seam = position < 0.5 and now > 0.5  # it goes to its beginning, and decodes from there
        if not at_seam:
            asked += 1
            late += found is None or position - found[0] > 1.5 / 30
        time.sleep(1 / _RATE)
    reader.close()
    return {"asked": asked, "late": late, "fault": reader.fault}


def _engine(demo: Running) -> psutil.Process:
    told = json.loads((demo.data / PROCESSES).read_text())
    return psutil.Process(next(one["pid"] for one in told if one["name"] == "engine"))


def _share(process: psutil.Process, seconds: float) -> float:
    """What a process takes of a core, 0…1."""
    begun = sum(process.cpu_times()[:2])
    time.sleep(seconds)
    return float(sum(process.cpu_times()[:2]) - begun) / seconds


def _demo(demo: Running, film: bytes, seconds: float) -> Report:
    """What the wall with film, letters and fire takes of a core, more than without; and how long an edit takes to be in the
    engine."""
    number = next(one["id"] for one in ask(demo, "/api/pixels")["maps"] if one["name"] == "Salt wall")
    whole = ask(demo, f"/api/pixels/{number}")
    for layer in whole["layers"]:
        ask(demo, f"/api/pixels/{number}/layers/{layer['id']}", method="DELETE")
    request = urllib.request.Request(demo.address + "/api/media", film, {"X-Name": "film.mp4"}, method="PUT")
    with urllib.request.urlopen(request, timeout=60) as answer:
        medium = json.loads(answer.read())["medium"]["hash"]
    for layer in ({"medium": medium}, {"figure": "flames"}, {"figure": "letters"}):
        made = ask(demo, f"/api/pixels/{number}/layers", layer)
    time.sleep(3.0)
    engine, length = _engine(demo), max(seconds, 10.0)
    without = _share(engine, length)
    ask(demo, "/api/actions", {"action": {"do": "pixel-level", "map": number, "value": 1}})
    time.sleep(1.0)
    more = _share(engine, length) - without
    edited = _edits(demo, f"/api/pixels/{number}/layers/{made['map']['layers'][1]['id']}/change")
    return {"wall_share_of_core": round(more, 4), "without": round(without, 4), "edit_to_engine_ms": edited}


def _edits(demo: Running, path: str) -> Report:
    desk, times = Desk(demo), list[float]()
    desk.until(lambda state: bool(state.get("pixels")))
    for n in range(40):
        before, came = desk.state["revision"], list[float]()
        begun = time.perf_counter()
        waiting = threading.Thread(
            target=lambda before=before, came=came: came.append(desk.until(lambda state: state["revision"] != before))
        )
        waiting.start()
        ask(demo, path, {"path": "settings.height", "value": 0.4 + n / 100})
        waiting.join()
        times.append((came[0] - begun) * 1000)
        time.sleep(0.1)
    desk.close()
    return spread(times)


def as_text(report: Report) -> str:
    """The report to be read."""
    own, film, edits = report["cells_ms"], report["film"], report["edit_to_engine_ms"]
    return (
        f"{CELLS:,} cells, {len(SIX)} layers: median {own['median']:.2f} ms, 99 % {own['p99']:.2f} ms, {own['ratio']:.1f} × the "
        f"NumPy floor of {own['floor']:.2f} ms\n"
        f"The demo wall with film, letters and fire: {report['wall_share_of_core']:.1%} of a core more than without "
        f"({report['without']:.1%})\n"
        f"Edit of a layer to the engine: median {edits['median']:.0f} ms, 99 % {edits['p99']:.0f} ms\n"
        f"A 1080p film asked for {film['asked']} times: {film['late']} times late; steal {report['steal']:.0%}"
    )
