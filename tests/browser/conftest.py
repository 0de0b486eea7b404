"""Chromium on a running demo; any console error or warning fails the test."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from tests.evidence import RED
from tests.waiting import PATIENCE_S
from zarabanda.tools.browser import CONNECTED, chromium, open_page

pytestmark = pytest.mark.browser
PATIENCE_MS = 1000 * PATIENCE_S
expect.set_options(timeout=PATIENCE_MS)
SIZE = {"width": 1280, "height": 800}


class Watched:
    """A page, and what it says of errors."""

    def __init__(self, browser):
        self.page = open_page(browser, "about:blank")
        self.page.context.tracing.start()
        self.page.set_default_timeout(PATIENCE_MS)
        self.said = []
        self.page.on("console", self._heard)
        self.page.on("pageerror", lambda error: self.said.append(str(error)))

    def _heard(self, message):
        # chromium tells every refusal of the API; tests look at the page
        refused = "/api/" in message.location["url"] and re.search("status of (404|409|422)", message.text)
        if message.type in ("error", "warning") and not refused:
            self.said.append(message.text)

    def begin(self, address):
        """Come to a demo as somebody who has never been there."""
        self.page.set_viewport_size(SIZE)
        self.said.clear()
        self.page.goto(address)
        self.page.get_by_role("button", name=CONNECTED).wait_for()

    def leave(self):
        """Leave nothing behind: neither a page that follows the demo to what others do with it, nor what it remembers."""
        self.page.evaluate("localStorage.clear(), sessionStorage.clear()")
        self.page.goto("about:blank")
        self.page.context.clear_cookies()

    def close(self):
        self.page.context.close()


@pytest.fixture(scope="session")
def browser():
    with chromium() as running:
        yield running


@pytest.fixture(scope="session")
def watched(browser):
    """The page that one test after another comes to anew: what the browser has compiled of it is kept."""
    kept = []

    def of():
        if not kept or kept[0].page.is_closed():
            kept[:] = [Watched(browser)]
        return kept[0]

    yield of
    for one in kept:
        one.close()


@pytest.fixture
def page(request, watched, demo):
    one = watched()
    one.begin(demo.address)
    yield one.page
    said = list(one.said)
    if said or request.node.stash.get(RED, False):
        one.close()  # nobody knows what it is in the middle of
    else:
        one.leave()
    assert said == []


@pytest.fixture
def opened(browser, demo):
    """Opens further pages of the demo, each of a person of its own; what they say of errors fails the test."""
    pages = []

    def open_one():
        pages.append(Watched(browser))
        pages[-1].begin(demo.address)
        return pages[-1].page

    yield open_one
    for one in pages:
        one.close()
    assert [text for one in pages for text in one.said] == []
