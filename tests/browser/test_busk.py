"""The busking page by mouse, several fingers and keyboard: each thing is one tap, all browsers see it, nothing scrolls."""

import re

import numpy as np
import pytest
from playwright.sync_api import expect

from tests.browser.conftest import PATIENCE_MS
from tests.browser.engine import act, api, live_state, spot_levels
from tests.waiting import until
from zarabanda.tools.browser import CONNECTED, open_page


@pytest.fixture(autouse=True)
def quiet_stage(demo):
    act(demo, do="release-all", seconds=0)
    act(demo, do="next-change", seconds=0, position_s=0, waits="")
    act(demo, do="all-waves", shape="", spread="", travel="")
    act(demo, do="flash-times", release_s=0)
    live_state(demo, lambda state: not state["running"])


@pytest.fixture
def rows(demo):
    """The rows of the demo's page by name."""
    return {row["name"]: row for row in api(demo, "/api/busk")["pages"][0]["rows"]}


@pytest.fixture
def busk(page):
    page.get_by_role("tab", name="Busk", exact=True).click()
    pad(page, "Rear spots: Coral").wait_for()
    return page


def pad(page, name):
    return page.get_by_role("button", name=re.compile(rf"^{re.escape(name)}(,|$)"))


def of(demo, row, wanted):
    """Wait until the engine tells something of a row."""
    return live_state(demo, lambda state: wanted(next(one for one in state["rows"] if one["id"] == row["id"])))[0]


def held(row, name, section="colour"):
    number = next(one["id"] for one in row[section] if one["name"] == name)
    return lambda told: any(one["pad"] == number for one in told["held"])


def tap(page, locator):
    """One press of the pointer in the middle of something, and nothing else."""
    box = locator.bounding_box()
    page.evaluate(
        "() => { window.presses ?? window.addEventListener('pointerdown', () => window.presses++, true); window.presses = 0 }"
    )
    page.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    assert page.evaluate("window.presses") == 1


@pytest.mark.first
def test_twelve_things_are_one_tap_each(busk, demo, rows):
    page, spots = busk, rows["Rear spots"]
    tap(page, pad(page, "Rear spots: Coral"))
    of(demo, spots, held(spots, "Coral"))
    tap(page, pad(page, "All: Lagoon"))
    of(demo, rows["All"], held(rows["All"], "Lagoon"))
    expect(pad(page, "Rear spots: Coral")).to_have_attribute("data-covered", "true")
    tap(page, pad(page, "Rear spots: Crowd"))
    of(demo, spots, held(spots, "Crowd", "position"))
    effect = pad(page, "Rear spots: Tide fold")
    tap(page, effect)
    of(demo, spots, lambda told: len(told["on"]) == 1)
    expect(effect).to_have_attribute("aria-pressed", "true")
    tap(page, effect)
    of(demo, spots, lambda told: told["on"] == [])
    depth = page.get_by_role("group", name="Rear spots, effects").get_by_role("group", name=re.compile("^Rear spots: depth of"))
    tap(page, depth)
    of(demo, spots, lambda told: told["depth"] < 0.9)
    act(demo, do="row-depth", row=spots["id"], value=1)
    tap(page, page.get_by_role("group", name="Speed of Movement"))
    live_state(demo, lambda state: state["tempos"][0]["bpm"] != 96)
    act(demo, do="tempos-back")
    for _ in range(2):
        tap(page, page.get_by_role("button", name="Tap Level"))
    live_state(demo, lambda state: state["tempos"][2]["bpm"] != 96)
    act(demo, do="tempos-back")
    flash = page.get_by_role("button", name="White, all on All, while held")
    box = flash.bounding_box()
    page.mouse.move(box["x"] + 10, box["y"] + 10)
    page.mouse.down()
    until(lambda: spot_levels(demo).min() > 99)
    page.mouse.up()
    until(lambda: spot_levels(demo).max() < 1)
    tap(page, page.get_by_role("group", name="Next change takes", exact=True))
    live_state(demo, lambda state: state["busk"]["seconds"] > 1)
    act(demo, do="next-change", seconds=0)
    tap(page, page.get_by_role("radio", name="rise"))
    live_state(demo, lambda state: state["busk"]["shape"] == "rise")
    tap(page, effect)
    of(demo, spots, lambda told: told["on"] != [])
    tap(page, page.get_by_role("button", name="Stop effects", exact=True))
    of(demo, spots, lambda told: told["on"] == [])
    tap(page, page.get_by_role("button", name=re.compile("^Bring back")))
    of(demo, spots, lambda told: told["on"] != [])


def test_two_fingers_on_odd_and_even(busk, demo, rows):
    page = busk
    page.get_by_role("button", name=re.compile("^Rear spots ")).click()
    session = page.context.new_cdp_session(page)
    session.send("Emulation.setTouchEmulationEnabled", {"enabled": True, "maxTouchPoints": 5})
    points = []
    for n, name in enumerate(("Odd", "Even")):
        box = page.get_by_role("button", name=f"{name} on Rear spots, while held").bounding_box()
        points.append({"x": box["x"] + 12, "y": box["y"] + 12, "id": n})
    session.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": points[:1]})
    until(lambda: np.allclose(spot_levels(demo), [100, 0] * 5, atol=0.1))
    session.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": points})
    until(lambda: np.allclose(spot_levels(demo), [0, 100] * 5, atol=0.1))
    session.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})
    until(lambda: spot_levels(demo).max() < 0.1)


def test_two_browsers_are_in_step_and_one_that_goes_lets_go(busk, opened, demo, rows):
    other = opened()
    other.get_by_role("tab", name="Busk", exact=True).click()
    pad(busk, "Mid washes: Coral").click()
    expect(pad(other, "Mid washes: Coral")).to_have_attribute("aria-pressed", "true")
    pad(other, "Mid washes: Lagoon").click()
    expect(pad(busk, "Mid washes: Lagoon")).to_have_attribute("aria-pressed", "true")
    expect(pad(busk, "Mid washes: Coral")).to_have_attribute("aria-pressed", "false")
    other.get_by_role("slider", name="Mid washes: level").fill("40")
    expect(busk.get_by_role("slider", name="Mid washes: level")).to_have_attribute("value", "40")
    box = other.get_by_role("button", name="White, all on All, while held").bounding_box()
    other.mouse.move(box["x"] + 9, box["y"] + 9)
    other.mouse.down()
    until(lambda: spot_levels(demo).min() > 99)
    other.context.close()  # its hand is gone
    until(lambda: spot_levels(demo).max() < 1)


def test_the_keyboard_alone_chooses_rows_presses_pads_and_goes(busk, demo, rows):
    page, washes = busk, rows["Mid washes"]
    page.keyboard.press("3")
    expect(page.get_by_role("button", name=re.compile("^Mid washes "))).to_have_attribute("aria-pressed", "true")
    page.keyboard.press("e")
    second = washes["colour"][1]["name"]
    of(demo, washes, held(washes, second))
    page.keyboard.press("z")
    of(demo, washes, lambda told: told["on"] != [])
    page.keyboard.press("z")
    of(demo, washes, lambda told: told["on"] == [])
    page.keyboard.down("Alt")
    expect(pad(page, f"Mid washes: {second}").locator("kbd")).to_have_text("e")
    page.keyboard.up("Alt")
    page.keyboard.press("PageDown")
    expect(pad(page, f"Mid washes: {washes['position'][4]['name']}")).to_be_visible()
    page.keyboard.press("PageUp")
    head = page.locator("[data-turns=effects]").bounding_box()
    page.mouse.move(head["x"] + 25, head["y"] + 20)  # a swipe over the pads
    page.mouse.down()
    page.mouse.move(head["x"] - 35, head["y"] + 20)
    page.mouse.up()
    expect(pad(page, f"Mid washes: {washes['effects'][4]['name']}")).to_be_visible()
    page.keyboard.press("Tab")
    page.keyboard.press("Tab")
    assert page.evaluate("document.activeElement.matches(':focus-visible')")


def test_space_after_a_pad_is_go_of_the_list_chosen_for_the_page(busk, demo, rows):
    page, spots = busk, rows["Rear spots"]
    pad(page, "Rear spots: Tide fold").click()
    of(demo, spots, lambda told: told["on"] != [])
    page.keyboard.press("Space")
    go_list = rows["All"]["go_list"]
    state, _ = live_state(demo, lambda state: any(one["id"] == go_list and one["cue"] for one in state["lists"]))
    assert next(one for one in state["rows"] if one["id"] == spots["id"])["on"] == [], "its first cue puts all else out"


def test_a_waiting_pad_says_when_it_will_go(busk, demo, rows):
    page, spots = busk, rows["Rear spots"]
    page.get_by_role("radio", name="on the bar").click()
    act(demo, do="bpm", tempo="Movement", value=10)
    pad(page, "Rear spots: Rose").click()
    expect(pad(page, "Rear spots: Rose").get_by_text(re.compile(r"^\d+\.\d s$"))).to_be_visible()
    act(demo, do="hold-tempo", tempo="Movement")
    expect(pad(page, "Rear spots: Rose").get_by_text("waits")).to_be_visible()
    act(demo, do="tempos-back")
    of(demo, spots, held(spots, "Rose"))


@pytest.mark.parametrize("size", [(1280, 800), (1024, 768)])
def test_all_rows_fit_with_targets_of_forty_pixels_and_nothing_scrolls(busk, size):
    if size[1] < 800:
        busk.set_viewport_size({"width": size[0], "height": size[1]})
        busk.reload()  # come to in a small window, not made smaller: a busy chromium keeps the rules of the larger one
        busk.get_by_role("tab", name="Busk", exact=True).click()
        busk.get_by_role("radio", name="Hidden").click()  # what is left of a low screen goes to the rows
    section = busk.get_by_role("region", name="Salt night")
    expect(section.locator("button[data-row]")).to_have_count(12)
    small, scrolled = section.evaluate(
        """(view) => {
          const targets = [...view.querySelectorAll('button[data-pad], button[data-none], [role=group] > button')];
          const boxes = targets.map((one) => one.getBoundingClientRect()).filter((box) => box.width);
          return [
            boxes.filter((box) => box.width < 39.5 || box.height < 39.5).map((box) => [box.width, box.height]),
            [...view.querySelectorAll('*')].filter((one) => /auto|scroll/.test(getComputedStyle(one).overflowY)).length,
          ];
        }"""
    )
    assert small == []
    assert scrolled == 0
    edges = section.evaluate("(view) => [view.scrollHeight - view.clientHeight, view.scrollWidth - view.clientWidth]")
    assert edges == [0, 0]


def menu(page, item):
    page.get_by_role("button", name="Salt night").click()
    page.get_by_role("menuitem", name=item).click()


def test_pads_are_edited_apart_from_the_live_page(busk, demo, rows):
    page = busk
    menu(page, "Edit rows and pads")
    beams = page.get_by_role("region", name="Beam")
    beams.get_by_role("button", name="Narrow: more").click()
    page.get_by_role("menuitem", name="Take out").click()
    expect(beams.get_by_text("Narrow")).to_have_count(0)
    colours = page.get_by_role("region", name="Colours")
    colours.get_by_role("button", name="Rose: more").click()
    page.get_by_role("menuitem", name="Name", exact=True).click()
    page.get_by_role("dialog").get_by_label("Name").fill("Dawn")
    page.get_by_role("button", name="Keep").click()
    expect(colours.get_by_text("Dawn")).to_be_visible()
    page.get_by_role("region", name="Effects").get_by_role("button", name="Add pads").click()
    page.get_by_role("dialog").get_by_text("Heartbeat").click()
    page.get_by_role("button", name="Add 1 pad").click()
    expect(page.get_by_role("region", name="Effects").get_by_text("Heartbeat")).to_be_visible()
    page.get_by_role("button", name="Done").click()
    expect(pad(page, "Rear spots: Dawn")).to_be_visible()
    for _ in range(3):
        page.keyboard.press("Control+z")
    expect(pad(page, "Rear spots: Rose")).to_be_visible()
    assert {row["name"]: row for row in api(demo, "/api/busk")["pages"][0]["rows"]} == rows


def test_a_page_is_made_in_one_step_and_plays(busk, demo):
    page = busk
    menu(page, "Make a busking page")
    page.get_by_label("Name", exact=True).fill("Second")
    page.get_by_role("button", name="Make the page").click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.get_by_role("button", name="Salt night").click()
    page.get_by_role("menuitem", name="Second", exact=True).click()
    page.get_by_role("region", name="Second").wait_for()
    page.get_by_role("slider", name="Rear spots: level").fill("50")
    until(lambda: np.allclose(spot_levels(demo), 50, atol=0.2))
    page.keyboard.press("Control+z")
    expect(page.get_by_role("region", name="Salt night")).to_be_visible()
    until(lambda: spot_levels(demo).max() < 0.1)


def test_a_lost_connection_is_said_at_once_and_nothing_is_sent_late(browser, demo, rows):
    page = open_page(browser, "about:blank")  # of its own: it may say that it has lost its socket
    page.set_default_timeout(PATIENCE_MS)
    sockets, reachable = [], [True]

    def joined(socket):
        if reachable[0]:
            socket.connect_to_server()
            sockets.append(socket)
        else:
            socket.close()

    page.route_web_socket(re.compile("/live$"), joined)
    page.goto(demo.address)
    page.get_by_role("button", name=CONNECTED).wait_for()
    page.get_by_role("tab", name="Busk", exact=True).click()
    pad(page, "Front: Heartbeat").wait_for()
    reachable[0] = False
    sockets[0].close()
    page.locator("section[data-lost]").wait_for()
    pad(page, "Front: Heartbeat").click()
    page.get_by_text("Not connected: this did nothing.").first.wait_for()
    assert pad(page, "Rear spots: Coral").is_visible(), "it shows what it last knew"
    reachable[0] = True
    page.locator("section[data-lost]").wait_for(state="detached")
    state, _ = live_state(demo)
    assert next(one for one in state["rows"] if one["id"] == rows["Front"]["id"])["on"] == []
    page.context.close()
