"""Starts engine, web server, listener and simulated nodes on a data folder, and starts again what dies."""

from __future__ import annotations

import contextlib
import fcntl
import http.client
import ipaddress
import json
import os
import socket
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import IO

import msgspec

from zarabanda.child import Child
from zarabanda.errors import ZarabandaError, brief
from zarabanda.event_log import EventLog
from zarabanda.kept_file import put_aside
from zarabanda.protocols import artnet, e131
from zarabanda.show.opening import can_be_written
from zarabanda.simulators import artnet_node, e131_node, message_sink, sound_player, timecode_player
from zarabanda.web.processes import FILE, ProcessEntry
from zarabanda.workers import Troubles, Worker

_LOOK_EVERY_S = 0.05
_THREADS = 160
"""Of the web process: 80 for live sockets at the most (`web.live`), the others for HTTP."""
_GUNICORN = (
    "--workers", "1", "--worker-class", "zarabanda.web.worker.PageWorker", "--threads", str(_THREADS), "--graceful-timeout", "2",
    "--keep-alive", "30", "--no-control-socket", "--log-level", "warning",
)  # fmt: skip
_ASK_EVERY_S, _ANSWER_S, _UNANSWERED = 2.0, 5.0, 2
"""A web process that leaves so many questions in a row unanswered is taken for hung."""


@dataclass(frozen=True)
class Settings:
    """How to run. node_port, artnet_port: UDP ports of the simulated nodes, and of what is listened on (0: free ones); rate:
    frames per second; allow_hosts: names that the page may be opened by, beside loopback and `host`; priority: of all E1.31
    that is sent, instead of that of each route; source_name: what receivers see."""

    data: Path
    host: str = "127.0.0.1"
    port: int = 8765
    access_code: str = ""
    node: bool = True
    node_port: int = e131.PORT
    artnet_port: int = artnet.PORT
    rate: float = 44.0
    allow_hosts: tuple[str, ...] = ()
    priority: int | None = None
    source_name: str = "Zarabanda"


def is_loopback(host: str) -> bool:
    """Whether an address is this machine alone."""
    if host == "localhost":
        return True
    with contextlib.suppress(ValueError):
        return ipaddress.ip_address(host).is_loopback
    return False


def lock(data: Path, address: str) -> IO[str]:
    """Hold the data folder for this process; the file returned must stay open. Refused when another one holds it."""
    path = data / "running.json"
    if path.is_dir():
        put_aside(path)
    try:
        file = path.open("a+")
    except OSError as error:
        raise ZarabandaError(
            f"{path} cannot be written: {error.strerror}. Give the right to write there, or choose --data."
        ) from error
    try:
        fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError as error:
        file.seek(0)
        with contextlib.suppress(ValueError):
            held = json.loads(file.read())
            raise ZarabandaError(
                f"Zarabanda runs on {data} already, at {held['address']} (process {held['process']}). Open that address, "
                "stop it with Ctrl-C, or choose another folder with --data."
            ) from error
        raise ZarabandaError(f"Zarabanda runs on {data} already. Stop it, or choose another folder with --data.") from error
    file.truncate(0)
    file.write(json.dumps({"address": address, "process": os.getpid()}))
    file.flush()
    return file


def listen(host: str, port: int) -> socket.socket:
    """The listening socket. It stays open while the web process is restarted: browsers wait, and are not refused."""
    try:
        family = socket.getaddrinfo(host, port, type=socket.SOCK_STREAM, flags=socket.AI_PASSIVE)[0][0]
        listener = socket.socket(family, socket.SOCK_STREAM)
    except (OSError, OverflowError, UnicodeError) as error:
        raise ZarabandaError(f"{brief(host)} is no address of this machine: {error}. Leave out --host, or give one.") from error
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind((host, port))
    except (OSError, OverflowError) as error:
        listener.close()
        raise ZarabandaError(
            f"Port {port} of {host} cannot be used: {getattr(error, 'strerror', error)}. Stop what uses it, or choose "
            f"another with --port {port + 1}."
        ) from error
    listener.listen(128)
    return listener


def _udp_port(host: str, port: int, option: str) -> int:
    """A UDP port that can be listened on: this one, or with 0 a free one."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.bind((host, port))
        except OSError as error:
            raise ZarabandaError(
                f"UDP port {port} of {host}, for a simulated node, is in use: {error.strerror}. Stop what uses it, or choose "
                f"another with {option} (0: any free one)."
            ) from error
        found: int = probe.getsockname()[1]
        return found


def _free_port(host: str, kind: socket.SocketKind) -> int:
    """A port of an address of this machine that nobody uses."""
    with socket.socket(socket.AF_INET, kind) as probe:
        probe.bind((host, 0))
        found: int = probe.getsockname()[1]
        return found


def url_host(host: str) -> str:
    """A host as it stands in an address of a page."""
    return f"[{host}]" if ":" in host else host


class Supervisor:
    """Runs the processes of one data folder."""

    def __init__(self, settings: Settings) -> None:
        if not is_loopback(settings.host) and len(settings.access_code) < 6:
            raise ZarabandaError(
                f"{settings.host} can be reached by others, so an access code is needed, of 6 characters or more: set "
                "ZARABANDA_ACCESS_CODE in the environment (or add --access-code, which others on this machine can read)."
            )
        self._settings = settings
        can_be_written(settings.data)
        self._listener = listen(settings.host, settings.port)
        self.port: int = self._listener.getsockname()[1]
        self.address = f"http://{url_host(settings.host)}:{self.port}"
        try:
            self._lock = lock(settings.data, self.address)
            node_port, artnet_port = settings.node_port, settings.artnet_port
            if settings.node or not node_port:
                node_port = _udp_port(e131_node.HOST, node_port, "--node-port")
            if settings.node or not artnet_port:
                artnet_port = _udp_port(artnet_node.HOST, artnet_port, "--artnet-port")
        except ZarabandaError:
            self._listener.close()
            raise
        self._events = EventLog(settings.data, "supervisor")
        self._children = self._plan(node_port, artnet_port)
        self._stopping = False
        self._unanswered, self._playing = 0, False

    def _plan(self, node_port: int, artnet_port: int) -> list[Child]:
        settings, python = self._settings, sys.executable
        data, logs = str(settings.data.resolve()), settings.data.resolve() / "logs"
        there = f"{artnet_node.HOST}:{artnet_port}"
        osc_port = _free_port(message_sink.PIXEL_SERVER, socket.SOCK_DGRAM)
        midi_port = _free_port(message_sink.CAPTION_SCREEN, socket.SOCK_STREAM)
        player_port = _free_port(timecode_player.PLAYER, socket.SOCK_STREAM)
        sound_port = _free_port(sound_player.SOUND, socket.SOCK_STREAM)
        engine = [python, "-m", "zarabanda.engine", "--data", data, "--node", f"{e131_node.HOST}:{node_port}",
                  "--artnet-node", there, "--source-name", settings.source_name, "--rate", str(settings.rate),
                  "--pixel-server", f"{message_sink.PIXEL_SERVER}:{osc_port}",
                  "--caption-screen", f"{message_sink.CAPTION_SCREEN}:{midi_port}",
                  "--timecode-player", f"{timecode_player.PLAYER}:{player_port}",
                  "--sound-player", f"{sound_player.SOUND}:{sound_port}", "--heartbeat", "{heartbeat}",
                  "--since", str(time.monotonic()), "--wait"]  # fmt: skip
        if settings.priority is not None:
            engine += ["--priority", str(settings.priority)]
        listener = [python, "-m", "zarabanda.listening", "--data", data, "--port", str(settings.node_port),
                    "--artnet-port", str(settings.artnet_port), "--artnet-node", there]  # fmt: skip
        fd = self._listener.fileno()
        web = [python, "-m", "gunicorn", *_GUNICORN, "--bind", f"fd://{fd}", "zarabanda.web.wsgi:app"]
        environment = {
            "ZARABANDA_DATA": data, "ZARABANDA_ACCESS_CODE": settings.access_code, "ZARABANDA_SUPERVISED": "1",
            "ZARABANDA_HOSTS": ",".join((settings.host, *settings.allow_hosts)),
        }  # fmt: skip
        children = [
            Child("engine", engine, logs / "engine.log", beats=True, spare=True),
            Child("web", web, logs / "web.log", environment, (fd,)),
            Child("listener", listener, logs / "listener.log"),
        ]
        if settings.node:
            node = [python, "-m", "zarabanda.simulators", "--port", str(node_port), "--artnet-port", str(artnet_port),
                    "--osc-port", str(osc_port), "--midi-port", str(midi_port), "--player-port", str(player_port),
                    "--sound-port", str(sound_port), "--data", data]  # fmt: skip
            children.insert(0, Child("node", node, logs / "node.log"))
        return children

    def stop(self) -> None:
        """End `run`."""
        self._stopping = True

    def run(self, on_ready: Callable[[], None]) -> None:
        """Start everything, call `on_ready` when the page can be opened, and watch until stopped."""
        for child in self._children:
            child.start(time.monotonic())
        asker = Worker("Question to web", self._ask, Troubles()).start()
        ready = False
        try:
            while not self._stopping:
                looked = [child.look(time.monotonic(), self._happened) for child in self._children]
                if any(looked):
                    self._write_down()
                if self._unanswered >= _UNANSWERED:
                    self._end_hung_web()
                if not ready and self._playing:
                    ready = True
                    self._write_down()
                    on_ready()
                time.sleep(_LOOK_EVERY_S)
        finally:
            asker.end()
            self._end()

    def _write_down(self) -> None:
        """How the processes are, for the page; where the disk is full, it is said here alone."""
        entries = [
            ProcessEntry(one.name, one.running, one.restarts, one.message, one.process.pid if one.process else 0)
            for one in self._children
        ]
        path = self._settings.data / FILE
        fresh = path.with_name(FILE + ".new")
        with contextlib.suppress(OSError):
            fresh.write_bytes(msgspec.json.encode(entries))
            os.replace(fresh, path)

    # the web process: whether it answers

    def _ask(self) -> None:
        answered = self._answers()
        if answered is not None:
            self._unanswered = 0
            self._playing = self._playing or answered
        elif self._playing:  # it has answered before
            self._unanswered += 1
        time.sleep(_ASK_EVERY_S if self._playing else _LOOK_EVERY_S)

    def _answers(self) -> bool | None:
        """Whether the show plays, as the web process says; None when it says nothing."""
        host = {"0.0.0.0": "127.0.0.1", "::": "::1"}.get(self._settings.host, self._settings.host)
        try:
            path = "health" if self._playing else "show"
            with urllib.request.urlopen(f"http://{url_host(host)}:{self.port}/api/{path}", timeout=_ANSWER_S) as answer:
                return bool(json.loads(answer.read()).get("playing", True))
        except urllib.error.HTTPError as error:
            return error.code == 401  # it asks for the access code; anything else is no show that plays
        except (OSError, ValueError, http.client.HTTPException):
            return None

    def _end_hung_web(self) -> None:
        self._unanswered = 0
        for child in self._children:
            if child.name == "web" and child.running:
                self._happened("The web process does not answer; it is ended.")
                child.kill()

    def _happened(self, text: str) -> None:
        """Something is to be told: here, and in the log."""
        _said(text)
        self._events.tell(text)

    def _end(self) -> None:
        order = {"web": 0, "engine": 1, "listener": 2, "node": 3}  # the engine ends its streams while the node still listens
        for child in sorted(self._children, key=lambda child: order[child.name]):
            child.end(5.0)
        self._listener.close()
        self._lock.close()


def _said(text: str) -> None:
    with contextlib.suppress(OSError, ValueError):
        print(text, file=sys.stderr, flush=True)
