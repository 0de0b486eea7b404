"""The processes together: killed and restarted parts, second instances, the live socket."""

import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from http.client import IncompleteRead
from urllib.error import HTTPError

import pytest
from simple_websocket import Client

from tests.alone.processes import children, written_down
from tests.waiting import until
from zarabanda.tools.running import started

SPOTS = 1


def answers(demo):
    try:
        with urllib.request.urlopen(f"{demo.address}/api/show", timeout=5) as answer:
            return json.loads(answer.read())["name"]
    except (OSError, IncompleteRead):  # not there, or it ended while it answered
        return None


def health(demo):
    try:
        with urllib.request.urlopen(f"{demo.address}/api/health", timeout=10) as answer:
            return json.loads(answer.read())
    except (OSError, IncompleteRead):
        return {"engine": False}


@pytest.fixture(scope="module")
def demo(own_demo):
    return own_demo


@pytest.fixture(autouse=True)
def well(request):
    """A test before may have killed something, perhaps often: then it is back only after a pause."""
    if "demo" in request.fixturenames:
        until(lambda: health(request.getfixturevalue("demo"))["engine"])


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
    until(lambda: demo.universe(SPOTS)["packets"] > 20)
    before = children(demo)["web"]
    os.kill(before, signal.SIGKILL)
    until(lambda: children(demo).get("web") not in (None, before))
    assert until(lambda: answers(demo)) == "Salt Light"
    row = until(lambda: (seen := demo.universe(SPOTS))["packets"] > 100 and seen)
    assert row["sequence_errors"] == 0
    # what was sent came without a gap in its numbers, and the stream went on all the time: a frame may be late where the
    # machine is busy, but a source that stops for long is lost (E1.31, 6.7.1)
    gaps = demo.ask_node(type="gaps", universe=SPOTS)["gaps"]
    assert max(gaps) < 2.5 / 2
    assert len(gaps) / sum(gaps) > 44 / 2
    again = live(demo)
    assert receive(again, "state")["running"]
    again.close()


def states(client, accept):
    return until(lambda: (s := receive(client, "state")) and accept(s) and s)


@pytest.mark.parametrize("how", [signal.SIGKILL, signal.SIGSTOP], ids=["killed", "hung"])
def test_an_engine_that_is_gone_is_replaced_by_one_with_the_same_things_at_the_same_phase(demo, how):
    client = live(demo)
    grand = 0.9 if how == signal.SIGKILL else 0.8
    for action in ({"do": "bpm", "tempo": "Movement", "value": 100}, {"do": "grand", "value": grand}):
        client.send(json.dumps({"type": "action", "action": action}))
    first = states(client, lambda s: s["grand"] == grand and s["tempos"][0]["bpm"] == 100)
    second = states(client, lambda s: s["t"] > first["t"] + 0.4)
    written_down(demo, lambda entry: entry.grand == grand)
    demo.ask_node(type="reset")
    pid = children(demo)["engine"]
    os.kill(pid, how)
    until(lambda: children(demo).get("engine") not in (None, pid))
    after = states(client, lambda s: s["t"] > second["t"] and s["health"]["frames"] < second["health"]["frames"])
    for now, before, earlier in zip(after["running"], second["running"], first["running"], strict=True):
        assert now["key"] == before["key"] == earlier["key"]
        rate = (before["theta"] - earlier["theta"]) / (second["t"] - first["t"])
        assert now["theta"] == pytest.approx(before["theta"] + rate * (after["t"] - second["t"]), abs=1e-4), now["key"]
        assert rate > 0.01
    assert (after["levels"], after["grand"]) == (second["levels"], grand)
    row = until(lambda: (seen := demo.universe(SPOTS))["packets"] > 100 and seen)
    assert row["sequence_errors"] <= 1, "its streams go on at the next number"
    client.close()


def test_an_engine_killed_again_at_once_is_back_at_once(demo):
    killed = {None}
    for _ in range(2):
        pid = until(lambda: children(demo).get("engine"))
        os.kill(pid, signal.SIGKILL)
        killed.add(pid)
        until(lambda: children(demo).get("engine") not in killed)
    told = next(one for one in health(demo)["processes"] if one["name"] == "engine")
    assert told["restarts"] >= 2
    assert "engine.log" in told["message"]
    client = live(demo)
    assert states(client, lambda s: s["running"])
    client.close()


def test_half_requests_and_open_sockets_leave_http_its_threads(demo):
    host, port = demo.address.removeprefix("http://").split(":")
    halves = [socket.create_connection((host, int(port))) for _ in range(40)]
    for half in halves:
        half.sendall(b"POST /api/undo HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Le")
    clients = [live(demo) for _ in range(32)]
    assert answers(demo) == "Salt Light"
    assert receive(clients[-1], "state")
    for one in [*halves, *clients]:
        one.close()


def test_a_flash_whose_page_is_gone_is_let_go(demo):
    watching, page = live(demo), live(demo)
    press = {"do": "press", "control": "control:12", "down": True}
    page.send(json.dumps({"type": "action", "action": press}))
    states(watching, lambda s: s["levels"].get("control:12") == 1)
    page.close()
    states(watching, lambda s: s["levels"].get("control:12") == 0)
    watching.close()


DAMAGE = {
    "show.db": b"garbage " * 500,
    "source.json": b'{"cid": 7}',
    "processes.json": b"[1, 2",
    "running.json": b"\xff\xfe",
    "journal/live.journal": b"ZKF1 torn",
    "journal/show.journal": b"",
    "sequences.bin": b"short",
}


def test_a_folder_in_which_every_file_is_damaged_starts_and_tells_of_each(tmp_path):
    for name, content in DAMAGE.items():
        (tmp_path / name).parent.mkdir(exist_ok=True)
        (tmp_path / name).write_bytes(content)
    (tmp_path / "engine.sock").mkdir()
    with started(tmp_path, "demo", "--node-port", "0") as running:
        broken = Damaged(running)
        assert answers(broken) == "Salt Light"
        told = " ".join(one["text"] for one in health(broken)["troubles"])
        for name in ("live.journal", "show.journal", "source.json"):
            assert name in told
        assert told.count("put aside") == 3
        client = live(broken)
        states(client, lambda s: s["running"] and s["routes"][0]["packets"] > 0)
        client.close()
    assert len(list((tmp_path / "aside").iterdir())) == 1, "the source"
    assert len(list(tmp_path.glob("shows/*/aside/show.db*"))) == 1
    assert len(list((tmp_path / "journal" / "aside").iterdir())) == 2


class Damaged:
    def __init__(self, running):
        self.running, self.address = running, running.address


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
    headers = {"Origin": "https://elsewhere.example", "Connection": "Upgrade", "Upgrade": "websocket"}
    with pytest.raises(HTTPError, match="403"):
        urllib.request.urlopen(urllib.request.Request(demo.address + "/live", headers=headers), timeout=10).close()


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


def test_a_stop_ends_the_streams_and_leaves_no_process(tmp_path, demo_made):
    from zarabanda.simulators.e131_node import E131Node

    node = E131Node(0)
    shutil.copytree(demo_made, tmp_path, dirs_exist_ok=True)
    with started(tmp_path, "demo", "--no-node", "--node-port", str(node.port)) as running:
        assert until(lambda: node.status()["universes"])
    assert until(lambda: all(row["terminated"] for row in node.status()["universes"]))
    node.close()
    assert str(tmp_path) not in subprocess.run(["ps", "-eo", "args"], capture_output=True, text=True, check=True).stdout
    assert running.process.returncode == 0
