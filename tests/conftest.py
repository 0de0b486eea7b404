"""A running demo for the tests that need the whole."""

from __future__ import annotations

import fcntl
import os
import shutil

import pytest
from hypothesis import settings

from zarabanda import wire
from zarabanda.cli import prepare
from zarabanda.network_settings import HERE_ONLY
from zarabanda.shelf.library import Library
from zarabanda.show.store import Store
from zarabanda.tools.running import started

os.environ[HERE_ONLY] = "1"  # no test sends anywhere but to this machine

# the same examples on every run of all checks; new ones are looked for while developing. A busy machine sets no deadline
settings.register_profile("all checks", derandomize=True, deadline=None)
settings.register_profile("developing", deadline=None)
settings.load_profile("all checks" if os.environ.get("CI") else "developing")


class Demo:
    """A running demo, with what its node has received."""

    def __init__(self, running):
        self.running = running
        self.address = running.address

    def ask_node(self, **message):
        with wire.connect(wire.socket_path(self.running.data, "node"), 5.0) as connection:
            wire.send(connection, message)
            return wire.receive(connection, wire.PLAIN)

    def node_universes(self, protocol="E1.31"):
        (node,) = self.ask_node(type="status", protocol=protocol)["nodes"]
        return {row["universe"]: row for row in node["universes"]}

    def universe(self, number):
        return self.node_universes()[number]


@pytest.fixture(scope="session")
def demo_made(tmp_path_factory, worker_id):
    """The data folder of a demo as it is before its first start: made once for all that test at the same time."""
    together = tmp_path_factory.getbasetemp() if worker_id == "master" else tmp_path_factory.getbasetemp().parent
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
    yield store
    store.close()


@pytest.fixture(scope="module")
def demo(tmp_path_factory, demo_made):
    data = tmp_path_factory.mktemp("demo")
    shutil.copytree(demo_made, data, dirs_exist_ok=True)
    with started(data, "demo", "--node-port", "0") as running:
        yield Demo(running)
