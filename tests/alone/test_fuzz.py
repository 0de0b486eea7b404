"""Odd requests and messages, many of them: always an answer, never an error of the server, and the lights go on.

`make fuzz` runs it for long (FUZZ_EXAMPLES); with all tests a short part of it is run.
"""

import json
import os
import shutil
import subprocess
import sys
import urllib.request
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from simple_websocket import Client, ConnectionClosed

from tests.waiting import until

EXAMPLES = int(os.environ.get("FUZZ_EXAMPLES", "3"))
SHORT = EXAMPLES < 10
SCHEMATHESIS = Path(sys.executable).with_name("schemathesis")


def ask(demo, path, **body):
    request = urllib.request.Request(
        demo.address + path, json.dumps(body).encode() if body else None, {"Content-Type": "application/json"}
    )
    with urllib.request.urlopen(request, timeout=20) as answer:
        return json.loads(answer.read())


def let_light_out(demo):
    """One route to a node that behaves, and a light to be sent there, whatever was asked for before; a universe that arrives."""
    if not ask(demo, "/api/output/universes")["universes"]:
        ask(demo, "/api/rig/add", mode=ask(demo, "/api/kinds")["kinds"][0]["name"], number=9_871)
    demo.ask_node(type="misbehave", faults={})
    for route in ask(demo, "/api/output/routes")["routes"]:
        ask(demo, "/api/output/routes/delete", id=route["id"])
    route = ask(demo, "/api/output/routes/add", line="all to simulator")["id"]
    ask(demo, "/api/output/routes/switch", id=route, on=True)
    return until(lambda: next((number for number, one in demo.node_universes().items() if not one["lost"]), None))


@pytest.fixture
def calm(own_demo):
    """A demo that has nothing to tell of errors afterwards, and whose lights went on."""
    demo = own_demo
    yield demo
    for log in (demo.running.data / "logs").glob("*.log"):
        assert "Traceback" not in log.read_text(), log.read_text()[-3000:]
    universe = let_light_out(demo)
    before = demo.universe(universe)["packets"]
    assert until(lambda: demo.universe(universe)["packets"] > before)
    with urllib.request.urlopen(demo.address + "/api/health", timeout=10) as answer:
        health = json.loads(answer.read())
    assert health["engine"]
    assert [one["restarts"] for one in health["processes"]] == [0, 0, 0, 0]
    assert [one["text"] for one in health["troubles"]] == []


@pytest.mark.timeout(7200)
def test_no_request_makes_the_server_fail(calm, tmp_path):
    found = subprocess.run(
        [
            str(SCHEMATHESIS), "run", f"{calm.address}/api/docs/openapi.json", "--phases", "coverage,fuzzing,stateful",
            "--checks", "not_a_server_error", "--max-examples", str(EXAMPLES), "--workers", "2", "--no-color",
            "--request-timeout", "20", "--warnings", "off", "--suppress-health-check", "all",
            *(["--max-time", "15"] if SHORT else []),
        ],
        capture_output=True, text=True, cwd=tmp_path, check=False,
    )  # fmt: skip
    shutil.rmtree(tmp_path / ".hypothesis", ignore_errors=True)
    assert found.returncode == 0, found.stdout[-6000:] + found.stderr[-2000:]


PLAIN = st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=20)
ANY = st.recursive(
    PLAIN,
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner, max_size=3),
    max_leaves=8,
)
WORDS = st.sampled_from(["control:1", "control:99", "draft:1", "Movement", "", 0, 1, 0.5, -1, True, None, 10**30, "x" * 3000])
ACTION = st.fixed_dictionaries(
    {"do": st.sampled_from(["level", "press", "stop", "run", "freeze", "tap", "bpm", "grand", "hold-slot", "fly"]) | ANY},
    optional=dict.fromkeys(("control", "value", "down", "key", "tempo", "on", "holder", "universe", "slot"), WORDS | ANY),
)
MESSAGE = st.one_of(
    ANY,
    st.fixed_dictionaries({"type": st.just("action"), "action": ACTION}, optional={"ref": ANY}),
    st.fixed_dictionaries({"type": st.just("watch"), "universes": st.lists(st.integers(-1, 70_000), max_size=20) | ANY}),
    st.fixed_dictionaries({"type": st.sampled_from(["audition", "preview-effect", "action", "?"])},
                          optional=dict.fromkeys(("effect_id", "document", "heads", "action"), ANY)),
)  # fmt: skip


def texts():
    return st.one_of(
        MESSAGE.map(lambda one: json.dumps(one)), st.text(max_size=60), st.binary(max_size=60),
        st.integers(50, 3000).map(lambda levels: "[" * levels), st.just('{"type": "action", "action": {"do": "\\ud800"}}'),
    )  # fmt: skip


@pytest.mark.timeout(7200)
def test_no_message_ends_the_socket_or_the_engine(calm):
    client = Client(calm.address.replace("http", "ws") + "/live")

    @settings(max_examples=20 * EXAMPLES, deadline=None, suppress_health_check=list(HealthCheck))
    @given(st.lists(texts(), min_size=1, max_size=5))
    def send(messages):
        for message in messages:
            client.send(message)

    try:
        send()
        client.send(json.dumps({"type": "action", "action": {"do": "grand", "value": 0.77}}))

        while (message := client.receive(timeout=10)) is not None:  # behind thousands of refusals
            if isinstance(message, str) and json.loads(message).get("grand") == 0.77:
                break
        assert message is not None, "the engine did not answer any more"
        client.send(json.dumps({"type": "action", "action": {"do": "stop-all"}}))
    except ConnectionClosed as closed:
        raise AssertionError(f"the socket was closed: {closed}") from closed
    finally:
        client.close()
