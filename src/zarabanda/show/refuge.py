"""Where a show goes on while its disk is full: a copy in the machine's memory, written back when there is room."""

from __future__ import annotations

import contextlib
import os
import shutil
import sqlite3
import tempfile
from pathlib import Path

from zarabanda.kept_file import sync_folder

_IN_MEMORY = Path("/dev/shm")


def _copy(source: Path, target: Path) -> None:
    with (
        contextlib.closing(sqlite3.connect(source, timeout=5)) as read,
        contextlib.closing(sqlite3.connect(target, timeout=5)) as written,
    ):
        read.backup(written)


class Refuge:
    """A folder in memory with a copy of a show's file. Raises OSError or sqlite3.Error where a step is not possible."""

    def __init__(self, home: Path) -> None:
        self._home = home
        folder = _IN_MEMORY if _IN_MEMORY.is_dir() else Path(tempfile.gettempdir())
        self._folder = Path(tempfile.mkdtemp(prefix="zarabanda-", dir=folder))
        self.path = self._folder / home.name
        try:
            _copy(home, self.path)
        except BaseException:
            self.leave()
            raise

    def bring_home(self) -> None:
        """Put the copy in the place of the file, whole or not at all. Nobody may use either meanwhile."""
        fresh = self._home.with_name(self._home.name + ".new")
        fresh.unlink(missing_ok=True)
        _copy(self.path, fresh)
        with fresh.open("rb") as file:
            os.fsync(file.fileno())
        # what the old file's log holds goes into that file first: a log beside another file would be read into it
        with contextlib.closing(sqlite3.connect(self._home, timeout=5)) as old:
            busy, _, _ = old.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()
        if busy:
            raise OSError("the old file is in use")
        for ending in ("-wal", "-shm"):
            Path(f"{self._home}{ending}").unlink(missing_ok=True)
        os.replace(fresh, self._home)
        sync_folder(self._home.parent)

    def leave(self) -> None:
        """Let go of the memory."""
        shutil.rmtree(self._folder, ignore_errors=True)
