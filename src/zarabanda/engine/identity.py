"""Who we are to receivers, over restarts: the source's CID, and the sequence number of every stream."""

from __future__ import annotations

import contextlib
import mmap
import os
import uuid
from pathlib import Path

import msgspec
import numpy as np
from numpy.typing import NDArray

from zarabanda.kept_file import put_aside
from zarabanda.protocols.e131 import MOST_UNIVERSES
from zarabanda.workers import Troubles

NAME = "Source"


class SourceEntry(msgspec.Struct):
    """Who we are to receivers of E1.31."""

    cid: str


def stream_identity(data: Path, troubles: Troubles) -> bytes:
    """The CID (16 bytes) of this data folder: made once, kept, so that receivers know the source again (E1.31, 5.6)."""
    path = data / "source.json"
    try:
        return uuid.UUID(msgspec.json.decode(path.read_bytes(), type=SourceEntry).cid).bytes
    except FileNotFoundError:
        pass
    except (OSError, ValueError) as error:
        with contextlib.suppress(OSError):
            there = put_aside(path)
            troubles.tell(NAME, f"{path} cannot be used ({error}). It was put aside as {there}; a new one was made.")
    identity = uuid.uuid4()
    try:
        path.write_bytes(msgspec.json.encode(SourceEntry(str(identity))))
    except OSError as error:
        troubles.tell(NAME, f"{path} cannot be written ({error.strerror}): receivers will see a new source next time.")
    return identity.bytes


class SequenceNumbers:
    """Of every stream of every route, in memory that outlives this process: a restarted engine counts on from there."""

    def __init__(self, data: Path, troubles: Troubles) -> None:
        self._folder, self._troubles = data / "sequences", troubles
        self._kept: dict[int, NDArray[np.uint8]] = {}

    def of(self, route: int) -> NDArray[np.uint8]:
        """Of a route: (64000,), by the number of the universe there."""
        if route not in self._kept:
            self._kept[route] = self._mapped(self._folder / f"{route}.bin")
        return self._kept[route]

    def _mapped(self, path: Path) -> NDArray[np.uint8]:
        try:
            if self._folder.exists() and not self._folder.is_dir():
                put_aside(self._folder)
            self._folder.mkdir(exist_ok=True)
            if path.is_dir():
                put_aside(path)
            handle = os.open(path, os.O_RDWR | os.O_CREAT, 0o600)
            try:
                os.posix_fallocate(handle, 0, MOST_UNIVERSES)  # on a full disk this fails, and not a later write to the memory
                kept = mmap.mmap(handle, MOST_UNIVERSES)
            finally:
                os.close(handle)
            return np.frombuffer(kept, np.uint8)
        except OSError as error:
            self._troubles.tell(NAME, f"{path} cannot be used ({error.strerror}): after a restart streams begin at 0.")
            return np.zeros(MOST_UNIVERSES, np.uint8)
