"""What the demo answers, for the front end's tests: `make answers` asks it anew, a test says when that is needed.

`frontend/testing/answers.json`: the answers to what pages ask for, by path (where it is asked with a body: by method and path),
and the live state as it is told.
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

_FIVE = [str(number) for number in range(101, 106)]
_ASKED = {
    "selection": {"text": "101-105", "current": []},
    "draft/base": {"heads": _FIVE},
    "colour/read": {"heads": _FIVE, "hex": "#ff4f3a"},
    "trace": {"head": "101"},
}
"""What is asked for with a body, and changes nothing."""


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


BY_NAME = {"parts_ms"}
"""What has the keys of what happens to be there."""
NOTHING = None
"""The shape of what is not there: it agrees with any."""


def shape(value):
    """What an answer is made of: keys with the shapes of their values, one shape for all of a list, else a name of its type."""
    if isinstance(value, dict):
        if not all(key.isidentifier() for key in value):
            return _by_name(value)
        return {key: _by_name(one) if key in BY_NAME else shape(one) for key, one in value.items()}
    if isinstance(value, list):
        return [_together(map(shape, value))]
    if value is None:
        return NOTHING
    return "number" if isinstance(value, int | float) and not isinstance(value, bool) else type(value).__name__


def _by_name(value):
    return {"by name": _together(map(shape, value.values()))}


def _together(shapes):
    """One shape for several: with all keys that any has."""
    whole = NOTHING
    for one in shapes:
        if isinstance(whole, dict) and isinstance(one, dict):
            whole = {key: _together([whole.get(key), one.get(key)]) for key in {**whole, **one}}
        elif isinstance(whole, list) and isinstance(one, list):
            whole = [_together([*whole, *one])]
        else:
            whole = one if whole is NOTHING else whole
    return whole


def differing(kept, now, where=""):
    """Where two shapes do not agree, in words."""
    if kept is NOTHING or now is NOTHING or kept == {} or now == {}:
        return []
    if isinstance(kept, dict) and isinstance(now, dict):
        odd = [f"{where}.{key}" for key in sorted(kept.keys() ^ now.keys())]
        return odd + [text for key in kept.keys() & now.keys() for text in differing(kept[key], now[key], f"{where}.{key}")]
    if isinstance(kept, list) and isinstance(now, list):
        return differing(kept[0], now[0], f"{where}[]")
    return [] if kept == now else [f"{where}: {kept} was {now}"]


def recorded(demo):
    """All answers of a running demo, and its live state."""
    from tests.told_live import live_state

    demo.drive_clock(rate=0.0)
    try:
        state, _ = live_state(demo, lambda told: len(told["running"]) >= 5)
        answers = {path: demo.ask(path) for path in paths(demo.ask)}
        answers |= {f"POST /api/{path}": demo.ask(f"/api/{path}", body) for path, body in _ASKED.items()}
        for one in answers.values():
            if "interfaces" in one:  # of whose machine it is says nothing about the demo
                one["interfaces"] = [each for each in one["interfaces"] if each["name"] == "lo"]
        return {"answers": answers, "state": state}
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
