"""A running demo for the tests that need the whole."""

from __future__ import annotations

import pytest

from zarabanda import wire
from zarabanda.running import started


class Demo:
    """A running demo, with what its node has received."""

    def __init__(self, running):
        self.running = running
        self.address = running.address

    def ask_node(self, **message):
        with wire.connect(wire.socket_path(self.running.data, "node"), 5.0) as connection:
            wire.send(connection, message)
            return wire.receive(connection)

    def universe(self, number):
        status = self.ask_node(type="status")
        return next(row for row in status["universes"] if row["universe"] == number)


@pytest.fixture(scope="module")
def demo(tmp_path_factory):
    with started(tmp_path_factory.mktemp("demo"), "demo", "--node-port", "0") as running:
        yield Demo(running)
