"""A running demo for the tests that need the whole, and what holds for every test."""

from __future__ import annotations

import fcntl
import os
import shutil
import socket
import sqlite3
import threading
from pathlib import Path

import pytest
from hypothesis import settings
from sqlalchemy import inspect, text

from tests import evidence, nothing_left
from tests.thoroughness import scaled
from tests.told_live import live_state
from tests.waiting import PATIENCE_S
from zarabanda import messages, wire
from zarabanda.cli import prepare
from zarabanda.engine import main as engine
from zarabanda.engine import stage_clock
from zarabanda.network_settings import HERE_ONLY
from zarabanda.shelf.library import Library
from zarabanda.show import compile as compiling
from zarabanda.show import store as stores
from zarabanda.show.store import Store
from zarabanda.tools.running import ask, started

os.environ[HERE_ONLY] = "1"  # no test sends anywhere but to this machine
os.environ[engine.ORDINARY] = "1"  # nor takes the processor from the tests beside it
os.environ[stage_clock.DRIVEN] = "1"

# the same examples on every run; new ones are looked for at night. A busy machine sets no deadline
settings.register_profile("all checks", derandomize=True, deadline=None, max_examples=scaled(100))
settings.register_profile("new examples", deadline=None, max_examples=scaled(100), print_blob=True)
settings.load_profile("new examples" if os.environ.get("ZARABANDA_NEW_EXAMPLES") else "all checks")


def pytest_configure(config):
    for plugin in (evidence, nothing_left):
        config.pluginmanager.register(plugin, plugin.__name__)


@pytest.fixture(scope="session", autouse=True)
def tables_made_once():
    """New files of this process get their tables from a copy: five hundred of them would be migrated from the oldest on."""
    migrate, (made, copied) = stores.migrate, (sqlite3.connect(":memory:", check_same_thread=False), threading.Lock())

    def quickly(engine, version=""):
        if version or inspect(engine).has_table("alembic_version"):
            migrate(engine, version)
            return
        with copied, engine.connect() as connection:
            kept = connection.connection.driver_connection
            if made.execute("SELECT 1 FROM sqlite_master").fetchone():
                made.backup(kept)
            else:
                migrate(engine)
                kept.backup(made)

    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(stores, "migrate", quickly)
        yield
    made.close()


UNTOUCHED = "As it was made"


class Demo:
    """A running demo, with what its node has received."""

    def __init__(self, running):
        self.running = running
        self.address = running.address
        self._untouched = None

    def ask_node(self, **message):
        with wire.connect(wire.socket_path(self.running.data, "node"), 5.0) as connection:
            wire.send(connection, message)
            return wire.receive(connection, wire.PLAIN)

    def node_universes(self, protocol="E1.31"):
        (node,) = self.ask_node(type="status", protocol=protocol)["nodes"]
        return {row["universe"]: row for row in node["universes"]}

    def universe(self, number):
        return self.node_universes()[number]

    def ask(self, path, body=None, method=None):
        """What the API answers; with a body and no method: to a POST."""
        return ask(self.running, path, body, method)

    def act(self, **action):
        self.ask("/api/actions", {"action": action})

    def drive_clock(self, rate=1.0, ahead_s=0.0):
        """Let the time on stage run so many times as fast, after going ahead at once. It does when this returns."""
        with wire.connect(wire.socket_path(self.running.data, "engine"), PATIENCE_S) as connection:
            wire.send(connection, messages.DriveClock(rate, ahead_s))
            connection.shutdown(socket.SHUT_WR)
            while connection.recv(1 << 16):  # the engine ends what has ended once it has read all of it
                pass

    # a show as it is when it is opened first

    def begin_anew(self):
        """Open a fresh copy of the show as it was made: with nothing of what was done before."""
        if self._untouched is None:
            self._untouched = self.copied(self.ask("/api/shows")["open"], UNTOUCHED)
            return
        self.open(self.copied(self._untouched, "Salt Light"))

    def begin_empty(self):
        """Open a new show with nothing in it."""
        if self._untouched is None:
            self.begin_anew()
        self.open(self.ask("/api/shows", {"name": "New show", "begin": "empty"})["id"])

    def copied(self, show, name):
        return self.ask(f"/api/shows/{show}/copy", {"name": name})["id"]

    def open(self, show):
        """Open a show, throw all others but the untouched one away, and let everything on stage be as it begins."""
        self.act(do="grand", value=1)
        self.act(do="blackout", on=False)
        self.drive_clock()
        self.ask(f"/api/shows/{show}/open", {}, "POST")
        for one in self.ask("/api/shows")["shows"]:
            if one["id"] not in (show, self._untouched):
                self.ask(f"/api/shows/{one['id']}", method="DELETE")
        self.ask("/api/shows/bin/empty", {}, "POST")
        self.ask_node(type="reset")
        now = self.ask("/api/show")
        live_state(self, lambda state: (state["session"], state["revision"] >= now["revision"]) == (now["session"], True))


@pytest.fixture(scope="session")
def demo_made(tmp_path_factory, worker_id):
    """The data folder of a demo as it is before its first start: made once for all that test together."""
    own = tmp_path_factory.getbasetemp()
    together = Path(os.environ.get("ZARABANDA_TESTS_TOGETHER") or (own if worker_id == "master" else own.parent))
    made = together / "demo made"
    with (together / "demo.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not made.exists():
            prepare(together / "demo in the making", demo=True)
            (together / "demo in the making").rename(made)
    return made


@pytest.fixture(scope="session")
def demo_show(demo_made):
    """The file of that demo's show."""
    return Library(demo_made).open_path


@pytest.fixture(scope="session")
def opened_demo(demo_show, tmp_path_factory):
    """A store on a copy of that show, to read in."""
    path = tmp_path_factory.mktemp("opened") / "show.db"
    shutil.copy(demo_show, path)
    store = Store(path)
    with store.reading() as session:
        session.execute(text("SELECT 1"))  # its files are open from here on
    yield store
    store.close()


@pytest.fixture(scope="session")
def demo_parts(opened_demo):
    """What the engine is given of that show."""
    with opened_demo.reading() as session:
        return compiling.all_parts(session)


@pytest.fixture(scope="session")
def running_demo(tmp_path_factory, demo_made):
    """One demo for all modules of a worker that leave its processes alone."""
    data = tmp_path_factory.mktemp("demo")
    shutil.copytree(demo_made, data, dirs_exist_ok=True)
    with started(data, "demo", "--node-port", "0", "--rate", "20") as running:  # tests look at what is there, not at how smooth
        yield Demo(running)


@pytest.fixture(scope="module")
def demo(running_demo):
    """That demo with its show as it was made."""
    running_demo.begin_anew()
    return running_demo


@pytest.fixture(scope="module")
def own_demo(tmp_path_factory, demo_made):
    """A demo of its own for a module that kills its processes."""
    data = tmp_path_factory.mktemp("demo")
    shutil.copytree(demo_made, data, dirs_exist_ok=True)
    with started(data, "demo", "--node-port", "0") as running:
        yield Demo(running)
