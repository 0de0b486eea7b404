"""An effect is baked: steps against error, the file read back, a list of cues that stays linked to it."""

import json
import re

import numpy as np
from playwright.sync_api import expect

from tests.browser.engine import api
from tests.waiting import until
from zarabanda.formats import baked, dmx_frames


def saved(page, sheet, what, path):
    sheet.get_by_role("button", name=re.compile("Write it as")).click()
    page.get_by_role("option", name=what, exact=True).click()
    with page.expect_download() as download:
        sheet.get_by_role("button", name="Save the file").click()
    download.value.save_as(path)
    return path


def test_an_effect_is_baked_and_its_files_read_back(page, demo, tmp_path):
    page.get_by_role("tab", name="Effects", exact=True).click()
    page.get_by_role("button", name=re.compile("^Tide fold")).first.click()
    page.get_by_role("img", name="Weave").wait_for()
    page.get_by_role("button", name="Tide fold: more").click()
    page.get_by_role("menuitem", name="Bake for another system").click()
    sheet = page.get_by_role("dialog", name="Bake the effect Tide fold")
    expect(sheet.get_by_text("It closes after 1 cycle, 5 s. 10 heads, 201 frames.")).to_be_visible()
    sheet.get_by_role("button", name="Steps against error of intensity").click()
    sheet.get_by_role("radio", name=re.compile("within 1 %")).click()
    told = sheet.get_by_text(re.compile(r"\d+ steps, at most [\d.]+ % off"))
    expect(told).to_be_visible()

    document = baked.read(json.loads(saved(page, sheet, "values, JSON", tmp_path / "tide.json").read_text()))
    steps = document.steps["intensity"]
    assert told.inner_text().startswith(f"{sum(len(times) for times, _ in steps.heads.values())} steps")
    assert 0 < steps.error <= 1
    assert len(document.frames["pan"]) == 201
    reader = dmx_frames.FramesReader(saved(page, sheet, "frames of universes, binary", tmp_path / "tide.frames"))
    level = [reader.frame(n)[1][0, 4] for n in range(201)]
    plain = document.at("intensity", "101", np.linspace(0, 5, 201))
    np.testing.assert_allclose(np.array(level) / 2.55, plain, atol=1.5)
    reader.close()

    sheet.get_by_role("button", name=re.compile("Make a list of")).click()
    page.get_by_role("button", name="Tide fold, steps: more").click()
    page.get_by_role("menuitem", name="Back to the effect").click()
    lists = {one["name"]: one for one in api(demo, "/api/cue-lists")["lists"]}
    until(lambda: len(api(demo, f"/api/cue-lists/{lists['Tide fold, steps']['id']}")["rows"]) == 1)
