"""Zip files of other programs, looked at before anything of them is used: how much is in them, and what it is called."""

from __future__ import annotations

import contextlib
import stat
import struct
import zipfile
from collections.abc import Iterator
from pathlib import Path, PurePosixPath
from typing import IO

from zarabanda.errors import ZarabandaError, brief, shown

MOST_ENTRIES = 10_000
_CHUNK = 1 << 20
BROKEN = (
    zipfile.BadZipFile,
    zipfile.LargeZipFile,
    NotImplementedError,
    RuntimeError,
    EOFError,
    ValueError,
    struct.error,
    OSError,
)
"""What a broken zip makes its reader raise."""


@contextlib.contextmanager
def opened(source: Path | IO[bytes], *, called: str, remedy: str) -> Iterator[zipfile.ZipFile]:
    """A zip. called: what it should be, as `a GDTF file`; ZarabandaError says that it is none, and the remedy."""
    with contextlib.ExitStack() as stack:
        try:
            archive = stack.enter_context(zipfile.ZipFile(source))
        except BROKEN as error:
            raise ZarabandaError(
                f"This is no whole {called} ({brief(str(error)) or 'it ends too early'}). {remedy}", "file"
            ) from error
        yield archive


def check(archive: zipfile.ZipFile, most_bytes: int) -> None:
    """Refuse a zip of too many entries, of more than `most_bytes` unpacked, with links, secrets or names that lead elsewhere."""
    entries = archive.infolist()
    names = [one.filename for one in entries]
    if len(entries) > MOST_ENTRIES or len(set(names)) < len(names):
        raise ZarabandaError(
            f"This file has {len(entries):,} entries, or some twice; {MOST_ENTRIES:,} different ones are the most.", "file"
        )
    for one in entries:
        path = PurePosixPath(one.filename)
        if path.is_absolute() or ".." in path.parts or "\\" in one.filename or ":" in one.filename or "\0" in one.orig_filename:
            raise ZarabandaError(f"{shown(one.filename)} in this file would lead out of its folder. Take another file.", "file")
        if stat.S_ISLNK(one.external_attr >> 16):
            raise ZarabandaError(f"{shown(one.filename)} in this file is a link, not a file. Take another file.", "file")
        if one.flag_bits & 1:
            raise ZarabandaError(f"{shown(one.filename)} in this file is locked by a password. Take one without.", "file")
    total = sum(one.file_size for one in entries)
    if total > most_bytes:
        raise ZarabandaError(f"This file unpacks to {total >> 20:,} MB; {most_bytes >> 20:,} MB are the most.", "file")


def chunks_of(archive: zipfile.ZipFile, name: str) -> Iterator[bytes]:
    """What an entry holds, piece by piece."""
    try:
        with archive.open(name) as file:
            while chunk := file.read(_CHUNK):
                yield chunk
    except ZarabandaError:
        raise
    except Exception as error:  # whatever a broken stream makes the unpacker raise
        raise ZarabandaError(f"{shown(name)} is damaged ({brief(str(error))}). Take another copy of the file.", "file") from error


def content(archive: zipfile.ZipFile, name: str, most: int) -> bytes:
    """What an entry holds; no more is unpacked than may be in it, whatever it says of itself."""
    found = bytearray()
    for chunk in chunks_of(archive, name):
        found += chunk
        if len(found) > most:
            raise ZarabandaError(f"{shown(name)} unpacks to more than {most >> 20} MB. Take another file.", "file")
    return bytes(found)
