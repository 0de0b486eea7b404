"""Designing in the Effects view, and what the engine then does: chase, mirrored circle, stops, relay, own heads, comparing."""

from itertools import pairwise

import numpy as np
import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api, expected, hold_still, live_state, spot_levels, spot_values
from tests.browser.test_first_effect import SPOTS, choose, draft_effect, select, slot, start, type_number
from tests.waiting import until


@pytest.fixture(autouse=True)
def quiet_stage(demo):
    act(demo, do="stop-all")
    api(demo, "/api/draft", method="DELETE")
    live_state(demo, lambda state: not state["running"])


def document_becomes(demo, accept):
    return until(lambda: accept(draft_effect(demo)[1]) and draft_effect(demo)[1])


def node_matches_core(demo, attribute, base=None, tolerance=0.02):
    """Hold the draft's effect still; what 101–110 do is what the core says. Returns the values by number."""
    entry, document = draft_effect(demo)
    theta = hold_still(demo, f"draft:{entry['id']}")
    wanted = dict(zip(entry["heads"], expected(document, entry["heads"], theta, attribute, base), strict=True))
    by_number = np.array([wanted[head] for head in SPOTS])
    until(lambda: np.abs(spot_values(demo, attribute) - by_number).max() < tolerance)
    return by_number


def test_a_mirrored_chase_from_the_outside_in_at_half_time_takes_five_actions(page, demo):
    page.get_by_role("group", name="Groups").get_by_role("button", name="Rear spots").click()
    expect(page.get_by_role("heading", name="10 heads are selected")).to_be_visible()
    page.get_by_role("button", name="Intensity, one after another").click()  # 1
    page.get_by_role("button", name="Parts: 1").click()  # 2
    page.keyboard.type("2\n")  # 3
    page.get_by_role("tab", name="Speed").click()  # 4
    page.get_by_role("radio", name="¼ cycle per beat").click()  # 5, half of what it was
    document = document_becomes(demo, lambda now: now["speed"]["cycles_per_beat"] == 0.25)
    assert document["spread"]["kind"] == "relay"
    assert document["lanes"]["parts"] == 2
    assert document["lanes"]["mirror"]
    levels = node_matches_core(demo, "intensity", 0)
    np.testing.assert_allclose(levels, levels[::-1], atol=1e-9)
    # from the outside in: the pair that is lit comes nearer to the middle
    entry, _ = draft_effect(demo)
    act(demo, do="freeze", key=f"draft:{entry['id']}", on=False)
    lit = []
    for _ in range(400):
        if len(lit) > 3:
            break
        now = spot_levels(demo)[:5]
        if now.max() > 5 and (not lit or lit[-1] != now.argmax()):
            lit.append(int(now.argmax()))
        page.wait_for_timeout(50)
    assert len(lit) > 3
    assert all((b - a) % 5 == 1 for a, b in pairwise(lit)), lit


def test_a_circle_whose_mirrored_pairs_cross(page, demo):
    select(page, "101-110")
    start(page, "Position, as a path")
    type_number(page, "Parts: 1", "2")
    page.get_by_role("button", name="Mirrored heads: pairs crossing").wait_for()
    page.get_by_role("button", name="Width: 40°").click()
    page.keyboard.type("60\n")
    document_becomes(demo, lambda now: now["layers"][0]["form"]["width"] == 60)
    page.keyboard.press("Escape")
    pan = node_matches_core(demo, "pan")
    assert np.abs(pan).max() > 10
    np.testing.assert_allclose(pan, -pan[::-1], atol=1e-6)
    entry, _ = draft_effect(demo)
    act(demo, do="freeze", key=f"draft:{entry['id']}", on=False)
    choose(page, "Mirrored heads: pairs crossing", "pairs side by side")
    document_becomes(demo, lambda now: not now["layers"][0]["mirror_pan"])
    pan = node_matches_core(demo, "pan")
    np.testing.assert_allclose(pan, pan[::-1], atol=1e-6)


def test_three_colours_with_a_hold_from_palettes_and_by_dragging(page, demo):
    select(page, "101-110")
    start(page, "Colour, through stops")
    page.get_by_role("button", name="Stops: 2 colours").click()
    page.get_by_role("button", name="Add a stop").click()
    third = page.get_by_role("group", name="Stop 3")
    third.get_by_role("button", name="Source of colour 3").click()
    page.get_by_role("option", name="Lantern", exact=True).click()
    document_becomes(demo, lambda now: now["layers"][0]["form"]["stops"][-1]["value"] == {"palette": "Lantern"})
    hold = third.get_by_role("textbox", name="Hold of 3")
    hold.fill("1")
    hold.press("Enter")
    document_becomes(demo, lambda now: now["layers"][0]["form"]["stops"][2]["hold"] == 1)
    page.keyboard.press("Escape")
    # the same in the scope: leave stop 1 later
    handle = page.get_by_role("slider", name="Reach stop 1")
    box, picture = handle.bounding_box(), page.get_by_role("img", name="Layer 1: red, green, blue over one cycle").bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(picture["x"] + picture["width"] * 0.125, box["y"] + 8, steps=4)
    page.mouse.up()
    document = document_becomes(demo, lambda now: now["layers"][0]["form"]["stops"][0]["hold"] > 0.3)
    first = document["layers"][0]["form"]["stops"][0]
    assert first["travel"] == pytest.approx(0.5, abs=0.06)
    assert first["travel"] + first["hold"] == pytest.approx(1)
    # all in step, so that the node sees one colour; it stays at Lantern for a quarter of the cycle
    type_number(page, "Spread: 360°", "0")
    document_becomes(demo, lambda now: now["spread"]["degrees"] == 0)

    def flags_of_all():
        return np.frombuffer(demo.universe(1)["slots"], np.uint8)[:240].reshape(10, 24)[:, 6:12]

    def together():
        now = flags_of_all()
        return (now == now[0]).all()

    until(together)
    flags = []
    for _ in range(70):
        assert together(), "all heads go together"
        flags.append(tuple(flags_of_all()[0].tolist()))
        page.wait_for_timeout(30)
    most = max(set(flags), key=flags.count)
    assert flags.count(most) > 8, "the colour that is held is seen longest"


def test_a_relay_with_a_handover_of_ten_percent(page, demo):
    select(page, "101-110")
    start(page)
    choose(page, "Spread: a ripple", "a relay")
    type_number(page, "Handover: 100 %", "10")
    document_becomes(demo, lambda now: now["spread"].get("handover") == 0.1)
    levels = node_matches_core(demo, "intensity", 0)
    assert (levels > 1).sum() >= 8, "turns overlap by nine tenths"
    page.get_by_role("tab", name="Spread").click()
    bar = page.get_by_role("slider", name="Handover, by lane 2")
    expect(bar).to_have_attribute("aria-valuetext", "10 % handover")
    bar.focus()
    page.keyboard.press("ArrowRight")
    document_becomes(demo, lambda now: now["spread"]["handover"] == 0.11)


def test_the_spread_and_a_heads_own_offset_are_dragged_and_reset(page, demo):
    select(page, "101-110")
    start(page)
    page.get_by_role("tab", name="Spread").click()
    circle = page.get_by_role("group", name="Spread on a circle")
    circle.wait_for()
    box = circle.bounding_box()
    middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    # lane 6 is at the bottom, half a turn; a quarter turn there is half the spread
    page.mouse.move(middle[0], middle[1] + 54)
    page.mouse.down()
    page.mouse.move(middle[0] + 40, middle[1] + 38, steps=5)
    page.mouse.move(middle[0] + 54, middle[1], steps=5)
    page.mouse.up()
    document_becomes(demo, lambda now: abs(now["spread"]["degrees"] - 180) <= 10)
    page.keyboard.press("Control+z")
    document_becomes(demo, lambda now: now["spread"]["degrees"] == 360)
    # head 101 is on top: a quarter turn of its own
    page.mouse.move(middle[0], middle[1] - 80)
    page.mouse.down()
    page.mouse.move(middle[0] + 57, middle[1] - 57, steps=4)
    page.mouse.move(middle[0] + 80, middle[1], steps=4)
    page.mouse.up()
    document = document_becomes(demo, lambda now: "101" in now["own"])
    assert document["own"]["101"]["offset"] == pytest.approx(90, abs=10)
    node_matches_core(demo, "intensity", 0)
    entry, _ = draft_effect(demo)
    act(demo, do="freeze", key=f"draft:{entry['id']}", on=False)
    page.get_by_role("button", name="Head 104", exact=True).click()
    page.get_by_role("button", name="Leave out").click()
    document_becomes(demo, lambda now: now["own"].get("104", {}).get("left_out"))
    until(lambda: spot_levels(demo)[3] < 0.1 and spot_levels(demo).max() > 10)
    page.get_by_role("button", name="Reset all 2 heads").click()
    document_becomes(demo, lambda now: now["own"] == {})


def test_a_held_state_is_compared_and_swapped_on_stage_by_a_key(page, demo):
    select(page, "101-110")
    start(page)
    _, first = draft_effect(demo)
    page.get_by_role("button", name="Compare with").click()
    page.get_by_role("option", name="How it is now, held").click()
    type_number(page, "Depth: 70 %", "20")
    page.get_by_role("button", name="Depth: 20 %").wait_for()
    expect(page.get_by_role("img", name="Weave of")).to_have_count(2)
    until(lambda: 5 < spot_levels(demo).max() < 21)
    page.keyboard.press("x")
    page.get_by_role("button", name="Depth: 70 %").wait_for()
    assert draft_effect(demo)[1] == first
    until(lambda: spot_levels(demo).max() > 30)
    page.keyboard.press("x")
    page.get_by_role("button", name="Depth: 20 %").wait_for()
    page.keyboard.press("Control+z")
    page.get_by_role("button", name="Depth: 70 %").wait_for()


def test_layers_are_heard_alone_and_change_places_by_drag(page, demo):
    select(page, "101-110")
    start(page)
    page.get_by_role("button", name="Add a layer").click()
    page.get_by_role("menuitem", name="Zoom").click()
    slot(page, "Zoom").wait_for()
    page.get_by_role("button", name="Layer 2: more").click()
    page.get_by_role("menuitem", name="Let it act alone").click()
    document_becomes(demo, lambda now: [layer["muted"] for layer in now["layers"]] == [True, False])
    until(lambda: spot_levels(demo).max() < 0.1)
    page.get_by_role("button", name="Layer 2: more").click()
    page.get_by_role("menuitem", name="Let all layers act").click()
    until(lambda: spot_levels(demo).max() > 10)
    handle = page.get_by_role("button", name="Layer 2: drag").bounding_box()
    page.mouse.move(handle["x"] + 8, handle["y"] + 16)
    page.mouse.down()
    page.mouse.move(handle["x"] + 8, handle["y"] - 24, steps=4)
    page.mouse.up()
    document_becomes(demo, lambda now: [layer["attribute"] for layer in now["layers"]] == ["zoom", "intensity"])
    page.get_by_role("button", name="Layer 2: drag").focus()
    page.keyboard.press("Alt+ArrowUp")
    document_becomes(demo, lambda now: [layer["attribute"] for layer in now["layers"]] == ["intensity", "zoom"])


def test_an_effect_of_the_library_is_seen_while_the_pointer_rests_on_it(page, demo):
    select(page, "101-110")
    entry = page.get_by_role("listbox", name="Library").get_by_role("option", name="Undertow")
    entry.scroll_into_view_if_needed()
    entry.hover()
    state, _ = live_state(demo, lambda state: state["running"])
    assert [(one["key"], one["name"]) for one in state["running"]] == [("audition", "Undertow")]
    until(lambda: spot_levels(demo).max() > 10)
    page.mouse.move(640, 140)
    live_state(demo, lambda state: not state["running"])
    assert api(demo, "/api/draft")["effects"] == [], "nothing was applied"


def test_what_is_frozen_is_kept_as_a_look_without_a_jump(page, demo):
    select(page, "101-110")
    start(page)
    page.get_by_role("tab", name="Speed").click()
    page.get_by_role("button", name="Freeze").click()
    live_state(demo, lambda state: any(one["frozen"] for one in state["running"]))
    levels = spot_levels(demo)
    page.get_by_role("button", name="Keep as a look").click()
    until(lambda: api(demo, "/api/draft")["effects"] == [])
    live_state(demo, lambda state: not state["running"])
    np.testing.assert_allclose(spot_levels(demo), levels, atol=0.01)
    assert len(api(demo, "/api/draft")["values"]["intensity"]) == 10
