"""Groups over the API: by hand and by rule, empty first, followed by what is put on them."""

import pytest

from tests.web.test_rig import client, fixtures, pars, post  # noqa: F401  (a fixture)
from zarabanda.show.compile import all_parts

pytestmark = pytest.mark.slow


def groups(client):  # noqa: F811
    return {one["name"]: one for one in client.get("/api/show").json["groups"]}


@pytest.fixture
def desk(client):  # noqa: F811
    pars(client)
    bar = "Moving bar 10 RGBW, 10 cells, 45 channels, 16 bit"
    post(client, "/api/rig/add", 201, mode=bar, count=2, number=21, place=[-2, 0, 0], spacing=[4, 0, 0])
    return client


def control_part(client):  # noqa: F811
    with client.application.extensions["zarabanda"].store.reading() as session:
        return next(part for part in all_parts(session) if part.key[0] == "control")


def test_groups_of_all_kinds_and_by_rules_in_one_go(desk):
    made = post(desk, "/api/groups/for-kinds", 201)["groups"]
    assert [(one["name"], one["heads"]) for one in made] == [
        ("Par RGBW", [str(n) for n in range(1, 9)]), ("Moving bar 10 RGBW", ["21", "22"]),
    ]  # fmt: skip
    par, bar = made[0]["id"], made[1]["id"]
    rules = ["odd", "even", "thirds", "by-side", "centre-out", "reversed", "by-universe"]
    derived = post(desk, f"/api/groups/{par}/derive", 201, rules=rules)["groups"]
    assert {one["name"]: one["heads"] for one in derived} == {
        "Par RGBW, odd": ["1", "3", "5", "7"], "Par RGBW, even": ["2", "4", "6", "8"],
        "Par RGBW, third 1": ["1", "4", "7"], "Par RGBW, third 2": ["2", "5", "8"], "Par RGBW, third 3": ["3", "6"],
        "Par RGBW, left": ["1", "2", "3", "4"], "Par RGBW, right": ["5", "6", "7", "8"],
        "Par RGBW, centre out": ["4", "5", "3", "6", "2", "7", "1", "8"],
        "Par RGBW, the other way round": [str(n) for n in range(8, 0, -1)], "Par RGBW, universe 1": [str(n) for n in range(1, 9)],
    }  # fmt: skip
    cells = post(desk, f"/api/groups/{bar}/derive", 201, rules=["odd-and-even-cells", "cells"])["groups"]
    assert [len(one["heads"]) for one in cells] == [10, 10, 20]
    assert cells[1]["heads"][:3] == ["21.2", "21.4", "21.6"]
    assert post(desk, "/api/groups/for-kinds", 201)["groups"] == [], "they are there"


def test_a_group_by_rule_says_when_the_rig_has_left_it_behind_and_is_renewed(desk):
    group = post(desk, "/api/groups", 201, name="Pars", heads=[str(n) for n in range(1, 9)])["id"]
    left = post(desk, f"/api/groups/{group}/derive", 201, rules=["by-side"])["groups"][0]
    post(desk, "/api/rig/cells", numbers=[1], column="x", text="3")
    now = groups(desk)["Pars, left"]
    assert (now["by_rule"], now["outdated"], now["heads"]) == (True, True, ["1", "2", "3", "4"])
    assert post(desk, f"/api/groups/{left['id']}/renew")["heads"] == ["2", "3", "4"]
    desk.patch(f"/api/groups/{left['id']}", json={"heads": ["4", "3"]})
    assert not groups(desk)["Pars, left"]["by_rule"], "changed by hand"
    post(desk, "/api/groups/order", order=[left["id"]])
    assert next(iter(groups(desk))) == "Pars, left"
    assert desk.patch(f"/api/groups/{group}", json={"name": "pars, LEFT"}).status_code == 409


def test_what_is_on_an_empty_group_waits_and_says_so(desk):
    group = post(desk, "/api/groups", 201, name="Later")["id"]
    effect = desk.get("/api/effects").json["effects"][0]["id"]
    page = desk.get("/api/pages").json["pages"][0]["id"]
    body = {"place": 1, "mode": "fader", "name": "Wave"}
    body["drives"] = {"kind": "effect", "number": effect, "group_id": group}
    control = post(desk, f"/api/pages/{page}/controls", 201, **body)
    assert control["waits"] == "Waits for lights: the group “Later” is empty."
    assert control_part(desk).target.heads == ()
    answer = desk.delete(f"/api/groups/{group}")
    assert (answer.status_code, answer.json["message"]) == (
        409, "“Later” is in use, by the control “Wave”. Take it out of there first.",
    )  # fmt: skip
    desk.patch(f"/api/groups/{group}", json={"heads": ["2", "1"]})
    assert control_part(desk).target.heads == ("2", "1")
    post(desk, "/api/rig/cells", numbers=[2], column="number", text="50")
    assert control_part(desk).target.heads == ("50", "1")
    [shown] = desk.get("/api/pages").json["pages"][0]["controls"]
    assert (shown["heads"], shown["group"], shown["waits"]) == (["50", "1"], "Later", "")
