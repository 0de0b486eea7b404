"""Debian's chromium, driven by Playwright: for pictures, measurements and tests. A development dependency."""

from __future__ import annotations

import re
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from zarabanda.errors import ZarabandaError

CHROMIUM = Path("/usr/bin/chromium")
ARGUMENTS = (
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
)  # fmt: skip
CONNECTED = re.compile("^Output: (?!Not connected)")
"""Name of the bar's output state once the page hears from the engine, however that does."""


@contextmanager
def chromium() -> Iterator[Any]:
    """A running browser."""
    try:
        from playwright.sync_api import sync_playwright
    except ImportError as error:
        raise ZarabandaError("This needs Playwright: run `make setup` first.") from error
    if not CHROMIUM.exists():
        raise ZarabandaError(f"This needs {CHROMIUM}: install Debian's package chromium.")
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=str(CHROMIUM), args=list(ARGUMENTS))
        try:
            yield browser
        finally:
            browser.close()


def open_page(browser: Any, address: str, width: int = 1280, height: int = 800) -> Any:
    """A page of the usual size, opened at an address."""
    context = browser.new_context(viewport={"width": width, "height": height}, reduced_motion="reduce")
    page = context.new_page()
    page.goto(address)
    return page
