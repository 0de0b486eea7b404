"""Open formats in the Rig view: what is in a file is seen first, then taken in, tested, changed and taken back."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.engine import act, api
from tests.formats import gdtf_files, mvr_files
from tests.waiting import until


@pytest.fixture(scope="module")
def demo(running_demo):
    running_demo.begin_empty()
    return running_demo


@pytest.fixture
def rig(page, demo):
    page.get_by_role("tab", name="Rig", exact=True).click()
    return page


def given(page, label, name, content):
    page.locator(f'input[aria-label="{label}"]').set_input_files(
        {"name": name, "mimeType": "application/octet-stream", "buffer": content}
    )


def test_a_kind_from_a_gdtf_file_is_tested_on_a_light_and_changed(rig, demo):
    page = rig
    page.get_by_role("button", name="Add lights", exact=True).click()
    given(page, "A GDTF file", "bar.gdtf", gdtf_files.packed(gdtf_files.bar()))
    sheet = page.get_by_role("dialog", name="Corda Reed Bar 4")
    expect(sheet.get_by_text("17 channels · 4 cells")).to_be_visible()
    sheet.get_by_role("button", name="Take in 1 mode").click()
    kind = page.get_by_role("region", name="Kind", exact=True)
    expect(kind.get_by_text("No fixture of it yet")).to_be_visible()
    kind.get_by_role("button", name="Rig", exact=True).click()
    api(demo, "/api/rig/add", {"mode": "Reed Bar 4, Cells", "count": 2, "number": 1, "name": "Bar"})
    page.get_by_role("gridcell", name="1", exact=True).first.click()
    page.get_by_role("button", name="Fixtures", exact=True).click()
    page.get_by_role("menuitem", name="Open their kind").click()
    expect(kind.get_by_text("2 fixtures of it: 1, 2")).to_be_visible()

    kind.get_by_role("button", name=re.compile("Test on")).click()
    page.get_by_role("listbox").get_by_role("option", name="2 Bar").click()
    kind.get_by_role("group", name="4 cells as they stand").locator("g").nth(1).click()
    kind.get_by_role("slider", name="Test channel 5").focus()
    page.keyboard.press("End")
    until(lambda: demo.universe(1)["slots"][17 + 4] == 255)
    kind.get_by_role("button", name="Let go").click()
    until(lambda: demo.universe(1)["slots"][17 + 4] == 0)

    high = kind.get_by_role("textbox", name="Channel 17, levels")
    high.fill("0 = 20, 100 = 200")
    high.press("Enter")
    until(lambda: demo.universe(1)["slots"][16] == 20)
    high.fill("loud")
    high.press("Enter")
    expect(kind.get_by_text("“loud” is no point")).to_be_visible()
    kind.get_by_role("textbox", name="by").fill("2")
    page.keyboard.press("Enter")
    expect(kind.get_by_role("heading", name="8 cells")).to_be_visible()
    kind.get_by_role("button", name="Make it one light").click()
    costs = page.get_by_role("dialog", name="Changing Reed Bar 4, Cells takes something")
    expect(costs.get_by_text("8 cells become one light")).to_be_visible()
    costs.get_by_role("button", name="Change it").click()
    expect(kind.get_by_role("heading", name="One light")).to_be_visible()
    for heading in ("8 cells", "4 cells"):
        page.get_by_role("button", name="Undo").click()
        expect(kind.get_by_role("heading", name=heading)).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    until(lambda: demo.universe(1)["slots"][16] == 0)
    act(demo, do="stop-all")


def test_a_kind_of_ones_own_is_put_together_on_its_page(rig, demo):
    page = rig
    page.get_by_role("tab", name="Add lights").or_(page.get_by_role("button", name="Add lights", exact=True)).first.click()
    page.get_by_role("button", name="Kinds", exact=True).click()
    page.get_by_role("menuitem", name="Make one from its channels").click()
    page.get_by_role("textbox", name="What it is called").fill("Jar lamp")
    page.get_by_role("button", name="Make it").click()
    kind = page.get_by_role("region", name="Kind", exact=True)
    kind.get_by_role("button", name="Another channel").click()
    kind.get_by_role("combobox", name="Channel 5 carries").select_option("zoom")
    for end, text in (("at 0", "60"), ("at full", "10")):
        kind.get_by_role("textbox", name=f"Channel 5, {end}").fill(text)
        page.keyboard.press("Enter")
        expect(kind.get_by_role("textbox", name=f"Channel 5, {end}")).to_have_value(text)
    kind.get_by_role("button", name="Divide it into cells").click()
    expect(kind.get_by_role("heading", name="4 cells")).to_be_visible()

    def made():
        document = api(demo, "/api/kinds/sheet?name=Jar%20lamp%2C%204%20channels")["document"]
        channels = [(one["source"], one["slots"][0], one["cell"]) for one in document["channels"]]
        return channels[3:6], document["footprint"], document["channels"][4]["low"], document["channels"][4]["high"]

    until(lambda: made() == ([("blue", 3, 1), ("zoom", 4, 0), ("red", 5, 2)], 14, 60, 10))
    for _ in range(6):
        page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="This kind is gone")).to_be_visible()
    for _ in range(6):
        page.get_by_role("button", name="Redo").click()

    def there():
        return any(one["name"].startswith("Jar lamp") for one in api(demo, "/api/kinds")["kinds"])

    kind.get_by_role("button", name="Delete the kind").click()
    expect(kind).to_be_hidden()
    assert not there()
    page.get_by_role("button", name="Undo").click()
    until(there)
    for _ in range(6):
        page.get_by_role("button", name="Undo").click()
    until(lambda: not there())


def test_what_is_no_gdtf_file_is_told_and_nothing_changes(rig, demo):
    before = api(demo, "/api/kinds")
    page = rig
    page.get_by_role("tab", name="Add lights").or_(page.get_by_role("button", name="Add lights", exact=True)).first.click()
    given(page, "A GDTF file", "bar.gdtf", b"nothing of the kind")
    expect(page.get_by_text("This is no whole GDTF file")).to_be_visible()
    assert api(demo, "/api/kinds") == before


def numbers(demo):
    return [one["number"] for one in api(demo, "/api/rig")["fixtures"]]


def test_a_scene_is_compared_taken_in_and_undone(rig, demo):
    page = rig
    api(demo, "/api/rig/add", {"mode": "Par RGBW, 5 channels", "count": 2, "number": 501, "name": "Old"})
    before = numbers(demo)
    lost = mvr_files.light(9, number=9, at=(9000, 0, 0), spec="Lost.gdtf", mode="8 bit", name="Lost")
    lights = [mvr_files.light(n, number=500 + n, at=(900 * n, 0, 5000), address=f"7.{14 * n}", name="Guest") for n in (2, 3)]
    content = mvr_files.packed(mvr_files.scene(mvr_files.layer("Rear", lost, *lights)))
    given(page, "A CSV or MVR file", "festival.mvr", content)
    sheet = page.get_by_role("dialog", name="Scene from festival.mvr")
    expect(sheet.get_by_text("503 Guest: Lantern 7, Full, 7.42, at 2.7 / 0 / 5 m")).to_be_visible()
    expect(sheet.get_by_text(re.compile("^502: .*mode Par RGBW, 5 channels → Lantern 7, Full"))).to_be_visible()
    expect(sheet.get_by_text("501 Old")).to_be_visible()
    sheet.get_by_role("button", name=re.compile("1 fixture of Lost.gdtf, 8 bit: it is not in the file")).click()
    page.get_by_role("option", name="Strobe, 2 channels", exact=True).click()
    expect(sheet.get_by_text("2 fixtures new")).to_be_visible()
    sheet.get_by_role("button", name="Those that the file does not have").click()
    page.get_by_role("option", name="are deleted").click()
    expect(sheet.get_by_text("not in the file, deleted")).to_be_visible()
    assert numbers(demo) == before
    sheet.get_by_role("button", name="Take it in").click()
    expect(sheet).to_be_hidden()
    expect(page.get_by_role("gridcell", name="503", exact=True)).to_be_visible()
    assert numbers(demo) == [9, 502, 503]
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("gridcell", name="501", exact=True)).to_be_visible()
    assert numbers(demo) == before
    with page.expect_download() as saved:
        page.get_by_role("button", name="Fixtures", exact=True).click()
        page.get_by_role("menuitem", name="Save all as MVR").click()
    given(page, "A CSV or MVR file", "again.mvr", saved.value.path().read_bytes())
    again = page.get_by_role("dialog", name="Scene from again.mvr")
    expect(again.get_by_text("Nothing would change")).to_be_visible()
    again.get_by_role("button", name="Cancel").click()


def test_what_is_no_scene_is_told(rig, demo):
    given(rig, "A CSV or MVR file", "broken.mvr", b"PK nothing of the kind")
    expect(rig.get_by_text("This is no whole MVR file")).to_be_visible()
    expect(rig.get_by_role("dialog")).to_be_hidden()


def test_a_patch_from_a_csv_file_is_matched_seen_taken_in_and_undone(rig, demo):
    page = rig
    before = numbers(demo)
    text = "Fixture ID;Type;Patch;X;Wattage\n801;Par RGBW, 5 channels;9.1;-2,5;300\n802;Par RGBW, 5 channels;9.6;2,5;300\n"
    given(page, "A CSV or MVR file", "patch.csv", text.encode())
    sheet = page.get_by_role("dialog", name="Patch from patch.csv")
    expect(sheet.get_by_role("button", name="Column Wattage is")).to_contain_text("left out")
    expect(sheet.get_by_text("2 fixtures new")).to_be_visible()
    sheet.get_by_role("button", name="Column X is").click()
    page.get_by_role("option", name="left out").click()
    expect(sheet.get_by_text("-2.5")).to_be_hidden()
    sheet.get_by_role("button", name="Column X is").click()
    page.get_by_role("option", name="x, m").click()
    sheet.get_by_role("button", name="Take it in").click()
    expect(sheet).to_be_hidden()
    until(lambda: numbers(demo) == [*before, 801, 802])
    assert [one["place"][0] for one in api(demo, "/api/rig")["fixtures"]][-2:] == [-2.5, 2.5]
    page.get_by_role("button", name="Undo").click()
    until(lambda: numbers(demo) == before)
