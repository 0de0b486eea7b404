"""Pictures of the main views, from the demo show with something running."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

from zarabanda.tools.browser import CONNECTED, chromium, open_page
from zarabanda.tools.running import started

_SETTLE_MS = 1500
_AT_ONCE = ("special",)
"""Pictures of what is on its way."""


def _effects(page: Any) -> None:
    page.get_by_role("group", name="Groups").get_by_role("button", name="Rear spots").click()
    page.get_by_role("contentinfo").get_by_role("button", name="Tide fold").first.click()


def _view(name: str) -> Callable[[Any], None]:
    return lambda page: page.get_by_role("tab", name=name, exact=True).click()


def _output(part: str) -> Callable[[Any], None]:
    def go(page: Any) -> None:
        page.get_by_role("tab", name="Output", exact=True).click()
        page.get_by_role("tab", name=part, exact=True).click()

    return go


def _routes(page: Any) -> None:
    _output("Routes")(page)
    page.get_by_role("button", name="Make a route to Simulated Art-Net").click()
    page.get_by_role("button", name="Send: 1–16 to simulator").click()
    line = page.get_by_role("textbox", name="New route")
    line.fill("1–8 to 192.0.2.20 as E1.31, priority 120")
    line.press("Enter")
    page.get_by_role("listitem", name="1–8 to 192.0.2.20").wait_for()
    page.wait_for_timeout(5000)  # the message that it was made has gone


def _look(page: Any) -> None:
    page.get_by_role("tab", name="Look", exact=True).click()
    page.get_by_role("group", name="Groups").get_by_role("button", name="Rear spots").click()
    plan = page.get_by_role("application", name="Aim on the plan")
    box = plan.bounding_box()
    page.mouse.click(box["x"] + box["width"] * 0.6, box["y"] + box["height"] * 0.62)
    page.get_by_text("10 of 10 reach it.").wait_for()


def _coloured(page: Any) -> None:
    page.get_by_role("tab", name="Look", exact=True).click()
    page.get_by_role("group", name="Groups").get_by_role("button", name="Mid washes").click()
    page.get_by_role("button", name="Lagoon", exact=True).click()
    page.get_by_text("Lagoon acts on 10 of 10 selected.").wait_for()


def _why(page: Any) -> None:
    _coloured(page)
    page.get_by_role("button", name="colour: Lagoon. Why?").click()
    page.get_by_role("complementary", name="Why").get_by_text("palette Lagoon").wait_for()


def _rig(page: Any) -> None:
    page.get_by_role("tab", name="Rig", exact=True).click()
    page.get_by_role("group", name="Groups").get_by_role("button", name="Mid washes").click()


def _kind(page: Any) -> None:
    page.get_by_role("tab", name="Rig", exact=True).click()
    page.get_by_role("gridcell", name="105", exact=True).click()
    page.get_by_role("button", name="Fixtures", exact=True).click()
    page.get_by_role("menuitem", name="Open their kind").click()
    page.get_by_role("table", name="Channels").wait_for()


def _cues(page: Any) -> None:
    page.get_by_role("tab", name="Cues", exact=True).click()
    page.get_by_role("navigation", name="Cue lists").get_by_role("button", name="Saltworks").first.click()
    for name in ("Arrival", "Drums", "Verse 1", "Verse 1, spots open", "Figure"):
        page.locator("button.go").click()
        page.locator("[role=listitem][aria-current=true]", has_text=name).wait_for()


def _busk(page: Any) -> None:
    page.get_by_role("tab", name="Busk", exact=True).click()
    page.keyboard.press("Shift+Escape")  # the draft would lie over all
    page.get_by_role("button", name="Release all", exact=True).click()
    for row, level in (("Rear spots", 82), ("Mid washes", 64), ("Side ladders", 70), ("Battens", 45), ("Salt wall", 60)):
        page.get_by_role("slider", name=f"{row}: level").fill(str(level))
    for row, pads in _PRESSED.items():
        for pad in pads:
            page.get_by_role("group", name=row, exact=True).get_by_role("button", name=f"{row}: {pad}").first.click()
    page.wait_for_timeout(2500)  # what was released is out


_PRESSED = {
    "All": ("Lagoon",), "Rear spots": ("Deep tide", "Cross", "Tide fold"), "Mid washes": ("Coral", "Stage", "Tilt swell"),
    "Deck beams": ("Heather",), "Side ladders": ("Rose", "Bright tide"), "Battens": ("Deep tide",), "Salt wall": ("Brine green",),
}  # fmt: skip
"""Pads of the picture of the busking page, by row."""


def _special(page: Any) -> None:
    page.get_by_role("tab", name="Busk", exact=True).click()
    singer, percussion, lead = (
        page.get_by_role("group", name="Specials").get_by_role("button").filter(has=page.get_by_text(name, exact=True))
        for name in ("Singer", "Percussion", "Lead left")
    )
    singer.click()
    percussion.click()
    singer.get_by_text("on", exact=True).wait_for()
    page.wait_for_timeout(_SETTLE_MS)
    singer.click()
    lead.click()
    while "in the dark" not in lead.inner_text():  # waiting for text looks too seldom
        page.wait_for_timeout(30)


def _faders(page: Any) -> None:
    page.get_by_role("tab", name="Busk", exact=True).click()
    page.get_by_role("button", name="Specials, all home").click()
    page.keyboard.press("Home")
    for name, level in (("Rose over, mixes the overlay in", 55), ("Mid washes, level of the group", 70)):
        page.get_by_role("slider", name=name).fill(str(level))
    for name in ("Heather swirl", "The drop"):
        page.get_by_role("region", name="Dance floor").get_by_role("button", name=name).click()


def _timeline(page: Any) -> None:
    page.get_by_role("tab", name="Timeline", exact=True).click()
    page.get_by_role("region", name="Timeline").locator("header button").first.click()
    page.get_by_role("option", name="Saltworks").click()
    box = page.get_by_label("Parts and sound").bounding_box()
    page.mouse.click(box["x"] + box["width"] * 0.43, box["y"] + 80)
    page.get_by_role("region", name="Timeline").get_by_role("button", name="Play", exact=True).click()
    page.get_by_role("listbox", name="Events").get_by_role("option", name="Figure").click()


def _player(page: Any) -> None:
    page.get_by_role("contentinfo", name="Now running").get_by_role("button", name="Take Saltworks off the stage").click()
    page.get_by_role("tab", name="Timeline", exact=True).click()
    page.get_by_role("region", name="Timeline").get_by_role("button", name="Song: more").click()
    page.get_by_role("menuitem", name="Song: length, sound, timecode").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_role("button", name="Clock").click()
    page.get_by_role("option", name="MTC").click()
    sheet.get_by_role("button", name="Keep", exact=True).click()
    _output("Timecode, sound")(page)
    player = page.get_by_role("region", name="Simulated player")
    player.get_by_role("textbox", name="Jitter").fill("20")
    player.get_by_role("textbox", name="Jitter").press("Enter")
    player.get_by_role("button", name="Play", exact=True).click()
    page.get_by_text("Thin", exact=True).click()
    page.get_by_label("Incoming timecode").first.get_by_text("chasing").wait_for()


def _pixels(page: Any) -> None:
    page.get_by_role("tab", name="Pixels", exact=True).click()
    page.get_by_role("button", name="Bring it in").click()
    page.get_by_role("tab", name="Parts of the layer").click()


def _pixel_cells(page: Any) -> None:
    page.get_by_role("tab", name="Pixels", exact=True).click()
    page.get_by_role("button", name="Pixel maps: more").click()
    page.get_by_role("menuitem", name="Cells and their order").click()
    page.get_by_role("region", name="Cells of Salt wall").get_by_role("button", name="Run through them in tempo").click()


def _asked(page: Any, path: str, body: dict[str, str]) -> Any:
    return page.request.post(f"{page.url}api/shows{path}", data=body).json()


def _shows(page: Any) -> None:
    """With two more: another rig, and a copy of the demo, whose picture is made as it is left."""
    salt = page.request.get(f"{page.url}api/shows").json()["open"]
    cellar = _asked(page, "", {"name": "Cellar", "begin": "club"})["id"]
    _asked(page, f"/{cellar}/open", {})
    page.get_by_role("button", name="Shows: Cellar is open").wait_for()
    _asked(page, f"/{salt}/open", {})
    _asked(page, f"/{salt}/copy", {"name": "Salt Light, Thursday"})
    page.get_by_role("button", name="Shows: Salt Light is open").click()
    page.get_by_role("listitem", name="Salt Light, Thursday").wait_for()


def _take_over(page: Any) -> None:
    page.get_by_role("tab", name="Rig", exact=True).click()
    page.get_by_role("button", name="Fixtures", exact=True).click()
    page.get_by_role("menuitem", name="Take over to other lights").click()
    own = page.get_by_role("region", name="Take over")
    own.get_by_role("button", name="seen in").click()
    page.get_by_role("option", name="Tide fold", exact=True).click()
    own.get_by_text("Still mirrored: left and right").wait_for()
    own.locator("summary", has_text="cues").click()


def _bake(page: Any) -> None:
    _effects(page)
    page.get_by_role("button", name="Tide fold: more").click()
    page.get_by_role("menuitem", name="Bake for another system").click()
    sheet = page.get_by_role("dialog", name="Bake the effect Tide fold")
    sheet.get_by_role("button", name="Steps against error of intensity").click()
    sheet.get_by_role("radio", name="within 1 %").click()
    sheet.get_by_text("steps, at most").wait_for()


def _parts(page: Any) -> None:
    page.get_by_role("button", name="Shows: Salt Light is open").click()
    page.get_by_role("listitem", name="Cellar").get_by_role("button", name="Open").click()
    page.get_by_role("button", name="Open Cellar").click()
    page.get_by_role("button", name="Shows: Cellar is open").click()
    page.get_by_role("button", name="Salt Light: more").click()
    page.get_by_role("menuitem", name="Bring parts of it in").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_role("textbox", name="Search").fill("salt")
    sheet.get_by_role("region", name="songs").get_by_text("Saltworks").click()
    sheet.get_by_role("region", name="pixel maps").get_by_text("Salt wall").click()
    sheet.get_by_role("button", name="See what 2 parts would bring").click()
    sheet.get_by_role("button", name="Bring them in").wait_for()


VIEWS: dict[str, Callable[[Any], None]] = {
    "effects": _effects,
    "shows": _shows,
    "rig": _rig,
    "look": _look,
    "why": _why,
    "kind": _kind,
    "take-over": _take_over,
    "bake": _bake,
    "cues": _cues,
    "busk": _busk,
    "special": _special,
    "faders": _faders,
    "slots": _view("Output"),
    "routes": _routes,
    "pixels": _pixels,
    "pixel-cells": _pixel_cells,
    "timeline": _timeline,
    "player": _player,
    "parts": _parts,
}
"""Name of each picture, and what is done to get there."""


def take(folder: Path) -> list[Path]:
    """Renew all pictures; their paths."""
    folder.mkdir(parents=True, exist_ok=True)
    paths = []
    with tempfile.TemporaryDirectory() as data, started(Path(data), "demo", "--node-port", "0") as demo, chromium() as browser:
        for name, go in VIEWS.items():
            page = open_page(browser, demo.address)
            page.get_by_role("button", name=CONNECTED).wait_for()
            go(page)
            page.wait_for_timeout(0 if name in _AT_ONCE else _SETTLE_MS)
            path = folder / f"{name}.png"
            page.screenshot(path=str(path))
            page.context.close()
            paths.append(path)
    return paths
