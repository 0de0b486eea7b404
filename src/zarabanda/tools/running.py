"""A Zarabanda started as a process of its own, on free ports: for pictures, measurements and tests."""

from __future__ import annotations

import json
import os
import re
import signal
import subprocess
import sys
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from zarabanda.errors import ZarabandaError
from zarabanda.network_settings import HERE_ONLY


@dataclass(frozen=True)
class Running:
    """A started demo or show: where its page is, and its supervisor's process."""

    address: str
    process: subprocess.Popen[str]
    data: Path


@contextmanager
def started(data: Path, command: str = "demo", *options: str) -> Iterator[Running]:
    """Run `zarabanda demo` (or serve) on a data folder until the block ends; ready when the page answers.

    Nothing that it is told lets it send anywhere but to this machine.
    """
    line = [sys.executable, "-m", "zarabanda", command, "--data", str(data), "--port", "0", *options]
    if command == "demo":
        line.append("--no-browser")
    process = subprocess.Popen(
        line, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True, env={**os.environ, HERE_ONLY: "1"}
    )
    try:
        assert process.stdout is not None
        said = ""
        for text in process.stdout:
            said += text
            found = re.search(r"http://\S+", text)
            if found:
                break
        else:
            raise ZarabandaError(f"Zarabanda did not start: {said.strip()}")
        yield Running(found.group(0), process, data)
    finally:
        process.send_signal(signal.SIGINT)
        try:
            process.wait(15)
        except subprocess.TimeoutExpired:
            process.kill()
        if process.stdout is not None:
            process.stdout.close()


def ask(demo: Running, path: str, body: Any = None, method: str | None = None) -> Any:
    """What the API answers to a request; with a body and no method: of a POST."""
    request = urllib.request.Request(
        demo.address + path, None if body is None else json.dumps(body).encode(), {"Content-Type": "application/json"},
        method=method,
    )  # fmt: skip
    with urllib.request.urlopen(request, timeout=60) as answer:
        return json.loads(answer.read())
