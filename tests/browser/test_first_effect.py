"""From a selection to a fader, by mouse and keyboard, with the values that the node received."""

import re

import numpy as np
import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api, expected_levels, hold_still, live_state, node_shows, spot_levels
from tests.waiting import until

SPOTS = [str(n) for n in range(101, 111)]


@pytest.fixture(autouse=True)
def quiet_stage(demo):
    """Nothing runs, nothing is in the draft."""
    act(demo, do="stop-all")
    api(demo, "/api/draft", method="DELETE")
    live_state(demo, lambda state: not state["running"])


def select(page, text):
    quick = page.get_by_role("textbox", name="Quick selection")
    page.keyboard.press("/")
    expect(quick).to_be_focused()
    page.keyboard.type(text)
    expect(quick).to_have_value(text)
    page.keyboard.press("Enter")
    expect(quick).to_have_value("")  # it is emptied as the heads are selected
    page.get_by_text("None selected").wait_for(state="detached")


def show_faders(page):
    page.get_by_role("tab", name="Busk").click()
    page.get_by_role("button", name="Salt night").click()
    page.get_by_role("menuitem", name="Faders and buttons").click()


def slot(page, name):
    return page.locator("[data-slot]").filter(has_text=name).first


def choose(page, value, option):
    page.get_by_role("button", name=value, exact=True).click()
    page.get_by_role("option", name=option, exact=True).click()


def type_number(page, value, text):
    page.get_by_role("button", name=value, exact=True).focus()
    page.keyboard.type(text)
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")


def start(page, move="Intensity"):
    page.get_by_role("button", name="New effect").click()
    page.get_by_role("menuitem", name=move, exact=True).click()
    page.get_by_role("heading", name="New").wait_for()


def draft_effect(demo):
    entry = until(lambda: api(demo, "/api/draft")["effects"])[-1]
    return entry, api(demo, f"/api/effects/{entry['effect_id']}")["document"]


def frozen_node_matches_core(demo, base):
    entry, document = draft_effect(demo)
    key = f"draft:{entry['id']}"
    theta = hold_still(demo, key)
    levels = expected_levels(document, entry["heads"], theta, base)
    by_number = np.array([dict(zip(entry["heads"], levels, strict=True))[head] for head in SPOTS])
    assert by_number.max() - by_number.min() > 5, "the effect is spread over the heads"
    node_shows(demo, by_number)
    act(demo, do="freeze", key=key, on=False)


@pytest.mark.first
def test_a_first_effect_from_selection_to_fader(page, demo):
    # select by words, look at the order, reorder
    select(page, "101-110")
    expect(page.get_by_text("10 heads", exact=True)).to_be_visible()
    page.get_by_role("button", name="Order").click()
    page.get_by_role("option", name="centre out").click()
    # a base by hand, and back
    level = page.get_by_role("textbox", name="Intensity")
    level.fill("30")
    level.press("Enter")
    node_shows(demo, np.full(10, 30.0))
    page.get_by_role("button", name="Take back").click()
    node_shows(demo, np.zeros(10))
    # an effect, edited while it runs
    start(page)
    until(lambda: spot_levels(demo).max() > 30)
    choose(page, "Form: swell", "triangle")
    type_number(page, "Depth: 70 %", "64")
    choose(page, "Spread: a ripple", "a relay")
    type_number(page, "Handover: 100 %", "30")
    choose(page, "Speed by: tempo", "seconds")
    page.get_by_role("button", name="Depth: 64 %", exact=True).wait_for()
    entry, document = draft_effect(demo)
    assert entry["heads"] == ["105", "106", "104", "107", "103", "108", "102", "109", "101", "110"]
    assert document["layers"][0]["anchor"] == {"kind": "above", "depth": 64.0}
    assert document["spread"]["handover"] == 0.3
    frozen_node_matches_core(demo, base=0.0)
    # keep it under a name
    page.get_by_role("button", name="Keep").click()
    name = page.get_by_role("textbox", name="Name")
    name.fill("Tide fold")
    name.press("Enter")
    expect(page.get_by_text("There is an effect named “Tide fold” already")).to_be_visible()
    name.fill("Salt relay")
    name.press("Enter")
    page.get_by_role("listbox", name="Library").get_by_role("option", name="Salt relay").wait_for()
    # apply it to a selection of another size
    page.get_by_role("group", name="Groups").get_by_role("button", name="Side ladders").click()
    page.get_by_role("button", name="Apply").click()
    until(lambda: len(api(demo, "/api/draft")["effects"]) == 2)
    until(lambda: max(demo.universe(2)["slots"][128:224:8]) > 0)
    # put it on a fader, clear the draft, run it from there
    page.get_by_role("listbox", name="Effects in the draft").get_by_role("option").first.click()
    page.get_by_role("button", name="Put it on").click()
    page.get_by_role("textbox", name="Name on the page").fill("Spots: salt relay")
    page.get_by_role("button", name="Put it there").click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.press("Shift+Escape")
    until(lambda: not api(demo, "/api/draft")["effects"])
    node_shows(demo, np.zeros(10))
    show_faders(page)
    page.get_by_role("slider", name="Spots: salt relay").focus()
    page.keyboard.press("End")
    until(lambda: spot_levels(demo).max() > 40)
    expect(page.get_by_role("contentinfo").get_by_text("Salt relay")).to_be_visible()
    # masters
    page.get_by_role("button", name="Blackout").click()
    node_shows(demo, np.zeros(10))
    page.get_by_role("button", name="Blackout").click()
    until(lambda: spot_levels(demo).max() > 40)
    page.get_by_role("slider", name="Grand master", exact=True).focus()
    page.keyboard.press("Home")
    node_shows(demo, np.zeros(10))
    page.keyboard.press("End")


def test_boxes_and_clicks_select_heads_in_their_order(page, demo):
    canvas = page.get_by_label("Stage", exact=True).locator("canvas")
    page.get_by_role("img", name=re.compile("The rig, live: [1-9]")).wait_for()
    box = canvas.bounding_box()
    page.mouse.move(box["x"] + 100, box["y"] + 40)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] - 100, box["y"] + 66, steps=4)
    page.mouse.up()
    expect(page.get_by_text("10 heads", exact=True)).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_text("None selected")).to_be_visible()


def test_a_selection_that_means_nothing_is_told_and_nothing_is_lost(page):
    select(page, "101-105")
    expect(page.get_by_text("5 heads", exact=True)).to_be_visible()
    page.keyboard.press("/")
    page.keyboard.type("sideways")
    page.keyboard.press("Enter")
    expect(page.get_by_text("“sideways” means nothing here")).to_be_visible()
    expect(page.get_by_text("5 heads", exact=True)).to_be_visible()


def test_a_slider_previews_while_it_moves_and_is_one_step_to_undo(page, demo):
    select(page, "101-110")
    start(page)
    _, before = draft_effect(demo)
    page.get_by_role("button", name="Depth: 70 %", exact=True).click()
    track = page.get_by_role("dialog", name="Depth").get_by_role("slider")
    page.get_by_role("dialog", name="Depth").element_handle().wait_for_element_state("stable")
    box = page.get_by_role("dialog", name="Depth").bounding_box()
    thumb = track.locator("xpath=../..").bounding_box()
    y = thumb["y"] + thumb["height"] / 2
    page.mouse.move(thumb["x"] + 4, y)
    page.mouse.down()
    for step in range(8):
        page.mouse.move(box["x"] + 120 + 12 * step, y)
    until(lambda: track.input_value() != "70")
    page.get_by_role("button", name="Depth: 70 %", exact=True).wait_for(state="detached")
    assert draft_effect(demo)[1] == before, "nothing is kept while it moves"
    page.mouse.up()
    until(lambda: draft_effect(demo)[1] != before)
    page.keyboard.press("Escape")
    page.keyboard.press("Control+z")
    until(lambda: draft_effect(demo)[1] == before)
