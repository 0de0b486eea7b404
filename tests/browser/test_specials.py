"""Specials on the live page: pressed on and off while effects run, made and aimed without leaving it."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api, live_state


@pytest.fixture(autouse=True)
def all_home(demo):
    act(demo, do="specials-home")
    act(demo, do="specials-level", value=1)
    live_state(demo, lambda state: all(one["phase"] == "off" for one in state["specials"]))


@pytest.fixture
def busk(page):
    page.get_by_role("tab", name="Busk", exact=True).click()
    pad(page, "Singer").wait_for()
    return page


def pad(page, name):
    return page.get_by_role("group", name="Specials").get_by_role("button", name=re.compile(rf"^{name}(?! to the drums)"))


def told(demo, name, wanted):
    def there(state):
        return any(one["name"] == name and wanted(one) for one in state["specials"])

    return next(one for one in live_state(demo, there)[0]["specials"] if one["name"] == name)


def test_a_special_goes_through_the_dark_and_home_while_effects_run(busk, demo):
    singer = pad(busk, "Singer")
    singer.click()
    expect(singer).to_contain_text(re.compile(r"in the dark, \d\.\d s|going dark|opening"))
    told(demo, "Singer", lambda one: one["phase"] == "on")
    expect(singer).to_have_attribute("aria-pressed", "true")
    expect(busk.get_by_role("contentinfo", name="Now running")).to_contain_text("special · on")
    busk.get_by_role("slider", name="Level of all specials").fill("40")
    live_state(demo, lambda state: state["specials_level"] == 0.4)
    singer.click()
    assert told(demo, "Singer", lambda one: one["phase"].startswith("home"))["on"] is False
    told(demo, "Singer", lambda one: one["phase"] == "off")
    expect(singer).to_contain_text("4 lights, Singer's mark")


def test_one_is_made_aimed_and_pressed_without_leaving_the_live_page(busk, demo):
    page = busk
    page.get_by_role("button", name="Specials: more").click()
    page.get_by_role("menuitem", name="Make a special").click()
    side = page.get_by_role("complementary", name="A special")
    side.get_by_role("textbox", name="Name of the special").fill("Guest")
    side.get_by_role("button", name=re.compile("Lights$")).click()
    page.get_by_role("option", name="Mid washes").click()
    plan = side.get_by_role("application", name=re.compile("Aim on the plan"))
    box = plan.bounding_box()
    page.mouse.click(box["x"] + box["width"] * 0.7, box["y"] + box["height"] * 0.4)
    side.get_by_role("button", name="Keep, press").click()
    guest = told(demo, "Guest", lambda one: one["phase"] == "on")
    assert guest["of"] == 10
    x = next(one for one in api(demo, "/api/specials")["specials"] if one["name"] == "Guest")["point"][0]
    assert x > 1
    expect(side.get_by_role("button", name="On: home")).to_be_visible()
    plan.focus()
    plan.press("ArrowLeft")
    expect(plan).to_have_attribute("aria-label", re.compile(f"{round(x - 0.1, 2):g} m across"))
    side.get_by_role("button", name="On: home").click()
    side.get_by_role("button", name="more", exact=True).click()
    page.get_by_role("menuitem", name="Delete it").click()
    expect(pad(page, "Guest")).to_have_count(0)


def test_a_second_special_takes_the_same_lights_and_all_go_home_by_one_press(busk, demo):
    pad(busk, "Singer").click()
    told(demo, "Singer", lambda one: one["phase"] == "on")
    pad(busk, "Singer to the drums").click()
    told(demo, "Singer to the drums", lambda one: one["phase"] == "on" and one["lights"] == 4)
    busk.get_by_role("button", name="Specials, all home").click()
    live_state(demo, lambda state: all(one["phase"] == "off" for one in state["specials"]))
