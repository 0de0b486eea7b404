"""Shows by mouse: one is made, opened while another is on stage, saved as a file, broken and taken back from its copy."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.engine import api, live_state


@pytest.fixture
def shows(page):
    page.get_by_role("button", name=re.compile("^Shows: ")).click()
    page.get_by_role("heading", name="Shows", exact=True).wait_for()
    return page


def test_a_show_is_made_saved_broken_and_taken_back_from_its_copy(shows, demo, tmp_path):
    page = shows
    salt = page.get_by_role("list", name="Shows").get_by_role("listitem", name="Salt Light")
    expect(salt).to_contain_text("open now · 81 fixtures")
    page.get_by_role("button", name="New show").click()
    page.get_by_role("textbox", name="Name").fill("Cellar")
    page.get_by_role("button", name="It begins").click()
    page.get_by_role("option", name=re.compile("small club")).click()
    page.get_by_role("button", name="Make it").click()
    card = page.get_by_role("listitem", name="Cellar")
    expect(card).to_contain_text("never open yet · 20 fixtures")
    card.get_by_role("button", name="Open").click()
    expect(page.get_by_role("dialog")).to_contain_text("on stage. Everything of it goes out at once; Cellar begins as it opens.")
    page.get_by_role("button", name="Open Cellar").click()
    page.get_by_role("button", name="Shows: Cellar is open").wait_for()
    live_state(demo, lambda state: not state["running"] and not any(one["cue"] for one in state["lists"]))

    page.get_by_role("button", name="Shows: Cellar is open").click()
    page.get_by_role("button", name="Cellar: more").click()
    with page.expect_download() as saved:
        page.get_by_role("menuitem", name="Save as a file").click()
    assert saved.value.suggested_filename == "Cellar.zarabanda"
    saved.value.save_as(tmp_path / "Cellar.zarabanda")

    fixtures = [one["number"] for one in api(demo, "/api/rig")["fixtures"]]
    api(demo, "/api/rig/delete", {"numbers": fixtures[:10]})
    expect(page.get_by_role("listitem", name="Cellar")).to_contain_text("10 fixtures")
    with page.expect_file_chooser() as chosen:
        page.get_by_role("button", name="Take in a file").click()
    chosen.value.set_files(tmp_path / "Cellar.zarabanda")
    expect(page.get_by_role("listitem", name="Cellar")).to_have_count(2)
    with page.expect_event("load"):  # the page begins anew with another show, also of the same name
        page.get_by_role("listitem", name="Cellar").filter(has_text="20 fixtures").get_by_role("button", name="Open").click()
    page.get_by_role("button", name="Shows: Cellar is open").wait_for()
    live_state(demo, lambda state: state["revision"] and len(api(demo, "/api/rig")["fixtures"]) == 20)

    page.get_by_role("button", name="Shows: Cellar is open").click()
    salt.get_by_role("button", name="Open").click()
    page.get_by_role("button", name="Shows: Salt Light is open").wait_for()
    live_state(demo, lambda state: len(state["running"]) >= 5)
