"""What the demo answers, for the front end's tests: `make answers` asks it anew, a test says when that is needed.

`frontend/testing/answers.json`: the answers to what pages ask for, by path, and the live state as it is told.
"""

from __future__ import annotations

import json
import os
import tempfile
from pathlib import Path

from zarabanda.engine import stage_clock

TARGET = Path(__file__).parent.parent / "frontend" / "testing" / "answers.json"
_PLAIN = """action-lists busk cue-lists cues/updates draft effects kinds looks media output/devices output/events
    output/found output/line output/nodes output/processes output/routes output/timecode output/universes pages palettes pixels
    pixels/tables recordings rig rig/check show shows shows/copies specials take-over/rigs timelines"""


def paths(ask):
    """All that is recorded: what has no number, and the first of each kind."""

    def first(path, key):
        return ask(f"/api/{path}")[key][0]["id"]

    lists = ask("/api/cue-lists")["lists"]
    cue = ask(f"/api/cue-lists/{lists[0]['id']}")["rows"][4]["id"]
    song = next(one["id"] for one in ask("/api/timelines")["songs"] if one["events"])
    numbered = [
        *(f"cue-lists/{one['id']}" for one in lists), f"cues/{cue}", f"effects/{first('effects', 'effects')}",
        f"pixels/{first('pixels', 'maps')}", f"pixels/{first('pixels', 'maps')}/cells", f"timelines/{song}",
    ]  # fmt: skip
    return [f"/api/{one}" for one in (*_PLAIN.split(), *numbered)]


def shape(value):
    """What kinds of things an answer is made of: its keys, of lists the first that has most of them."""
    if isinstance(value, dict):
        named = all(isinstance(key, str) and key.isidentifier() for key in value)
        return {key: shape(one) for key, one in value.items()} if named else "by name"
    if isinstance(value, list):
        return [max((shape(one) for one in value), key=lambda one: len(str(one)))] if value else []
    return "number" if isinstance(value, int | float) and not isinstance(value, bool) else type(value).__name__


def recorded(demo):
    """All answers of a running demo, and its live state."""
    from tests.told_live import live_state

    demo.drive_clock(rate=0.0)
    try:
        state, _ = live_state(demo, lambda told: len(told["running"]) >= 5)
        return {"answers": {path: demo.ask(path) for path in paths(demo.ask)}, "state": state}
    finally:
        demo.drive_clock()


def main():
    """Ask a fresh demo."""
    from tests.conftest import Demo
    from zarabanda.cli import prepare
    from zarabanda.tools.running import started

    os.environ[stage_clock.DRIVEN] = "1"
    with tempfile.TemporaryDirectory() as folder:
        prepare(Path(folder), demo=True)
        with started(Path(folder), "demo", "--node-port", "0", "--rate", "20") as running:
            told = recorded(Demo(running))
            text = json.dumps(told, ensure_ascii=False, separators=(",", ":")).replace(folder, "/data")
    TARGET.parent.mkdir(exist_ok=True)
    TARGET.write_text(text + "\n")


if __name__ == "__main__":
    main()
