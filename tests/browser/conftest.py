"""Chromium on a running demo; any console error or warning fails the test."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from zarabanda.tools.browser import CONNECTED, chromium, open_page

pytestmark = pytest.mark.browser
expect.set_options(timeout=20_000)  # a busy machine answers late


@pytest.fixture(scope="session")
def browser():
    with chromium() as running:
        yield running


@pytest.fixture
def page(browser, demo):
    opened = open_page(browser, "about:blank")
    opened.set_default_timeout(20_000)
    said = []

    def heard(message):
        # chromium tells every refusal of the API; tests look at the page
        refused = "/api/" in message.location["url"] and re.search("status of (404|409|422)", message.text)
        if message.type in ("error", "warning") and not refused:
            said.append(message.text)

    opened.on("console", heard)
    opened.on("pageerror", lambda error: said.append(str(error)))
    opened.goto(demo.address)
    opened.get_by_role("button", name=CONNECTED).wait_for()
    yield opened
    opened.context.close()
    assert said == []
