"""The engine process: loop in the main thread; the link to the web process and the journal in others."""

from __future__ import annotations

import contextlib
import json
import os
import signal
import sys
import threading
import time
import uuid
from pathlib import Path
from typing import Any

from zarabanda import wire
from zarabanda.outputs.base import Output
from zarabanda.outputs.sacn import SacnOutput

from . import journal as journals
from .frames import FrameWriter, universe_frame
from .loop import Loop, Snapshot
from .program import Compiler
from .state import LiveState

_SCREEN_RATE = 40.0
_UNIVERSE_RATE = 20.0


class Engine:
    """Ties loop, link and journal together."""

    def __init__(self, data: Path, outputs: list[Output], rate: float) -> None:
        self._state = LiveState()
        self._loop = Loop(self._state, outputs, clock=time.monotonic, sleep=time.sleep, rate=rate)
        self._loop.on_frame, self._loop.on_change = self._publish, self._changed
        self._loop.on_refused = self._refused
        self._compiler = Compiler()
        self._journal = journals.Journal(data / "journal")
        self._messages: dict[str, Any] = {}
        self._writer: FrameWriter | None = None
        self._numbers: dict[str, int] = {}
        self._next_screen, self._next_universe, self._next_state = 0.0, 0.0, 0.0
        self._dirty = threading.Event()
        self._compiling = threading.Lock()
        self._snapshot_document: dict[str, Any] | None = None
        self._resume()
        self._server = wire.Server(wire.socket_path(data, "engine"), self._message, self._joined)
        threading.Thread(target=self._keep_journal, daemon=True, name="journal").start()

    def run(self) -> None:
        """Until stopped."""
        self._loop.run()
        self._write_journal()
        self._server.close()

    def stop(self) -> None:
        """End after this frame."""
        self._loop.stop()

    def _resume(self) -> None:
        messages = self._journal.read_program()
        if messages is None:
            return
        self._messages = messages
        self._compiler.set_rig(messages["rig"])
        self._compiler.set_show(messages["show"])
        program = self._compiler.program()
        document = self._journal.read_state()
        if document is not None:
            journals.restore(self._state, document, program, time.monotonic(), time.time())
        self._loop.swap(program)

    # link

    def _joined(self, peer: wire.Peer) -> None:
        peer.post({"type": "hello", "rig": self._messages.get("rig", {}).get("revision", "")})
        self._next_state = 0.0

    def _message(self, peer: wire.Peer, message: wire.Message) -> None:
        kind = message.get("type")
        if kind == "action":
            self._loop.post({**message["action"], "peer": id(peer), "ref": message.get("ref")})
        elif kind == "watch":
            peer.watching = {int(universe) for universe in message["universes"]}
        elif kind in ("program", "preview-effect", "preview-base", "audition"):
            self._compile(kind, message)

    def _compile(self, kind: str, message: wire.Message) -> None:
        with self._compiling:
            if kind == "program":
                if "rig" in message:
                    self._messages["rig"] = message["rig"]
                    self._compiler.set_rig(message["rig"])
                self._messages["show"] = message["show"]
                self._compiler.set_show(message["show"], message.get("let_go", ()))
                self._journal.write_program(self._messages)
            elif kind == "preview-effect":
                self._compiler.preview_effect(message["effect_id"], message["document"])
            elif kind == "audition":
                self._compiler.audition(message.get("on"))
            else:
                self._compiler.preview_base(message["values"])
            self._loop.swap(self._compiler.program())

    # out of the loop's thread, after the frame was sent

    def _publish(self, snapshot: Snapshot) -> None:
        peers = self._server.peers
        if not peers:
            return
        if self._writer is None or self._writer.rig is not snapshot.program.rig:
            revision = snapshot.program.rig_revision
            self._writer = FrameWriter(snapshot.program.rig, int(revision[:8] or "0", 16))
        slack = 0.25 / self._loop.rate
        if snapshot.t >= self._next_screen - slack:
            self._next_screen = max(self._next_screen + 1 / _SCREEN_RATE, snapshot.t)
            frame = {"type": "frame", "data": self._writer.heads(snapshot, self._numbers)}
            for peer in peers:
                peer.post_newest("frame", frame)
        if snapshot.t >= self._next_universe - slack:
            self._next_universe = max(self._next_universe + 1 / _UNIVERSE_RATE, snapshot.t)
            for universe in set().union(*(peer.watching for peer in peers)):
                data = universe_frame(snapshot, universe)
                for peer in peers:
                    if data and universe in peer.watching:
                        peer.post_newest(f"universe {universe}", {"type": "universe", "universe": universe, "data": data})
        if snapshot.t >= self._next_state:
            self._next_state = snapshot.t + 0.5
            self._post_state(snapshot.t)

    def _changed(self) -> None:
        now = time.monotonic()
        self._next_state = 0.0
        self._snapshot_document = journals.state_to_document(self._state, now, time.time())
        self._dirty.set()

    def _refused(self, action: dict[str, Any], text: str) -> None:
        for peer in self._server.peers:
            if id(peer) == action.get("peer"):
                peer.post({"type": "refused", "ref": action.get("ref"), "message": text})

    def _post_state(self, t: float) -> None:
        state, program = self._state, self._state.program
        for key in [*program.instances, *state.playing]:
            self._numbers.setdefault(key, len(self._numbers) + 1)
        message = {
            "type": "state",
            "t": t,
            "revision": program.revision,
            "tempos": [
                {"name": name, "bpm": tempo.bpm, "beat": tempo.beats(t)} for name, tempo in state.tempos.items()
            ],
            "running": [
                {
                    "key": key, "number": self._numbers[key], "effect_id": one.instance.effect_id,
                    "name": one.instance.name, "source": one.instance.source, "level": one.level,
                    "stopping": one.stopping, "frozen": one.frozen is not None,
                    "theta": state.theta(one, t), "layer_shifts": one.layer_shifts,
                }
                for key, one in state.playing.items()
            ],
            "stopped": sorted(state.stopped),
            "levels": {key: value for key, value in state.levels.items() if key in program.controls},
            "grand": state.grand,
            "blackout": state.blackout,
            "health": self._loop.health.report(self._loop.rate),
            "outputs": [output.report() for output in self._loop.outputs],
        }  # fmt: skip
        for peer in self._server.peers:
            peer.post_newest("state", message)

    # journal

    def _keep_journal(self) -> None:
        while True:
            self._dirty.wait()
            self._dirty.clear()
            self._write_journal()
            time.sleep(0.05)  # a fader that moves writes twenty times a second, no more

    def _write_journal(self) -> None:
        document = self._snapshot_document
        if document is not None:
            self._journal.write_state(document)


def stream_identity(data: Path) -> bytes:
    """The CID (16 bytes) of this data folder: made once, kept, so that receivers know the source again (E1.31, 5.6)."""
    path = data / "source.json"
    try:
        return uuid.UUID(json.loads(path.read_text())["cid"]).bytes
    except (OSError, ValueError, KeyError):
        identity = uuid.uuid4()
        path.write_text(json.dumps({"cid": str(identity)}))
        return identity.bytes


def _go_first() -> None:
    """Light before everything else on this machine, where the system allows it (Linux, with the right to)."""
    with contextlib.suppress(OSError, AttributeError):
        os.sched_setscheduler(0, os.SCHED_RR | os.SCHED_RESET_ON_FORK, os.sched_param(1))


def main(data: Path, node_port: int, rate: float) -> None:
    """Run the engine until SIGTERM, SIGINT or the end of standard input."""
    sys.setswitchinterval(0.0005)  # the loop's thread gets its turn soon
    outputs: list[Output] = [SacnOutput(port=node_port, cid=stream_identity(data))] if node_port else []
    engine = Engine(data, outputs, rate)
    for sign in (signal.SIGTERM, signal.SIGINT):
        signal.signal(sign, lambda number, frame: engine.stop())

    def end_with_parent() -> None:
        sys.stdin.read()  # closes when the supervisor is gone, however it went
        engine.stop()

    threading.Thread(target=end_with_parent, daemon=True, name="parent").start()
    _go_first()
    engine.run()
