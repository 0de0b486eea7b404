"""The journal: a small file with the live state, written after actions, from which a restarted engine goes on."""

from __future__ import annotations

import json
import os
from pathlib import Path
from typing import Any

import msgspec

from .program import Program
from .state import LiveState, Playing
from .tempo import Tempo

VERSION = 1


def state_to_document(state: LiveState, now: float, wall: float) -> dict[str, Any]:
    """The live state as plain data. now: s of the engine's clock; wall: s since 1970 at the same moment."""
    return {
        "version": VERSION,
        "now": now,
        "wall": wall,
        "tempos": {name: tempo.to_document() for name, tempo in state.tempos.items()},
        "levels": state.levels,
        "grand": state.grand,
        "blackout": state.blackout,
        "stopped": sorted(state.stopped),
        "playing": [
            {
                "key": key, "started": one.started, "started_beat": one.started_beat, "level": one.level,
                "fade_from": one.fade_from, "fade_to": one.fade_to, "fade_at": one.fade_at, "fade_s": one.fade_s,
                "shift": one.shift, "rate": one.rate, "layer_shifts": one.layer_shifts, "frozen": one.frozen,
            }
            for key, one in state.playing.items()
        ],
    }  # fmt: skip


def restore(state: LiveState, document: dict[str, Any], program: Program, now: float, wall: float) -> None:
    """Put a journal's state into an empty live state, its times moved to this clock."""
    moved = (now - document["now"]) - (wall - document["wall"])
    state.program = program
    for name, data in document["tempos"].items():
        since, settles = data["since"] + moved, data["settles"] + moved
        state.tempos[name] = Tempo(data["bpm"], since, data["beat"], settles, data["slew"])
    state.levels = dict(document["levels"])
    state.grand, state.blackout = document["grand"], document["blackout"]
    state.stopped = set(document["stopped"])
    for data in document["playing"]:
        instance = program.instances.get(data["key"])
        if instance is None:
            continue
        fields = {key: value for key, value in data.items() if key != "key"}
        fields["started"] += moved
        fields["fade_at"] += moved
        state.playing[data["key"]] = Playing(instance, **fields)
    state.changed = True


def _replace(path: Path, content: bytes) -> None:
    fresh = path.with_suffix(path.suffix + ".new")
    fresh.write_bytes(content)
    os.replace(fresh, path)


class Journal:
    """The two files in the data folder: the live state, and the last program as it came in."""

    def __init__(self, folder: Path) -> None:
        folder.mkdir(parents=True, exist_ok=True)
        self._state, self._program = folder / "live.json", folder / "program.msgpack"

    def write_state(self, document: dict[str, Any]) -> None:
        """Replace the state, whole or not at all."""
        _replace(self._state, json.dumps(document).encode())

    def write_program(self, messages: dict[str, Any]) -> None:
        """Replace the program: the `rig` and `show` messages it was made from."""
        _replace(self._program, msgspec.msgpack.encode(messages))

    def read_program(self) -> dict[str, Any] | None:
        """The last program's messages, or None."""
        try:
            messages: dict[str, Any] = msgspec.msgpack.decode(self._program.read_bytes())
            return messages
        except (OSError, msgspec.DecodeError):
            return None

    def read_state(self) -> dict[str, Any] | None:
        """The last live state, or None when there is none that can be read."""
        try:
            document: dict[str, Any] = json.loads(self._state.read_text())
        except (OSError, ValueError):
            return None
        return document if document.get("version") == VERSION else None
