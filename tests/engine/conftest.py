"""Loops that tests make are closed after each of them."""

import pytest

from zarabanda.engine.loop import Loop


@pytest.fixture(autouse=True)
def loops_are_closed(monkeypatch):
    made, begin = [], Loop.__init__

    def noted(loop, *arguments, **more):
        begin(loop, *arguments, **more)
        made.append(loop)

    monkeypatch.setattr(Loop, "__init__", noted)
    yield
    for loop in made:
        loop.close()
