"""The processes together: killed and restarted parts, second instances, the live socket."""

import json
import os
import re
import signal
import subprocess
import sys
import time
import urllib.request
from http.client import IncompleteRead

import pytest
from simple_websocket import Client

from tests.waiting import until
from zarabanda.running import started

SPOTS = 1


def children(demo):
    """Process numbers by part, found by what they run."""
    listing = subprocess.run(["ps", "-eo", "pid,ppid,args"], capture_output=True, text=True, check=True).stdout
    found = {}
    for line in listing.splitlines()[1:]:
        pid, parent, arguments = line.split(None, 2)
        if int(parent) == demo.running.process.pid:
            part = re.search(r"zarabanda\.(engine|simulators)|gunicorn", arguments)
            if part:  # else: ended, and not yet waited for
                found[part.group(1) or "web"] = int(pid)
    return found


def answers(demo):
    try:
        with urllib.request.urlopen(f"{demo.address}/api/show", timeout=5) as answer:
            return json.loads(answer.read())["name"]
    except (OSError, IncompleteRead):  # not there, or it ended while it answered
        return None


def receive(client, wanted, timeout=10):
    end = time.monotonic() + timeout
    while time.monotonic() < end:
        message = client.receive(timeout=1)
        if isinstance(message, str) and json.loads(message)["type"] == wanted:
            return json.loads(message)
    raise AssertionError(f"no {wanted} came")


def live(demo):
    return Client(demo.address.replace("http", "ws") + "/live")


def test_the_lights_go_on_when_the_web_process_is_killed_under_load(demo):
    clients = [live(demo) for _ in range(3)]
    for client in clients:
        receive(client, "state")
    demo.ask_node(type="reset")
    time.sleep(0.5)  # let some packets be counted first
    before = children(demo)["web"]
    os.kill(before, signal.SIGKILL)
    until(lambda: children(demo).get("web") not in (None, before), 10)
    assert until(lambda: answers(demo), 20) == "Salt Light"
    row = until(lambda: (seen := demo.universe(SPOTS))["packets"] > 100 and seen, 10)
    assert row["sequence_errors"] == 0
    # what was sent came without a gap in its numbers, and the stream went on all the time: a frame may be late where the
    # machine is busy, but a source that stops for long is lost (E1.31, 6.7.1)
    gaps = demo.ask_node(type="gaps", universe=SPOTS)["gaps"]
    assert max(gaps) < 2.5 / 2
    assert len(gaps) / sum(gaps) > 44 / 2
    again = live(demo)
    assert receive(again, "state")["running"]
    again.close()


def test_a_killed_engine_is_back_with_the_same_things_at_the_same_phase(demo):
    client = live(demo)
    client.send(json.dumps({"type": "action", "action": {"do": "bpm", "tempo": "Movement", "value": 100}}))
    client.send(json.dumps({"type": "action", "action": {"do": "grand", "value": 0.9}}))
    state = until(lambda: (s := receive(client, "state")) and s["grand"] == 0.9 and s["tempos"][0]["bpm"] == 100 and s, 10)
    time.sleep(0.3)  # the journal writes within a twentieth of a second
    pid = children(demo)["engine"]
    os.kill(pid, signal.SIGKILL)
    killed = time.monotonic()
    until(lambda: children(demo).get("engine") not in (None, pid), 10)
    after = until(
        lambda: (
            (s := receive(client, "state")) and s["t"] > state["t"] and s["health"]["frames"] < state["health"]["frames"] and s
        ),
        15,
    )
    assert {one["key"] for one in after["running"]} == {one["key"] for one in state["running"]}
    assert after["levels"] == state["levels"]
    assert after["grand"] == 0.9
    beats = after["tempos"][0]["beat"] - state["tempos"][0]["beat"]
    assert beats == pytest.approx((after["t"] - state["t"]) * 100 / 60, abs=0.02)
    print(f"engine back after {time.monotonic() - killed:.2f} s")
    client.close()


GARBAGE = ["{", "[]", "7", '{"type": "nothing"}', '{"type": "action", "action": {"do": "fly"}}',
           '{"type": "watch", "universes": [0]}', '{"type": "preview-effect", "effect_id": 1, "document": {}}',
           b"\x00\x01", "[" * 5000]  # fmt: skip


@pytest.mark.parametrize("text", GARBAGE, ids=range(len(GARBAGE)))
def test_garbage_on_the_socket_gets_a_message_and_nothing_stops(demo, text):
    client = live(demo)
    client.send(text)
    assert len(receive(client, "refused")["message"]) > 20
    client.send(json.dumps({"type": "action", "action": {"do": "grand", "value": 1.0}}))
    receive(client, "state")
    client.close()


def test_a_page_of_another_origin_gets_no_socket(demo):
    with pytest.raises(ConnectionError, match="403"):
        Client(demo.address.replace("http", "ws") + "/live", headers={"Origin": "https://elsewhere.example"})


def run(*arguments):
    return subprocess.run([sys.executable, "-m", "zarabanda", *arguments], capture_output=True, text=True, timeout=30)


def test_a_second_instance_is_told_where_the_first_is(demo):
    second = run("serve", "--data", str(demo.running.data), "--port", "0", "--node-port", "0")
    assert second.returncode == 2
    assert demo.address in second.stderr


def test_a_port_in_use_is_told_with_another(demo, tmp_path):
    port = demo.address.rsplit(":", 1)[1]
    second = run("serve", "--data", str(tmp_path), "--port", port, "--node-port", "0")
    assert second.returncode == 2
    assert f"--port {int(port) + 1}" in second.stderr


def test_another_host_needs_an_access_code(tmp_path):
    refused = run("serve", "--data", str(tmp_path), "--host", "0.0.0.0", "--port", "0")
    assert refused.returncode == 2
    assert "--access-code" in refused.stderr


def test_a_stop_ends_the_streams_and_leaves_no_process(tmp_path):
    from zarabanda.simulators.node import Node

    node = Node(0)
    with started(tmp_path, "demo", "--no-node", "--node-port", str(node.port)) as running:
        assert until(lambda: node.status()["universes"], 10)
    assert until(lambda: all(row["terminated"] for row in node.status()["universes"]), 5)
    node.close()
    assert str(tmp_path) not in subprocess.run(["ps", "-eo", "args"], capture_output=True, text=True, check=True).stdout
    assert running.process.returncode == 0
