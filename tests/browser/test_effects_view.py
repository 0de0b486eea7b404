"""The Effects view: scope, files, what is frozen; each with what the engine or the show then has."""

import json

import numpy as np
import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api, live_state, spot_levels
from tests.browser.test_first_effect import draft_effect, select, start
from tests.waiting import until


@pytest.fixture(autouse=True)
def quiet_stage(demo):
    act(demo, do="stop-all")
    api(demo, "/api/draft", method="DELETE")
    live_state(demo, lambda state: not state["running"])


def test_dragging_in_the_scope_sets_the_depth_in_one_step(page, demo):
    select(page, "101-110")
    start(page)
    _, before = draft_effect(demo)
    picture = page.get_by_role("img", name="Layer 1: intensity over one cycle")
    box = picture.bounding_box()
    page.mouse.move(box["x"] + 60, box["y"] + 100)
    page.mouse.down()
    for step in range(6):
        page.mouse.move(box["x"] + 60, box["y"] + 100 + 6 * step)
    page.get_by_role("button", name="Depth: 70 %", exact=True).wait_for(state="detached")
    assert draft_effect(demo)[1] == before
    page.mouse.up()
    after = until(lambda: (now := draft_effect(demo)[1]) != before and now)
    assert after["layers"][0]["anchor"]["depth"] < 60
    page.keyboard.press("Control+z")
    until(lambda: draft_effect(demo)[1] == before)


def test_an_effect_goes_out_as_a_file_and_comes_back_with_what_is_wrong_told(page, demo, tmp_path):
    page.get_by_role("listbox", name="Library").get_by_role("option", name="Undertow").click()
    page.get_by_role("button", name="Undertow: more").click()
    with page.expect_download() as saved:
        page.get_by_role("menuitem", name="Export as a file").click()
    document = json.loads(saved.value.path().read_text())
    assert document["name"] == "Undertow"
    broken = document | {"name": "Broken", "layers": [document["layers"][0] | {"ratio": -1}]}
    file = tmp_path / "set.json"
    file.write_text(json.dumps({"format": "zarabanda.effects/1", "effects": [document | {"name": "Undertow again"}, broken]}))
    page.get_by_label("A file of effects").set_input_files(str(file))
    told = page.get_by_role("dialog", name="Not everything could be read")
    expect(told).to_contain_text("layers.0.ratio")
    told.get_by_role("button", name="Close").click()
    names = [effect["name"] for effect in api(demo, "/api/effects")["effects"]]
    assert "Undertow again" in names
    assert "Broken" not in names
    page.get_by_role("listbox", name="Library").get_by_role("option", name="Undertow again").wait_for()
    page.wait_for_load_state("networkidle")  # its weave has come: nothing asks for it once it is gone
    page.keyboard.press("Control+z")
    until(lambda: "Undertow again" not in [effect["name"] for effect in api(demo, "/api/effects")["effects"]])


def test_what_is_kept_of_a_frozen_effect_is_what_was_on_stage(demo):
    act(demo, do="level", control="control:1", value=0.25)
    until(lambda: spot_levels(demo).max() > 2)
    act(demo, do="freeze", key="control:1")
    live_state(demo, lambda state: any(one["frozen"] for one in state["running"]))
    [before] = until(lambda: (now := spot_levels(demo)).max() > 1 and (now == spot_levels(demo)).all() and [now])
    api(demo, "/api/draft/keep-frozen", {"key": "control:1"})
    live_state(demo, lambda state: not state["running"])
    np.testing.assert_allclose(spot_levels(demo), before, atol=0.01)
    kept = api(demo, "/api/draft")["values"]["intensity"]
    np.testing.assert_allclose([kept[str(n)] for n in range(101, 111)], before, atol=0.01)
    assert before.max() < 40, "a quarter of what it would be at full"
