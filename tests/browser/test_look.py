"""The Look view by mouse and keyboard: values by family, lights that are aimed, and the draft."""

import re

import numpy as np
import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api, live_state
from tests.browser.test_access import bare, findings  # noqa: F401
from tests.browser.test_first_effect import select
from tests.waiting import until
from zarabanda.core.rig import stage

FIVE = ["101", "102", "103", "104", "105"]


@pytest.fixture(autouse=True)
def quiet_stage(demo):
    act(demo, do="stop-all")
    api(demo, "/api/draft", method="DELETE")
    live_state(demo, lambda state: not state["running"])


@pytest.fixture
def look(page):
    page.get_by_role("tab", name="Look", exact=True).click()
    select(page, "101-105")
    page.get_by_role("group", name="Intensity", exact=True).wait_for()
    return page


def choose(page, text):
    """Select, from wherever the focus is."""
    page.get_by_role("contentinfo", name="Now running").get_by_text("Running", exact=True).click()
    select(page, text)


def values(demo, attribute):
    return api(demo, "/api/draft")["values"].get(attribute, {})


def landed(demo):
    """Where the beams of the five land on the floor, computed from what is in the draft."""
    rig = {one["number"]: one for one in api(demo, "/api/rig")["fixtures"]}
    places = np.array([rig[int(key)]["place"] for key in FIVE])
    turns = np.array([stage.rotation(*rig[int(key)]["rotation"]) for key in FIVE])
    pan, tilt = (np.array([values(demo, name)[key] for key in FIVE]) for name in ("pan", "tilt"))
    return stage.landing(places, stage.direction(pan, tilt, turns), 2, 0.0)[0]


def test_five_lights_are_aimed_at_one_point_and_fanned_across(look, demo):
    page = look
    plan = page.get_by_role("application", name=re.compile("Aim on the plan"))
    box = plan.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] * 0.7)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] * 0.6, box["y"] + box["height"] * 0.6, steps=4)
    page.mouse.up()
    expect(page.get_by_text("5 of 5 reach it.")).to_be_visible()
    until(lambda: len(values(demo, "pan")) == 5)
    at = landed(demo)
    assert np.abs(at - at[0]).max() < 0.01
    said = [float(one) for one in re.findall(r"-?[0-9.]+", plan.get_attribute("aria-label"))[:2]]
    assert at[0][:2] == pytest.approx(said, abs=0.01)
    page.get_by_role("region", name="Aim").get_by_role("button", name="Point").click()
    page.get_by_role("option", name="fanned across").click()
    until(lambda: np.ptp(landed(demo)[:, 0]) == pytest.approx(4, abs=0.02))
    plan.focus()
    page.keyboard.press("Shift+ArrowRight")
    until(lambda: landed(demo)[2][0] == pytest.approx(said[0] + 1, abs=0.02))
    before = values(demo, "tilt")
    page.get_by_role("button", name="Other way round").click()
    until(lambda: np.sign(values(demo, "tilt")["101"]) == -np.sign(before["101"]))
    assert landed(demo)[2][0] == pytest.approx(said[0] + 1, abs=0.02)


def test_shift_drags_by_the_same_difference_and_lights_that_lack_it_are_counted(look, demo):
    page = look
    api(demo, "/api/draft/values", {"values": {"zoom": {"101": 10.0, "102": 20.0}}})
    select(page, "101, 102, 601")
    zoom = page.get_by_role("group", name="Zoom", exact=True)
    zoom.get_by_text("2 of ", exact=False).wait_for()
    box = zoom.get_by_role("slider").locator("xpath=ancestor::*[@data-rac][1]").bounding_box()
    page.keyboard.down("Shift")
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2 + 20, box["y"] + box["height"] / 2, steps=3)
    page.mouse.up()
    page.keyboard.up("Shift")
    until(lambda: values(demo, "zoom").get("101", 10) > 10.5)
    now = values(demo, "zoom")
    assert now["102"] - now["101"] == pytest.approx(10, abs=0.01)


def test_axe_finds_nothing(bare, demo):  # noqa: F811
    for size in ((1280, 800), (1024, 768)):
        page = bare(*size)
        page.get_by_role("tab", name="Look", exact=True).click()
        select(page, "101-105")
        page.get_by_role("application", name="Aim on the plan").wait_for()
        assert findings(page) == []
