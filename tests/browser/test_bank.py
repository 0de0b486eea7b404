"""Pages of faders and buttons, looks, overlays and action lists by mouse and keyboard."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api, live_state


@pytest.fixture(autouse=True)
def quiet(demo):
    act(demo, do="release-all", seconds=0)
    act(demo, do="grand", value=1)
    act(demo, do="blackout", on=False)
    act(demo, do="specials-home")
    live_state(demo, lambda state: not state["running"] and not state["actions"] and not state["looks"])


@pytest.fixture
def bank(page):
    page.get_by_role("tab", name="Busk", exact=True).click()
    page.get_by_role("button", name="Salt night").wait_for()
    page.keyboard.press("Home")
    page.get_by_role("region", name="Dance floor").wait_for()
    return page


def button(page, name):
    return page.get_by_role("region").get_by_role("button", name=re.compile(f"^{re.escape(name)}"))


def test_faders_and_buttons_do_what_they_say_and_show_what_runs(bank, demo):
    page = bank
    page.get_by_role("slider", name="Rose over, mixes the overlay in").fill("40")
    live_state(demo, lambda state: any(one["name"] == "Rose over" and one["share"] == 0.4 for one in state["overlays"]))
    ribbon = page.get_by_role("contentinfo", name="Now running")
    expect(ribbon).to_contain_text("overlay · 40 %")
    button(page, "Heather swirl").click()
    live_state(demo, lambda state: [one["name"] for one in state["looks"]] == ["Heather swirl"])
    expect(button(page, "Heather swirl")).to_have_attribute("aria-pressed", "true")
    ribbon.get_by_role("button", name="Let go of Heather swirl").click()
    live_state(demo, lambda state: not state["looks"])
    expect(button(page, "Heather swirl")).to_have_attribute("aria-pressed", "false")
    ribbon.get_by_role("button", name="Take out Rose over").click()
    live_state(demo, lambda state: all(one["share"] == 0 for one in state["overlays"]))


def test_alone_while_held_and_a_fader_that_another_browser_moves(bank, demo, opened):
    page = bank
    box = button(page, "Front alone").bounding_box()
    page.mouse.move(box["x"] + 20, box["y"] + 20)
    page.mouse.down()
    key = next(one["key"] for one in api(demo, "/api/pages")["pages"][0]["controls"] if one["name"] == "Front alone")
    live_state(demo, lambda state: state["levels"][key] == 1)
    page.mouse.up()
    live_state(demo, lambda state: state["levels"][key] == 0)
    other = opened()
    other.get_by_role("tab", name="Busk", exact=True).click()
    other.keyboard.press("Home")
    other.get_by_role("slider", name="Mid washes, level of the group").fill("30")
    expect(page.get_by_role("slider", name="Mid washes, level of the group")).to_have_value("30")
    page.get_by_role("slider", name="Mid washes, level of the group").fill("100")
    expect(other.get_by_role("slider", name="Mid washes, level of the group")).to_have_value("100")


def test_a_look_is_kept_of_the_draft_and_pressed_on_its_button(page, demo):
    api(demo, "/api/draft/change", {"heads": ["201", "202"], "attribute": "intensity", "to": 64})
    page.get_by_role("tab", name="Look", exact=True).click()
    page.get_by_role("radio", name="Looks, overlays").click()
    page.get_by_role("button", name="Keep a look").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("textbox", name="Name").fill("Two washes")
    dialog.get_by_role("button", name=re.compile("Put it on")).click()
    page.get_by_role("option", name="the next free button, on and off").click()
    dialog.get_by_role("button", name="Keep", exact=True).click()
    expect(dialog).to_have_count(0)
    api(demo, "/api/draft", method="DELETE")
    page.get_by_role("tab", name="Busk", exact=True).click()
    page.keyboard.press("Home")
    button(page, "Two washes").click()
    live_state(demo, lambda state: [one["name"] for one in state["looks"]] == ["Two washes"])
    look = next(one for one in api(demo, "/api/looks")["looks"] if one["name"] == "Two washes")
    assert look["content"] == "intensity of 2 lights"
    api(demo, f"/api/looks/{look['id']}", method="DELETE")
    expect(button(page, "Two washes")).to_contain_text("its look is gone")
    control = next(one for one in api(demo, "/api/pages")["pages"][0]["controls"] if one["name"] == "Two washes")
    api(demo, f"/api/pages/controls/{control['id']}", method="DELETE")


def test_an_action_list_is_recorded_edited_and_run_by_its_key(bank, demo):
    page = bank
    page.get_by_role("button", name="Action lists").click()
    page.get_by_role("button", name="Record my hands").click()
    button(page, "Speech").click()
    page.get_by_role("slider", name="Master, grand master").fill("60")
    page.get_by_role("button", name="Keep as an action list").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("textbox", name="Name").fill("Quiet")
    dialog.get_by_role("button", name="Keep", exact=True).click()
    expect(dialog).to_have_count(0)
    quiet = next(one for one in api(demo, "/api/action-lists")["action_lists"] if one["name"] == "Quiet")
    assert [one["words"] for one in quiet["steps"]] == ["Speech: pressed", "Master: level 60 %"]
    page.get_by_role("button", name="Action lists").click()
    page.get_by_role("button", name="Quiet", exact=True).click()
    dialog.get_by_role("button", name="Master: level 60 %: more").click()
    page.get_by_role("menuitem", name="Earlier").click()
    expect(dialog.get_by_role("listitem").first).to_contain_text("Master: level 60 %")
    dialog.get_by_role("button", name=re.compile("Key$")).click()
    page.get_by_role("option", name="Shift+7").click()
    expect(dialog.get_by_role("button", name=re.compile("Key$"))).to_contain_text("Shift+7")
    page.keyboard.press("Escape")
    act(demo, do="release-all", seconds=0)
    act(demo, do="grand", value=1)
    live_state(demo, lambda state: not state["looks"] and state["grand"] == 1)
    expect(dialog).to_have_count(0)
    page.keyboard.press("Shift+Digit7")
    live_state(demo, lambda state: bool(state["looks"]) and state["grand"] == 0.6)
    api(demo, f"/api/action-lists/{quiet['id']}", method="DELETE")
