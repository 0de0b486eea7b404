"""The shows of a data folder, each in a folder of its own; one of them is open. A change is there whole, or not at all."""

from __future__ import annotations

import contextlib
import json
import os
import re
import secrets
import shutil
import sqlite3
import time
from collections.abc import Callable
from dataclasses import asdict, dataclass, replace
from pathlib import Path

from zarabanda.errors import InUse, NotThere, ZarabandaError, shown
from zarabanda.kept_file import sync_folder, write_whole
from zarabanda.media_folder import MEDIA
from zarabanda.show import opening
from zarabanda.show.store import Store, newest_version

from .copies import Copies

SHOWS = "shows"
FILE = opening.FILE
PICTURE = "picture.png"
BIN_DAYS = 30
"""So long a deleted show stays in the bin."""
_OPEN, _ABOUT, _MAKING = "open", "about.json", ".making-"
_IDENTITY = re.compile(r"^[0-9a-f]{8}$")
LONGEST_NAME = 120


@dataclass(frozen=True)
class About:
    """What is known of a show beside its file. opened, deleted: s since 1970; 0: never, not."""

    opened: float = 0.0
    deleted: float = 0.0


@dataclass(frozen=True)
class Entry:
    """A show of the library. size: bytes of its file; fixtures: how many it has."""

    id: str
    name: str
    about: About
    size: int
    fixtures: int
    has_picture: bool


class Library:
    """All shows of a data folder."""

    def __init__(self, data: Path, clock: Callable[[], float] = time.time) -> None:
        self._folder, self._root, self._clock = data / SHOWS, data, clock

    @property
    def open_id(self) -> str:
        """The show that is open; empty: none is there yet."""
        with contextlib.suppress(OSError):
            found = (self._folder / _OPEN).read_text().strip()
            if self._is_there(found):
                return found
        there = sorted(self._every(), key=lambda one: self._about(one).opened)
        return there[-1] if there else ""

    @property
    def open_path(self) -> Path:
        """The file of the show that is open; one without anything is made where there is none."""
        if not self.open_id:
            self._set_open(self._placed(lambda path: Store(path).close()))
        return self.path(self.open_id)

    def path(self, identity: str) -> Path:
        """The file of a show. NotThere where there is none."""
        if not self._is_there(identity):
            raise NotThere(f"There is no show {shown(identity)} in this folder any more. Look at the list anew.", "show")
        return self._folder / identity / FILE

    def folder(self, identity: str) -> Path:
        """Where a show lies."""
        return self.path(identity).parent

    def prepare(self, make: Callable[[Store], None], say: Callable[[str], None]) -> Path:
        """See to it that a show is open, and that its file can be opened; where it is. make: fills an empty store, where there is
        no show yet; say: takes a message for the user."""
        opening.can_be_written(self._root)
        self.adopted()._tidy()
        if not self.open_id:
            self._set_open(self._placed(lambda path: opening.prepare(path.parent, make, say)))
            return self.open_path
        self._before_migration(self.open_id)
        opening.prepare(self.open_path.parent, make, say)
        return self.open_path

    def every(self) -> list[Entry]:
        """All shows that are not in the bin, by name."""
        return [one for one in self._entries() if not one.about.deleted]

    def bin(self) -> list[Entry]:
        """All shows in the bin, the newest first."""
        return sorted((one for one in self._entries() if one.about.deleted), key=lambda one: -one.about.deleted)

    def make(self, fill: Callable[[Path], None]) -> str:
        """Another show; which. fill: makes its file at a path. What it raises leaves nothing behind."""
        return self._placed(fill)

    def copy(self, identity: str, name: str) -> str:
        """A show once more under another name; which. It has no history."""
        name = _checked(name)
        with contextlib.closing(sqlite3.connect(f"{self.path(identity).resolve().as_uri()}?mode=ro", uri=True)) as source:

            def fill(path: Path) -> None:
                with contextlib.closing(sqlite3.connect(path)) as target:
                    source.backup(target)
                    target.execute("DELETE FROM edit")
                    target.execute("UPDATE show SET name = ? WHERE id = 1", (name,))
                    target.commit()

            made = self._placed(fill)
        with contextlib.suppress(OSError):
            shutil.copy(self.folder(identity) / PICTURE, self.folder(made) / PICTURE)
        return made

    def rename(self, identity: str, name: str) -> None:
        """Give a show that is not open another name."""
        with contextlib.closing(sqlite3.connect(self.path(identity), timeout=15)) as connection:
            connection.execute("UPDATE show SET name = ? WHERE id = 1", (_checked(name),))
            connection.commit()

    def open(self, identity: str) -> Path:
        """Note that a show is the open one; its file."""
        path = self.path(identity)
        if self._about(identity).deleted:
            raise InUse("This show is in the bin. Take it back first.", "show")
        why = opening.what_is_wrong(path)
        if why is not None:
            raise ZarabandaError(f"This show cannot be opened: {why}. Take back one of its copies, or a saved file.", "show")
        self._before_migration(identity)
        self._set_open(identity)
        return path

    def delete(self, identity: str) -> None:
        """Put a show into the bin."""
        self.path(identity)
        if identity == self.open_id:
            raise InUse("This show is open. Open another one first.", "show")
        self._note(identity, replace(self._about(identity), deleted=self._clock()))

    def copies(self, identity: str) -> Copies:
        """The copies of a show."""
        return Copies(self.folder(identity), self._root / MEDIA, self._clock)

    def take_back(self, identity: str) -> None:
        """Take a show out of the bin."""
        self.path(identity)
        self._note(identity, replace(self._about(identity), deleted=0.0))

    def empty_bin(self, *, all_of_it: bool = False) -> None:
        """Delete for good what has been in the bin for 30 days, or all of it."""
        for one in self.bin():
            if all_of_it or one.about.deleted < self._clock() - BIN_DAYS * 86_400:
                shutil.rmtree(self._folder / one.id, ignore_errors=True)

    def others_hold(self, text: str) -> list[str]:
        """Names of shows, the open one apart, whose file holds a text, such as the hash of a medium: also those in the bin."""
        found = []
        for one in self._entries():
            if one.id != self.open_id:
                content = b"".join(path.read_bytes() for path in (self._folder / one.id).glob(f"{FILE}*") if path.is_file())
                if text.encode() in content:
                    found.append(one.name)
        return found

    def _before_migration(self, identity: str) -> None:
        """A show of an earlier version is copied before it is brought up to date."""
        with contextlib.suppress(OSError, sqlite3.Error):  # what is wrong with it is told where it is opened
            if _version(self.path(identity)) < newest_version():
                self.copies(identity).take("migration")

    # what is there

    def _every(self) -> list[str]:
        if not self._folder.is_dir():
            return []
        return sorted(path.name for path in self._folder.iterdir() if self._is_there(path.name))

    def _is_there(self, identity: str) -> bool:
        return bool(_IDENTITY.match(identity)) and (self._folder / identity / FILE).is_file()

    def _entries(self) -> list[Entry]:
        found = []
        for identity in self._every():
            folder = self._folder / identity
            name, fixtures = _looked_at(folder / FILE)
            size = (folder / FILE).stat().st_size
            found.append(Entry(identity, name, self._about(identity), size, fixtures, (folder / PICTURE).is_file()))
        return sorted(found, key=lambda one: (one.name.lower(), one.id))

    def _about(self, identity: str) -> About:
        with contextlib.suppress(OSError, ValueError, TypeError):
            return About(**json.loads((self._folder / identity / _ABOUT).read_text()))
        return About()

    # changes, each whole

    def _note(self, identity: str, about: About) -> None:
        write_whole(self._folder / identity / _ABOUT, json.dumps(asdict(about)).encode())

    def _set_open(self, identity: str) -> None:
        self._note(identity, replace(self._about(identity), opened=self._clock()))
        write_whole(self._folder / _OPEN, identity.encode())

    def _placed(self, fill: Callable[[Path], None]) -> str:
        """A new folder with a show that `fill` makes: made beside, and renamed when it is whole."""
        identity = secrets.token_hex(4)
        making = self._folder / f"{_MAKING}{identity}"
        making.mkdir(parents=True)
        try:
            fill(making / FILE)
            os.replace(making, self._folder / identity)
            sync_folder(self._folder)
        except OSError as error:
            raise ZarabandaError(f"The show cannot be made: {error.strerror or error}. Make room on the disk.", "show") from error
        finally:
            shutil.rmtree(making, ignore_errors=True)
        return identity

    def adopted(self) -> Library:
        """This library. A show right in the data folder, of an earlier version or put there by hand, becomes its open one."""
        beside = self._root / FILE
        if not beside.is_file():
            return self
        identity = secrets.token_hex(4)
        folder = self._folder / identity
        folder.mkdir(parents=True)
        with contextlib.suppress(sqlite3.Error), contextlib.closing(sqlite3.connect(beside, timeout=15)) as connection:
            connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")  # so that all of it is in the one file that is moved
        os.replace(beside, folder / FILE)
        self._set_open(identity)
        return self

    def _tidy(self) -> None:
        for path in self._folder.glob(f"{_MAKING}*"):
            shutil.rmtree(path, ignore_errors=True)
        self.empty_bin()


def _checked(name: str) -> str:
    name = name.strip()
    if not 1 <= len(name) <= LONGEST_NAME:
        raise ZarabandaError(f"Give a name of 1 to {LONGEST_NAME} letters.", "name")
    return name


def _version(path: Path) -> str:
    with contextlib.closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True, timeout=5)) as connection:
        (found,) = connection.execute("SELECT version_num FROM alembic_version").fetchone() or ("",)
        return str(found)


def _looked_at(path: Path) -> tuple[str, int]:
    """Name and number of fixtures of a show's file; what cannot be read says so instead."""
    try:
        with contextlib.closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True, timeout=5)) as connection:
            (name,) = connection.execute("SELECT name FROM show WHERE id = 1").fetchone()
            (fixtures,) = connection.execute("SELECT count(*) FROM fixture").fetchone()
            return str(name), int(fixtures)
    except (sqlite3.Error, TypeError):
        return "A show that cannot be read", 0
