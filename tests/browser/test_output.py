"""The Output view by mouse and keyboard: a route from a found node, its failure and return, slots, health."""

import re
import socket

import pytest

from tests.browser.engine import api
from tests.browser.test_access import bare, findings  # noqa: F401
from tests.listening.test_listening import others
from tests.waiting import until

WELL = re.compile(r"^Output: (Sending \d+ Hz|Frames late)$")
"""All goes out; on a busy machine some of it late."""


@pytest.fixture
def output(page):
    page.get_by_role("tab", name="Output", exact=True).click()
    return page


def open_part(page, name):
    page.get_by_role("tab", name=name, exact=True).click()


def test_a_found_node_gets_a_route_fails_and_comes_back(output, demo):
    page = output
    open_part(page, "Routes")
    page.get_by_role("button", name="Make a route to Simulated Art-Net").click()
    route = page.get_by_role("listitem", name="1–16 to simulator as Art-Net")
    route.get_by_role("button", name="Send: 1–16 to simulator").click()
    route.get_by_text("packets/s").wait_for()
    until(lambda: demo.node_universes("Art-Net").get(1, {}).get("packets", 0) > 20)
    page.get_by_text("has a route").wait_for()

    open_part(page, "Simulators")
    node = page.get_by_role("region", name="Simulated Art-Net node")
    node.get_by_text("receiving", exact=True).first.wait_for()
    node.get_by_role("button", name="Unplug it").click()
    page.get_by_role("button", name="Output: Route failed").click()
    page.get_by_text("nobody listens there. Start the node").wait_for()

    open_part(page, "Simulators")
    node.get_by_role("button", name="Unplugged").click()
    page.get_by_role("button", name=WELL).click()
    events = page.get_by_role("region", name="Events")
    events.get_by_text("The route to simulator is back.").wait_for()
    events.get_by_text("The route to simulator failed: 127.0.0.3").wait_for()

    open_part(page, "Routes")
    route.get_by_role("button", name="1–16 to simulator as Art-Net: more").click()
    page.get_by_role("menuitem", name="Delete").click()
    route.wait_for(state="detached")
    page.get_by_role("button", name="Undo").click()
    route.wait_for()
    page.get_by_role("button", name="Redo").click()
    route.wait_for(state="detached")


def test_slots_by_fixture_are_found_compared_and_held_over_everything(output, demo):
    page = output
    page.get_by_role("img", name="Slots of universe 1, live").wait_for()
    page.get_by_role("textbox", name="Find a fixture").fill("601")
    page.get_by_role("img", name="Slots of universe 3, live").wait_for()
    page.get_by_role("button", name="Beside it").click()
    page.get_by_role("option", name="1, ").first.click()
    page.get_by_role("button", name="Compare with").click()
    page.get_by_role("option", name="the E1.31 node").click()
    page.get_by_role("button", name="Values").click()
    page.get_by_role("option", name="hexadecimal").click()
    page.get_by_role("img", name="Slots of universe 1, live").click(position={"x": 10, "y": 45})
    page.get_by_text("Slot 1 of universe 1: 101 Rear spot, pan").wait_for()
    page.get_by_role("button", name="Blackout").click()
    slot = page.get_by_role("group", name="Hold a slot").get_by_role("textbox", name="Slot")
    slot.fill("5")
    slot.press("Enter")
    until(lambda: demo.universe(1)["slots"][4] == 0)
    hold = page.get_by_role("button", name="Hold while pressed")
    box = hold.bounding_box()
    page.mouse.move(box["x"] + 10, box["y"] + 10)
    page.mouse.down()
    page.get_by_role("alert").get_by_text("Slot 5 of universe 1 is held at 255 by hand, over everything.").wait_for()
    page.get_by_role("button", name="Output: Slot held").wait_for()
    until(lambda: demo.universe(1)["slots"][4] == 255)
    page.mouse.up()
    until(lambda: demo.universe(1)["slots"][4] == 0)
    page.get_by_role("button", name="Blackout").click()
    page.get_by_role("button", name=WELL).wait_for()


def test_health_says_what_the_time_goes_to_and_events_are_saved(output):
    page = output
    open_part(page, "Health")
    page.get_by_role("img", name="Longest frame").wait_for()
    page.get_by_role("grid", name="Processes").get_by_role("row", name="engine").wait_for()
    with page.expect_download() as download:
        page.get_by_role("link", name="Save all of it").click()
    assert "Connected to the engine." in download.value.path().read_text()


def test_axe_finds_nothing_in_any_part(bare):  # noqa: F811
    page = bare(1024, 768)
    page.get_by_role("tab", name="Output", exact=True).click()
    for part in ("Slots", "Routes", "Simulators", "Health"):
        open_part(page, part)
        page.get_by_role("tabpanel", name=part).locator(":scope > *").first.wait_for()
        assert findings(page) == [], part


def test_another_source_on_our_universes_is_told(output, demo):
    page = output
    open_part(page, "Routes")
    told = page.get_by_text("Another source, “Other desk” at 127.0.0.1, with priority 120 holds universe 3: ours is 100.")
    (port,) = (one.split(":")[1] for one in api(demo, "/api/output/found")["ports"] if one.startswith("E1.31"))
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as other:

        def said():
            other.sendto(others(), ("127.0.0.1", int(port)))
            return told.count() and page.get_by_role("button", name="Output: Other source").count()

        until(said)
        other.sendto(others(terminated=True), ("127.0.0.1", int(port)))
    told.first.wait_for(state="detached")
    page.get_by_role("button", name=WELL).wait_for()
