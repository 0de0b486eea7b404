"""The media folder of a show: each file lies in it once, by the SHA-256 of what it holds. Files are written beside it first, so
that none is ever half there."""

from __future__ import annotations

import contextlib
import hashlib
import os
import re
import tempfile
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import TypeVar

from zarabanda.errors import NotThere, ZarabandaError, shown

MEDIA = "media"
"""Name of the folder in the data folder."""
_HASH = re.compile(r"^[0-9a-f]{64}$")
_Found = TypeVar("_Found")


class MediaFolder:
    """The folder. what: the kind of medium, in words, for what is said of it."""

    what = "file"
    remedy = "Choose the file again."
    """What to do where one is not there."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder

    def take_in(
        self, name: str, chunks: Iterable[bytes], most_bytes: int, smaller: str, look: Callable[[Path, str, str], _Found]
    ) -> _Found:
        """Take in a file. look: what is found in it, by where it lies, its hash and its name; it raises ZarabandaError where it
        cannot be used. Then nothing is kept. smaller: what to do about one that is too large."""
        self.folder.mkdir(parents=True, exist_ok=True)
        digest, size = hashlib.sha256(), 0
        handle, temporary = tempfile.mkstemp(dir=self.folder, prefix=".incoming-")
        try:
            with os.fdopen(handle, "wb") as file:
                for chunk in chunks:
                    size += len(chunk)
                    if size > most_bytes:
                        raise ZarabandaError(f"“{name}” is larger than {most_bytes >> 30} GB. {smaller}", "file")
                    digest.update(chunk)
                    file.write(chunk)
            if not size:
                raise ZarabandaError(f"“{name}” is empty. Choose another file.", "file")
            found = look(Path(temporary), digest.hexdigest(), name)
            os.replace(temporary, self.folder / digest.hexdigest())
            return found
        finally:
            with contextlib.suppress(OSError):
                os.unlink(temporary)

    def path(self, hash_: str) -> Path:
        """Where a medium lies. NotThere where it does not."""
        if not self.has(hash_):
            raise NotThere(f"The {self.what} {shown(hash_[:12])} is not in the media folder. {self.remedy}", self.what)
        return self.folder / hash_

    def has(self, hash_: str) -> bool:
        """Whether a medium is there."""
        return bool(_HASH.match(hash_)) and (self.folder / hash_).is_file()
