"""Two machines, one node: the second stands by with a lower priority, and takes over when the first is gone."""

import contextlib
import os
import shutil
import signal
from concurrent.futures import ThreadPoolExecutor

import psutil

from tests.waiting import until
from zarabanda.simulators.e131_node import E131Node
from zarabanda.tools.running import started


def test_a_second_machine_takes_over_and_gives_back(tmp_path, demo_made):
    node = E131Node(0)
    for name in ("First", "Second"):
        shutil.copytree(demo_made, tmp_path / name)

    def holds(name):
        rows = node.status()["universes"]
        return rows and all(row["source"] == name and not row["lost"] for row in rows)

    def machine(stack, name, *options):
        return stack.enter_context(
            started(tmp_path / name, "demo", "--no-node", "--node-port", str(node.port), "--source-name", name, *options)
        )

    with contextlib.ExitStack() as stack, ThreadPoolExecutor(2) as pool:
        stack.callback(node.close)
        first = pool.submit(machine, stack, "First")
        pool.submit(machine, stack, "Second", "--priority", "90").result()
        until(lambda: holds("First"))
        until(lambda: node.status()["universes"][0]["sources"] == 2)
        whole = psutil.Process(first.result().process.pid)
        for process in (whole, *whole.children(recursive=True)):  # as a machine that loses its power
            with contextlib.suppress(psutil.NoSuchProcess):
                os.kill(process.pid, signal.SIGKILL)
        until(lambda: holds("Second"))
        assert {row["priority"] for row in node.status()["universes"]} == {90}
        machine(stack, "First")  # on the same data folder
        until(lambda: holds("First"))
        assert sum(row["sequence_errors"] for row in node.status()["universes"]) == 0
