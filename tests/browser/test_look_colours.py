"""The Look view by mouse and keyboard: fans, palettes, colours and the ways between them, the prepared look, and why."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api
from tests.browser.test_look import FIVE, choose, look, quiet_stage, values  # noqa: F401
from tests.waiting import until


def palette(demo, name):
    return next((one for one in api(demo, "/api/palettes")["palettes"] if one["name"] == name), None)


def cmy(demo, fixture=0):
    """Bytes of cyan, magenta and yellow of one of the first spots, as its node got them."""
    return list(demo.universe(1)["slots"][24 * fixture + 7 : 24 * fixture + 10])


def test_pan_is_fanned_from_the_middle_and_follows_the_order(look, demo):  # noqa: F811
    page = look
    page.get_by_role("tab", name="Fan").click()
    page.get_by_role("button", name="Spread it").click()
    curve = page.get_by_role("application", name=re.compile("Curve of Pan"))
    box = curve.bounding_box()
    last = box["x"] + box["width"] - 14
    page.mouse.move(last, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(last, box["y"] + 20, steps=4)
    page.mouse.up()
    until(lambda: values(demo, "pan").get("105", 0) > 5)
    fanned = values(demo, "pan")
    assert fanned["103"] == pytest.approx(0, abs=0.01)
    assert fanned["101"] == pytest.approx(-fanned["105"], abs=0.01)
    page.get_by_role("button", name="Order").click()
    page.get_by_role("option", name="centre out").click()
    until(lambda: values(demo, "pan")["103"] == pytest.approx(fanned["101"], abs=0.01))
    page.get_by_role("button", name="stays", exact=False).click()
    page.get_by_role("option", name="first").click()
    curve.focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Shift+ArrowUp")
    until(lambda: api(demo, "/api/draft")["fans"][0]["fixed"] == "first")
    until(lambda: values(demo, "pan")["103"] == pytest.approx(fanned["101"], abs=0.01))


def test_a_palette_is_kept_used_by_an_effect_and_changed_and_both_follow(look, demo):  # noqa: F811
    page = look
    field = page.get_by_role("textbox", name="Colour as #rrggbb")
    field.fill("#00ff00")
    field.press("Enter")
    until(lambda: len(values(demo, "green")) == 5)
    page.get_by_role("button", name="Keep as …").click()
    page.get_by_role("textbox", name="Name").fill("Sprout")
    page.get_by_role("button", name="Keep it").click()
    until(lambda: palette(demo, "Sprout") is not None)
    page.get_by_role("button", name="colour: Sprout. Why?").wait_for()
    stops = [{"value": {"palette": "Sprout"}, "travel": 1, "hold": 1, "ease": "snap"}]
    layer = {"attribute": "colour", "form": {"kind": "stops", "stops": [*stops, *stops]}}
    speed = {"kind": "time", "seconds_per_cycle": 2}
    document = {"format": "zarabanda.effect/1", "name": "Sprouting", "tags": [], "speed": speed, "layers": [layer]}
    effect = api(demo, "/api/effects", {"document": document})["effect"]["id"]
    api(demo, "/api/draft/effects", {"effect_id": effect, "heads": ["106"]})
    until(lambda: cmy(demo, 5) == [255, 0, 255])

    field.fill("#ff0000")
    field.press("Enter")
    page.get_by_role("button", name="colour: draft. Why?").wait_for()
    page.get_by_role("button", name="Change", exact=True).click()
    page.get_by_role("button", name="Change Sprout").click()
    page.get_by_text("Used by the effect “Sprouting”, 2 times").wait_for()
    page.get_by_role("button", name="Update from the draft").click()
    until(lambda: cmy(demo, 5) == [0, 255, 255])  # the effect
    until(lambda: cmy(demo) == [0, 255, 255])  # the draft
    page.get_by_text("the draft, 5 times").wait_for()
    page.get_by_role("button", name="Delete: choose what takes its place").wait_for()
    page.get_by_role("button", name="Another palette, or its values").click()
    page.get_by_role("option", name="Lagoon").click()
    page.get_by_role("button", name="Replace it and delete").click()
    until(lambda: palette(demo, "Sprout") is None)
    until(lambda: cmy(demo, 5) == cmy(demo) == [231, 71, 0])


def test_two_ways_between_colours_are_compared_on_two_groups(look, demo):  # noqa: F811
    page = look
    field = page.get_by_role("textbox", name="Colour as #rrggbb")
    field.fill("#ff0000")
    field.press("Enter")
    until(lambda: len(values(demo, "red")) == 5)
    page.get_by_role("tab", name="Ways between colours").click()
    ways = page.get_by_role("region", name="Ways between two colours")
    ways.get_by_role("button", name="Where the ways go").click()
    page.get_by_role("option", name="Deep tide").click()
    ways.get_by_role("button", name="hue, the long way: seen on").click()
    page.get_by_role("option", name="the selection").click()
    ways.get_by_role("button", name="straight, RGB: seen on").click()
    page.get_by_role("option", name="Mid washes").click()
    until(lambda: cmy(demo) not in ([0, 255, 255], [255, 255, 255]))
    scrubber = ways.get_by_role("slider", name="How far on the way")
    scrubber.focus()
    page.keyboard.press("End")
    until(lambda: cmy(demo) == [255 - 0x18, 255 - 0x46, 0])
    page.keyboard.press("Home")
    until(lambda: cmy(demo) == [0, 255, 255])
    ways.get_by_role("radio", name="hue, the long way").click()
    ways.get_by_text("passes", exact=False).wait_for()
    ways.get_by_role("button", name="Take it for …").click()
    page.get_by_role("menuitem", name="The show").click()
    until(lambda: api(demo, "/api/colour/ways", {"start": "#000000", "end": "#ffffff"})["way"] == "hsv-long")
    page.keyboard.press("End")
    page.get_by_role("tab", name="Aim").click()
    until(lambda: cmy(demo) == [0, 255, 255])  # looked away: as it was
    api(demo, "/api/colour/way", {"way": "rgb"}, method="PUT")


def test_the_trace_says_why_a_light_is_red(look, demo):  # noqa: F811
    page = look
    api(demo, "/api/draft/palette", {"palette": palette(demo, "Coral")["id"], "heads": FIVE})
    page.get_by_role("button", name="colour: Coral. Why?").click()
    why = page.get_by_role("complementary", name="Why")
    why.get_by_text("palette Coral").wait_for()
    lines = why.get_by_role("listitem")
    expect(lines).to_have_count(2)
    expect(lines.nth(1)).to_contain_text("red, #ff4f3a")
    expect(why.get_by_role("row")).to_have_count(3)
    page.keyboard.press("Escape")
    page.get_by_role("tab", name="Output").click()
    page.get_by_role("button", name="Why this value?").click()
    why.get_by_role("heading", name="Why: Rear spot 101").wait_for()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Why? Then point at a light").click()
    stage = page.get_by_role("img", name=re.compile("The rig, live")).bounding_box()
    page.mouse.click(stage["x"] + stage["width"] * 0.875, stage["y"] + 62)
    why.get_by_role("heading", name=re.compile("Why: Rear spot 1")).wait_for()
    choose(page, "101-105")
    act(demo, do="grand", value=1.0)


def test_lights_that_are_dark_are_told_and_brought_up(look, demo):  # noqa: F811
    page = look
    page.get_by_role("button", name="Rose", exact=True).click()
    page.get_by_text("These lights are dark").wait_for()
    page.get_by_text("Rose acts on 5 of 5 selected.").wait_for()
    page.get_by_role("button", name="Bring them to 100 %").click()
    until(lambda: values(demo, "intensity") == dict.fromkeys(FIVE, 100.0))
    expect(page.get_by_text("These lights are dark")).to_have_count(0)
