"""Small files that survive: replaced whole or not at all, checked when they are read, the one before kept beside."""

from __future__ import annotations

import os
import struct
import time
import zlib
from collections.abc import Callable
from pathlib import Path
from typing import TypeVar

T = TypeVar("T")
_MAGIC = b"ZKF1"
_HEADER = struct.Struct("<4sII")


def sync_folder(folder: Path) -> None:
    """Let a rename in a folder survive a loss of power."""
    handle = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


def put_aside(path: Path) -> Path:
    """Move a file (or a folder in its place) out of the way, into `aside/` beside it; where it is now."""
    folder = path.parent / "aside"
    if folder.exists() and not folder.is_dir():
        folder = path.parent / "put-aside"
    folder.mkdir(exist_ok=True)
    stamp = time.strftime("%Y-%m-%d-%H%M%S")
    there = folder / f"{path.name}.{stamp}"
    number = 1
    while there.exists():
        number += 1
        there = folder / f"{path.name}.{stamp}-{number}"
    os.replace(path, there)
    return there


def write_whole(path: Path, content: bytes) -> None:
    """Replace a file, whole or not at all. OSError where there is no room."""
    fresh = path.with_name(path.name + ".new")
    with fresh.open("wb") as file:
        file.write(content)
        file.flush()
        os.fsync(file.fileno())
    os.replace(fresh, path)
    sync_folder(path.parent)


class KeptFile:
    """A file with a length and a checksum before its content (bytes)."""

    def __init__(self, path: Path) -> None:
        self.path, self.before = path, path.with_name(path.name + ".before")

    def write(self, content: bytes) -> None:
        """Replace the content, safe from a loss of power once this returns. Raises OSError (disk full, read only …)."""
        fresh = self.path.with_name(self.path.name + ".new")
        with fresh.open("wb") as file:
            file.write(_HEADER.pack(_MAGIC, len(content), zlib.crc32(content)))
            file.write(content)
            file.flush()
            os.fsync(file.fileno())
        if self.path.exists():
            os.replace(self.path, self.before)
        os.replace(fresh, self.path)
        sync_folder(self.path.parent)

    def read(self, decode: Callable[[bytes], T], told: Callable[[str], None]) -> T | None:
        """The newest content that `decode` takes (ValueError: it does not), or None where there is none.

        A file that is torn or of another shape is put aside, and `told` what was wrong with it and where it is now.
        """
        for path in (self.path, self.before):
            if not path.exists():
                continue
            try:
                return decode(_checked(path.read_bytes()))
            except (OSError, ValueError) as error:
                try:
                    told(f"{path} cannot be used ({error}). It was put aside as {put_aside(path)}; nothing needs to be done.")
                except OSError as fault:
                    told(f"{path} cannot be used ({error}), and cannot be moved away ({fault}). Delete it.")
        return None


def _checked(data: bytes) -> bytes:
    if len(data) < _HEADER.size:
        raise ValueError(f"it is only {len(data)} bytes long")
    magic, size, checksum = _HEADER.unpack_from(data)
    content = data[_HEADER.size :]
    if magic != _MAGIC:
        raise ValueError("it is not a file of Zarabanda")
    if len(content) != size:
        raise ValueError(f"it has {len(content)} of {size} bytes")
    if zlib.crc32(content) != checksum:
        raise ValueError("its checksum is wrong")
    return content
