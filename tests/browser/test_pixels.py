"""Pixel maps by mouse and keyboard: made, painted, dragged, turned, mirrored, lettered, filmed, and put on a fader."""

import io
import re

import av
import numpy as np
import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api, live_state
from tests.waiting import until


@pytest.fixture(autouse=True)
def quiet(demo):
    act(demo, do="release-all", seconds=0)
    live_state(demo, lambda state: not state["pixels"])


def open_map(page, name):
    page.get_by_role("tab", name="Pixels", exact=True).click()
    page.get_by_role("button", name=re.compile("Pixel map$")).or_(page.get_by_label("Pixel map")).first.wait_for()
    chooser = page.locator("main header button").first
    if name not in chooser.inner_text():
        chooser.click()
        page.get_by_role("option", name=name, exact=True).click()
    expect(chooser).to_contain_text(name)


def map_of(demo, name):
    maps = api(demo, "/api/pixels")["maps"]
    return api(demo, f"/api/pixels/{next(one['id'] for one in maps if one['name'] == name)}")


def kept(demo, name, holds):
    found = []
    until(lambda: bool(found.append(map_of(demo, name)) or holds(found[-1])))
    return found[-1]


def test_a_map_of_the_wall_is_made_and_its_picture_is_dragged_turned_and_mirrored(page, demo):
    page.get_by_role("tab", name="Pixels", exact=True).click()
    page.get_by_role("button", name="Salt wall", exact=True).first.click()
    page.get_by_role("button", name="Pixel maps: more").click()
    page.get_by_role("menuitem", name="New pixel map…").click()
    sheet = page.get_by_role("dialog", name="New pixel map")
    sheet.get_by_label("Name").fill("Fire wall")
    expect(sheet).to_contain_text("selected lights")
    sheet.get_by_role("button", name="Make it").click()
    expect(page.locator("main header button").first).to_contain_text("Fire wall")
    made = map_of(demo, "Fire wall")
    assert (made["cells"], [one["document"]["figure"] for one in made["layers"]]) == (1024, ["flames"])
    live_state(demo, lambda state: state["pixels_seen"] == [made["id"], 0])
    expect(page.get_by_text("Fire wall, not sent: as it would be")).to_be_visible()
    place = page.get_by_role("group", name="Place of Flames")
    box = place.bounding_box()
    corner = place.locator("[data-handle=se]").bounding_box()
    page.mouse.move(corner["x"] + 5, corner["y"] + 5)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2, steps=5)
    page.mouse.up()
    half = kept(demo, "Fire wall", lambda found: found["layers"][0]["document"]["rect"]["width"] < 0.6)
    assert half["layers"][0]["document"]["rect"]["height"] == pytest.approx(0.5, abs=0.05)
    turn = place.locator("[data-handle=turn]").bounding_box()
    page.mouse.move(turn["x"] + 6, turn["y"] + 6)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"], box["y"] + box["height"] / 4, steps=6)
    page.mouse.up()
    kept(demo, "Fire wall", lambda found: found["layers"][0]["document"]["rect"]["turn"] == 90)
    place.get_by_role("button").focus()
    page.keyboard.press("ArrowRight")
    kept(demo, "Fire wall", lambda found: found["layers"][0]["document"]["rect"]["left"] >= 0.01)
    page.get_by_role("tab", name="Parts of the layer").click()
    page.get_by_role("group", name="Finish").get_by_role("button", name="fold").click()
    kept(demo, "Fire wall", lambda found: found["layers"][0]["document"]["finish"]["fold"] == "left to right")
    page.get_by_role("group", name="Figure").get_by_role("button", name="rings").click()
    kept(demo, "Fire wall", lambda found: found["layers"][0]["document"]["figure"] == "rings")
    for _ in range(5):
        page.keyboard.press("Control+z")
    kept(demo, "Fire wall", lambda found: found["layers"][0]["document"]["rect"]["width"] == 1)


def test_letters_run_over_the_battens_and_are_typed_in_their_sentence(page, demo):
    open_map(page, "Battens")
    page.get_by_role("button", name="Add a layer").click()
    page.get_by_role("menuitem", name="letters", exact=True).click()
    sentence = page.get_by_role("group", name="The layer as a sentence")
    sentence.get_by_role("button", name=re.compile("^Text: ")).click()
    page.get_by_role("dialog", name="Text").get_by_role("textbox").fill("MAREA")
    page.keyboard.press("Enter")
    kept(demo, "Battens", lambda found: found["layers"][-1]["document"]["settings"]["text"] == "MAREA")
    page.wait_for_function(  # between the cells the canvas shows what the engine draws there
        """() => { const own = document.querySelector('[data-beneath]');
             const seen = own && own.getContext('2d').getImageData(0, 0, own.width, own.height).data;
             return seen && seen.some((one, n) => n % 4 < 3 && one > 90); }"""
    )
    expect(sentence).to_contain_text("“MAREA”")
    page.get_by_role("button", name="Bring it in").click()
    live_state(demo, lambda state: state["pixels"] and state["pixels"][0]["share"] == 1)
    page.get_by_role("button", name="Take out Battens").click()
    live_state(demo, lambda state: not state["pixels"])


def test_the_order_of_cells_is_seen_and_corrected_beside_the_canvas(page, demo):
    open_map(page, "Battens")
    page.get_by_role("button", name="Pixel maps: more").click()
    page.get_by_role("menuitem", name="Cells and their order").click()
    panel = page.get_by_role("region", name="Cells of Battens")
    before = map_of(demo, "Battens")["document"]["canvas"]["heads"]
    panel.get_by_role("button", name="Reverse the order").click()
    kept(demo, "Battens", lambda found: found["document"]["canvas"]["heads"] == before[::-1])
    run = panel.get_by_role("button", name="Run through them in tempo")
    run.click()
    expect(run).to_have_attribute("aria-pressed", "true")
    panel.get_by_role("button", name=re.compile("Cells lie$")).click()
    page.get_by_role("option", name="A drawn grid").click()
    kept(demo, "Battens", lambda found: found["document"]["canvas"]["kind"] == "grid")
    rows = panel.get_by_role("textbox", name="Rows")
    rows.fill("1")
    rows.press("Enter")
    expect(panel.get_by_role("status")).to_contain_text("72 cells do not fit on 18 × 1 boxes")
    assert map_of(demo, "Battens")["document"]["canvas"]["rows"] == 4, "it waits until they fit"
    columns = panel.get_by_role("textbox", name="Columns")
    columns.fill("72")
    columns.press("Enter")
    kept(demo, "Battens", lambda found: found["document"]["canvas"]["rows"] == 1)
    panel.get_by_role("button", name=re.compile("Cells of 502$")).click()
    page.get_by_role("option", name="as it was made").click()
    turned = {one["number"]: one["cell_order"] for one in api(demo, "/api/rig")["fixtures"]}
    until(lambda: {one["number"]: one["cell_order"] for one in api(demo, "/api/rig")["fixtures"]}[502] == "")
    assert turned[505] == "reversed", "of others nothing changes"
    page.get_by_role("button", name="Back to the layers").click()
    for _ in range(4):
        page.keyboard.press("Control+z")
    kept(demo, "Battens", lambda found: found["document"]["canvas"]["heads"] == before)


def test_a_level_hears_the_simulated_line_while_it_plays(page, demo):
    page.get_by_role("tab", name="Output", exact=True).click()
    page.get_by_role("tab", name="Timecode, sound").click()
    line = page.get_by_role("region", name="Line input")
    expect(line).to_contain_text("It is silent.")
    line.get_by_role("button", name="Play the simulated line").click()
    expect(line).to_contain_text("It is heard.")
    open_map(page, "Battens")
    page.get_by_role("button", name="Add a layer").click()
    page.get_by_role("menuitem", name="level", exact=True).click()
    sentence = page.get_by_role("group", name="The layer as a sentence")
    sentence.get_by_role("button", name=re.compile("^Hears: ")).click()
    page.get_by_role("option", name="the line input, as it comes").or_(
        page.get_by_role("radio", name="the line input, as it comes")
    ).click()
    page.keyboard.press("Escape")
    kept(demo, "Battens", lambda found: found["layers"][-1]["document"]["settings"]["hears"] == "line")
    page.get_by_role("button", name="Bring it in").click()
    live_state(demo, lambda state: state["pixels"] and max(state["pixels"][0]["heard"].values(), default=0) > 0.7)
    page.get_by_role("button", name="Take out Battens").click()
    api(demo, "/api/output/line/player", {"on": False})
    live_state(demo, lambda state: not state["line"]["sounds"])


def film():
    out = io.BytesIO()
    with av.open(out, "w", format="mp4") as file:
        stream = file.add_stream("mpeg4", rate=30)
        stream.width, stream.height = 64, 16
        for _ in range(30):
            file.mux(stream.encode(av.VideoFrame.from_ndarray(np.full((16, 64, 3), (0, 200, 40), np.uint8), format="rgb24")))
        file.mux(stream.encode())
    return out.getvalue()


def test_a_film_is_put_on_the_wall_and_the_map_on_a_fader_over_and_under_a_running_effect(page, demo):
    open_map(page, "Salt wall")
    before = len(map_of(demo, "Salt wall")["layers"])
    page.get_by_label("Pictures or films").set_input_files({"name": "tide.mp4", "mimeType": "video/mp4", "buffer": film()})
    whole = kept(demo, "Salt wall", lambda found: len(found["layers"]) == before + 1)
    layer = whole["layers"][-1]["document"]
    assert (layer["figure"], layer["colour"]["over"], layer["settings"]["out_s"]) == ("film", "own", pytest.approx(1.0, abs=0.1))
    page.get_by_role("button", name="Put it on…").click()
    sheet = page.get_by_role("dialog", name="Put Salt wall on")
    expect(sheet).to_contain_text("Dance floor")
    sheet.get_by_role("button", name=re.compile("Page$")).click()
    page.get_by_role("option", name="Pixels", exact=True).click()
    sheet.get_by_role("button", name="Put it there").click()
    expect(sheet).to_be_hidden()
    page_ = next(one for one in api(demo, "/api/pages")["pages"] if one["name"] == "Pixels")
    control = next(one for one in page_["controls"] if one["drives"]["kind"] == "pixels" and one["name"] == "Salt wall")
    row = next(one for one in api(demo, "/api/busk")["pages"][0]["rows"] if one["name"] == "Salt wall")
    for way, place in (("Pad of a row", f"Salt night: {row['name']}"), ("A song: a track of its share", "Lantern Fish")):
        page.get_by_role("button", name="Put it on…").click()
        sheet.get_by_text(way).click()
        sheet.get_by_role("button", name=re.compile("(Row|Song)$")).click()
        page.get_by_role("option", name=place, exact=True).click()
        sheet.get_by_role("button", name="Put it there").click()
        expect(sheet).to_be_hidden()
    row = next(one for one in api(demo, "/api/busk")["pages"][0]["rows"] if one["id"] == row["id"])
    number = map_of(demo, "Salt wall")["id"]
    assert row["effects"][-1]["pixels"] == {"map": number, "picture": 0}
    song = next(one["id"] for one in api(demo, "/api/timelines")["songs"] if one["name"] == "Lantern Fish")
    assert api(demo, f"/api/timelines/{song}")["tracks"][-1]["document"]["drives"] == f"pixels:{number}:0"
    for _ in range(2):
        page.keyboard.press("Control+z")
    until(lambda: len(api(demo, f"/api/timelines/{song}")["tracks"]) == 1)
    for over in (True, False):
        acts = page.get_by_role("group", name="How the map acts").get_by_role("button", name=re.compile("^Acts:"))
        acts.click()
        page.get_by_role("option", name="over the effects" if over else "under the effects").click()
        kept(demo, "Salt wall", lambda found, over=over: found["document"]["over_effects"] == over)
        act(demo, do="level", control=control["key"], value=1)
        live_state(demo, lambda state, over=over: [one["over"] for one in state["pixels"]] == [over])
        act(demo, do="level", control=control["key"], value=0)
        live_state(demo, lambda state: not state["pixels"])
    refused = page.get_by_label("Pictures or films")
    refused.set_input_files({"name": "notes.txt", "mimeType": "image/png", "buffer": b"no picture at all"})
    expect(page.get_by_text("cannot be read as a picture or a film")).to_be_visible()
