"""The Cues view by mouse and keyboard: cues are recorded, run with Space, changed where they come from, updated on stage."""

import re

import numpy as np
import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api, live_state, spot_levels
from tests.waiting import until

SPOTS = [str(number) for number in range(101, 111)]


@pytest.fixture(autouse=True)
def quiet_stage(demo):
    act(demo, do="release-all", seconds=0)
    api(demo, "/api/draft", method="DELETE")
    live_state(demo, lambda state: not state["running"])


@pytest.fixture
def trial(page, demo):
    """A list with nothing in it, looked at."""
    made = api(demo, "/api/cue-lists", {"name": "Trial"})["id"]
    page.get_by_role("tab", name="Cues", exact=True).click()
    page.get_by_role("button", name="Trial").click()
    page.get_by_role("heading", name="No cue yet").wait_for()
    yield made
    act(demo, do="release", list=made, seconds=0)
    api(demo, f"/api/cue-lists/{made}", method="DELETE")


def by_hand(demo, attribute, to, heads=SPOTS):
    api(demo, "/api/draft/change", {"heads": heads, "attribute": attribute, "to": to})


def record(page, name):
    page.get_by_role("button", name=re.compile("^Record")).first.click()
    page.get_by_label("Name", exact=True).fill(name)
    page.get_by_label("Fades in").fill("0")
    page.get_by_role("button", name="Record", exact=True).click()
    row(page, name).wait_for()


def row(page, name):
    return page.get_by_role("listitem", name=re.compile(rf"Cue [0-9.]+ {name}$"))


def levels(demo):
    return np.round(spot_levels(demo), 1).tolist()


def line(page, text):
    return page.get_by_role("region", name="Rear spots").get_by_role("button", name=re.compile(text))


def test_three_cues_with_an_effect_carried_on_and_stopped(page, demo, trial):
    effect = next(one for one in api(demo, "/api/effects")["effects"] if one["name"] == "Wide circle")
    by_hand(demo, "intensity", 80)
    by_hand(demo, "zoom", 20)
    api(demo, "/api/draft/effects", {"effect_id": effect["id"], "heads": SPOTS})
    record(page, "One")
    by_hand(demo, "zoom", 30)
    record(page, "Two")
    by_hand(demo, "intensity", 40)
    record(page, "Three")
    expect(line(page, "Intensity 40 %")).to_be_visible()
    expect(line(page, "Zoom 30 ° from 2")).to_be_visible()
    page.get_by_role("button", name="Wide circle: more").click()
    page.get_by_role("menuitem", name="Stops here").click()
    expect(page.get_by_role("button", name="Wide circle, from cue 1, to cue 3")).to_be_visible()
    api(demo, "/api/draft", method="DELETE")

    def is_on(cue, runs):
        def so(state):
            own = next(one for one in state["lists"] if one["id"] == trial)
            return own["cue"] == cue and [one["name"] for one in state["running"]] == runs

        live_state(demo, so)

    ids = [one["id"] for one in api(demo, f"/api/cue-lists/{trial}")["rows"]]
    page.get_by_role("heading", name="Trial").click()
    for cue, level, runs in zip(ids, (80, 80, 40), (["Wide circle"], ["Wide circle"], []), strict=True):
        page.keyboard.press("Space")
        is_on(cue, runs)
        until(lambda: levels(demo) == [level] * 10)  # noqa: B023
    expect(row(page, "Three")).to_have_attribute("aria-current", "true")
    row(page, "Three").get_by_text("Three", exact=True).click()
    page.get_by_role("button", name="Back", exact=True).click()
    is_on(ids[1], ["Wide circle"])
    page.keyboard.press("Space")
    is_on(ids[2], [])

    # a carried value is changed where it came from
    line(page, "Zoom 30 ° from 2").click()
    zoom = page.get_by_role("dialog").get_by_label("Zoom")
    zoom.fill("12")
    zoom.press("Tab")  # taken before the button is pressed
    page.get_by_role("button", name="Set in cue 2").click()
    expect(line(page, "Zoom 12 ° from 2")).to_be_visible()

    # changed on stage, and put into the cue that it comes from
    by_hand(demo, "intensity", 55, ["101"])
    page.get_by_role("button", name="Update …").click()
    page.get_by_text("1 value from Trial, cue 3 Three").wait_for()
    page.get_by_role("button", name="Update", exact=True).click()
    expect(line(page, "Intensity 40 … 55 %")).to_be_visible()
    until(lambda: levels(demo) == [55.0, *[40.0] * 9])
    assert api(demo, "/api/draft")["values"] == {}, "it is in the cue now"


@pytest.mark.first
def test_a_fade_is_dragged_in_its_bar_and_undone(page, demo, trial):
    by_hand(demo, "intensity", 80)
    record(page, "One")
    grip = row(page, "One").locator('[data-grip="intensity end"]')
    box = grip.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + 90, box["y"] + 3, steps=4)
    page.mouse.up()

    def fade():
        return api(demo, f"/api/cue-lists/{trial}")["rows"][0]["times"]["intensity"]["up"]

    until(lambda: fade() > 1)
    assert api(demo, f"/api/cue-lists/{trial}")["rows"][0]["times"]["intensity"]["down"] == fade()
    page.keyboard.press("Control+z")
    until(lambda: fade() == 0)


def test_space_goes_after_a_press_and_acts_where_the_keyboard_has_its_focus(page, demo, trial):
    for name, level in (("One", 10), ("Two", 20), ("Three", 30)):
        by_hand(demo, "intensity", level)
        record(page, name)
    api(demo, "/api/draft", method="DELETE")
    ids = [one["id"] for one in api(demo, f"/api/cue-lists/{trial}")["rows"]]

    def on(cue, paused=False):
        live_state(demo, lambda state: any(
            one["id"] == trial and one["cue"] == cue and (one["paused_at"] is not None) == paused for one in state["lists"]
        ))  # fmt: skip

    page.get_by_role("button", name=re.compile("^Go ")).click()
    on(ids[0])
    page.get_by_role("button", name="Pause", exact=True).click()
    on(ids[0], paused=True)
    page.keyboard.press("Space")  # go on a paused list only resumes it; pause has no focus left
    on(ids[0])
    page.keyboard.press("Space")
    on(ids[1])
    page.get_by_role("button", name="Pause", exact=True).focus()
    page.keyboard.press("Shift+Tab")
    page.keyboard.press("Tab")
    page.keyboard.press("Space")  # the keyboard has put a visible focus on pause
    on(ids[1], paused=True)


def test_two_browsers_are_in_step_and_say_what_is_gone(page, opened, demo, trial):
    by_hand(demo, "intensity", 60)
    record(page, "One")
    second = opened()
    second.get_by_role("tab", name="Cues", exact=True).click()
    second.get_by_role("button", name="Trial").click()
    page.get_by_role("heading", name="Trial").click()
    page.keyboard.press("Space")
    expect(row(second, "One")).to_have_attribute("aria-current", "true")
    second.get_by_role("tab", name="Times and more").click()
    second.get_by_label("Name", exact=True).fill("First")
    second.get_by_label("Name", exact=True).press("Enter")
    expect(row(page, "First")).to_be_visible()
    row(page, "First").get_by_role("button", name=re.compile("more")).click()
    page.get_by_role("menuitem", name="Delete", exact=True).click()
    expect(second.get_by_role("heading", name="No cue yet")).to_be_visible()


def test_a_cue_sends_a_message_and_a_device_that_does_not_answer_is_told(page, demo, trial):
    by_hand(demo, "intensity", 60)
    record(page, "One")
    row(page, "One").click()
    page.get_by_role("button", name="Add a message").click()
    page.get_by_label("Address").fill("clip")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_text("an OSC address begins with /", exact=False)).to_be_visible()
    page.get_by_label("Address").fill("/clip/play")
    page.get_by_label("Arguments").fill('"two words" 1.0')
    page.get_by_role("button", name="Add", exact=True).click()
    messages = page.get_by_role("region", name="Messages")
    expect(messages.get_by_role("listitem")).to_have_text(['at oncePixel server: /clip/play "two words" 1.0'])
    expect(row(page, "One")).to_contain_text("sends 1")
    page.get_by_role("heading", name="Trial").click()
    page.keyboard.press("Space")
    page.get_by_role("tab", name="Output").click()
    page.get_by_role("tab", name="Devices").click()
    got = page.get_by_role("region", name="Simulated pixel server")
    expect(got.get_by_text('/clip/play "two words" 1.0').first).to_be_visible()
    page.get_by_role("button", name="Unplug the pixel server").click()
    expect(got.get_by_text("Unplugged", exact=True)).to_be_visible()
    cue = api(demo, f"/api/cue-lists/{trial}")["rows"][0]["id"]
    act(demo, do="go-to", list=trial, cue=cue)
    device = page.get_by_role("listitem", name="Pixel server")
    expect(device.get_by_text("did not reach it", exact=False)).to_be_visible()
    assert levels(demo)[0] == 60, "the light goes on"
    page.get_by_role("button", name="Unplug the pixel server").click()
    expect(got.get_by_text("Unplug it", exact=True)).to_be_visible()
    act(demo, do="go-to", list=trial, cue=cue)
    expect(device.get_by_text("did not reach it", exact=False)).to_have_count(0)
