"""Bodies of requests that are files."""

from __future__ import annotations

from collections.abc import Iterator
from typing import IO

from flask import request

from zarabanda.errors import ZarabandaError

_CHUNK = 1 << 20


def chunks() -> Iterator[bytes]:
    """The body of the request, piece by piece."""
    while chunk := request.stream.read(_CHUNK):
        yield chunk


def body_into(file: IO[bytes], most: int) -> None:
    """Write the body into a file. ZarabandaError where it is longer than `most` bytes."""
    size = 0
    for chunk in chunks():
        size += len(chunk)
        if size > most:
            raise ZarabandaError(f"This file is larger than {most >> 30} GB.", "file")
        file.write(chunk)
    file.flush()


def whole_body(most: int) -> bytes:
    """The body as a whole; of one that is longer than `most` bytes, a little more than so many, for its reader to refuse."""
    found = bytearray()
    for chunk in chunks():
        found += chunk
        if len(found) > most:
            break
    return bytes(found)


def read_out(file: IO[bytes]) -> Iterator[bytes]:
    """A file as an answer, piece by piece; it is closed at its end."""
    with file:
        file.seek(0)
        while chunk := file.read(_CHUNK):
            yield chunk
