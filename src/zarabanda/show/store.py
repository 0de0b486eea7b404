"""The database of a show: opening and migrating it, and edits as single transactions that undo can take back."""

from __future__ import annotations

import contextlib
import fcntl
import sqlite3
import sys
import tempfile
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import IO, Any

import msgspec
from sqlalchemy import Connection, Engine, create_engine, delete, event, inspect, select, text
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, sessionmaker

from zarabanda.errors import ZarabandaError
from zarabanda.workers import Troubles, Worker

from . import history
from .refuge import Refuge
from .tables import Edit

MOST_EDITS, OLDEST_EDIT_DAYS = 2000, 90
"""How far back undo goes at the most; older edits are forgotten."""
_FORGET_EVERY = 50
_LOOK_FOR_ROOM_S, _WRITES_BACK_S = 3.0, 60.0
FILE = "Show file"
_VERSIONS = Path(__file__).parent / "migrations" / "versions"


def _configure(connection: Any, _record: Any) -> None:
    connection.isolation_level = None  # transactions begin where we say so, see `_begin`
    cursor = connection.cursor()
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA foreign_keys=ON")
    cursor.execute("PRAGMA synchronous=FULL")  # what was acknowledged survives a loss of power
    cursor.execute("PRAGMA busy_timeout=15000")
    cursor.close()


def _begin(connection: Connection) -> None:
    """An edit takes the write lock before it reads, so that what it read is still so when it writes."""
    connection.exec_driver_sql("BEGIN IMMEDIATE" if connection.get_execution_options().get("edits") else "BEGIN")


def _json(value: Any) -> str:
    """Text of a document: large ones are written and read much faster than by the standard library."""
    return msgspec.json.encode(value, enc_hook=_plain).decode()


def _plain(value: Any) -> Any:
    """Numbers of NumPy as plain ones."""
    for kind in (float, int, str):
        if isinstance(value, kind):
            return kind(value)
    raise TypeError(f"{type(value).__name__} cannot be kept in a document")


def open_engine(path: Path) -> Engine:
    """An SQLite database in WAL mode with foreign keys on."""
    engine = create_engine(f"sqlite:///{path}", json_serializer=_json, json_deserializer=msgspec.json.decode)
    event.listen(engine, "connect", _configure)
    event.listen(engine, "begin", _begin)
    return engine


def newest_version() -> str:
    """Of the schema: what `migrate` leads to."""
    return known_versions()[-1]


def _version(engine: Engine) -> str | None:
    with engine.connect() as connection:
        if not inspect(connection).has_table("alembic_version"):
            return None
        version: str | None = connection.scalar(text("SELECT version_num FROM alembic_version"))
        return version


def known_versions() -> list[str]:
    """All versions of the schema, the oldest first."""
    return sorted(path.stem.split("_")[0] for path in _VERSIONS.glob("[0-9]*.py"))


def make_at(path: Path, version: str) -> None:
    """An empty file whose tables are as they were at a version."""
    engine = open_engine(path)
    try:
        migrate(engine, version)
    finally:
        engine.dispose()


def migrate(engine: Engine, version: str = "") -> None:
    """Bring the schema to a version, as a rule the newest; quick when it is there already."""
    version = version or newest_version()
    if _version(engine) == version:
        return
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    with engine.connect() as connection:
        plain: Any = connection.connection.driver_connection
        plain.execute("PRAGMA foreign_keys=OFF")  # tables are made anew, which it would take for deleted rows
        try:
            with connection.begin():
                config.attributes["connection"] = connection
                command.upgrade(config, version)
                broken = connection.execute(text("PRAGMA foreign_key_check")).first()
                if broken is not None:
                    raise IntegrityError(f"row {broken[1]} of {broken[0]} refers to nothing", None, ValueError())
        finally:
            plain.execute("PRAGMA foreign_keys=ON")


Touched = dict[str, set[Any]] | None
"""Keys of rows by the names of their tables; None: it can be any."""


def _touched(changes: list[history.Change]) -> Touched:
    touched: dict[str, set[Any]] = {}
    for change in changes:
        touched.setdefault(change["table"], set()).add(change["key"])
    return touched


class Store:
    """Sessions for reading and edits for writing.

    `on_edit` is called after every change of the show, with the rows that it touched.
    """

    def __init__(self, path: Path, troubles: Troubles | None = None) -> None:
        self._path, self._troubles = path, troubles or Troubles()
        self.look_for_room_s = _LOOK_FOR_ROOM_S
        """How often it is tried to write back what is in memory alone, while the disk is full."""
        self._turn = threading.Lock()
        self._between = _between_processes(path)
        self._refuge: Refuge | None = None
        self._worker: Worker | None = None
        self.on_edit: Callable[[Touched], None] = lambda touched: None
        self._use(path)
        migrate(self.engine)

    def _use(self, path: Path) -> None:
        self.engine = open_engine(path)
        self._sessions = sessionmaker(self.engine, expire_on_commit=False)
        self._editing = sessionmaker(self.engine.execution_options(edits=True), expire_on_commit=False)

    def go_on_in_memory(self) -> bool:
        """The disk is full: let edits go on in memory, until there is room. Whether that is so now."""
        with self._turn:
            if self._refuge is not None:
                return True
            try:
                refuge = Refuge(self._path)
            except (OSError, sqlite3.Error) as error:
                self._troubles.tell(FILE, f"The disk is full, and memory cannot be used instead ({error}): edits are not kept.")
                return False
            self._refuge = refuge
            self._leave(refuge.path)
        self._troubles.tell(
            FILE, "The disk is full: edits are kept in memory only, and would be lost with the machine. Make room."
        )
        worker = Worker("Way back to the disk", lambda: self._try_to_come_home(worker), Troubles())
        self._worker = worker.start()
        return True

    def _leave(self, path: Path) -> None:
        old = self.engine
        self._use(path)
        old.dispose()

    def _try_to_come_home(self, worker: Worker) -> bool | None:
        worker.pause(self.look_for_room_s)
        return False if self.come_home() else None

    def come_home(self) -> bool:
        """Back to the disk, if there is room; whether the show is there now."""
        with self._turn:
            if self._refuge is None:
                return True
            self.engine.dispose()
            try:
                self._refuge.bring_home()
            except (OSError, sqlite3.Error):
                return False
            self._leave(self._path)
            self._refuge.leave()
            self._refuge = None
        self._troubles.clear(FILE)
        return True

    def change_to(self, path: Path) -> None:
        """Go on with another show's file: what reads or edits from now on is in it. ZarabandaError where it cannot be opened, or
        the edits of this one are in memory alone; then this one stays."""
        if not self.come_home():
            raise ZarabandaError("The disk is full, and the newest edits are in memory alone. Make room, then open another show.")
        fresh = open_engine(path)
        try:
            migrate(fresh)
        finally:
            fresh.dispose()
        with self._turn:
            self._path = path
            self._leave(path)
            if self._between is not None:
                self._between.close()
            self._between = _between_processes(path)

    def replace_all(self, path: Path) -> None:
        """Let the show be what another file of the same version holds, in one transaction. Its history begins anew."""
        with self._my_turn(), self.engine.connect() as connection:
            plain: Any = connection.connection.driver_connection
            plain.execute("ATTACH DATABASE ? AS fresh", (str(path),))
            plain.execute("PRAGMA foreign_keys = OFF")  # they hold there, and so they do here in the end
            try:
                plain.execute("BEGIN IMMEDIATE")
                tables = plain.execute("SELECT name FROM fresh.sqlite_master WHERE type = 'table'").fetchall()
                for (name,) in tables:
                    plain.execute(f'DELETE FROM main."{name}"')
                    plain.execute(f'INSERT INTO main."{name}" SELECT * FROM fresh."{name}"')
                plain.execute("COMMIT")
            except sqlite3.Error:
                plain.execute("ROLLBACK")
                raise
            finally:
                plain.execute("PRAGMA foreign_keys = ON")
                plain.execute("DETACH DATABASE fresh")
        self.on_edit(None)

    @contextmanager
    def _my_turn(self) -> Iterator[None]:
        """Edits wait in order: those of this process, then those of another one (SQLite alone would let the luckier go first)."""
        with self._turn:
            if self._between is not None:
                fcntl.flock(self._between, fcntl.LOCK_EX)
            try:
                yield
            finally:
                if self._between is not None:
                    fcntl.flock(self._between, fcntl.LOCK_UN)

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """A session to read with."""
        with self._sessions() as session:
            yield session

    @contextmanager
    def trying(self) -> Iterator[Session]:
        """A session on a copy of the show, to try out what an edit would do: nobody waits for it, and nothing of it stays."""
        with tempfile.TemporaryDirectory(prefix="zarabanda-trying-") as folder:
            path = Path(folder) / "show.db"
            with self.engine.connect() as connection, contextlib.closing(sqlite3.connect(path)) as target:
                plain: Any = connection.connection.driver_connection
                plain.backup(target)
            engine = open_engine(path)
            try:
                with sessionmaker(engine, expire_on_commit=False)() as session:
                    yield session
                    session.rollback()
            finally:
                engine.dispose()

    @contextmanager
    def edit(self, browser: str, label: str) -> Iterator[Session]:
        """One transaction for one user action; kept in the history as `label` when it changed something.

        What is read in it stays as it is until it is committed, whoever else edits.
        """
        with self._my_turn(), self._editing() as session:
            recorder = history.Recorder(session)
            yield session
            session.flush()
            changes = recorder.changes()
            if not changes:
                session.rollback()
                return
            for undone in session.scalars(select(Edit).where(Edit.browser == browser, Edit.undone)):
                session.delete(undone)
            edit = Edit(browser=browser, label=label[:200], changes=changes)
            session.add(edit)
            session.flush()
            if edit.id % _FORGET_EVERY == 0:
                _forget(session, edit.id)
            session.commit()
        self.on_edit(_touched(changes))

    def undo(self, browser: str) -> str:
        """Take back this browser's last edit; its label. Raises ZarabandaError when there is none, or it was overtaken."""
        return self._again(history.undo, browser)

    def redo(self, browser: str) -> str:
        """Do this browser's last undone edit again; its label."""
        return self._again(history.redo, browser)

    def _again(self, way: Callable[[Session, str], tuple[str, list[history.Change]]], browser: str) -> str:
        with self._my_turn(), self._editing() as session:
            label, changes = way(session, browser)
            session.commit()
        self.on_edit(_touched(changes))
        return label

    def close(self) -> None:
        """Let go of the file."""
        if self._worker is not None:
            self._worker.end(patience_s=_WRITES_BACK_S)
        if self._refuge is not None and not self.come_home():
            print(f"The disk is still full: the newest edits of {self._path} are in {self._refuge.path}.", file=sys.stderr)
        self.engine.dispose()
        if self._between is not None:
            self._between.close()


def _between_processes(path: Path) -> IO[str] | None:
    """A file that is locked while a show is edited; None where there is no room for it."""
    try:
        return path.with_name(path.name + ".lock").open("w")
    except OSError:
        return None


def _forget(session: Session, newest: int) -> None:
    """Cut the history by count and age."""
    oldest = datetime.now(UTC).replace(tzinfo=None) - timedelta(days=OLDEST_EDIT_DAYS)
    session.execute(delete(Edit).where((Edit.id <= newest - MOST_EDITS) | (Edit.at < oldest)))
