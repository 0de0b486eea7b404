"""Starts the engine, the web server and the simulated node on a data folder, and starts again what dies."""

from __future__ import annotations

import contextlib
import fcntl
import ipaddress
import json
import os
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from typing import IO

from zarabanda.errors import ZarabandaError

_LOOK_EVERY_S = 0.05
_QUICK_DEATH_S = 2.0
_GUNICORN = (
    "--workers", "1", "--worker-class", "gthread", "--threads", "32", "--graceful-timeout", "2", "--keep-alive", "30",
    "--no-control-socket", "--log-level", "warning",
)  # fmt: skip


@dataclass(frozen=True)
class Settings:
    """How to run. node_port: UDP port of the simulated node (0: a free one); rate: frames per second."""

    data: Path
    host: str = "127.0.0.1"
    port: int = 8765
    access_code: str = ""
    node: bool = True
    node_port: int = 5568
    rate: float = 44.0


@dataclass
class _Child:
    name: str
    command: list[str]
    environment: dict[str, str] = field(default_factory=dict)
    pass_fds: tuple[int, ...] = ()
    process: subprocess.Popen[bytes] | None = None
    started: float = 0.0
    wait_until: float = 0.0

    def start(self) -> None:
        self.started = time.monotonic()
        self.process = subprocess.Popen(
            self.command, stdin=subprocess.PIPE, env={**os.environ, **self.environment}, pass_fds=self.pass_fds,
            start_new_session=True,  # Ctrl-C reaches the supervisor alone, which ends the others in order
        )  # fmt: skip

    def revive(self, now: float) -> None:
        """Start again when it has died; at once, but not more than once in two seconds when it keeps dying."""
        if self.process is None or self.process.poll() is None:
            return
        if not self.wait_until:
            quick = now - self.started < _QUICK_DEATH_S
            self.wait_until = now + (1.0 if quick else 0.0)
            print(f"The {self.name} process ended (code {self.process.returncode}); starting it again.", file=sys.stderr)
        if now >= self.wait_until:
            self.wait_until = 0.0
            self.start()

    def end(self, timeout_s: float) -> None:
        if self.process is None:
            return
        with contextlib.suppress(ProcessLookupError):
            self.process.send_signal(signal.SIGTERM)
        try:
            self.process.wait(timeout_s)
        except subprocess.TimeoutExpired:
            self.process.kill()
            self.process.wait()


def is_loopback(host: str) -> bool:
    """Whether an address is this machine alone."""
    if host == "localhost":
        return True
    with contextlib.suppress(ValueError):
        return ipaddress.ip_address(host).is_loopback
    return False


def lock(data: Path, address: str) -> IO[str]:
    """Hold the data folder for this process; the file returned must stay open. Refused when another one holds it."""
    data.mkdir(parents=True, exist_ok=True)
    file = (data / "running.json").open("a+")
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
    listener = socket.socket(socket.AF_INET6 if ":" in host else socket.AF_INET, socket.SOCK_STREAM)
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


def _free_udp_port() -> int:
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        probe.bind(("127.0.0.1", 0))
        port: int = probe.getsockname()[1]
        return port


def _udp_port_is_free(port: int) -> None:
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.bind(("127.0.0.1", port))
        except OSError as error:
            raise ZarabandaError(
                f"UDP port {port}, for the simulated node, is in use: {error.strerror}. Stop what uses it, or choose another "
                "with --node-port (0: any free one)."
            ) from error


class Supervisor:
    """Runs the processes of one data folder."""

    def __init__(self, settings: Settings) -> None:
        if not is_loopback(settings.host) and len(settings.access_code) < 6:
            raise ZarabandaError(
                f"{settings.host} can be reached by others, so an access code is needed: add --access-code with 6 characters "
                "or more."
            )
        self._settings = settings
        self._listener = listen(settings.host, settings.port)
        self.port: int = self._listener.getsockname()[1]
        self.address = f"http://{settings.host}:{self.port}"
        try:
            self._lock = lock(settings.data, self.address)
            node_port = settings.node_port or _free_udp_port()
            if settings.node:
                _udp_port_is_free(node_port)
        except ZarabandaError:
            self._listener.close()
            raise
        self.node_port = node_port
        self._children = self._plan(node_port)
        self._stopping = False

    def _plan(self, node_port: int) -> list[_Child]:
        settings, python = self._settings, sys.executable
        data = str(settings.data.resolve())
        engine = [python, "-m", "zarabanda.engine", "--data", data, "--node-port", str(node_port), "--rate", str(settings.rate)]
        fd = self._listener.fileno()
        web = [python, "-m", "gunicorn", *_GUNICORN, "--bind", f"fd://{fd}", "zarabanda.web.wsgi:app"]
        environment = {"ZARABANDA_DATA": data, "ZARABANDA_ACCESS_CODE": settings.access_code, "ZARABANDA_SUPERVISED": "1"}
        children = [_Child("engine", engine), _Child("web", web, environment, (fd,))]
        if settings.node:
            node = [python, "-m", "zarabanda.simulators", "--port", str(node_port), "--data", data]
            children.insert(0, _Child("node", node))
        return children

    def stop(self) -> None:
        """End `run`."""
        self._stopping = True

    def run(self, on_ready: Callable[[], None]) -> None:
        """Start everything, call `on_ready` when the page can be opened, and watch until stopped."""
        for child in self._children:
            child.start()
        ready = False
        try:
            while not self._stopping:
                now = time.monotonic()
                for child in self._children:
                    child.revive(now)
                if not ready and self._answers():
                    ready = True
                    on_ready()
                time.sleep(_LOOK_EVERY_S)
        finally:
            self._end()

    def _answers(self) -> bool:
        host = f"[{self._settings.host}]" if ":" in self._settings.host else self._settings.host
        try:
            with urllib.request.urlopen(f"http://{host}:{self.port}/api/show", timeout=0.5) as answer:
                return bool(json.loads(answer.read())["playing"])
        except urllib.error.HTTPError:
            return True  # it asks for the access code
        except OSError:
            return False

    def _end(self) -> None:
        order = {"web": 0, "engine": 1, "node": 2}  # the engine ends its streams while the node still listens
        for child in sorted(self._children, key=lambda child: order[child.name]):
            child.end(5.0)
        self._listener.close()
        self._lock.close()
