"""Every view for everybody: no finding of axe, at both sizes, and nothing cut at the edges."""

from pathlib import Path

import pytest

from tests.browser.engine import api
from tests.formats import mvr_files

AXE = Path(__file__).parents[2] / "frontend" / "node_modules" / "axe-core" / "axe.min.js"
LIKE_THOSE_BEFORE = "[role=row]:nth-child(n + 6), [role=listitem]:nth-child(n + 6)"
"""Rows of long tables and lists, that are made as the first ones are."""
VIEWS = ["Rig", "Effects", "Cues", "Busk", "Output"]


@pytest.fixture
def bare(page):
    """The page at a size, with lights that are selected."""

    def at(width, height):
        page.set_viewport_size({"width": width, "height": height})
        page.get_by_role("group", name="Groups").get_by_role("button", name="Rear spots").click()
        return page

    return at


def shown(page, tab):
    """Wait until the panel of a tab is there, with all that it asks the server for."""
    page.get_by_role("tabpanel", name=tab, exact=True).wait_for()
    page.wait_for_load_state("networkidle")


def findings(page, part="body"):
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text())
    result = page.evaluate(
        """([part, like]) => axe.run({include: [[part]], exclude: [[like]]}, {resultTypes: ['violations']})""",
        [part, LIKE_THOSE_BEFORE],
    )
    return [f"{one['id']}: {node['html'][:160]}" for one in result["violations"] for node in one["nodes"]]


SMALL = """() => [...document.querySelectorAll("header button, footer button, main button")]
    .filter((button) => !button.dataset.slot && button.offsetParent && button.getBoundingClientRect().height < 30)
    .map((button) => `${button.ariaLabel ?? ""} ${button.textContent} ${button.outerHTML.slice(0, 120)}`)"""


@pytest.mark.parametrize("view", VIEWS)
def test_axe_finds_nothing_and_targets_are_large_enough_for_fingers(bare, demo, view):
    page = bare(1280, 800)
    page.get_by_role("tab", name=view, exact=True).click()
    shown(page, view)
    assert page.evaluate(SMALL) == []
    if view == "Effects":
        page.get_by_role("button", name="Intensity", exact=True).click()
        page.get_by_role("heading", name="New").wait_for()
        shown(page, view)
    assert findings(page) == []
    api(demo, "/api/draft", method="DELETE")


@pytest.mark.parametrize(
    ("start", "tabs"), [("Intensity", ("Spread", "Speed", "Base")), ("Intensity, one after another", ("Spread",))]
)
def test_axe_finds_nothing_beside_an_effect(bare, demo, start, tabs):
    page = bare(1280, 800)
    page.get_by_role("button", name=start, exact=True).click()
    page.get_by_role("heading", name="New").wait_for()
    found = []
    for tab in tabs:
        page.get_by_role("tab", name=tab).click()
        shown(page, tab)
        found += findings(page, "main")
    assert found == []
    api(demo, "/api/draft", method="DELETE")


def test_axe_finds_nothing_on_a_kind_and_beside_a_scene(bare, demo):
    page = bare(1280, 800)
    page.get_by_role("tab", name="Rig", exact=True).click()
    page.get_by_role("gridcell", name="105", exact=True).click()
    page.get_by_role("button", name="Fixtures", exact=True).click()
    page.get_by_role("menuitem", name="Open their kind").click()
    page.get_by_role("table", name="Channels").wait_for()
    assert findings(page) == []
    page.get_by_role("region", name="Kind", exact=True).get_by_role("button", name="Rig", exact=True).click()
    lights = [mvr_files.light(n, number=n) for n in range(60)]
    content = mvr_files.packed(mvr_files.scene(mvr_files.layer("Rear", *lights)))
    file = {"name": "festival.mvr", "mimeType": "application/zip", "buffer": content}
    page.locator('input[aria-label="A CSV or MVR file"]').set_input_files(file)
    page.get_by_role("dialog").get_by_role("button", name="More below").wait_for()
    assert findings(page) == []


def test_nothing_beside_an_effect_is_cut(bare, demo):
    page = bare(1024, 768)
    page.get_by_role("contentinfo").get_by_role("button", name="Tide fold").first.click()
    page.get_by_role("img", name="Weave").wait_for()
    for tab in ("Scope", "Spread", "Speed", "Base"):
        page.get_by_role("tab", name=tab).click()
        shown(page, tab)
        wide = page.evaluate("""() => [...document.querySelectorAll("main *")].filter((one) => {
            const style = getComputedStyle(one);
            const shown = one.clientWidth > 1 && one.clientHeight > 1 && !one.closest("[aria-hidden=true]");
            const cuts = style.overflowX !== "visible" && style.textOverflow !== "ellipsis";
            return shown && cuts && one.scrollWidth > one.clientWidth + 1 && !one.matches("input, canvas, svg *");
        }).map((one) => one.outerHTML.slice(0, 160))""")
        assert wide == [], tab
    weave = page.get_by_role("img", name="Weave").bounding_box()
    assert weave["height"] > 50
    assert weave["y"] + weave["height"] < page.get_by_role("contentinfo").bounding_box()["y"]


@pytest.mark.first
def test_controls_of_the_frame_are_within_the_window(bare):
    for width, height in ((1024, 768), (1280, 800), (1920, 1080)):
        page = bare(width, height)
        page.wait_for_function(f"innerWidth === {width} && document.documentElement.scrollWidth <= {width}")
        for name in ("Blackout", "Undo", "Tap", "Stop all effects", "Clear"):
            box = page.get_by_role("button", name=name, exact=True).bounding_box()
            assert box["x"] >= 0, name
            assert box["x"] + box["width"] <= width, name
            assert box["y"] + box["height"] <= height, name


def test_an_effect_is_made_by_keyboard_alone(bare, demo):
    page = bare(1280, 800)
    page.keyboard.press("Alt+3")
    page.keyboard.press("/")
    page.keyboard.type("201-204")
    page.keyboard.press("Enter")
    page.get_by_text("4 heads", exact=True).wait_for()
    page.get_by_role("button", name="New effect").focus()
    page.keyboard.press("Enter")
    page.keyboard.type("Z")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="New zoom effect").wait_for()
    page.get_by_role("button", name="Attribute: Zoom").focus()
    for _ in range(2):
        page.keyboard.press("ArrowRight")
    assert page.evaluate("document.activeElement.dataset.slot") == "layers.0.anchor.depth"
    page.keyboard.type("12")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Depth: 12°").wait_for()
    effects = api(demo, "/api/draft")["effects"]
    document = api(demo, f"/api/effects/{effects[-1]['effect_id']}")["document"]
    assert document["layers"][0]["anchor"] == {"kind": "above", "depth": 12}
    api(demo, "/api/draft", method="DELETE")
