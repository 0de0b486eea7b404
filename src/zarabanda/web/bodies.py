"""Bodies of requests that are files."""

from __future__ import annotations

from collections.abc import Iterator

from flask import request

_CHUNK = 1 << 20


def chunks() -> Iterator[bytes]:
    """The body of the request, piece by piece."""
    while chunk := request.stream.read(_CHUNK):
        yield chunk


def whole_body(most: int) -> bytes:
    """The body as a whole; of one that is longer than `most` bytes, a little more than so many, for its reader to refuse."""
    found = bytearray()
    for chunk in chunks():
        found += chunk
        if len(found) > most:
            break
    return bytes(found)
