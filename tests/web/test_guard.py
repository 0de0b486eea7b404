"""What a request must be before anything looks into it."""

import json
import re

import pytest

from zarabanda.web.app import create_app
from zarabanda.web.guard import Door, is_for_us, is_same_origin, unreadable


@pytest.fixture(scope="module")
def application(tmp_path_factory):
    app = create_app(tmp_path_factory.mktemp("guard"), access_code="", hosts=["stage.example"], connect=False)
    yield app
    app.extensions["zarabanda"].store.close()


@pytest.mark.parametrize(
    ("host", "names", "fits"),
    [
        ("localhost:8765", [], True),
        ("127.0.0.1", [], True),
        ("[::1]:80", [], True),
        ("LOCALHOST", [], True),
        ("rebound.example:8765", [], False),
        ("rebound.example", ["0.0.0.0"], False),
        ("192.0.2.7:8765", ["0.0.0.0"], True),
        ("192.0.2.7:8765", ["192.0.2.7"], True),
        ("192.0.2.8", ["192.0.2.7"], False),
        ("desk.example:1", ["desk.example"], True),
        ("[2001:db8::7]:8765", ["[::]"], True),
        ("127.0.0.1.rebound.example", [], False),
        ("", [], False),
    ],
)
def test_hosts(host, names, fits):
    assert is_for_us(host, names) == fits


@pytest.mark.parametrize(
    ("origin", "site", "fits"),
    [
        (None, None, True),
        ("http://desk:1", "same-origin", True),
        ("http://desk:1", None, True),
        (None, "none", True),
        ("http://desk:2", None, False),
        ("https://evil.example", "cross-site", False),
        (None, "cross-site", False),
        (None, "same-site", False),
        ("null", None, False),
    ],
)
def test_origins(origin, site, fits):
    assert is_same_origin(origin, site, "desk:1") == fits


def nested(levels):
    value = 1
    for _ in range(levels):
        value = [value]
    return value


@pytest.mark.parametrize(
    ("value", "part"),
    [
        ({"a": [1, "ü", None, 2.5, 2**63 - 1]}, None),
        (nested(40), None),
        (nested(500), "48 levels"),
        ({"a": 2**63}, "64 bits"),
        ({"a": "\ud800"}, "surrogate"),
        ({"\udfff": 1}, "surrogate"),
    ],
)
def test_what_cannot_be_worked_with(value, part):
    told = unreadable(value)
    assert told is None if part is None else part in told


@pytest.mark.parametrize(
    ("method", "path", "headers", "body", "status"),
    [
        ("POST", "/api/undo", {"Origin": "https://evil.example"}, None, 403),
        ("POST", "/api/undo", {"Sec-Fetch-Site": "cross-site"}, None, 403),
        ("GET", "/api/show", {"Host": "rebound.example"}, None, 403),
        ("GET", "/", {"Host": "rebound.example"}, None, 403),
        ("GET", "/live", {"Origin": "https://evil.example"}, None, 403),
        ("POST", "/api/selection", {"Content-Type": "text/plain"}, '{"text": "1"}', 415),
        ("POST", "/api/selection", {}, "text=1", 415),
        ("POST", "/api/selection", {"Content-Type": "application/json"}, "[" * 100_000, 422),
        ("POST", "/api/effects", {"Content-Type": "application/json"}, json.dumps({"content": nested(500)}), 422),
        ("POST", "/api/effects", {"Content-Type": "application/json"}, '{"attribute": "\\ud800"}', 422),
        ("GET", f"/api/effects/{2**63}", {}, None, 422),
        ("DELETE", f"/api/pages/controls/{10**30}", {}, None, 422),
        ("GET", "/api/effects/%C2%B2", {}, None, 404),
        ("POST", "/api/undo", {"Host": "stage.example", "Origin": "http://stage.example"}, None, 422),
    ],
)
def test_requests_that_are_refused_say_why(application, method, path, headers, body, status):
    answer = application.test_client().open(path, method=method, headers=headers, data=body)
    assert answer.status_code == status, answer.text
    assert len(answer.json["message"]) > 3


def test_refusals_repeat_little_of_what_was_given(application):
    client = application.test_client()
    for path, body in (
        ("/api/selection", {"text": "x" * 500}),
        ("/api/effects", {"attribute": "w" * 100_000}),
        ("/api/draft/values", {"values": {"y" * 100_000: {"101": 1}}}),
        ("/api/draft/values", {"values": {"intensity": {"z" * 100_000: 1}}}),
    ):
        answer = client.post(path, json=body)
        assert answer.status_code == 422
        assert len(answer.text) < 1500
        assert not re.search(r"([wxyz])\1{205}", answer.text)


def test_guessing_the_code_is_slowed_and_the_right_one_forgives():
    now = [0.0]
    door = Door("sal marina ñ", lambda: now[0])
    waits = []
    for _ in range(9):
        now[0] += door.wait_s()
        assert not door.opens("falsch ß \ud800")
        waits.append(door.wait_s())
    assert waits[:4] == [0, 0, 0, 0]
    assert waits[4:] == [2, 4, 8, 16, 32]
    now[0] += 32
    assert door.opens("sal marina ñ")
    assert not door.opens("again")
    assert door.wait_s() == 0
    assert door.knows(door.token)
    assert not door.knows("ß")


def test_a_code_with_letters_beyond_ascii_opens(tmp_path):
    app = create_app(tmp_path, access_code="sal ñ", connect=False)
    client = app.test_client()
    assert client.post("/access", data={"code": "ü"}).status_code == 401
    assert client.post("/access", data={"code": "sal ñ"}).status_code == 303
    assert client.get("/api/show").status_code == 404, "inside: there is no show yet"
    other = app.test_client()
    for _ in range(5):
        other.post("/access", data={"code": "?"})
    slowed = other.post("/access", data={"code": "sal ñ"})
    assert slowed.status_code == 429
    assert int(slowed.headers["Retry-After"]) >= 1
    app.extensions["zarabanda"].store.close()
