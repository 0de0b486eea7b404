"""A page while processes die beneath it."""

import os
import signal

import pytest
from playwright.sync_api import expect

from tests.alone.processes import children, written_down
from tests.browser.conftest import PATIENCE_MS, browser  # noqa: F401  # a fixture
from tests.browser.test_timeline import open_song, song_of, whole
from tests.told_live import live_state
from zarabanda.tools.browser import CONNECTED, open_page


@pytest.fixture
def page(browser, own_demo):  # noqa: F811
    """It may say that it has lost its socket."""
    page = open_page(browser, own_demo.address)
    page.set_default_timeout(PATIENCE_MS)
    page.get_by_role("button", name=CONNECTED).wait_for()
    yield page
    page.context.close()


def test_it_says_when_it_is_not_connected_and_comes_back(page, own_demo):
    page.evaluate("document.title = 'still here'")
    web = children(own_demo)["web"]
    os.kill(web, signal.SIGSTOP)
    os.kill(web, signal.SIGKILL)
    page.get_by_text("Not connected to Zarabanda").wait_for()
    page.get_by_role("button", name=CONNECTED).wait_for()
    page.get_by_text("Not connected to Zarabanda").wait_for(state="detached")
    assert page.title() == "still here"


def test_a_killed_engine_goes_on_with_the_song_where_it_would_be(page, own_demo):
    song = whole(own_demo, "Saltworks")
    own_demo.act(do="locate", timeline=song["id"], position=60)
    own_demo.act(do="play-song", timeline=song["id"])
    state, _ = live_state(own_demo, lambda state: song_of(state) and song_of(state)["speed"] == 1)
    began = state["t"] - song_of(state)["position"]
    written_down(own_demo, lambda entry: any(one.transport_speed == 1 for one in entry.songs))
    os.kill(children(own_demo)["engine"], signal.SIGKILL)
    later, _ = live_state(own_demo, lambda now: now["t"] > state["t"] + 1.5 and song_of(now) is not None)
    assert song_of(later)["position"] == pytest.approx(later["t"] - began, abs=0.05)
    assert song_of(later)["speed"] == 1
    open_song(page, "Saltworks")
    expect(page.get_by_role("contentinfo", name="Now running")).to_contain_text("Saltworks")
