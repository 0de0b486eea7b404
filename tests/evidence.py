"""What a red test leaves for whoever mends it, in a folder of its own: its trace, a picture of its pages, the processes' logs."""

from __future__ import annotations

import contextlib
import os
import re
import shutil
from pathlib import Path

import pytest

RESULTS = Path(os.environ.get("ZARABANDA_TEST_RESULTS", Path(__file__).parent.parent / "build" / "test-results"))
_LONGEST_NAME = 120
RED = pytest.StashKey[bool]()
"""Of a test that has failed."""


def folder_of(nodeid):
    """Where the evidence of a test lies."""
    return RESULTS / "failed" / re.sub(r"[^\w.-]+", "-", nodeid.removeprefix("tests/")).strip("-")[:_LONGEST_NAME]


@pytest.hookimpl(wrapper=True)
def pytest_runtest_makereport(item, call):
    """Keep the evidence while pages and processes are still there; where it lies is said in the report."""
    report = yield
    if report.failed:
        item.stash[RED] = True
        folder = folder_of(item.nodeid)
        folder.mkdir(parents=True, exist_ok=True)
        (folder / f"{report.when}.txt").write_text(report.longreprtext)
        for name, value in getattr(item, "funcargs", {}).items():
            with contextlib.suppress(Exception):  # whatever it is: the test's own fault is what counts
                _kept(name, value, folder)
        report.sections.append(("Evidence", str(folder)))
    return report


def _kept(name, value, folder):
    if hasattr(value, "screenshot"):
        value.screenshot(path=folder / f"{name}.png", timeout=5000)
        (folder / f"{name}.html").write_text(value.content())
        value.context.tracing.stop(path=folder / f"{name}-trace.zip")
    elif hasattr(value, "running"):
        shutil.copytree(value.running.data / "logs", folder / "logs", dirs_exist_ok=True)
