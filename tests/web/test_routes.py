"""Routes over the API: added, agreed to, switched, refused; what is found and who else sends; health and events."""

import time
from types import SimpleNamespace

import pytest

from zarabanda import event_log, network_settings
from zarabanda.listening.heard import Found, NodeHeard, SourceHeard, StreamHeard
from zarabanda.messages import RouteState
from zarabanda.outputs.interfaces import Interface
from zarabanda.web import hearing
from zarabanda.web.resources import routes as resource

pytestmark = pytest.mark.slow

INTERFACES = [Interface("lo", "127.0.0.1"), Interface("eth0", "192.0.2.2", "192.0.2.255")]


@pytest.fixture(autouse=True)
def machine(monkeypatch):
    monkeypatch.setattr(resource, "interfaces", lambda: INTERFACES)
    monkeypatch.delenv(network_settings.HERE_ONLY)  # there is no engine that could send


def routes(client):
    return client.get("/api/output/routes").json["routes"]


def added(client, line):
    answer = client.post("/api/output/routes/add", json={"line": line})
    assert answer.status_code == 201, answer.json
    return answer.json["id"]


def switch(client, number, on=True, **more):
    return client.post("/api/output/routes/switch", json={"id": number, "on": on, **more})


def test_a_new_show_sends_to_the_simulator_alone(client):
    (only,) = routes(client)
    assert (only["line"], only["on"], only["ask"]) == ("all to simulator as E1.31", True, "")
    assert only["carried"][:2] == [[1, 1], [2, 2]]


def test_a_route_is_off_until_it_is_agreed_to_once(client, application):
    data = application.extensions["zarabanda"].data
    number = added(client, "1–8 to 192.0.2.20")
    assert next(one for one in routes(client) if one["id"] == number)["on"] is False
    refused = switch(client, number)
    assert (refused.status_code, refused.json["place"]) == (409, "agreed")
    assert "192.0.2.20, UDP port 5568" in refused.json["message"]
    assert network_settings.read(data).allowed == []
    assert switch(client, number, agreed=True).status_code == 200
    assert network_settings.read(data).allowed == ["192.0.2.20"]
    switch(client, number, on=False)
    assert switch(client, number).status_code == 200  # once is enough
    changed = client.post("/api/output/routes/change", json={"id": number, "line": "1–8 to 192.0.2.21"})
    assert "switched off" in changed.json["done"]
    client.post("/api/undo")
    assert next(one for one in routes(client) if one["id"] == number)["line"] == "1–8 to 192.0.2.20 as E1.31"
    assert client.post("/api/output/routes/delete", json={"id": number}).status_code == 200
    assert switch(client, number).status_code == 404


def test_a_universe_of_a_node_has_one_route(client):
    first, second = added(client, "5 to 127.0.0.9 from 3"), added(client, "1–4 to 127.0.0.9")
    switch(client, first)
    refused = switch(client, second)
    assert (refused.status_code, refused.json["place"]) == (409, "universes")
    assert "Universe 3 of 127.0.0.9 gets its values by another route already (5 to 127.0.0.9" in refused.json["message"]
    client.post("/api/output/routes/change", json={"id": second, "document": {"to": "127.0.0.9", "universes": "1–2, 4"}})
    assert switch(client, second).status_code == 200
    for number in (first, second):
        client.post("/api/output/routes/delete", json={"id": number})


@pytest.mark.parametrize("body", [{}, {"line": " "}, {"line": "1 to 127.0.0.9", "document": {"to": "127.0.0.9"}}, {"line": "x"}])
def test_what_is_no_route_is_refused(client, body):
    assert client.post("/api/output/routes/add", json=body).status_code == 422


def test_universes_that_no_route_carries_are_told(client):
    (only,) = routes(client)
    client.post("/api/output/routes/change", json={"id": only["id"], "line": "1–9 to simulator"})
    assert client.get("/api/output/routes").json["lost"] == "10–11"
    told = [one["text"] for one in client.get("/api/rig/check").json["odd"] if one["kind"] == "no output"]
    assert told == ["2 universes (10 to 11) go nowhere: no route carries them. See Output, Routes."]
    client.post("/api/undo")
    assert client.get("/api/output/routes").json["lost"] == ""


def test_what_is_found_becomes_a_route_in_one_tap(client, application, monkeypatch):
    context = application.extensions["zarabanda"]
    monkeypatch.setattr(resource, "simulators", lambda: {"Art-Net": ("127.0.0.3", 6454)})
    context.hearing.found = Found(
        listening=True, sources=[SourceHeard("bb", "Other desk", "192.0.2.50", [1, 2, 3, 9], 2.0, False)],
        nodes=[
            NodeHeard("127.0.0.3", "Sim", "Simulated node", "fine", [1, 2, 17], 1.0, False),
            NodeHeard("192.0.2.20", "Señal", "", "", [0], 99.0, True),
        ],
    )  # fmt: skip
    found = client.get("/api/output/found").json
    assert [one["line"] for one in found["nodes"]] == ["1–2, 17 to simulator as Art-Net", "1 to 192.0.2.20 as Art-Net"]
    assert [one["routed"] for one in found["nodes"]] == [False, False]
    assert found["sources"][0]["universes"] == "1–3, 9"
    number = added(client, found["nodes"][0]["line"])
    context.link.push()
    assert [one["routed"] for one in client.get("/api/output/found").json["nodes"]] == [True, False]
    client.post("/api/output/routes/delete", json={"id": number})


def test_looking_on_a_network_is_agreed_to_once_and_listening_can_be_off(client, application):
    data = application.extensions["zarabanda"].data

    def listen(**body):
        return client.post("/api/output/listening", json=body)

    assert listen(look_on="eth9").status_code == 404
    asked = listen(look_on="eth0")
    assert (asked.status_code, "ArtPoll" in asked.json["message"]) == (409, True)
    assert network_settings.read(data).look_on == ""
    assert listen(look_on="eth0", agreed=True).json["look_on"] == "eth0"
    assert "eth0" not in client.get("/api/output/found").json["ask"]
    listen(listen=False)
    assert (network_settings.read(data).listen, network_settings.read(data).look_on) == (False, "")
    assert listen(look_on="eth0").status_code == 200
    listen()


def a_link(*, own=100, told=None):
    from tests.outputs.surroundings import route

    state = SimpleNamespace(routes=[RouteState(1, "E1.31", "simulator", "sending", priority=told)] if told is not None else [])
    return SimpleNamespace(
        routes=[route(priority=own), route(2, on=False, first=500)], rig=SimpleNamespace(universes=(1, 2, 3)), state=state
    )


@pytest.mark.parametrize(
    ("own", "told", "priority", "universes", "said", "holds"),
    [
        (100, None, 120, [3], "with priority 120 holds universe 3: ours is 100", True),
        (100, 100, 100, [1, 2], "sends universes 1–2 as well", True), (100, 100, 90, [1], "stands by for universe 1", False),
        (100, 50, 100, [2], "holds universe 2: ours is 50", False),  # we stand by for it
        (100, 100, 120, [7, 500], None, False),
    ],
)  # fmt: skip
def test_others_on_our_universes_are_told(own, told, priority, universes, said, holds):
    rivals = hearing.rivals(a_link(own=own, told=told), [StreamHeard("bb", "Desk 2", "192.0.2.50", priority, universes)])
    assert [(said in one.text, one.holds) for one in rivals] == ([(True, holds)] if said else [])


def test_events_of_all_processes_are_kept_read_and_saved(client, application):
    data = application.extensions["zarabanda"].data
    now = [time.time() - 10]
    log = event_log.EventLog(data, "engine", clock=lambda: now[0])
    log.tell("The route to 192.0.2.20 failed: nobody listens there.")
    now[0] += 5
    event_log.EventLog(data, "web", clock=lambda: now[0]).tell("x" * 900)
    with (data / event_log.FILE).open("a") as file:
        file.write("{broken\n")
    events = client.get("/api/output/events").json["events"]
    assert [(one["who"], one["text"][:9]) for one in events[:2]] == [("web", "xxxxxxxxx"), ("engine", "The route")]
    saved = client.get("/api/output/events.txt")
    assert "attachment" in saved.headers["Content-Disposition"]
    assert saved.text.splitlines()[-2].endswith("engine     The route to 192.0.2.20 failed: nobody listens there.")
    for _ in range(3000):
        log.tell("y" * 490)
    assert (data / event_log.FILE).stat().st_size < 1_100_000
    assert len(client.get("/api/output/events").json["events"]) == 500


def test_without_supervisor_and_simulators_it_is_said(client):
    assert client.get("/api/output/processes").json == {"processes": []}
    assert client.get("/api/output/nodes").json == {"nodes": []}
    assert client.post("/api/output/misbehave", json={"protocol": "E1.31", "drop": 0.5}).status_code == 404
    assert client.post("/api/output/misbehave", json={"protocol": "E1.31", "drop": 5}).status_code == 422
