"""The demo goes on tour: pairs, lines, what would change; its busking page works there. A light stands in."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api
from tests.waiting import until


@pytest.fixture
def touring(page, demo):
    page.get_by_role("tab", name="Rig", exact=True).click()
    page.get_by_role("button", name="Fixtures", exact=True).click()
    page.get_by_role("menuitem", name="Take over to other lights").click()
    return page


def test_the_demo_goes_on_tour_and_its_busking_page_works_there(touring, demo):
    page = touring
    own = page.get_by_role("region", name="Take over")
    light = own.get_by_role("slider", name="Light 11", exact=True)
    expect(light).to_have_attribute("aria-valuetext", "11 takes over from 102")
    expect(own.get_by_text("8 take over from the inner ones of 10. Still mirrored.")).to_be_visible()
    expect(own.get_by_alt_text("The weave Then, 8 heads")).to_be_visible()
    expect(own.get_by_text("Not mirrored on either: this effect runs across them.")).to_be_visible()
    own.get_by_role("button", name=re.compile("seen in")).click()
    page.get_by_role("option", name="Tide fold", exact=True).click()
    expect(own.get_by_text("Still mirrored: left and right do the same on both.")).to_be_visible()

    light.press("ArrowLeft")
    expect(light).to_have_attribute("aria-valuetext", "11 takes over from 101")
    expect(own.get_by_text("As drawn by hand. Not mirrored any more.")).to_be_visible()
    box, over = light.bounding_box(), own.get_by_text("102", exact=True).bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(over["x"] + over["width"] / 2, over["y"] + over["height"] / 2, steps=4)
    page.mouse.up()
    expect(light).to_have_attribute("aria-valuetext", "11 takes over from 102")
    expect(own.get_by_text("As drawn by hand. Still mirrored.")).to_be_visible()

    expect(own.get_by_role("alert")).to_have_count(0)
    own.locator("summary", has_text="cues").click()
    expect(own.get_by_text("Tide Clock, cue 6 “Figure”")).to_be_visible()
    own.get_by_role("button", name="Take over", exact=True).click()
    expect(page.get_by_text("Taken over to a rig of 42 lights. The show as it was is a copy, in Shows.")).to_be_visible()
    expect(page.get_by_role("gridcell", name="11", exact=True)).to_be_visible()

    page.get_by_role("tab", name="Busk", exact=True).click()
    expect(page.get_by_text("8 lights", exact=True).first).to_be_visible()
    act(demo, do="stop-all", seconds=0)
    page.get_by_role("slider", name="Rear spots: level").fill("100")
    until(lambda: demo.universe(1)["slots"][4] > 250)
    page.get_by_role("button", name="Undo").click()
    until(lambda: len(api(demo, "/api/rig")["fixtures"]) == 81)


def test_a_light_stands_in_for_a_broken_one_in_two_taps_and_goes_back_in_one(page, demo):
    page.get_by_role("tab", name="Rig", exact=True).click()
    page.get_by_role("button", name="Stand in:").click()
    expect(page.get_by_text("Which light is broken? Point at it.")).to_be_visible()
    stage = page.get_by_role("img", name="The rig, live").bounding_box()
    places = {n: stage["x"] + stage["width"] * (0.5 + (n - 5.5) * 107 / 1280) for n in (1, 4)}
    page.mouse.click(places[1], 114)
    expect(page.get_by_text("Now point at the light that stands in for 101.")).to_be_visible()
    page.mouse.click(places[4], 114)
    chips = page.get_by_role("contentinfo", name="Now running")
    expect(chips.get_by_text("104 for 101")).to_be_visible()
    until(lambda: demo.universe(1)["slots"][4] == 0)
    chips.get_by_role("button", name="Give 101 back").click()
    expect(chips.get_by_text("104 for 101")).to_have_count(0)

    page.get_by_role("gridcell", name="102", exact=True).click()
    page.get_by_role("button", name="Stand in:").click()
    expect(page.get_by_text("Now point at the light that stands in for 102.")).to_be_visible()
    page.mouse.click(places[4], 114)
    expect(chips.get_by_text("104 for 102")).to_be_visible()
    page.keyboard.press("Escape")
    act(demo, **{"do": "stand-in", "light": 102})
    expect(chips.get_by_text("104 for 102")).to_have_count(0)
