"""Making sure that a data folder has a show that can be opened: made whole or not at all, checked, put aside when damaged."""

from __future__ import annotations

import contextlib
import os
import sqlite3
import tempfile
from collections.abc import Callable
from pathlib import Path

from sqlalchemy.exc import OperationalError

from zarabanda.errors import ZarabandaError
from zarabanda.kept_file import put_aside, sync_folder

from .store import Store, newest_version

FILE = "show.db"
_BESIDE = ("", "-wal", "-shm", "-journal", ".lock")


def can_be_written(data: Path) -> None:
    """Make the folder; refuse one that cannot be written into."""
    try:
        data.mkdir(parents=True, exist_ok=True)
        with tempfile.NamedTemporaryFile(dir=data) as probe:
            probe.write(b"Zarabanda")
            probe.flush()
    except OSError as error:
        raise ZarabandaError(
            f"The folder {data} cannot be written into: {error.strerror or error}. Make room or give the right to write there, "
            "or choose another folder with --data."
        ) from error


def what_is_wrong(path: Path) -> str | None:
    """Why a show's file cannot be opened, or None. Refuses a newer one, and one that is busy, which must not be touched."""
    if path.is_dir():
        return "it is a folder"
    try:
        with contextlib.closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=rw", uri=True, timeout=5)) as connection:
            checked = connection.execute("PRAGMA quick_check(1)").fetchone()[0]
            if checked != "ok":
                return f"it is damaged: {checked}"
            tables = {name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            if not {"alembic_version", "show"} <= tables:
                return "there is no show in it"
            (version,) = connection.execute("SELECT version_num FROM alembic_version").fetchone() or ("",)
            if version > newest_version():
                raise ZarabandaError(
                    f"{path} was written by a newer Zarabanda (its tables are of version {version}, this program knows "
                    f"{newest_version()}). Start that one, or choose another folder with --data. Nothing was changed."
                )
            if connection.execute("SELECT 1 FROM show WHERE id = 1").fetchone() is None:
                return "the show in it was never finished"
    except sqlite3.OperationalError as error:
        raise ZarabandaError(
            f"{path} cannot be opened: {error}. Close what else uses it, give the right to write it, or make room on the disk."
        ) from error
    except sqlite3.DatabaseError as error:
        return f"it is damaged: {error}"
    return None


def prepare(data: Path, make: Callable[[Store], None], say: Callable[[str], None]) -> None:
    """See to it that the folder has a show. make: fills an empty store; say: takes a message for the user."""
    can_be_written(data)
    path = data / FILE
    _remove(path.with_name(FILE + ".new"))
    if path.exists():
        why = what_is_wrong(path)
        if why is None:
            return
        there = put_aside(path)
        for ending in _BESIDE[1:]:
            with contextlib.suppress(FileNotFoundError):
                os.replace(f"{path}{ending}", f"{there}{ending}")
        say(
            f"{path} cannot be used: {why}. It was put aside as {there}; a new show begins. "
            "Copy a saved show in its place if you have one."
        )
    _make(path, make)


def _make(path: Path, make: Callable[[Store], None]) -> None:
    """Made beside, and renamed when it is whole: a start that is killed leaves nothing that looks like a show."""
    fresh = path.with_name(FILE + ".new")
    try:
        store = Store(fresh)
        try:
            make(store)
        finally:
            store.close()  # the last connection: all is in the one file now
        with fresh.open("rb") as file:
            os.fsync(file.fileno())
        os.replace(fresh, path)
        _remove(fresh)  # what lay beside it
        sync_folder(path.parent)
    except (OperationalError, OSError) as error:
        raise ZarabandaError(
            f"The show cannot be made in {path.parent}: {getattr(error, 'orig', error)}. Make room on the disk, or choose --data."
        ) from error


def _remove(path: Path) -> None:
    for ending in _BESIDE:
        Path(f"{path}{ending}").unlink(missing_ok=True)
