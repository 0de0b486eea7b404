"""The Rig view of an empty show: lights are added, addressed, moved, grouped and found, by mouse and by keyboard."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api
from tests.browser.test_first_effect import choose, draft_effect, select, start
from tests.waiting import until


@pytest.fixture(scope="module")
def demo(running_demo):
    running_demo.begin_empty()
    return running_demo


@pytest.fixture(autouse=True)
def empty(demo):
    act(demo, do="highlight", steps=[])
    api(demo, "/api/draft", method="DELETE")
    if numbers := list(fixtures(demo)):
        api(demo, "/api/rig/delete", {"numbers": numbers})
    for group in api(demo, "/api/show")["groups"]:
        api(demo, f"/api/groups/{group['id']}", method="DELETE")


def fixtures(demo):
    return {one["number"]: one for one in api(demo, "/api/rig")["fixtures"]}


def add(demo, mode="Par RGBW, 5 channels", count=8, number=1, **more):
    api(demo, "/api/rig/add", {"mode": mode, "count": count, "number": number, "name": "Light", **more})


def rig_of(page, *, shows):
    page.get_by_role("tab", name="Rig", exact=True).click()
    page.get_by_role("row").filter(has_text=str(shows)).first.wait_for()
    return page.get_by_role("grid", name="Fixtures")


def cell(page, number, column):
    row = page.get_by_role("row").filter(has=page.get_by_role("gridcell", name=str(number), exact=True))
    at = ["Number", "Name", "Kind", "Mode", "Address", "x", "y", "z", "Rotation", "Cells", "Groups", "Notes"].index(column)
    return row.get_by_role("gridcell").nth(at)


def type_into(page, number, column, text, key="Enter"):
    cell(page, number, column).click()
    page.keyboard.press("Enter")
    page.get_by_role("textbox", name=re.compile(f" of {number}$")).or_(
        page.get_by_role("combobox", name=re.compile(f" of {number}$"))
    ).fill(text)
    page.keyboard.press(key)


def test_from_an_empty_show_to_eight_pars_that_run_a_relay(page, demo):
    page.get_by_role("button", name="Add lights").click()
    page.get_by_role("textbox", name="Search kinds").fill("par rgbw")
    page.get_by_role("listbox", name="Kinds").get_by_role("option", name=re.compile("^Par RGBW 5 channels")).click()
    page.get_by_role("button", name="Add 8 lights").click()
    page.get_by_text("8 heads").wait_for()
    assert [one["address"] for one in fixtures(demo).values()] == [1 + 5 * n for n in range(8)]
    page.get_by_role("tab", name="Effects", exact=True).click()
    start(page)
    choose(page, "Spread: a ripple", "a relay")

    def lit():
        return tuple(n for n in range(8) if demo.universe(1)["slots"][5 * n] > 2)

    until(lambda: draft_effect(demo)[1]["spread"]["kind"] == "relay")
    until(lambda: len(lit()) == 1)
    seen = set()
    until(lambda: (seen.add(lit()), len({one for some in seen for one in some}) == 8)[1])
    assert all(len(some) <= 3 for some in seen), "one after another"
    page.keyboard.press("Escape")
    page.get_by_role("tab", name="Rig", exact=True).click()
    type_into(page, 1, "Address", "2.1")
    until(lambda: 2 in demo.node_universes())


def test_ten_are_patched_and_an_overlap_is_dragged_apart_on_the_map(page, demo):
    add(demo, count=10)
    rig_of(page, shows=10)
    type_into(page, 10, "Address", "1.1")
    page.get_by_text("10 overlaps 1 by 5 slots of universe 1; 1 has them.").wait_for()
    strip = page.get_by_role("img", name=re.compile("Universes: drag a fixture"))
    box = strip.bounding_box()
    room = (box["width"] - 34 - 84) / 512  # pixels a slot, between the number and what is said

    def at(slot, row=0):
        return box["x"] + 34 + slot * room, box["y"] + 15 + 30 * row

    page.mouse.move(*at(2))
    page.mouse.down()
    page.mouse.move(*at(150))
    page.mouse.move(*at(200))
    page.mouse.up()
    page.get_by_text("Nothing is odd").wait_for()
    moved = next(one for one in fixtures(demo).values() if one["address"] > 100)
    assert abs(moved["address"] - 200) < 8
    page.keyboard.press("Control+z")
    until(lambda: api(demo, "/api/rig/check")["odd"])
    page.get_by_role("button", name="Move 10 to 1.46").click()
    until(lambda: fixtures(demo)[10]["address"] == 46)


def test_the_table_is_a_spreadsheet_by_keyboard(page, demo):
    add(demo)
    grid = rig_of(page, shows=8)
    grid.focus()
    page.keyboard.press("Control+a")
    page.get_by_text("8 heads").wait_for()
    for _ in range(5):
        page.keyboard.press("ArrowRight")
    page.keyboard.type("-7 to 7")
    page.get_by_text("8 rows.", exact=False).wait_for()
    page.keyboard.press("Enter")
    until(lambda: [one["place"][0] for one in fixtures(demo).values()] == [-7, -5, -3, -1, 1, 3, 5, 7])
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Tab")
    page.keyboard.press("F2")
    page.keyboard.type("not a number")
    page.keyboard.press("Enter")
    page.get_by_text("is no place: type metres", exact=False).wait_for()
    grid.evaluate("""grid => { const data = new DataTransfer();
        data.setData("text/plain", "Number\\tName\\tAddress\\n2\\tStage left\\t3.1\\n3\\tStage right\\tnone");
        grid.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true })) }""")
    told = page.get_by_role("dialog", name="Paste 2 rows")
    expect(told).to_contain_text("2: name Stage left, universe 3, address 1")
    told.get_by_role("button", name="Paste them").click()
    until(lambda: fixtures(demo)[2]["universe"] == 3 and fixtures(demo)[3]["address"] is None)
    page.get_by_text("Fixture 3 without an address", exact=False).wait_for()
    grid.focus()
    page.keyboard.press("Control+z")
    until(lambda: fixtures(demo)[2]["name"] == "Light")
    page.keyboard.press("Control+z")
    until(lambda: fixtures(demo)[1]["place"][0] == 0)
    page.get_by_role("textbox", name="Filter rows").fill("nothing has this")
    page.get_by_text("0 shown").wait_for()


def test_odd_and_even_cells_become_groups_and_a_batten_is_flipped(page, demo):
    add(demo, "Batten 8 RGB, 8 cells, 24 channels", 2, 501, place=[-2, 3, 1], spacing=[4, 0, 0])
    rig_of(page, shows=502)
    select(page, "501-502")
    page.get_by_role("tab", name="Groups", exact=True).click()
    page.get_by_role("textbox", name="Name of a new group").fill("Battens")
    page.get_by_role("button", name="Keep 16 heads").click()
    page.get_by_role("grid", name="Groups").get_by_role("row", name="Battens").click()
    page.get_by_role("button", name="From this group …").click()
    page.get_by_text("odd and even cells", exact=True).click()
    page.get_by_role("button", name="Make them").click()
    page.get_by_role("dialog").wait_for(state="detached")
    until(lambda: len(api(demo, "/api/show")["groups"]) == 3)
    groups = {one["name"]: one for one in api(demo, "/api/show")["groups"]}
    assert groups["Battens, even cells"]["heads"] == [f"{n}.{c}" for n in (501, 502) for c in (2, 4, 6, 8)]
    first = api(demo, "/api/rig")["places"][0]
    cell(page, 501, "Name").click()
    page.get_by_role("button", name="Cells", exact=True).first.click()
    page.get_by_role("menuitem", name="Flip: count from the other end").click()
    until(lambda: abs(api(demo, "/api/rig")["places"][0] - first) > 0.5)
    expect(cell(page, 501, "Cells")).to_have_text("8, other way round")


def test_an_order_is_stepped_through_and_corrected(page, demo):
    add(demo, count=4)
    rig_of(page, shows=4)
    select(page, "1, 3, 2, 4")
    page.get_by_role("tab", name="Order").click()
    page.get_by_role("button", name="Step through").click()

    def bright():
        return [n + 1 for n in range(4) if demo.universe(1)["slots"][5 * n] == 255]

    until(lambda: bright() == [1])
    page.get_by_role("button", name="Next", exact=True).click()
    page.get_by_text("2 of 4").wait_for()
    until(lambda: bright() == [3])
    order = page.get_by_role("grid", name="Order of the selection")
    order.get_by_role("row", name="3").drag_to(order.get_by_role("row", name="2"), target_position={"x": 120, "y": 30})
    until(lambda: [one.get_attribute("data-key") for one in order.get_by_role("row").all()] == ["1", "2", "3", "4"])
    until(lambda: bright() == [2])
    page.get_by_role("button", name="In tempo").click()
    seen = set()
    until(lambda: (seen.update(bright()), seen == {1, 2, 3, 4})[1])
    page.get_by_role("button", name="Step through").click()
    until(lambda: bright() == [])


def test_another_mode_says_what_it_takes_and_deleting_says_what_uses_it(page, demo):
    add(demo, "Wash RGBW, 9 channels", 2)
    api(demo, "/api/draft/values", {"values": {"zoom": {"1": 30.0, "2": 30.0}}})
    rig_of(page, shows=2)
    type_into(page, 1, "Mode", "Par RGBW, 5 channels")
    told = page.get_by_role("dialog", name="Another mode takes something")
    expect(told).to_contain_text("Fixture 1: no zoom any more, and 1 value set by hand.")
    told.get_by_role("button", name="Change it").click()
    expect(cell(page, 1, "Mode")).to_have_text("5 channels")
    cell(page, 2, "Number").click()
    page.keyboard.press("Delete")
    told = page.get_by_role("dialog", name="Delete fixture 2?")
    expect(told).to_contain_text("1 value of zoom set by hand")
    told.get_by_role("button", name="Delete", exact=True).click()
    until(lambda: list(fixtures(demo)) == [1])
    page.get_by_role("grid", name="Fixtures").focus()
    page.keyboard.press("Control+z")
    until(lambda: api(demo, "/api/draft")["values"] == {"zoom": {"1": 30.0, "2": 30.0}})


def test_fixtures_are_carried_on_the_plan(page, demo):
    add(demo, count=2, place=[-2, 2, 4], spacing=[4, 0, 0])
    rig_of(page, shows=2)
    page.get_by_role("radio", name="Plan").click()
    select(page, "1")
    stage = page.get_by_role("img", name=re.compile("The rig, live"))
    box = stage.bounding_box()
    page.wait_for_function("() => document.querySelector('section[aria-label=Stage] canvas').width > 0")
    # two lights: the first at the left end, the second at the right, both on the upper line
    x, y = box["x"] + 26, box["y"] + min(62, 0.34 * box["height"])
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 60, y + 20)
    page.mouse.move(x + 120, y + 40)
    page.mouse.up()
    until(lambda: fixtures(demo)[1]["place"][0] > -2)
    place = fixtures(demo)[1]["place"]
    assert place[1] < 2
    assert place[2] == 4
