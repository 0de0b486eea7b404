"""What is sent is recorded in the browser, and plays over everything until it is taken out."""

from playwright.sync_api import expect

from tests.browser.engine import act, api
from tests.waiting import until


def test_a_recording_is_made_plays_over_all_else_and_is_taken_out(page, demo, tmp_path):
    page.get_by_role("tab", name="Output", exact=True).click()
    page.get_by_role("tab", name="Recordings", exact=True).click()
    own = page.get_by_role("region", name="Recordings")
    expect(own.get_by_text("Nothing is recorded yet.")).to_be_visible()
    own.get_by_role("textbox", name="Name of the next one").fill("Tuesday night")
    own.get_by_role("button", name="Record what is sent").click()
    chips = page.get_by_role("contentinfo", name="Now running")
    expect(chips.get_by_text("Recording Tuesday night")).to_be_visible()
    expect(own.get_by_text("Tuesday night: 0:02", exact=False)).to_be_visible()
    own.get_by_role("button", name="End the recording").click()
    row = own.get_by_role("row", name="Tuesday night")
    expect(row).to_be_visible()

    act(demo, do="stop-all", seconds=0)
    act(demo, do="release-all", seconds=0)
    before = until(lambda: not any(demo.universe(3)["slots"])) or demo.universe(3)["slots"]
    row.get_by_role("button", name="Play Tuesday night round and round").click()
    expect(chips.get_by_text("recording · ", exact=False)).to_be_visible()
    until(lambda: any(demo.universe(3)["slots"]))
    act(demo, do="blackout", on=True)
    until(lambda: not any(demo.universe(1)["slots"][4:220:24]))
    act(demo, do="blackout", on=False)
    with page.expect_download() as download:
        row.get_by_role("button", name="Tuesday night: more").click()
        page.get_by_role("menuitem", name="Save as a file").click()
    download.value.save_as(tmp_path / "again.frames")
    row.get_by_role("button", name="Take Tuesday night out").click()
    until(lambda: not any(demo.universe(3)["slots"]))
    assert before is not None

    page.locator('input[aria-label="A file of frames"]').set_input_files(tmp_path / "again.frames")
    expect(own.get_by_role("row", name="again")).to_be_visible()
    (tmp_path / "odd.frames").write_bytes(b"no frames")
    page.locator('input[aria-label="A file of frames"]').set_input_files(tmp_path / "odd.frames")
    expect(page.get_by_text("it does not begin with ZBFRAMES", exact=False)).to_be_visible()
    assert {one["name"] for one in api(demo, "/api/recordings")["recordings"]} == {"Tuesday night", "again"}
